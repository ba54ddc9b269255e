"use client";
import { line, scaleLinear } from "d3";
import type { Verdict } from "@/core/link";
import { TYPE } from "../../drawing/type";
import { rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";

const HEIGHT = 208;
const LEFT = 40;
const RIGHT = 14;
const TOP = 14;
const FOOT = 24;

interface Row {
  readonly year: number;
  readonly worst: number;
  readonly usual: number;
}

/** Year by year, what is asked of a place against what fits. */
export const FillChart = ({
  rows,
  fitsMbps,
  allMbps,
  fullIn,
  verdict,
  horizonYear,
  width,
}: {
  rows: readonly Row[];
  fitsMbps: number;
  allMbps: number;
  /** The year in which it is full, with its part; null when it is not. */
  fullIn: number | null;
  verdict: Verdict;
  horizonYear: number;
  width: number;
}) => {
  const first = rows[0]!.year;
  const last = rows.at(-1)!.year;
  const top = Math.max(Number.isFinite(allMbps) ? allMbps * 1.06 : 0, ...rows.map((r) => r.worst), 1);
  const x = scaleLinear([first, last], [LEFT, width - RIGHT]);
  const y = scaleLinear([0, top], [HEIGHT - FOOT, TOP]).nice(4);
  const path = (of: (r: Row) => number): string =>
    line<Row>()
      .x((r) => x(r.year))
      .y((r) => y(of(r)))([...rows]) ?? "";
  const years = x.ticks(Math.max(2, Math.min(6, last - first, Math.floor((width - LEFT) / 58)))).filter(Number.isInteger);
  const shown = fullIn !== null && fullIn <= last;
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label={`Asked ${rateText(rows[0]!.worst)} Mbps in ${figure(first)}, ${rateText(rows.at(-1)!.worst)} in ${figure(last)}, of ${rateText(fitsMbps)} that fit${shown ? `; full in ${Math.floor(fullIn)}` : ""}`}
      className="block"
      data-testid="fill-chart"
    >
      {y.ticks(4).map((t) => (
        <g key={t}>
          <path d={`M${LEFT} ${y(t)}H${width - RIGHT}`} stroke="var(--rule)" />
          <text x={LEFT - 6} y={y(t) + 4} textAnchor="end" fontSize={TYPE.tick} className="mono">
            {figure(t)}
          </text>
        </g>
      ))}
      {years.map((t) => (
        <text key={t} x={x(t)} y={HEIGHT - 8} textAnchor="middle" fontSize={TYPE.tick} className="mono">
          {figure(t)}
        </text>
      ))}
      <path d={`M${x(Math.min(last, horizonYear))} ${TOP}V${HEIGHT - FOOT}`} stroke="var(--hair)" strokeDasharray="2 3" />
      {Number.isFinite(allMbps) && allMbps > fitsMbps * 1.001 && (
        <>
          <path d={`M${LEFT} ${y(allMbps)}H${width - RIGHT}`} stroke="var(--hair)" strokeDasharray="5 3" />
          <text x={LEFT + 4} y={y(allMbps) - 4} fontSize={TYPE.label} className="halo">
            all of it, {rateText(allMbps)}
          </text>
        </>
      )}
      {Number.isFinite(fitsMbps) && (
        <>
          <path d={`M${LEFT} ${y(fitsMbps)}H${width - RIGHT}`} className={`mark-${verdict}`} stroke="currentColor" strokeWidth="1.8" />
          <text x={LEFT + 4} y={y(fitsMbps) - 4} fontSize={TYPE.label} fontWeight={650} className="halo">
            fits, {rateText(fitsMbps)}
          </text>
        </>
      )}
      <path d={path((r) => r.usual)} fill="none" stroke="var(--ink)" strokeWidth="1.2" strokeDasharray="3 3" />
      <path d={path((r) => r.worst)} fill="none" stroke="var(--ink)" strokeWidth="2.2" />
      <text
        x={width - RIGHT}
        y={Math.max(TOP + 10, y(rows.at(-1)!.worst) - 6)}
        textAnchor="end"
        fontSize={TYPE.label}
        fontWeight={650}
        className="halo"
      >
        worst
      </text>
      <text x={width - RIGHT} y={y(rows.at(-1)!.usual) + 13} textAnchor="end" fontSize={TYPE.label} className="halo">
        usual
      </text>
      {shown && (
        <g className={`mark-${verdict}`}>
          <path d={`M${x(fullIn)} ${y(fitsMbps)}V${HEIGHT - FOOT}`} stroke="currentColor" strokeDasharray="2 2" />
          <circle cx={x(fullIn)} cy={y(fitsMbps)} r="4.5" fill="currentColor" />
          <text
            x={x(fullIn) + (x(fullIn) > width * 0.6 ? -8 : 8)}
            y={y(fitsMbps) + 18}
            textAnchor={x(fullIn) > width * 0.6 ? "end" : "start"}
            fontSize={TYPE.press}
            fontWeight={720}
            className="halo"
            style={{ fill: "currentColor" }}
          >
            {fullIn <= first ? "full now" : `full in ${Math.floor(fullIn)}`}
          </text>
        </g>
      )}
    </svg>
  );
};
