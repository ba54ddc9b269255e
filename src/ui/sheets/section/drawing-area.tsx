"use client";
import { Maximize2, ZoomIn, ZoomOut } from "lucide-react";
import { type ButtonHTMLAttributes, type KeyboardEvent, type PointerEvent, type ReactNode, useId, useMemo, useRef, useState } from "react";
import { createStore } from "zustand/vanilla";
import type { LinkResult } from "@/core/link";
import { rayZM } from "@/core/obstacles";
import { TypedFigure } from "../../controls/typed-figure";
import { CursorDown, CursorLayer, type CursorStore } from "../../drawing/cursor-line";
import type { GhostZone } from "../../drawing/ghost-zones";
import { MastDimension } from "../../drawing/mast-dimension";
import { SectionDrawing } from "../../drawing/section-drawing";
import type { ClearsFrom, Ghost } from "../../drawing/section-props";
import { closerScale, sectionScale } from "../../drawing/section-scale";
import { DistanceAxis, WidthsStrip } from "../../drawing/strips";
import { useCloser } from "../../drawing/use-closer";
import { ghzText, lengthIn, lengthUnit, metresFrom, type Units } from "../../wording/numbers";
import { NARROW_PX } from "./narrow";
import type { Evaluation } from "./use-evaluation";

const WIDTHS_PX = 84;
const AXIS_PX = 26;
const BAR_PX = 24;
/** On a phone the bar is as high as a finger. */
const TOUCH_BAR_PX = 44;
const CURSOR_STEP_PX = 6;

const BarButton = ({ label, ...button }: { label: string } & ButtonHTMLAttributes<HTMLButtonElement>) => (
  <button
    type="button"
    aria-label={label}
    title={label}
    className="flex h-6 w-6 items-center justify-center disabled:text-hair"
    {...button}
  />
);

