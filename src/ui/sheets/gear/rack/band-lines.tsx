import type { Verdict } from "@/core/link";
import { keptMultipleOf, type Rack, serves } from "@/core/rack";
import { VerdictMark } from "../../../marks/verdict-mark";
import { bandSentence, bandText } from "../../../wording/gear";
import type { Units } from "../../../wording/numbers";

/** How a band stands: its mark is that of its best candidate. */
const markOf = (best: Rack["bands"][number]["best"]): Verdict => {
  if (best === null) return "unknown";
  if (best.refusal !== null) return best.refusal.code === "permission" || best.option === null ? "unknown" : "short";
  if (best.clearance?.verdict === "short") return "short";
  return serves(best) ? (best.clearance?.verdict === "unknown" ? "unknown" : "clear") : "tight";
};

/** One sentence a band, in the words of an installer. */
export const BandLines = ({ rack, yearPercent, units }: { rack: Rack; yearPercent: number; units: Units }) => (
  <section aria-label="Each band in a sentence" className="mt-2 border-t border-ink px-4 pb-3 pt-2">
    <h2 className="m-0 pb-1 text-body font-bold">Each band in a sentence</h2>
    <ul className="m-0 grid list-none gap-x-8 p-0 min-[1100px]:grid-cols-2">
      {rack.bands.map(({ band, best }) => {
        const mark = markOf(best);
        return (
          <li key={band} className="flex items-start gap-2 py-[3px] text-line" data-band={band}>
            <VerdictMark verdict={mark} a={8} />
            <span className={`w-[72px] flex-none font-figure v-${mark}`}>{bandText(band)}</span>
            <span>
              {best === null
                ? "nothing in the catalogue."
                : bandSentence(best, serves(best), rack.needMbps, keptMultipleOf(best) * rack.needMbps, yearPercent, units)}
            </span>
          </li>
        );
      })}
    </ul>
  </section>
);
