"use client";
import { useMemo, useState } from "react";
import type { JobBundle, RoofDto, RoofEnd } from "@/contract";
import { type End, type EndStands, otherEnd, replayRoof, type StepId, type StepStands, writtenAtMs } from "@/core/roof";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { type RoofJobLog, type Written, writeDown } from "../../state/browser-roof";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { bearingText } from "../../wording/numbers";
import { entryText, LOCK_WORDS, REFUSAL_WORDS, STEP_WORDS, waitsText } from "../../wording/roof";
import { AimButtons } from "./aim-view";
import { StepBody } from "./step-body";
import { LiftForm, StopForm } from "./stop-forms";

export interface EndView {
  readonly job: JobBundle;
  readonly facts: RoofDto;
  readonly end: End;
  readonly own: RoofEnd;
  readonly other: RoofEnd;
  readonly stands: EndStands;
  readonly otherStands: EndStands;
  readonly by: string;
  readonly write: (...entries: Omit<Written, "end">[]) => Promise<void>;
  readonly busy: boolean;
}

const timeText = (ms: number): string => new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** Steps in one line: done, here, open, locked. */
const Progress = ({ steps, at }: { steps: readonly StepStands[]; at: StepId | null }) => (
  <svg viewBox={`0 0 ${steps.length * 24} 20`} className="block h-5 w-full" preserveAspectRatio="none" aria-hidden="true">
    {steps.map((s, i) => (
      <g key={s.id} transform={`translate(${i * 24 + 1} 1)`}>
        <rect width={21} height={17} fill={s.state === "done" ? "currentColor" : "none"} stroke="currentColor" strokeWidth={1.6} />
        {s.id === at && <rect x={6} y={6} width={9} height={5} fill={s.state === "done" ? "var(--paper)" : "currentColor"} />}
        {s.state === "locked" && s.id !== at && <path d="M1 16L20 1" stroke="currentColor" strokeWidth={1.2} />}
      </g>
    ))}
  </svg>
);

