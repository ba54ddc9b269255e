import Link from "next/link";
import type { LinkVerdict } from "@/contract";
import type { Verdict } from "@/core/link";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";

type InAir = NonNullable<LinkVerdict["inAir"]>;

/** What others' radios make of a link on its channel, in a sentence. */
export const airSentence = (a: InAir, code: string): string => {
  const rise = Math.max(...a.riseDb);
  const share = Math.max(...a.hitShare);
  const who = a.loudest ?? "somebody";
  switch (code) {
    case "air-blinded":
      return `On one mast with it ${who} leaves its receiver nothing while it sends: noise up by ${figure(rise)} dB, ${figure(share * 100)} % of the time.`;
    case "air-noise":
      return `${who} lifts the noise at the ${a.worstEnd} end by ${figure(rise)} dB for ${figure(share * 100)} % of the time: what is left is not enough.`;
    case "air-turns":
      return `It takes turns with ${a.sharesWith.join(", ")}: ${Number.isFinite(a.asked) ? figure((a.asked + a.waits) * 100) : "more than 100"} % of the usable air is asked.`;
    case "air-bursts":
      return `Voice or control passes it, and while others send it does not carry what is asked.`;
    case "air-isolation":
      return "It holds only while the isolation on its mast is as estimated; 10 dB less and it does not. Measure it on the visit.";
    case "air-unlike":
      return `Its ends are on unlike channels: the sector it hangs on is set to ${figure(a.unlike ?? 0)} MHz.`;
    case "air-across":
      return `Its channel lies over two rows of the rules, at ${figure(a.acrossMhz ?? 0)} MHz: the lower limits and both duties hold.`;
    default:
      return `The scan it rests on is ${figure(a.oldScanDays ?? 0)} days old on the day of the visit. Scan again.`;
  }
};

/** What others' radios make of a link that is better by itself, with the way to what mends it. */
export const AirFinding = ({ jobId, inAir, verdict, code }: { jobId: string; inAir: InAir; verdict: Verdict; code: string }) => (
  <section aria-label={VERDICT_WORD[verdict]} className="border-b border-rule py-2.5" data-code={code}>
    <h3 className={`m-0 mb-0.5 flex items-center gap-2 text-body font-heading v-${verdict}`}>
      <VerdictMark verdict={verdict} a={10} />
      {VERDICT_WORD[verdict]}
    </h3>
    <p className="m-0 text-body leading-[18px]">{airSentence(inAir, code)}</p>
    <p className="m-0 mt-1.5">
      <Link className="press min-h-6 text-body leading-6" href={`/jobs/${jobId}/air`}>
        Its channel, and what mends it
      </Link>
    </p>
  </section>
);
