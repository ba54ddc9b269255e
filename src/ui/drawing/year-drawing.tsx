"use client";
import { ticks } from "d3";
import type { Direction, LinkPlan } from "@/core/link";
import { explainDirection, explanationText } from "@/core/link";
import { figure, mbpsText, type Units } from "../wording/numbers";
import { outageText } from "../wording/outage";
import { explanationLine, symbolIn } from "../wording/terms";
import { TYPE } from "./type";

const LEFT = 58;
const RIGHT = 240;
const TOP = 12;
const FOOT = 40;
/** Lost shares of the year on the axis, per cent. */
const LOST = [10, 1, 0.1, 0.01, 0.001];
const LEAST_LOST = 0.0005;

/** Rate against the share of the year it holds, and what the year takes away. */
export const YearDrawing = ({
  direction: d,
  plan,
  units,
  width,
  height,
}: {
  direction: Direction;
  plan: LinkPlan;
  units: Units;
  width: number;
  height: number;
}) => {
  const explained = explainDirection(d, plan);
  const lost = explained.find((e) => e.id === "availability");
  const stairs = d.staircase?.stairs ?? [];
  const drawing = Math.max(80, height - 40);
  const most = Math.max(d.needMbps ?? 0, ...stairs.map((s) => s.usableMbps), 10) * 1.08;
  const y = (mbps: number): number => TOP + (1 - mbps / most) * (drawing - TOP - FOOT);
  const x = (lostPercent: number): number => {
    const u = (Math.log10(LOST[0]!) - Math.log10(Math.max(LEAST_LOST, lostPercent))) / (Math.log10(LOST[0]!) - Math.log10(LEAST_LOST));
    return LEFT + Math.min(1, Math.max(0, u)) * (width - LEFT - RIGHT);
  };
  // The fastest rate at each share: from the left the best holds least of the year.
  // A share the rain method does not know begins at its bound, 99 %, and reaches no farther.
  const sorted = [...stairs].sort((a, b) => b.usableMbps - a.usableMbps);
  let path = "";
  let reached = x(LOST[0]!);
  for (const s of sorted) {
    if (s.holdsPercent === null) continue;
    const end = x(100 - s.holdsPercent);
    if (end <= reached) continue;
    path += `${path === "" ? "M" : "L"}${reached} ${y(s.usableMbps)}L${end} ${y(s.usableMbps)}`;
    reached = end;
  }
  if (path !== "") path += `L${reached} ${y(0)}`;
  const at = (label: string, mbps: number) => (
    <div className="flex justify-between gap-3 whitespace-nowrap border-b border-rule py-0.5">
      <span>{label}</span>
      <span className="figure">{mbps > 0 ? mbpsText(mbps) : "nothing"}</span>
    </div>
  );
  return (
    <div className="relative h-full px-3">
      <p className="cap m-0 line-clamp-2 min-h-[32px] px-2">
        {lost === undefined
          ? "Nothing holds."
          : d.outage !== null && d.outage.marginDb <= 0
            ? explanationText(lost, symbolIn(units))
            : explanationLine(lost, units)}
      </p>
      <svg width={width - 12} height={drawing} role="img" aria-label="Usable rate against the share of the year in which it holds">
        {LOST.map((p) => (
          <g key={p}>
            <path d={`M${x(p)} ${TOP}V${drawing - FOOT}`} stroke="var(--grid)" strokeWidth="0.75" />
            <text x={x(p)} y={drawing - 23} fontSize={TYPE.note} textAnchor="middle" className="mono" style={{ fill: "var(--ink-2)" }}>
              {100 - p} %
            </text>
          </g>
        ))}
        {ticks(0, most, 4).map((mbps) => (
          <g key={mbps}>
            <path d={`M${LEFT} ${y(mbps)}H${width - RIGHT}`} stroke="var(--grid)" strokeWidth="0.75" />
            <text x={LEFT - 8} y={y(mbps) + 4} fontSize={TYPE.note} textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
              {figure(mbps)}
            </text>
          </g>
        ))}
        <path d={`M${LEFT} ${TOP}V${drawing - FOOT}H${width - RIGHT}`} stroke="var(--ink)" strokeWidth="1.2" fill="none" />
        <path d={path} stroke="var(--ink)" strokeWidth="2.4" fill="none" strokeLinejoin="round" />
        {d.needMbps !== null && (
          <g>
            <path d={`M${LEFT} ${y(d.needMbps)}H${width - RIGHT}`} stroke="var(--short)" strokeWidth="1.4" strokeDasharray="7 3" />
            <text x={LEFT + 6} y={y(d.needMbps) - 5} fontSize={TYPE.note} className="halo">
              needed {figure(d.needMbps)} Mbps
            </text>
          </g>
        )}
        <text x={LEFT} y={drawing - 6} fontSize={TYPE.tick} style={{ fill: "var(--ink-2)" }}>
          share of the year in which the rate or a faster one holds; Mbps, TCP, all airtime
        </text>
      </svg>
      {d.staircase !== null && d.outage !== null && (
        <div className="absolute right-4 top-10 w-[190px] text-line">
          <div className="cap border-b border-ink pb-0.5">kept for this share of the year</div>
          {at("99 %", d.staircase.at99Mbps)}
          {at("99.9 %", d.staircase.at999Mbps)}
          {at("99.99 %", d.staircase.at9999Mbps)}
          <p className="cap m-0 mt-2">
            {outageText(d.outage)} {d.outage.inRange ? "" : "Outside the models' range."}
          </p>
        </div>
      )}
    </div>
  );
};
