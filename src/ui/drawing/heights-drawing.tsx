"use client";
import { ticks } from "d3";
import { type KeyboardEvent, type PointerEvent, useId, useState } from "react";
import type { HeightAnswer, HeightFrontier } from "@/core/solve";
import { lengthIn, lengthText, lengthUnit, metresFrom, type Units } from "../wording/numbers";
import { Hatches } from "./hatches";
import { TYPE } from "./type";

const LEFT = 46;
const RIGHT = 10;
const TOP = 8;
const FOOT = 32;
/** A worst level below this over the tide is drawn as a null. */
const NULL_DB = -6;
const NUDGE = { metric: 0.1, imperial: 0.1524 } as const;

interface Mounts {
  readonly nearAglM: number;
  readonly farAglM: number;
}

/** All pairs of heights: what works in the last year and today, what a span or a null forbids, where the mounts stand. */
export const HeightsDrawing = ({
  today,
  last,
  nulls,
  nullSide,
  answers,
  near,
  far,
  width,
  height,
  units,
  onBegin,
  onEnd,
  onMounts,
  onNudge,
}: {
  today: HeightFrontier;
  last: HeightFrontier;
  nulls: Float32Array | null;
  nullSide: number;
  answers: readonly HeightAnswer[];
  near: { readonly name: string; readonly aglM: number; readonly maxAglM: number | null };
  far: { readonly name: string; readonly aglM: number; readonly maxAglM: number | null };
  width: number;
  height: number;
  units: Units;
  onBegin: () => void;
  onEnd: () => void;
  onMounts: (nearAglM: number, farAglM: number) => void;
  /** Moves from where the mounts stand by now, which may be further than what is drawn here. */
  onNudge: (move: (at: Mounts) => Mounts) => void;
}) => {
  const hatch = useId();
  /** What is held: the point is where the hand is, in the frame itself, and the axes stay as they were taken. */
  const [held, setHeld] = useState<(Mounts & { readonly nearTopM: number; readonly farTopM: number }) | null>(null);
  const { nearTopM, farTopM } = held ?? last;
  const point: Mounts = held ?? { nearAglM: near.aglM, farAglM: far.aglM };
  const columns = last.columns.filter((c) => c.nearAglM <= nearTopM);
  const x = (m: number): number => LEFT + (m / nearTopM) * (width - LEFT - RIGHT);
  const y = (m: number): number => height - FOOT - (m / farTopM) * (height - TOP - FOOT);
  const strip = (from: (c: HeightFrontier["columns"][number]) => number | null): string =>
    columns
      .flatMap((c) => {
        const m = from(c);
        return m === null ? [] : [`${x(c.nearAglM)} ${y(Math.min(m, farTopM))}`];
      })
      .join("L");
  const leastOf = (c: HeightFrontier["columns"][number]): number | null => c.meets[c.meets.length - 1]?.fromM ?? null;
  const line = (f: HeightFrontier): string => {
    const points = f.columns.flatMap((c) => {
      const m = leastOf(c);
      return m === null || c.nearAglM > nearTopM ? [] : [`${x(c.nearAglM)} ${y(m)}`];
    });
    return points.length === 0 ? "" : `M${points.join("L")}`;
  };
  const region = columns.filter((c) => leastOf(c) !== null);
  const area =
    region.length === 0
      ? ""
      : `M${strip(leastOf)}L${x(region[region.length - 1]!.nearAglM)} ${y(farTopM)}L${x(region[0]!.nearAglM)} ${y(farTopM)}Z`;
  // Each span's strip: columns in which it forbids something, joined.
  const spans = last.spans.flatMap((name, i) => {
    const strips = columns.flatMap((c) => (c.forbidden[i] === undefined ? [] : [{ at: c.nearAglM, ...c.forbidden[i] }]));
    if (strips.length < 2) return [];
    const up = strips.map((c) => `${x(c.at)} ${y(c.toM)}`);
    const down = [...strips].reverse().map((c) => `${x(c.at)} ${y(c.fromM)}`);
    return [{ name, d: `M${[...up, ...down].join("L")}Z` }];
  });
  // A wall below the own roof: runs of columns that meet the policy there too.
  const wall = columns.reduce<{ readonly at: number; readonly fromM: number; readonly toM: number }[][]>((runs, c, i) => {
    const [m] = c.meets.slice(0, -1);
    if (m === undefined) return runs;
    const joined = i > 0 && columns[i - 1]!.meets.length > 1 && runs.length > 0;
    const own = { at: c.nearAglM, ...m };
    if (joined) runs[runs.length - 1]!.push(own);
    else runs.push([own]);
    return runs;
  }, []);
  const cellX = (width - LEFT - RIGHT) / (nullSide - 1);
  const cellY = (height - TOP - FOOT) / (nullSide - 1);
  const nullCells =
    nulls === null
      ? ""
      : Array.from({ length: nullSide * nullSide }, (_, i) => {
          const db = nulls[i]!;
          if (Number.isNaN(db) || db > NULL_DB) return "";
          const cx = LEFT + (i % nullSide) * cellX;
          const cy = height - FOOT - Math.floor(i / nullSide) * cellY;
          const [x0, x1] = [Math.max(LEFT, cx - cellX / 2), Math.min(width - RIGHT, cx + cellX / 2)];
          const [y0, y1] = [Math.max(TOP, cy - cellY / 2), Math.min(height - FOOT, cy + cellY / 2)];
          return `M${x0} ${y0}H${x1}V${y1}H${x0}Z`;
        }).join("");
  const round = (m: number): number => {
    const stepM = NUDGE[units];
    return Math.round(Math.round(m / stepM) * stepM * 1000) / 1000;
  };
  const put = (nearM: number, farM: number): Mounts => ({
    nearAglM: round(Math.min(nearTopM, Math.max(0, nearM))),
    farAglM: round(Math.min(farTopM, Math.max(0, farM))),
  });
  const dragTo = (event: PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = put(
      ((event.clientX - box.left - LEFT) / (width - LEFT - RIGHT)) * nearTopM,
      ((height - FOOT - (event.clientY - box.top)) / (height - TOP - FOOT)) * farTopM,
    );
    setHeld({ ...at, nearTopM, farTopM });
    onMounts(at.nearAglM, at.farAglM);
  };
  const letGo = (): void => {
    setHeld(null);
    onEnd();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const way = ways[event.key];
    if (way === undefined) return;
    event.preventDefault();
    const by = NUDGE[units] * (event.shiftKey ? 10 : 1);
    onNudge((at) => put(at.nearAglM + way[0] * by, at.farAglM + way[1] * by));
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={width}
      height={height}
      role="group"
      aria-label="Pairs of mount heights"
      className="touch-none"
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        onBegin();
        dragTo(e);
      }}
      onPointerMove={(e) => {
        if (held !== null) dragTo(e);
      }}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      <Hatches id={hatch} />
      {ticks(0, lengthIn(units, nearTopM), 7).map((t) => (
        <g key={t} aria-hidden="true">
          <path d={`M${x(metresFrom(units, t))} ${TOP}V${height - FOOT}`} stroke="var(--grid)" strokeWidth="0.75" />
          <text
            x={x(metresFrom(units, t))}
            y={height - FOOT + 14}
            fontSize={TYPE.tick}
            textAnchor="middle"
            className="mono"
            style={{ fill: "var(--ink-2)" }}
          >
            {t}
          </text>
        </g>
      ))}
      {ticks(0, lengthIn(units, farTopM), 5).map((t) => (
        <g key={t} aria-hidden="true">
          <path d={`M${LEFT} ${y(metresFrom(units, t))}H${width - RIGHT}`} stroke="var(--grid)" strokeWidth="0.75" />
          <text
            x={LEFT - 6}
            y={y(metresFrom(units, t)) + 4}
            fontSize={TYPE.tick}
            textAnchor="end"
            className="mono"
            style={{ fill: "var(--ink-2)" }}
          >
            {t}
          </text>
        </g>
      ))}
      <path d={area} fill="var(--zone)" fillOpacity="0.7" />
      {wall.map((run) => (
        <path
          key={run[0]!.at}
          d={`M${run.map((w) => `${x(w.at)} ${y(w.toM)}`).join("L")}L${[...run]
            .reverse()
            .map((w) => `${x(w.at)} ${y(w.fromM)}`)
            .join("L")}Z`}
          fill="var(--zone)"
          fillOpacity="0.7"
        />
      ))}
      <path d={nullCells} fill={`url(#${hatch}-noise)`} />
      {spans.map((s) => (
        <path key={s.name} d={s.d} fill={`url(#${hatch}-noise)`} stroke="var(--short)" strokeWidth="1">
          <title>{s.name}</title>
        </path>
      ))}
      <path d={line(today)} fill="none" stroke="var(--ink-2)" strokeWidth="1.4" strokeDasharray="5 3" />
      <path d={line(last)} fill="none" stroke="var(--ink)" strokeWidth="2.2" />
      {near.maxAglM !== null && near.maxAglM <= nearTopM && (
        <path d={`M${x(near.maxAglM)} ${TOP}V${height - FOOT}`} stroke="var(--near)" strokeWidth="1.2" strokeDasharray="2 2" />
      )}
      {far.maxAglM !== null && far.maxAglM <= farTopM && (
        <path d={`M${LEFT} ${y(far.maxAglM)}H${width - RIGHT}`} stroke="var(--far)" strokeWidth="1.2" strokeDasharray="2 2" />
      )}
      <path d={`M${LEFT} ${TOP}V${height - FOOT}H${width - RIGHT}`} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
      {answers
        .filter((a) => a.nearAglM <= nearTopM && a.farAglM <= farTopM)
        .map((a) => (
          <path
            key={a.kind}
            d={`M${x(a.nearAglM) - 5} ${y(a.farAglM)}h10M${x(a.nearAglM)} ${y(a.farAglM) - 5}v10`}
            stroke="var(--ink)"
            strokeWidth="2"
          />
        ))}
      <g
        role="slider"
        tabIndex={0}
        aria-label="Both mount heights: left and right move the near one, up and down the far one"
        aria-valuemin={0}
        aria-valuemax={Math.round(farTopM)}
        aria-valuenow={Math.round(point.farAglM * 10) / 10}
        aria-valuetext={`${near.name} ${lengthText(units, point.nearAglM)}, ${far.name} ${lengthText(units, point.farAglM)}`}
        className="cursor-move"
        data-testid="pair"
        onKeyDown={onKeyDown}
      >
        <circle cx={x(point.nearAglM)} cy={y(point.farAglM)} r="14" fill="transparent" />
        <circle cx={x(point.nearAglM)} cy={y(point.farAglM)} r="6.5" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2.2" />
        <circle cx={x(point.nearAglM)} cy={y(point.farAglM)} r="2" fill="var(--ink)" />
      </g>
      <text x={width - RIGHT} y={height - 4} fontSize={TYPE.tick} textAnchor="end" style={{ fill: "var(--near)" }}>
        {near.name}, {lengthUnit(units)} above ground
      </text>
      <text x={12} y={TOP + 4} fontSize={TYPE.tick} textAnchor="end" transform={`rotate(-90 12 ${TOP + 4})`} style={{ fill: "var(--far)" }}>
        {far.name}, {lengthUnit(units)}
      </text>
    </svg>
  );
};
