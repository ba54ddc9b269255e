import Link from "next/link";
import type { ReactNode } from "react";
import type { Candidate, Planned, Rack } from "@/core/rack";
import { Euro } from "../../../controls/euro";
import { ScrollRegion } from "../../../controls/scroll-region";
import { VerdictMark } from "../../../marks/verdict-mark";
import { findingText } from "../../../wording/findings";
import { pairName, triedText } from "../../../wording/gear";
import type { Units } from "../../../wording/numbers";
import { VERDICT_WORD } from "../../../wording/verdicts";
import { MOST_COMPARED } from "./compare-dialog";

const plain = (text: string): string => text.replaceAll("*", "");
const MOST_FOUND = 2;

/** What is found of the plan, the one solid press that takes what is chosen, and what it was chosen from. */
export const RackAside = ({
  jobId,
  linkId,
  rack,
  planned,
  chosen,
  isTaken,
  ticked,
  units,
  nearName,
  busy,
  take,
  compare,
  keepCsv,
  alike,
  children,
}: {
  jobId: string;
  linkId: string;
  rack: Rack;
  planned: Planned;
  chosen: Candidate | null;
  /** The design stands as the chosen one would set it. */
  isTaken: boolean;
  ticked: number;
  units: Units;
  nearName: string;
  /** Words on how far the drawing is; null when it is done. */
  busy: string | null;
  take: () => void;
  compare: () => void;
  keepCsv: () => void;
  /** The same pair on other links. */
  alike: () => void;
  /** The table of powers. */
  children: ReactNode;
}) => {
  const found = planned.found.slice(0, MOST_FOUND);
  return (
    <ScrollRegion label="Findings" className="flex flex-col border-l border-ink px-3.5 pb-3">
      {found.map((o) => (
        <section key={o.code} aria-label={VERDICT_WORD[o.verdict]} className="border-b border-rule py-2.5" data-code={o.code}>
          <h3 className={`m-0 mb-0.5 flex items-center gap-2 text-body font-heading v-${o.verdict}`}>
            <VerdictMark verdict={o.verdict} a={10} />
            {o.verdict === "clear" ? "To know" : VERDICT_WORD[o.verdict]}
          </h3>
          <p className="m-0 text-body leading-[18px]">{plain(findingText(o, units, nearName))}</p>
        </section>
      ))}
      <div className="border-b border-rule py-2.5">
        {chosen === null ? (
          <p className="m-0 text-body">Nothing of the catalogue can be taken. Loosen a limit, or see what each lacks below the rack.</p>
        ) : (
          <button type="button" className="main-action w-full text-left" disabled={isTaken} onClick={take}>
            {isTaken ? `${pairName(chosen.pair)} is planned` : `Take ${pairName(chosen.pair)}`}
          </button>
        )}
        {chosen !== null && (
          <p className="cap m-0 mt-1 flex justify-between">
            <span>both ends</span>
            <span className="figure">
              <Euro of={chosen.priceEur} />
            </span>
          </p>
        )}
        {chosen !== null && (
          <p className="m-0 mt-2">
            <button type="button" className="press min-h-6 text-body" onClick={alike}>
              On other links too
            </button>
          </p>
        )}
        <p className="m-0 mt-2 flex justify-between gap-2">
          <button type="button" className="press text-body" disabled={ticked < 2} onClick={compare}>
            Compare the ticked
          </button>
          <span className="cap">
            {ticked} of {MOST_COMPARED}
          </span>
        </p>
      </div>
      {children}
      <div className="py-2.5">
        <p className="cap m-0" data-testid="counts" role="status">
          {triedText(rack)}
          {busy === null ? "" : ` ${busy}`}
        </p>
        <p className="m-0 mt-2 flex flex-wrap gap-x-4 gap-y-1">
          <button type="button" className="press min-h-6 text-body" onClick={keepCsv}>
            As CSV
          </button>
          <Link prefetch={false} href={`/jobs/${jobId}/gear`} className="press inline-flex min-h-6 items-center text-ink no-underline">
            The catalogue
          </Link>
          <Link
            prefetch={false}
            href={`/jobs/${jobId}/section/${linkId}`}
            className="press inline-flex min-h-6 items-center text-ink no-underline"
          >
            Section
          </Link>
        </p>
        <p className="cap m-0 mt-2">
          Prices are those of the data sheets, supplies included, brackets and cable not. Rules are a planning aid: the regulator decides.
        </p>
      </div>
    </ScrollRegion>
  );
};
