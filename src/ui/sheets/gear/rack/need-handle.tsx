"use client";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { rateText } from "../../../wording/gear";
import { onAxis, type RateAxis } from "./axis";

const STEP = 0.05;
const BIG_STEP = 0.25;
/** A finger drags it and does not scroll the page; a group has no place of its own to say so. */
const TOUCHED = { touchAction: "none" } as const;
/** A rate asked for in a question is round: two figures. */
export const roundRate = (mbps: number): number => {
  const size = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, mbps))) - 1);
  return Math.max(1, Math.round(mbps / size) * size);
};

/** The need at the head of the axis: dragged or nudged it asks "what if", and nothing is saved. */
export const NeedHandle = ({ axis, px, needMbps, ask }: { axis: RateAxis; px: number; needMbps: number; ask: (mbps: number) => void }) => {
  const [draggedPx, setDragged] = useState<number | null>(null);
  const from = useRef<{ clientX: number; px: number } | null>(null);
  const atPx = draggedPx ?? onAxis(axis, needMbps, px).x;
  const shown = draggedPx === null ? needMbps : roundRate((draggedPx / px) * axis.mostMbps);
  const onKey = (event: KeyboardEvent): void => {
    const step = event.shiftKey ? BIG_STEP : STEP;
    const next =
      event.key === "ArrowRight" || event.key === "ArrowUp"
        ? needMbps * (1 + step)
        : event.key === "ArrowLeft" || event.key === "ArrowDown"
          ? needMbps * (1 - step)
          : null;
    if (next === null) return;
    event.preventDefault();
    event.stopPropagation();
    const rounded = roundRate(next);
    // A step too small to show is still a step.
    ask(rounded === needMbps ? Math.max(1, needMbps + (next > needMbps ? 1 : -1)) : rounded);
  };
  const move = (event: PointerEvent): void => {
    if (from.current === null) return;
    setDragged(Math.max(2, Math.min(px, from.current.px + event.clientX - from.current.clientX)));
  };
  const end = (): void => {
    if (from.current === null) return;
    from.current = null;
    if (draggedPx !== null && shown !== needMbps) ask(shown);
    setDragged(null);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Need, what if"
      aria-valuemin={1}
      aria-valuemax={Math.round(axis.mostMbps)}
      aria-valuenow={shown}
      aria-valuetext={`${rateText(shown)} Mbps`}
      style={{ cursor: "ew-resize" }}
      onKeyDown={onKey}
      onPointerDown={(e) => {
        from.current = { clientX: e.clientX, px: onAxis(axis, needMbps, px).x };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => {
        from.current = null;
        setDragged(null);
      }}
    >
      <rect x={atPx - 34} y={-4} width={68} height={26} fill="transparent" style={TOUCHED} />
      <text x={atPx} y={13} fontSize={12.5} fontWeight={720} textAnchor="middle" style={TOUCHED}>
        need {rateText(shown)}
      </text>
      {draggedPx !== null && <path d={`M${atPx} 16v400`} stroke="var(--ink)" strokeDasharray="5 3" />}
    </g>
  );
};
