"use client";
import { area } from "d3";
import { memo, useId } from "react";
import type { LinkPlan, LinkResult, PreparedPath } from "@/core/link";
import { f1RadiusM, type Ray } from "@/core/obstacles";
import { VerdictShape } from "../marks/verdict-mark";
import { lengthIn, lengthUnit, metresFrom, type Units } from "../wording/numbers";
import { Hatches } from "./hatches";
import type { SectionScale } from "./section-scale";
import { distanceTicks } from "./ticks";
import { TYPE } from "./type";

const UNIT_PX = 44;
const MOST_TICKS = 9;
/** Room of a figure of five digits; ticks may come out up to half as many again as were asked for. */
const TICK_ROOM_PX = 64;

/** The distance axis under the section. */
export const DistanceAxis = memo(({ scale, pathM, units }: { scale: SectionScale; pathM: number; units: Units }) => {
  const seenPx = Math.min(scale.width, scale.x(pathM)) - Math.max(0, scale.x(0));
  const count = Math.max(2, Math.min(MOST_TICKS, Math.floor(seenPx / TICK_ROOM_PX)));
  const { ticks, unit } = distanceTicks(pathM, units, count, scale.atX(0), scale.atX(scale.width));
  // The unit has the place at the right edge.
  const shown = ticks.filter((t) => scale.x(t.atM) < scale.width - UNIT_PX);
  const last = shown[shown.length - 1];
  return (
    <svg width={scale.width} height="26" aria-hidden="true" data-drawing="axis" style={{ display: "block" }}>
      <path d={`M${Math.max(0, scale.x(0))} 5H${Math.min(scale.width, scale.x(pathM))}`} stroke="var(--ink)" strokeWidth="1.3" />
      {shown.map((t) => (
        <g key={t.text}>
          <path d={`M${scale.x(t.atM)} 1V9`} stroke="var(--ink)" strokeWidth="1.2" />
          <text x={scale.x(t.atM)} y="22" fontSize={TYPE.note} textAnchor="middle" className="mono" style={{ fill: "var(--ink-2)" }}>
            {t.text}
          </text>
        </g>
      ))}
      <text
        x={Math.min(scale.width - 22, Math.max(scale.x(pathM), scale.x(last?.atM ?? 0) + 26) + 6)}
        y="22"
        fontSize={TYPE.note}
        className="mono"
        style={{ fill: "var(--ink-2)" }}
      >
        {unit}
      </text>
    </svg>
  );
});
DistanceAxis.displayName = "DistanceAxis";

/** Outlines beside the ray; they stand still while a mast is dragged. */
const WidthBodies = memo(
  ({ path, scale, mid, perM, hatch }: { path: PreparedPath; scale: SectionScale; mid: number; perM: number; hatch: string }) => (
    <g>
      {path.bodies.map((b) => (
        <path
          key={b.body.id}
          d={`${b.body.xM.map((x, i) => `${i === 0 ? "M" : "L"}${scale.x(x).toFixed(1)} ${(mid + b.body.yM[i]! * perM).toFixed(1)}`).join("")}Z`}
          fill={b.vegetation ? "var(--tree-fill)" : `url(#${hatch}-block)`}
          stroke={b.vegetation ? "var(--tree-line)" : "var(--block-line)"}
          strokeWidth="1.2"
          fillOpacity="0.9"
        >
          <title>{b.body.name}</title>
        </path>
      ))}
    </g>
  ),
);
WidthBodies.displayName = "WidthBodies";

/** Widths that may be labelled, in the person's units; the first that keeps its label clear of the axis's is taken. */
const WIDTH_TICKS = [1, 2, 5, 10, 20, 50, 100, 200, 500];
const LABELS_APART_PX = 15;

