"use client";
import { useState } from "react";
import type { DesignFields } from "@/contract";
import type { DesignAction } from "@/core/link";
import { heightsWithoutNull, NULL_BELOW_DB } from "@/core/solve";
import type { SolveWorker, WaterReply } from "@/workers/messages";
import { PreviewButton, type Taking } from "../../controls/preview-button";
import { ScrollRegion } from "../../controls/scroll-region";
import { NullChart } from "../../drawing/null-chart";
import { lengthIn, lengthText, lengthUnit, signed, type Units } from "../../wording/numbers";
import type { Evaluation } from "./use-evaluation";
import { useWorkerAnswer } from "./use-worker-answer";

const LIST_PX = 250;

/** The ray off the water: level over the tide now, and the heights of either mount that avoid a null. */
export const WaterPanel = ({
  evaluation,
  design,
  width,
  height,
  units,
  apply,
  preview,
}: {
  evaluation: Evaluation;
  design: DesignFields;
  width: number;
  height: number;
  units: Units;
} & Taking) => {
  const [end, setEnd] = useState<"near" | "far">("far");
  const solved = useWorkerAnswer<SolveWorker, WaterReply>("/workers/solve.worker.js", evaluation, async (remote, plan) =>
    remote.water({ plan }),
  );
  if (solved === null) return <p className="cap m-0 px-5 py-3">Working out the ray off the water.</p>;
  if (solved === "failed") return <p className="m-0 px-5 py-3">The reflection could not be worked out for this design.</p>;
  const { tide } = solved.reply;
  const levels = solved.reply[end];
  if (tide === null && levels.every((l) => l.worstDb === null)) {
    return (
      <p className="m-0 px-5 py-3">
        No level water or ground under this path throws a second ray into the far antenna, or what stands before it hides it. The surface is
        named in the basis of the job.
      </p>
    );
  }
  const unit = lengthUnit(units);
  const chart = Math.max(220, (width - LIST_PX - 30) / 2);
  const good = heightsWithoutNull(levels)
    .filter((g) => levels.some((l) => l.worstDb !== null && l.aglM >= g.fromM && l.aglM <= g.toM))
    .sort((a, b) => b.worstDb - a.worstDb)
    .slice(0, 5)
    .sort((a, b) => a.bestAglM - b.bestAglM);
  const name = evaluation.plan[end].name;
  const nowAglM = end === "near" ? design.nearMountAglM : design.farMountAglM;
  return (
    <div className="flex h-full min-h-0 gap-3 px-3">
      {tide !== null && tide.water.tideRangeM > 0 ? (
        <NullChart
          title="Over the tide, mounts as they are"
          label={`tide about its mean, ${unit}; dB against the direct ray`}
          points={tide.levels.map((l) => ({ at: lengthIn(units, l.tideM), db: l.relativeDb }))}
          now={0}
          nullBelowDb={NULL_BELOW_DB}
          width={chart}
          height={height}
        />
      ) : (
        <p className="cap m-0" style={{ width: chart }}>
          {tide === null ? "At the present heights no second ray arrives." : "This water has no tide."}
        </p>
      )}
      <NullChart
        title="Weakest over the tide, by height"
        label={`${name}, ${unit} above ground`}
        points={levels.map((l) => ({ at: lengthIn(units, l.aglM), db: l.worstDb }))}
        now={lengthIn(units, nowAglM)}
        nullBelowDb={NULL_BELOW_DB}
        width={chart}
        height={height}
      />
      <ScrollRegion label="Heights without a null" className="min-w-0 flex-1 pb-2 text-line">
        <button type="button" className="press text-line" onClick={() => setEnd(end === "far" ? "near" : "far")}>
          Look at {end === "far" ? evaluation.plan.near.name : evaluation.plan.far.name} instead
        </button>
        {good.length === 0 && (
          <p className="m-0 mt-1">Every height looked at falls into a null at some tide. Another spot that hides the water mends it.</p>
        )}
        {good.map((g) => {
          const action: DesignAction = { type: "mount", end, mountAglM: Math.round(g.bestAglM * 10) / 10 };
          return (
            <div key={g.bestAglM} className="mt-1.5">
              <PreviewButton action={action} apply={apply} preview={preview}>
                Set {name} to {lengthText(units, action.mountAglM)}
              </PreviewButton>
              <div className="cap">
                weakest {signed(g.worstDb, 1)} dB; no null from {lengthText(units, g.fromM)} to {lengthText(units, g.toM)}
              </div>
            </div>
          );
        })}
        <p className="cap m-0 mt-1">Heights above the water must be measured: a quarter of a stretch off and it is another tide's null.</p>
      </ScrollRegion>
    </div>
  );
};
