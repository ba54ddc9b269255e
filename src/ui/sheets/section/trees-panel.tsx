"use client";
import type { DesignAction } from "@/core/link";
import type { Outlook } from "@/core/solve";
import type { SolveWorker, TreesReply } from "@/workers/messages";
import { PreviewButton, type Taking } from "../../controls/preview-button";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure, lengthText, type Units } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { Evaluation } from "./use-evaluation";
import { useWorkerAnswer } from "./use-worker-answer";

/** Until when the policy is met as planned, and until when that is sure: the same as the table beneath says. */
export const untilWords = (o: Pick<Outlook, "clearUntilYear" | "sureUntilYear" | "holds">): string => {
  if (o.clearUntilYear === null) return "Not clear this year.";
  const sure =
    o.sureUntilYear === o.clearUntilYear
      ? ""
      : o.sureUntilYear === null
        ? "; fewer than 9 cases of 10 already today"
        : `; in 9 cases of 10 until ${o.sureUntilYear}`;
  return o.holds ? `Met as far as ${o.clearUntilYear}, the last year looked at${sure}.` : `Met until ${o.clearUntilYear}${sure}.`;
};

/** Until when it is clear, year by year, and what would have to come off which tree. */
export const TreesPanel = ({
  evaluation,
  units,
  shownYear,
  showYear,
  apply,
  preview,
}: {
  evaluation: Evaluation;
  units: Units;
  shownYear: number;
  showYear: (year: number) => void;
} & Taking) => {
  const solved = useWorkerAnswer<SolveWorker, TreesReply>("/workers/solve.worker.js", evaluation, async (remote, plan) =>
    remote.trees({ plan }),
  );
  if (solved === null) return <p className="cap m-0 px-5 py-3">Following the trees through the years.</p>;
  if (solved === "failed") return <p className="m-0 px-5 py-3">The years could not be worked out for this design.</p>;
  const { outlook, list } = solved.reply;
  const { plan } = evaluation;
  const cuts = Object.keys(plan.trims).length;
  const untilText = untilWords(outlook);
  const all: DesignAction = { type: "trims", trimsM: list.trims };
  return (
    <div className="grid h-full min-h-0 grid-cols-[1fr_1fr] gap-5 px-5 pb-2">
      <ScrollRegion label="Years" className="">
        <p className="m-0 text-body">
          <strong data-testid="clear-until">{untilText}</strong>{" "}
          {outlook.surveyAgainYear === null
            ? "Nothing that grows stands near the ray."
            : outlook.surveyAgainYear <= plan.policy.year
              ? "Measure what grows this season."
              : `Measure what grows again in the season of ${outlook.surveyAgainYear}.`}
        </p>
        <table className="mt-1 w-full border-collapse text-line">
          <thead>
            <tr className="text-left text-label text-ink-2 [&>th]:font-normal">
              <th scope="col">Year</th>
              <th scope="col">Verdict</th>
              <th scope="col">Room</th>
              <th scope="col">Clear in</th>
              <th scope="col">Nearest</th>
            </tr>
          </thead>
          <tbody>
            {outlook.years.map((y) => (
              <tr key={y.year} className={`border-t border-rule ${y.year === shownYear ? "bg-band" : ""}`}>
                <td>
                  <button
                    type="button"
                    className="press min-h-6 font-mono text-line"
                    aria-pressed={y.year === shownYear}
                    onClick={() => showYear(y.year)}
                  >
                    {y.year}
                  </button>
                </td>
                <td className={`v-${y.verdict} whitespace-nowrap`}>
                  <VerdictMark verdict={y.verdict} a={6} /> {VERDICT_WORD[y.verdict]}
                </td>
                <td className="whitespace-nowrap">
                  {y.worst === null
                    ? "not known"
                    : y.worst.missM > 0.0005
                      ? `${lengthText(units, y.worst.missM)} short`
                      : `${lengthText(units, -y.worst.missM)} spare`}
                </td>
                <td>{y.chance === null ? "" : `${figure(y.chance * 100)} %`}</td>
                <td className="max-w-[110px] truncate">{y.worst?.ownerName ?? (y.worst?.owner.kind === "ground" ? "ground" : "")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
      <ScrollRegion label="Trim list" className="text-line">
        <h3 className="m-0 text-body font-bold">To cut, so that it is clear until {list.year}</h3>
        {list.rows.length === 0 ? (
          <p className="m-0">No tree stands in the zone by {list.year}.</p>
        ) : (
          <>
            {list.rows.map((r) => {
              const one: DesignAction = { type: "trim", bodyId: r.bodyId, heightM: r.toM };
              return (
                <div key={r.bodyId} className="border-b border-rule py-1">
                  <PreviewButton action={one} apply={apply} preview={preview}>
                    {r.toM === 0 ? `Take out ${r.name}` : `${r.name}: ${lengthText(units, r.offM)} off, to ${lengthText(units, r.toM)}`}
                  </PreviewButton>
                  <div className="cap">
                    now {lengthText(units, r.nowM)}, grows {lengthText(units, r.growthMPerYear)} a year; today{" "}
                    {r.toTodayM >= r.nowM ? "no cut is needed" : `${lengthText(units, r.nowM - r.toTodayM)} off would do`}
                    {r.removal && r.toM > 0 ? "; more than a third of it: plan its removal" : ""}
                  </div>
                </div>
              );
            })}
            {list.rows.length > 1 && (
              <PreviewButton action={all} apply={apply} preview={preview} className="mt-1 text-line">
                Plan all of it
              </PreviewButton>
            )}
            {!list.enough && list.left !== null && (
              <p className="m-0 mt-1 text-short-figure">
                Not enough by itself: {list.left.ownerName ?? "the ground"} still lacks {lengthText(units, Math.max(0, list.left.missM))}.
              </p>
            )}
          </>
        )}
        {cuts > 0 && (
          <button type="button" className="press mt-1 block text-line" onClick={() => apply({ type: "trims", trimsM: {} })}>
            Plan no cutting at all
          </button>
        )}
        <p className="cap m-0 mt-1.5">
          Before any cut: the owner's written consent, protection orders and local rules, no nesting birds. Keep the drop zone clear; near
          power lines only the line's operator. By qualified people.
        </p>
      </ScrollRegion>
    </div>
  );
};