/** The path from the side and from above on one distance axis: read with a cursor, looked at closer, its masts dragged. */
export const DrawingArea = ({
  width,
  height,
  evaluation,
  settledEvaluation,
  shown,
  shownYear,
  settled,
  units,
  trueShape,
  clearsFrom,
  ghost,
  zones,
  onBegin,
  onEnd,
  onMount,
  setTrueShape,
  children,
}: {
  width: number;
  height: number;
  evaluation: Evaluation;
  /** The design before the gesture under way: axes follow this one. */
  settledEvaluation: Evaluation;
  /** The result drawn: the evaluation's, or that of a later year. */
  shown: LinkResult;
  shownYear: number;
  settled: { readonly nearAglM: number; readonly farAglM: number };
  units: Units;
  trueShape: boolean;
  clearsFrom: ClearsFrom;
  ghost: Ghost | null;
  zones: readonly GhostZone[];
  onBegin: () => void;
  onEnd: () => void;
  onMount: (end: "near" | "far", mountAglM: number) => void;
  setTrueShape: (trueShape: boolean) => void;
  /** What else stands in the bar over the drawing. */
  children: ReactNode;
}) => {
  const { path, ray, result } = evaluation;
  const hintId = useId();
  const target = useRef<HTMLDivElement>(null);
  const narrow = width < NARROW_PX;
  const drawn = Math.max(120, height - WIDTHS_PX - AXIS_PX - (narrow ? TOUCH_BAR_PX : BAR_PX));
  const base = useMemo(
    () => sectionScale(settledEvaluation.path, settledEvaluation.plan, settledEvaluation.ray, width, drawn, trueShape),
    [settledEvaluation, width, drawn, trueShape],
  );
  const closer = useCloser(target, width, drawn, (px) => base.y(rayZM(ray, base.atX(px))));
  const scale = useMemo(() => closerScale(base, closer.closer), [base, closer.closer]);
  const [cursor] = useState<CursorStore>(() => createStore(() => ({ atM: null as number | null })));
  const { pathM } = path.profile;
  const plan = useMemo(
    () =>
      shownYear === evaluation.plan.policy.year
        ? evaluation.plan
        : {
            ...evaluation.plan,
            policy: {
              ...evaluation.plan.policy,
              year: shownYear,
              horizonYears: Math.max(0, evaluation.plan.policy.year + evaluation.plan.policy.horizonYears - shownYear),
            },
          },
    [evaluation.plan, shownYear],
  );
  const place = (atM: number): void => cursor.setState({ atM: Math.min(pathM, Math.max(0, atM)) });
  const onPointerMove = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.pointerType === "touch" && event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    place(scale.atX(event.clientX - box.left));
  };
  const jump = (way: 1 | -1): void => {
    const from = cursor.getState().atM ?? (way > 0 ? -1 : pathM + 1);
    const places = [...path.near.flatMap((b) => b.stretches.map((s) => (s.fromM + s.toM) / 2)), shown.clearance.worst?.atM ?? 0]
      .filter((x) => x >= 0 && x <= pathM)
      .sort((a, b) => a - b);
    const next = way > 0 ? places.find((x) => x > from + 0.01) : places.findLast((x) => x < from - 0.01);
    if (next !== undefined) place(next);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>): void => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const at = cursor.getState().atM ?? shown.clearance.worst?.atM ?? pathM / 2;
    const stepM = scale.atX(CURSOR_STEP_PX) - scale.atX(0);
    const run = ((): (() => void) | undefined => {
      switch (event.key) {
        case "ArrowRight":
          return () => (event.shiftKey ? closer.pan(1) : place(at + stepM));
        case "ArrowLeft":
          return () => (event.shiftKey ? closer.pan(-1) : place(at - stepM));
        case "Home":
          return () => place(0);
        case "End":
          return () => place(pathM);
        case "PageDown":
          return () => jump(1);
        case "PageUp":
          return () => jump(-1);
        case "+":
        case "=":
          return () => closer.nearer(scale.x(at));
        case "-":
          return () => closer.wider(scale.x(at));
        case "0":
          return closer.whole;
        case "Escape":
          return () => cursor.setState({ atM: null });
        default:
          return undefined;
      }
    })();
    if (run === undefined) return;
    event.preventDefault();
    run();
  };
  const mount = (end: "near" | "far") => {
    const own = evaluation.plan[end];
    return (
      <MastDimension
        end={end}
        ray={ray}
        scale={scale}
        groundAmslM={(end === "near" ? result.geometry.nearAmslM : result.geometry.farAmslM) - own.mountAglM}
      >
        <TypedFigure
          value={lengthIn(units, own.mountAglM)}
          unit={lengthUnit(units)}
          label={`${own.name}: mount height above ground`}
          least={0}
          most={lengthIn(units, 300)}
          step={units === "metric" ? 0.1 : 0.5}
          bigStep={units === "metric" ? 1 : 3}
          className="bg-paper text-part font-figure"
          onChange={(v) => onMount(end, metresFrom(units, v))}
        />
      </MastDimension>
    );
  };
  const common = { path, plan, result: shown, ray, scale, units };
  return (
    <>
      <div
        role="toolbar"
        aria-label="Over the drawing"
        className={`flex items-center gap-4 whitespace-nowrap pl-4 text-line ${narrow ? "h-11 overflow-x-auto pr-4 [&>*]:flex-none" : "h-6 pr-[190px]"}`}
      >
        {children}
        <button
          type="button"
          className="press flex-none text-line"
          aria-pressed={trueShape}
          title="True shape, or heights drawn taller (T)"
          onClick={() => setTrueShape(!trueShape)}
        >
          {base.exaggeration === 1 ? "heights 1:1" : `heights ×${base.exaggeration}`}
        </button>
        <span className="no-print flex flex-none items-center">
          <BarButton label="Look closer" onClick={() => closer.nearer()}>
            <ZoomIn size={15} aria-hidden="true" />
          </BarButton>
          <BarButton label="Look wider" onClick={() => closer.wider()} disabled={closer.closer.k === 1}>
            <ZoomOut size={15} aria-hidden="true" />
          </BarButton>
          <BarButton label="Show the whole path" onClick={closer.whole} disabled={closer.closer.k === 1}>
            <Maximize2 size={14} aria-hidden="true" />
          </BarButton>
        </span>
        <span className="min-w-0 truncate text-ink-2">
          {ghzText(evaluation.plan.centreMhz)}, {evaluation.plan.widthMhz} MHz
        </span>
      </div>
      <div
        ref={target}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: an application takes the keys itself.
        tabIndex={0}
        role="application"
        aria-label="Drawing from the side"
        aria-describedby={hintId}
        className="relative cursor-crosshair touch-none overflow-hidden"
        style={{ height: drawn }}
        data-testid="section"
        onPointerMove={onPointerMove}
        onPointerLeave={() => cursor.setState({ atM: null })}
        onKeyDown={onKeyDown}
      >
        <SectionDrawing
          {...common}
          clearsFrom={clearsFrom}
          settled={settled}
          ghost={ghost}
          zones={zones}
          onBegin={onBegin}
          onEnd={onEnd}
          onMount={onMount}
        />
        {mount("near")}
        {mount("far")}
        <p id={hintId} className="sr-only">
          Arrow keys move the cursor, Page Up and Page Down go from thing to thing, plus and minus look closer, 0 shows all, Shift with the
          arrows moves the view.
        </p>
        <CursorLayer store={cursor} plan={plan} path={path} ray={ray} scale={scale} year={shownYear} units={units} />
      </div>
      <DistanceAxis scale={scale} pathM={pathM} units={units} />
      <div className="relative border-t border-rule">
        <WidthsStrip {...common} height={WIDTHS_PX - 1} />
        <CursorDown store={cursor} scale={scale} height={WIDTHS_PX - 1} />
      </div>
    </>
  );
};
