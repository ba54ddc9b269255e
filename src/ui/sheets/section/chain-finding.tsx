import Link from "next/link";
import type { LinkVerdict } from "@/contract";
import { VerdictMark } from "../../marks/verdict-mark";
import { VERDICT_WORD } from "../../wording/verdicts";

type Chain = NonNullable<LinkVerdict["chain"]>;

const WORDS: Readonly<Record<Chain["code"], string>> = {
  "air-over": "By itself it holds, yet all that passes it at the worst moment is more than its air carries.",
  "sector-over": "By itself it holds, yet the remotes of its sector ask together for more than the sector's air carries.",
  "port-over": "By itself it holds, yet a port at one of its ends is too slow for all that passes it.",
  "feed-over": "By itself it holds, yet the feed behind it is too slow for all that hangs on it.",
  "chain-over": "By itself it holds, yet a place between it and the feed is too narrow for all that passes.",
};

/** What the network makes of a link that is better by itself. */
export const ChainFinding = ({ jobId, chain }: { jobId: string; chain: Chain }) => (
  <section aria-label={VERDICT_WORD[chain.verdict]} className="border-b border-rule py-2.5" data-code={chain.code}>
    <h3 className={`m-0 mb-0.5 flex items-center gap-2 text-body font-heading v-${chain.verdict}`}>
      <VerdictMark verdict={chain.verdict} a={10} />
      {VERDICT_WORD[chain.verdict]}
    </h3>
    <p className="m-0 text-body leading-[18px]">{WORDS[chain.code]}</p>
    <p className="m-0 mt-1.5 flex flex-wrap gap-x-4 gap-y-2">
      <Link className="press min-h-6 text-body leading-6" href={`/jobs/${jobId}/load`}>
        What it is, and what mends it
      </Link>
      {chain.code === "sector-over" && (
        <Link className="press min-h-6 text-body leading-6" href={`/jobs/${jobId}/hub`}>
          Its hub
        </Link>
      )}
    </p>
  </section>
);
