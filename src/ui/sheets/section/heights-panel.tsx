"use client";
import type { ComponentProps } from "react";
import type { DesignFields } from "@/contract";
import type { DesignAction } from "@/core/link";
import type { HeightAnswer } from "@/core/solve";
import type { HeightsReply, SolveWorker } from "@/workers/messages";
import { PreviewButton, type Taking } from "../../controls/preview-button";
import { ScrollRegion } from "../../controls/scroll-region";
import { HeightsDrawing } from "../../drawing/heights-drawing";
import { figure, lengthIn, lengthText, lengthUnit, signed, type Units } from "../../wording/numbers";
import type { Evaluation } from "./use-evaluation";
import { useWorkerAnswer } from "./use-worker-answer";

const ANSWERS_PX = 330;

/** How high: all pairs that work, to drag along, and the single answers with what they cost. */
export const HeightsPanel = ({
  evaluation,
  design,
  costs,
  width,
  height,
  units,
  onBegin,
  onEnd,
  onMounts,
  onNudge,
  apply,
  preview,
}: {
  evaluation: Evaluation;
  design: DesignFields;
  costs: { readonly nearPerM: number | null; readonly farPerM: number | null };
  width: number;
  height: number;
  units: Units;
  onBegin: () => void;
  onEnd: () => void;
  onMounts: (nearAglM: number, farAglM: number) => void;
  onNudge: ComponentProps<typeof HeightsDrawing>["onNudge"];
} & Taking) => {
  const solved = useWorkerAnswer<SolveWorker, HeightsReply>("/workers/solve.worker.js", evaluation, async (remote, plan) =>
    remote.heights({ plan, costs }),
  );
  if (solved === null) return <p className="cap m-0 px-5 py-3">Working out all pairs of heights.</p>;
  if (solved === "failed") return <p className="m-0 px-5 py-3">The heights could not be worked out for this design.</p>;
  const { today, last, answers, answersToday, nulls, nullSide } = solved.reply;
  const { near, far, policy } = evaluation.plan;
  const lastYear = policy.year + policy.horizonYears;
  const changeText = (a: HeightAnswer): string =>
    [
      [near.name, a.nearAglM - design.nearMountAglM],
      [far.name, a.farAglM - design.farMountAglM],
    ]
      .filter(([, m]) => Math.abs(m as number) > 0.004)
      .map(([name, m]) => `${name as string} ${signed(lengthIn(units, m as number), 1)} ${lengthUnit(units)}`)
      .join(", ");
  const words: Readonly<Record<HeightAnswer["kind"], string>> = {
    both: "Both ends alike",
    far: `${far.name} alone`,
    near: `${near.name} alone`,
    cheapest: costs.nearPerM === null && costs.farPerM === null ? "Least mast within both limits" : "Cheapest within both limits",
  };
  const stands = answers.answers.every((a) => changeText(a) === "");
  return (
    <div className="flex h-full min-h-0">
      <HeightsDrawing
        today={today}
        last={last}
        nulls={nulls}
        nullSide={nullSide}
        answers={answers.answers}
        near={{ name: near.name, aglM: design.nearMountAglM, maxAglM: near.mountMaxAglM }}
        far={{ name: far.name, aglM: design.farMountAglM, maxAglM: far.mountMaxAglM }}
        width={Math.max(260, width - ANSWERS_PX)}
        height={height}
        units={units}
        onBegin={onBegin}
        onEnd={onEnd}
        onMounts={onMounts}
        onNudge={onNudge}
      />
      <ScrollRegion label="Heights that work" className="min-w-0 flex-1 px-3 pb-2 text-line">
        {answers.answers.length === 0 ? (
          <p className="m-0">
            <strong>No height is an answer.</strong> Even {lengthText(units, answers.topNearM, 0)} and{" "}
            {lengthText(units, answers.topFarM, 0)} above ground lack{" "}
            {answers.lacksAtTopM === null ? "what is not known" : lengthText(units, answers.lacksAtTopM, 0)} in {lastYear}. Look for a relay
            or another spot.
          </p>
        ) : (
          answers.answers.map((a) => {
            const change = changeText(a);
            const now = answersToday.answers.find((t) => t.kind === a.kind);
            if (change === "") return null;
            const action: DesignAction = { type: "mounts", nearMountAglM: a.nearAglM, farMountAglM: a.farAglM };
            return (
              <div key={a.kind} className="mb-1.5">
                <PreviewButton action={action} apply={apply} preview={preview}>
                  {words[a.kind]}: {change}
                </PreviewButton>
                <div className="cap">
                  {a.withinLimits ? "" : "above what the structure carries; "}
                  {a.cost === null ? "" : `mast costs ${figure(a.cost)}; `}
                  {now === undefined || changeText(now) === "" ? "none needed today" : `today ${changeText(now)}`}
                </div>
              </div>
            );
          })
        )}
        {answers.answers.length > 0 && stands && <p className="m-0">Both mounts stand high enough until {lastYear}.</p>}
        <p className="cap m-0 mt-1">
          Toned: works until {lastYear}; dashed: works today; dotted: what the structures carry
          {last.spans.length > 0 ? `; hatched: ${last.spans.join(", ")}` : ""}
          {nulls === null ? "" : "; hatched: the reflected ray takes 6 dB or more at some tide"}. Drag the point, or move it with the arrow
          keys.
        </p>
      </ScrollRegion>
    </div>
  );
};
