"use client";
import { Fragment, type ReactNode, useEffect, useRef, useState } from "react";
import type { Explanation, Finding } from "@/core/link";
import { PreviewButton, type Taking } from "../../controls/preview-button";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { findingText, mendText } from "../../wording/findings";
import type { Units } from "../../wording/numbers";
import { explanationLine } from "../../wording/terms";
import { VERDICT_WORD } from "../../wording/verdicts";

const MOST = 4;
const MOST_MENDS = 3;

const Strong = ({ text }: { text: string }) => (
  <>
    {text.split("*").map((part, i) => (
      <Fragment key={i}>{i % 2 === 1 ? <strong className="font-heading">{part}</strong> : part}</Fragment>
    ))}
  </>
);

/** Which findings stand on which explanation. */
const RESTS: Readonly<Record<string, readonly string[]>> = {
  clearance: ["short", "blocked-no-height", "unsure", "little-spare", "clear", "grows"],
  reflection: ["reflection"],
  noise: ["too-weak", "thin-margin"],
  exposure: ["exposure"],
};

const RestsOn = ({ rests, units }: { rests: readonly Explanation[]; units: Units }) =>
  rests.length === 0 ? null : (
    <details className="mt-1">
      <summary className="min-h-6 cursor-pointer text-note leading-6 text-ink-2">What it rests on</summary>
      {rests.map((e) => (
        <p key={e.id} className="cap mb-1 mt-0">
          {explanationLine(e, units)}
        </p>
      ))}
    </details>
  );

/** At most four findings, worst first, each with what would mend it; the rest on demand. */
export const FindingsColumn = ({
  findings,
  units,
  nearName,
  apply,
  preview,
  lookedAt,
  restsOn,
  start,
  chain,
  ways,
}: {
  findings: readonly Finding[];
  units: Units;
  nearName: string;
  lookedAt: string;
  /** Said of a design that nobody has touched yet; null once somebody has. */
  start: ReactNode;
  /** What the network of the job makes of the link; null for nothing worse than what is found here. */
  chain: ReactNode;
  /** What a finding leads to beside its mends. */
  ways: (code: string) => ReactNode;
  /** Where the figures come from that have no column of their own on the level line. */
  restsOn: readonly Explanation[];
} & Taking) => {
  const [all, setAll] = useState(false);
  // A mend that was taken goes with its finding: the keys stay in this column.
  const region = useRef<HTMLElement>(null);
  const taken = useRef(false);
  const take: Taking["apply"] = (action) => {
    taken.current = true;
    apply(action);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at whenever other findings stand here
  useEffect(() => {
    if (taken.current && document.activeElement === document.body) region.current?.focus({ preventScroll: true });
  }, [findings]);
  const shown = all ? findings : findings.slice(0, MOST);
  return (
    <ScrollRegion ref={region} label="Findings" className="flex flex-1 flex-col px-3.5 pb-2" data-testid="findings">
      {start}
      {chain}
      {shown.map((f, i) => (
        <section key={`${f.code}-${i}`} aria-label={VERDICT_WORD[f.verdict]} className="border-b border-rule py-2.5" data-code={f.code}>
          {(i === 0 || shown[i - 1]!.verdict !== f.verdict) && (
            <h3 className={`m-0 mb-0.5 flex items-center gap-2 text-body font-heading v-${f.verdict}`}>
              <VerdictMark verdict={f.verdict} a={10} />
              {f.verdict === "clear" ? "To know" : VERDICT_WORD[f.verdict]}
            </h3>
          )}
          <p className="m-0 text-body leading-[18px]" style={{ textWrap: "pretty" }}>
            <Strong text={findingText(f, units, nearName)} />
          </p>
          {f.mends.slice(0, MOST_MENDS).map((m) => {
            const words = mendText(m, units);
            return (
              <div key={`${m.code}-${m.amount}`} className="mt-1.5" data-mend={m.code}>
                {m.action === null ? (
                  <span className="text-body text-ink-2">{words.words}</span>
                ) : (
                  <PreviewButton action={m.action} apply={take} preview={preview} className="text-body">
                    {words.words}
                  </PreviewButton>
                )}
                <div className="cap flex flex-wrap justify-between gap-x-2">
                  <span>
                    {m.beyondStructure
                      ? "above what the structure carries"
                      : m.code === "trim"
                        ? `owner's consent first${m.removal === true ? "; over a third of it: plan its removal" : ""}`
                        : ""}
                  </span>
                  <span>{words.amount}</span>
                </div>
              </div>
            );
          })}
          {f.mends.some((m) => m.code === "trim" || m.code === "trim-several") && (
            <p className="cap m-0 mt-1">Cutting trees: consent, protection and nesting first; near lines only by qualified people.</p>
          )}
          {ways(f.code)}
          <RestsOn rests={restsOn.filter((e) => RESTS[e.id]?.includes(f.code) === true)} units={units} />
        </section>
      ))}
      {findings.length > MOST && (
        <button type="button" className="press mt-2 self-start" onClick={() => setAll(!all)}>
          {all ? "Fewer" : `${findings.length - MOST} more`}
        </button>
      )}
      <p className="cap m-0 mt-2">{lookedAt}</p>
      {restsOn.length > 0 && (
        <details className="mt-2">
          <summary className="min-h-6 cursor-pointer text-line leading-6">What the figures rest on</summary>
          {restsOn.map((e) => (
            <p key={e.id} className="cap mb-2 mt-0" data-rests={e.id}>
              {explanationLine(e, units)}
            </p>
          ))}
        </details>
      )}
    </ScrollRegion>
  );
};