/** Plan of the corridor on the same distance axis: what stands beside the ray. Right of the direction is down. */
export const WidthsStrip = ({
  path,
  plan,
  result,
  ray,
  scale,
  units,
  height,
}: {
  path: PreparedPath;
  plan: LinkPlan;
  result: LinkResult;
  ray: Ray;
  scale: SectionScale;
  units: Units;
  height: number;
}) => {
  const hatch = useId();
  const f1Most = Math.sqrt(ray.wavelengthM * ray.pathM) / 2;
  const reachM = Math.max(6, 2.4 * f1Most);
  const mid = height / 2;
  const perM = (mid - 6) / reachM;
  const y = (acrossM: number): number => mid + acrossM * perM;
  const share = result.clearance.policyShare;
  const steps = Array.from({ length: 61 }, (_, s) => {
    const t = (1 - Math.cos((Math.PI * s) / 60)) / 2;
    const x = ray.startM + (ray.endM - ray.startM) * t;
    return { x, f1: f1RadiusM(ray, x) };
  });
  const lens = (k: number): string =>
    area<(typeof steps)[number]>()
      .x((p) => scale.x(p.x))
      .y0((p) => y(-k * p.f1))
      .y1((p) => y(k * p.f1))(steps) ?? "";
  const wanted = LABELS_APART_PX / perM;
  const tickM =
    units === "metric"
      ? (WIDTH_TICKS.find((t) => t >= wanted) ?? 100)
      : metresFrom("imperial", WIDTH_TICKS.find((t) => metresFrom("imperial", t) >= wanted) ?? 300);
  const { worst } = result.clearance;
  const clip = `${hatch}-clip`;
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      data-drawing="widths"
      aria-label="Strip of widths: what stands beside the ray, seen from above"
      style={{ display: "block" }}
    >
      <Hatches id={hatch} />
      <clipPath id={clip}>
        <rect x="56" y="0" width={scale.width - 56} height={height} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <path d={lens(1)} fill="var(--lens)" stroke="var(--hair)" strokeWidth="0.9" />
        {share > 0 && <path d={lens(share)} fill="var(--zone)" />}
        <WidthBodies path={path} scale={scale} mid={mid} perM={perM} hatch={hatch} />
        <path d={`M${scale.x(ray.startM)} ${mid}H${scale.x(ray.endM)}`} stroke="var(--ink)" strokeWidth="1.25" />
        <circle cx={scale.x(ray.startM)} cy={mid} r="4.5" fill="var(--near)" />
        <circle cx={scale.x(ray.endM)} cy={mid} r="4" fill="var(--paper)" stroke="var(--far)" strokeWidth="2.2" />
        {worst !== null && worst.missM > 0.0005 && (
          <g
            transform={`translate(${scale.x(worst.atM)} ${y(Math.max(-reachM, Math.min(reachM, worst.acrossM)))})`}
            style={{ color: "var(--short)" }}
          >
            <circle r="11" fill="var(--paper)" stroke="var(--short)" strokeWidth="1.2" />
            <VerdictShape verdict="short" a={8} />
          </g>
        )}
      </g>
      <text x="10" y="17" fontSize={TYPE.line} fontWeight="650" className="halo">
        Widths
      </text>
      <text x="50" y={mid + 4} fontSize={TYPE.tick} textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
        0
      </text>
      <text
        x="50"
        y={Math.min(height - 4, y(tickM) + 4)}
        fontSize={TYPE.tick}
        textAnchor="end"
        className="mono"
        style={{ fill: "var(--ink-2)" }}
      >
        ±{Math.round(lengthIn(units, tickM))}
        {lengthIn(units, tickM) < 99 ? ` ${lengthUnit(units)}` : ""}
      </text>
      <path d={`M54 ${y(tickM)}h8M54 ${y(-tickM)}h8`} stroke="var(--ink-2)" />
      <text x={scale.width - 8} y={height - 5} fontSize={TYPE.tick} textAnchor="end" className="halo" style={{ fill: "var(--ink-2)" }}>
        seen from above, right of the way to {plan.far.name} is down
      </text>
    </svg>
  );
};

/** Small plan, north up, of where the section is cut. */
export const KeyPlan = memo(({ path, verdictShort, worstAtM }: { path: PreparedPath; verdictShort: boolean; worstAtM: number | null }) => {
  const width = 158;
  const height = 94;
  const { pathM, nearBearingDeg, bodies } = path.profile;
  const a = (nearBearingDeg * Math.PI) / 180;
  const east = (x: number, y: number): number => x * Math.sin(a) + y * Math.cos(a);
  const north = (x: number, y: number): number => x * Math.cos(a) - y * Math.sin(a);
  const perM = Math.min((width - 44) / Math.max(1, Math.abs(east(pathM, 0))), (height - 36) / Math.max(1, Math.abs(north(pathM, 0))));
  const px = (x: number, y: number): [number, number] => [
    width / 2 + (east(x, y) - east(pathM, 0) / 2) * perM,
    height / 2 - (north(x, y) - north(pathM, 0) / 2) * perM,
  ];
  const [nx, ny] = px(0, 0);
  const [fx, fy] = px(pathM, 0);
  const worst = worstAtM === null ? null : px(worstAtM, 0);
  const near = bodies.filter((b) => b.xM.length > 0).slice(0, 400);
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Key plan, north up: the path runs on ${nearBearingDeg.toFixed(0)} degrees`}
      className="border border-ink"
    >
      {near.map((b) => (
        <path
          key={b.id}
          d={`${b.xM
            .map(
              (x, i) =>
                `${i === 0 ? "M" : "L"}${px(x, b.yM[i]!)
                  .map((v) => v.toFixed(1))
                  .join(" ")}`,
            )
            .join("")}Z`}
          fill="var(--ground-fill)"
          stroke="var(--block-line)"
          strokeWidth="0.8"
        />
      ))}
      <path d={`M${nx} ${ny}L${fx} ${fy}`} stroke="var(--ink)" strokeWidth="1.4" />
      {verdictShort && worst !== null && (
        <g transform={`translate(${worst[0]} ${worst[1]})`} style={{ color: "var(--short)" }}>
          <path d="M0 -6L5 5H-5Z" fill="currentColor" />
        </g>
      )}
      <circle cx={nx} cy={ny} r="3.6" fill="var(--near)" />
      <circle cx={fx} cy={fy} r="3.2" fill="var(--paper)" stroke="var(--far)" strokeWidth="2" />
      <path d="M146 26V8M142 13l4 -6l4 6" fill="none" stroke="var(--ink)" strokeWidth="1.4" />
    </svg>
  );
});
KeyPlan.displayName = "KeyPlan";
