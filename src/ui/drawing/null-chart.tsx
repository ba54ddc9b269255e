import { line, ticks } from "d3";
import type { ReactNode } from "react";
import { figure } from "../wording/numbers";
import { TYPE } from "./type";

const LEFT = 44;
const RIGHT = 12;
const TOP = 20;
const FOOT = 32;
const LEAST_DB = -24;

/** A level against one figure, both rays against the direct one: what lies below the null line is toned. */
export const NullChart = ({
  title,
  label,
  points,
  now,
  nullBelowDb,
  width,
  height,
  children,
}: {
  title: string;
  label: string;
  points: readonly { readonly at: number; readonly db: number | null }[];
  /** Where the design stands. */
  now: number | null;
  nullBelowDb: number;
  width: number;
  height: number;
  children?: ReactNode;
}) => {
  const ats = points.map((p) => p.at);
  const [from, to] = [Math.min(...ats), Math.max(...ats)];
  const known = points.flatMap((p) => (p.db === null ? [] : [p.db]));
  const most = Math.max(3, ...known) + 1;
  const least = Math.max(LEAST_DB, Math.min(nullBelowDb - 2, ...known) - 1);
  const x = (at: number): number => LEFT + ((at - from) / (to - from || 1)) * (width - LEFT - RIGHT);
  const y = (db: number): number => TOP + ((most - Math.max(least, db)) / (most - least)) * (height - TOP - FOOT);
  const path =
    line<(typeof points)[number]>()
      .x((p) => x(p.at))
      .y((p) => y(p.db ?? 0))
      .defined((p) => p.db !== null)([...points]) ?? "";
  return (
    <svg width={width} height={height} role="img" aria-label={title}>
      <text x={LEFT} y={13} fontSize={TYPE.line} fontWeight="650">
        {title}
      </text>
      <rect
        x={LEFT}
        y={y(nullBelowDb)}
        width={width - LEFT - RIGHT}
        height={Math.max(0, height - FOOT - y(nullBelowDb))}
        fill="var(--band)"
      />
      {ticks(least, most, 5).map((t) => (
        <g key={t}>
          <path d={`M${LEFT} ${y(t)}H${width - RIGHT}`} stroke="var(--grid)" strokeWidth="0.75" />
          <text x={LEFT - 6} y={y(t) + 4} fontSize={TYPE.tick} textAnchor="end" className="mono" style={{ fill: "var(--ink-2)" }}>
            {figure(t)}
          </text>
        </g>
      ))}
      {ticks(from, to, Math.max(2, Math.floor(width / 64))).map((t) => (
        <text
          key={t}
          x={x(t)}
          y={height - FOOT + 14}
          fontSize={TYPE.tick}
          textAnchor="middle"
          className="mono"
          style={{ fill: "var(--ink-2)" }}
        >
          {figure(t, Math.abs(to - from) < 6 ? 1 : 0)}
        </text>
      ))}
      <path d={`M${LEFT} ${y(0)}H${width - RIGHT}`} stroke="var(--ink-2)" strokeWidth="1" strokeDasharray="2 2" />
      <path d={path} fill="none" stroke="var(--tight)" strokeWidth="2.2" />
      {now !== null && now >= from && now <= to && <path d={`M${x(now)} ${TOP}V${height - FOOT}`} stroke="var(--ink)" strokeWidth="1.6" />}
      <path d={`M${LEFT} ${TOP}V${height - FOOT}H${width - RIGHT}`} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
      <text x={width - RIGHT} y={height - 4} fontSize={TYPE.tick} textAnchor="end" style={{ fill: "var(--ink-2)" }}>
        {label}
      </text>
      {children}
    </svg>
  );
};
