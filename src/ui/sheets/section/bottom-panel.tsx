"use client";
import { Tabs } from "radix-ui";
import { type ReactNode, useMemo } from "react";
import type { DesignFields, JobDto, LinkVerdict } from "@/contract";
import { LEAST_POWER_DBM, MOST_POWER_DBM, pathStateOf, type Verdict, widthSweep } from "@/core/link";
import { lazyPart } from "../../controls/lazy-part";
import { TabNames } from "../../controls/tab-names";
import { TypedFigure } from "../../controls/typed-figure";
import { Ladder } from "../../drawing/ladder";
import { LevelDrawing } from "../../drawing/level-drawing";
import { useSize } from "../../drawing/use-size";
import { VerdictMark } from "../../marks/verdict-mark";
import { cutMiddle } from "../../wording/names";
import type { Units } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { bandOffsets, type Doubt } from "./use-doubt";
import type { Evaluation } from "./use-evaluation";

const DoubtDrawing = lazyPart(() => import("../../drawing/doubt-drawing").then((m) => m.DoubtDrawing));
const RateDrawing = lazyPart(() => import("../../drawing/rate-drawing").then((m) => m.RateDrawing));
const YearDrawing = lazyPart(() => import("../../drawing/year-drawing").then((m) => m.YearDrawing));

const HEIGHT_PX = 241;
const HEAD_PX = 34;
export const VIEWS = ["level", "rate", "year", "doubt", "heights", "trees", "water", "elsewhere", "table"] as const;
export type View = (typeof VIEWS)[number];
const SOLVERS = ["heights", "trees", "water", "elsewhere", "table"] as const satisfies readonly View[];

/** Less than this is not worth a line of its own. */
const LEAST_RISE_DB = 0.5;

const risenOf = (inAir: LinkVerdict["inAir"], reverse: boolean): { readonly db: number; readonly share: number } | null => {
  const way = reverse ? 1 : 0;
  return inAir === null || inAir.riseDb[way] < LEAST_RISE_DB ? null : { db: inAir.riseDb[way], share: inAir.hitShare[way] };
};

/** Under the section: the level line, where the rate comes from, the year, and how sure it all is. */
export const BottomPanel = ({
  doubt,
  verdict,
  evaluation,
  design,
  designNow,
  job,
  nearName,
  farName,
  units,
  reverse,
  setReverse,
  view,
  setView,
  change,
  levelId,
  inAir,
  solvers,
}: {
  doubt: Doubt | null;
  /** The worst of what is found of the radios. */
  verdict: Verdict;
  evaluation: Evaluation | null;
  design: DesignFields;
  designNow: () => DesignFields;
  job: JobDto;
  nearName: string;
  farName: string;
  units: Units;
  reverse: boolean;
  setReverse: (reverse: boolean) => void;
  view: View;
  setView: (view: View) => void;
  change: (fields: Partial<DesignFields>) => void;
  levelId: string;
  /** What others' radios make of it on its planned channel; null where that is not known. */
  inAir: LinkVerdict["inAir"];
  /** What answers how high, which tree, which water, where else; drawn when its view is chosen. */
  solvers: (view: View, size: { readonly width: number; readonly height: number }) => ReactNode;
}) => {
  const [ref, size] = useSize<HTMLDivElement>();
  const result = evaluation?.result ?? null;
  const plan = evaluation?.plan ?? null;
  const direction = result === null ? null : reverse ? result.service.toNear : result.service.toFar;
  const widths = useMemo(
    () => (view === "rate" && evaluation !== null ? widthSweep(evaluation.plan, pathStateOf(evaluation.plan, evaluation.path)) : []),
    [view, evaluation],
  );
  const [fromName, toName] = reverse ? [farName, nearName] : [nearName, farName];
  const heading = (
    <>
      <TabNames names={VIEWS} label="Under the section" className="flex-none gap-3.5" />
      <span className="flex flex-none items-center gap-1.5 text-body font-bold">
        <VerdictMark verdict={verdict} a={9} />
        <span className={`v-${verdict}`} data-testid="service-verdict">
          {VERDICT_WORD[verdict]}
        </span>
      </span>
      <button
        type="button"
        className="press flex-none text-line"
        aria-label={`${fromName} to ${toName}`}
        onClick={() => setReverse(!reverse)}
      >
        to {cutMiddle(toName, 16)}
      </button>
    </>
  );
  const end = reverse ? plan?.far : plan?.near;
  const inner = { width: size.width, height: HEIGHT_PX - HEAD_PX };
  return (
    <div className="col-span-2 grid min-w-0 grid-cols-[minmax(0,1fr)_276px] border-t border-ink">
      <Tabs.Root value={view} onValueChange={(v) => setView(v as View)} asChild>
        <div ref={ref} className="min-w-0 overflow-hidden">
          {direction === null || plan === null || result === null || size.width === 0 ? (
            <p className="px-4 py-3">No level can be computed while the radios do not fit each other.</p>
          ) : (
            <>
              {view !== "level" && <div className="flex items-baseline gap-3 px-3 pt-1.5">{heading}</div>}
              <Tabs.Content value="level" tabIndex={-1}>
                <LevelDrawing
                  direction={direction}
                  band={bandOffsets(doubt, reverse)}
                  width={size.width}
                  height={HEIGHT_PX}
                  units={units}
                  heading={heading}
                  marginDb={job.marginDb}
                  risen={risenOf(inAir, reverse)}
                  transmit={
                    <TypedFigure
                      key={reverse ? "far" : "near"}
                      value={reverse ? design.farPowerDbm : design.nearPowerDbm}
                      now={() => (reverse ? designNow().farPowerDbm : designNow().nearPowerDbm)}
                      unit="dBm"
                      label={`Transmit power of ${fromName}`}
                      least={end?.radio.minTxPowerDbm ?? LEAST_POWER_DBM}
                      most={end?.radio.modulations[0]?.maxTxPowerDbm ?? MOST_POWER_DBM}
                      step={1}
                      bigStep={3}
                      onChange={(v) => change(reverse ? { farPowerDbm: v } : { nearPowerDbm: v })}
                    />
                  }
                />
              </Tabs.Content>
              <Tabs.Content value="rate" tabIndex={-1} style={{ height: inner.height }}>
                <RateDrawing
                  direction={direction}
                  plan={plan}
                  widths={widths}
                  units={units}
                  width={inner.width}
                  choose={(widthMhz) => change({ widthMhz })}
                />
              </Tabs.Content>
              <Tabs.Content value="year" tabIndex={-1} style={{ height: inner.height }}>
                <YearDrawing direction={direction} plan={plan} units={units} {...inner} />
              </Tabs.Content>
              <Tabs.Content value="doubt" tabIndex={-1} style={{ height: inner.height }}>
                <DoubtDrawing
                  doubt={doubt?.value ?? null}
                  waiting={doubt === null}
                  direction={direction}
                  reverse={reverse}
                  result={result}
                  units={units}
                  width={inner.width}
                />
              </Tabs.Content>
              {SOLVERS.map((name) => (
                <Tabs.Content key={name} value={name} tabIndex={-1} style={{ height: inner.height }}>
                  {view === name ? solvers(name, inner) : null}
                </Tabs.Content>
              ))}
            </>
          )}
        </div>
      </Tabs.Root>
      <div className="border-l border-rule">
        {direction !== null && (
          <Ladder
            direction={direction}
            band={bandOffsets(doubt, reverse)}
            marginDb={job.marginDb}
            levelId={levelId}
            toName={cutMiddle(toName, 18)}
          />
        )}
      </div>
    </div>
  );
};