/** The work at one end: what is done folded, one step open, what is locked behind its bar. */
export const EndWork = ({
  job,
  facts,
  end,
  by,
  away,
  log,
  leave,
  show,
}: {
  job: JobBundle;
  facts: RoofDto;
  end: End;
  by: string;
  away: boolean;
  log: RoofJobLog;
  leave: () => void;
  show: (end: End) => void;
}) => {
  const { units } = usePreferences();
  const entries = log.of(facts.link.id);
  const [own, other] = end === "near" ? [facts.ends[0], facts.ends[1]] : [facts.ends[1], facts.ends[0]];
  const all = useMemo(
    () => replayRoof({ near: { turns: facts.ends[0].azimuth !== null }, far: { turns: facts.ends[1].azimuth !== null } }, entries),
    [facts, entries],
  );
  const [stands, otherStands] = [all[end], all[otherEnd(end)]];
  const writing = useSubmit(units);
  const [chosen, choose] = useState<StepId | null>(null);
  const [stopping, setStopping] = useState(false);
  const [folded, setFolded] = useState(true);
  const first = stands.steps.find((s) => s.state === "open")?.id ?? null;
  const openStep = stands.steps.find((s) => s.id === chosen && s.state !== "locked") ?? stands.steps.find((s) => s.id === first) ?? null;
  const write = async (...made: Omit<Written, "end">[]): Promise<void> => {
    await writing.run(async () => {
      try {
        for (const e of made) await writeDown(job.job.id, facts.link.id, entries, by, { end, ...e });
      } catch {
        // Nothing is ticked that the disk does not have.
        writing.say("This phone could not keep it: nothing was ticked. Write it on paper, and make room on the phone.");
      }
    });
  };
  const view: EndView = { job, facts, end, own, other, stands, otherStands, by, write, busy: writing.busy };
  const aiming = openStep?.id === "azimuth" || openStep?.id === "tilt" ? openStep.id : null;
  const done = stands.steps.filter((s) => s.state === "done" && s.id !== openStep?.id);
  const rest = stands.steps.filter((s) => s.state !== "done" && s.id !== openStep?.id);
  const at = openStep === null ? stands.steps.length : stands.steps.indexOf(openStep) + 1;
  const refused = all.refused.filter((r) => r.entry.end === end);
  // The bar of the next lock: the first locked step that has one.
  const bar = rest.find((s) => s.state === "locked" && LOCK_WORDS[s.id] !== undefined)?.id ?? null;
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="border-b-[2.4px] border-ink px-4 py-2">
        <div className="flex items-baseline justify-between gap-3">
          <h1 className="m-0 text-name font-heading">
            {own.name}, {end === "near" ? "A" : "B"}
          </h1>
          <button type="button" className="press text-press" onClick={leave}>
            All ends
          </button>
        </div>
        <p className="m-0 text-press">
          to {other.name}: {bearingText(own.lookDeg)} true, {bearingText(own.lookDeg - own.declinationDeg + 360)} magnetic
        </p>
      </header>
      {stands.stop !== null ? (
        <LiftForm stop={stands.stop} view={view} />
      ) : (
        <>
          {!aiming && (
            <div className="border-b-[1.6px] border-ink px-4 py-2">
              <Progress steps={stands.steps} at={openStep?.id ?? null} />
            </div>
          )}
          {otherStands.stop !== null && (
            <p role="alert" className="m-0 border-b-[2.4px] border-ink px-4 py-2 font-figure">
              {other.name} is stopped by {otherStands.stop.by}: {otherStands.stop.words}. Hands off, ask before you go on.
            </p>
          )}
          {stands.fellDb !== null && (
            <p role="alert" className="m-0 border-b-[2.4px] border-ink px-4 py-2 font-figure" data-testid="moved">
              It moved by {stands.fellDb.toFixed(1)} dB while it was tightened. Loosen, find the peak again, tighten.
            </p>
          )}
          {done.length > 0 && !aiming && (
            <div className="border-b-[1.6px] border-ink">
              <button
                type="button"
                className="flex min-h-12 w-full items-center justify-between px-4 text-left"
                aria-expanded={!folded}
                onClick={() => setFolded(!folded)}
              >
                <span>
                  <span aria-hidden="true" className="mr-3 inline-block bg-ink px-1.5 text-paper">
                    ✓
                  </span>
                  {done.length} done
                </span>
                <span className="text-press">{folded ? "show" : "hide"}</span>
              </button>
              {!folded && (
                <ol className="m-0 list-none px-4 pb-2">
                  {done.map((s) => (
                    <li key={s.id} className="border-t border-rule">
                      <button
                        type="button"
                        className="flex min-h-12 w-full items-center justify-between text-left"
                        onClick={() => choose(s.id)}
                      >
                        <span>{STEP_WORDS[s.id][0]}</span>
                        <span className="text-press">
                          {s.done === null ? "" : `${s.done.by === "" ? "" : `${s.done.by}, `}${timeText(writtenAtMs(s.done))}`}
                        </span>
                      </button>
                    </li>
                  ))}
                </ol>
              )}
            </div>
          )}
          <main className="flex-1">
            {openStep === null ? (
              <p className="m-0 px-4 py-4 text-title font-heading">This end is done.</p>
            ) : (
              <StepBody key={openStep.id} view={view} step={openStep} number={at} />
            )}
            <FormTrouble of={writing} />
          </main>
          {aiming !== null && (
            <button
              type="button"
              className="flex min-h-12 w-full items-center border-b border-rule px-4 text-left"
              onClick={() => choose(chosen === "coarse" ? null : "coarse")}
            >
              Back to the coarse aim
            </button>
          )}
          <ol className="m-0 list-none p-0" aria-label="Still to come">
            {rest.map((s) => (
              <li key={s.id}>
                {s.id === bar && (
                  <p className="m-0 border-y-[2.4px] border-ink bg-[repeating-linear-gradient(135deg,var(--ink)_0_1.4px,transparent_1.4px_7px)] p-2">
                    <b className="block border-2 border-ink bg-paper px-2 py-1 text-center">{LOCK_WORDS[s.id]}</b>
                  </p>
                )}
                <button
                  type="button"
                  disabled={s.state === "locked"}
                  className="flex min-h-12 w-full items-center justify-between gap-3 border-b border-rule px-4 text-left disabled:cursor-not-allowed"
                  onClick={() => choose(s.id)}
                >
                  <span className="flex-none">
                    {stands.steps.indexOf(s) + 1} {STEP_WORDS[s.id][0]}
                  </span>
                  <span className="text-right text-press leading-5">
                    {waitsText(s.waitsFor.map((w) => stands.steps.findIndex((x) => x.id === w) + 1))}
                  </span>
                </button>
              </li>
            ))}
          </ol>
        </>
      )}
      {refused.length > 0 && (
        <section aria-label="Counts for nothing" className="border-b-[1.6px] border-ink px-4 py-2" data-testid="refused">
          <p className="m-0 font-figure">Written down, and counts for nothing:</p>
          {refused.slice(-5).map((r) => (
            <p key={r.entry.id} className="m-0 text-press">
              {timeText(writtenAtMs(r.entry))}, {r.entry.by}: {entryText(r.entry)}; {REFUSAL_WORDS[r.why]}
            </p>
          ))}
        </section>
      )}
      {log.refused.map((l) => (
        <p key={l.id} role="alert" className="m-0 px-4 py-1 text-press">
          The server did not take “{entryText(l.entry)}”: {l.refused === null ? "" : errorSentence(l.refused)} It is kept here.
        </p>
      ))}
      <WrittenDown end={end} accepted={all.accepted} />
      <div className="px-4 py-1 text-press">
        <button type="button" className="press min-h-12" onClick={() => show(otherEnd(end))}>
          Look at {other.name}
        </button>
      </div>
      <footer className="sticky bottom-0 border-t-[2.4px] border-ink bg-paper">
        <p role="status" className="m-0 px-4 py-1 text-press" data-testid="kept">
          {log.unsent === 0
            ? "All sent."
            : `Kept on this phone; ${log.unsent} ${log.unsent === 1 ? "entry waits" : "entries wait"} for coverage.`}
          {away && log.unsent === 0 ? " No coverage." : ""}
        </p>
        {stands.stop === null &&
          (stopping ? (
            <StopForm view={view} leave={() => setStopping(false)} />
          ) : (
            <div className="flex items-stretch border-t border-ink">
              {aiming !== null && openStep?.state !== "done" && <AimButtons view={view} axis={aiming} />}
              <button
                type="button"
                className={`min-h-[56px] font-heading ${aiming === null ? "w-full" : "flex-1 border-l border-ink leading-5"}`}
                onClick={() => setStopping(true)}
              >
                Stop, unsafe
              </button>
            </div>
          ))}
      </footer>
    </div>
  );
};

const SHOWN = 6;
/** What was written down of this end, the newest first. */
const WrittenDown = ({ end, accepted }: { end: End; accepted: readonly { readonly end: End }[] }) => {
  const [whole, setWhole] = useState(false);
  const own = (accepted as Parameters<typeof entryText>[0][]).filter((e) => e.end === end).reverse();
  if (own.length === 0) return null;
  return (
    <details className="border-b border-rule px-4">
      <summary className="min-h-12 cursor-pointer py-3 text-press">{own.length} written down</summary>
      <ul className="m-0 list-none p-0 pb-2 text-press">
        {(whole ? own : own.slice(0, SHOWN)).map((e) => (
          <li key={e.id}>
            {timeText(writtenAtMs(e))}, {e.by}: {entryText(e)}
          </li>
        ))}
      </ul>
      {own.length > SHOWN && !whole && (
        <button type="button" className="press min-h-12" onClick={() => setWhole(true)}>
          All of it
        </button>
      )}
    </details>
  );
};
