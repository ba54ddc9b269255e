import type { Axis } from "@/core/roof";
import { figure } from "../../wording/numbers";

/* What the eye takes in from a ladder: where the level lies against what is expected, which way to turn, the sweep so far. */

const W = 358;
const clamp = (v: number, low: number, high: number): number => Math.max(low, Math.min(high, v));

const HATCH_PX = 7;
/** Strokes at 45 degrees within a box. */
const hatched = (x: number, y: number, width: number, height: number): string => {
  const strokes: string[] = [];
  for (let c = HATCH_PX; c < width + height; c += HATCH_PX) {
    const [x1, y1] = c <= height ? [0, c] : [c - height, height];
    const [x2, y2] = c <= width ? [c, 0] : [width, c - width];
    strokes.push(`M${(x + x1).toFixed(1)} ${(y + y1).toFixed(1)}L${(x + x2).toFixed(1)} ${(y + y2).toFixed(1)}`);
  }
  return strokes.join("");
};

/** The level on a scale with the expected band. */
export const LevelScale = ({ dbm, lowDbm, highDbm }: { dbm: number | null; lowDbm: number; highDbm: number }) => {
  const from = Math.floor((Math.min(lowDbm - 25, dbm ?? lowDbm) - 3) / 10) * 10;
  const to = Math.ceil((Math.max(highDbm + 6, dbm ?? highDbm) + 1) / 10) * 10;
  const atX = (v: number): number => 12 + ((v - from) / (to - from)) * (W - 24);
  const ticks = Array.from({ length: (to - from) / 10 + 1 }, (_, i) => from + i * 10).filter((_, i, all) => all.length < 8 || i % 2 === 0);
  return (
    <svg
      viewBox={`0 0 ${W} 58`}
      className="block w-full"
      role="img"
      aria-label={`${dbm === null ? "Nothing read yet" : `${figure(dbm)} dBm`}; expected ${figure(lowDbm)} to ${figure(highDbm)}`}
    >
      <path d={`M${atX(from)} 34H${atX(to)}`} stroke="currentColor" strokeWidth={2.5} />
      <rect
        x={atX(lowDbm)}
        y={12}
        width={Math.max(4, atX(highDbm) - atX(lowDbm))}
        height={22}
        fill="none"
        stroke="currentColor"
        strokeWidth={2}
      />
      <path d={hatched(atX(lowDbm), 12, Math.max(4, atX(highDbm) - atX(lowDbm)), 22)} stroke="currentColor" strokeWidth={1.4} />
      {dbm !== null && (
        <path d={`M${atX(clamp(dbm, from, to))} 32l-10 -20h20z`} fill="currentColor" stroke="var(--paper)" strokeWidth={1.5} />
      )}
      {ticks.map((t) => (
        <g key={t}>
          <path d={`M${atX(t)} 34v7`} stroke="currentColor" strokeWidth={2} />
          <text x={clamp(atX(t), 18, W - 18)} y={55} fontSize={15.5} textAnchor="middle" className="mono">
            {figure(t)}
          </text>
        </g>
      ))}
    </svg>
  );
};

/** Which way, seen from behind the antenna. */
export const TurnArrow = ({ axis, deg }: { axis: Axis; deg: number }) => {
  const back = axis === "azimuth" ? deg < 0 : deg < 0;
  return (
    <svg viewBox="0 0 120 104" className="h-[104px] w-[120px] flex-none" aria-hidden="true">
      <g transform={axis === "azimuth" ? (back ? "translate(120 0) scale(-1 1)" : undefined) : `rotate(${back ? 90 : -90} 60 52)`}>
        <path d="M18 66A42 42 0 0 1 92 52" fill="none" stroke="currentColor" strokeWidth={15} />
        <path d="M114 34L104 80L70 54z" fill="currentColor" />
      </g>
      <rect x={51} y={64} width={18} height={34} fill="var(--paper)" stroke="currentColor" strokeWidth={4} />
    </svg>
  );
};

export interface ChartReading {
  readonly id: string;
  readonly deg: number;
  readonly dbm: number | null;
}

const H = 214;
const FLOOR = H - 34;

/** The sweep: what was read in its order, what is fitted, the expected band at the peak. */
export const SweepChart = ({
  axis,
  readings,
  levelAt,
  peakDeg,
  readAtDeg,
  lowDbm,
  highDbm,
  beamwidthDeg,
  misfit,
}: {
  axis: Axis;
  readings: readonly ChartReading[];
  levelAt: ((deg: number) => number) | null;
  peakDeg: number | null;
  readAtDeg: number | null;
  lowDbm: number;
  highDbm: number;
  beamwidthDeg: number;
  misfit: number | null;
}) => {
  const places = [...readings.map((r) => r.deg), 0, ...(peakDeg === null ? [] : [peakDeg]), ...(readAtDeg === null ? [] : [readAtDeg])];
  const from = Math.min(...places) - beamwidthDeg * 0.7;
  const to = Math.max(...places) + beamwidthDeg * 0.7;
  const atX = (deg: number): number => 14 + ((deg - from) / (to - from)) * (W - 28);
  const heard = readings.flatMap((r) => (r.dbm === null ? [] : [r.dbm]));
  const bottom = Math.min(lowDbm - 12, ...heard) - 2;
  const top = Math.max(highDbm + 2, ...heard) + 2;
  const atY = (dbm: number): number => 12 + ((top - clamp(dbm, bottom, top)) / (top - bottom)) * (FLOOR - 12);
  const stepDeg = [0.5, 1, 2, 5, 10, 20, 45].find((s) => (to - from) / s <= 6) ?? 90;
  const ticks = Array.from({ length: 40 }, (_, i) => (i - 20) * stepDeg).filter((t) => t > from && t < to);
  const fitted =
    levelAt === null
      ? ""
      : Array.from({ length: 120 }, (_, i) => from + ((to - from) * i) / 119)
          .map((d, i) => `${i === 0 ? "M" : "L"}${atX(d).toFixed(1)} ${atY(levelAt(d)).toFixed(1)}`)
          .join("");
  const at = peakDeg ?? (readings.length === 0 ? 0 : null);
  const sorted = [...readings].sort((a, b) => a.deg - b.deg).filter((r) => r.dbm !== null);
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className="block w-full" role="img" aria-label={`${readings.length} readings of the sweep`}>
      {at !== null && (
        <g>
          <rect
            x={atX(at) - 36}
            y={atY(highDbm)}
            width={72}
            height={Math.max(6, atY(lowDbm) - atY(highDbm))}
            fill="none"
            stroke="currentColor"
            strokeWidth={1.6}
          />
          <path
            d={hatched(atX(at) - 36, atY(highDbm), 72, Math.max(6, atY(lowDbm) - atY(highDbm)))}
            stroke="currentColor"
            strokeWidth={1}
          />
        </g>
      )}
      {fitted !== "" && <path d={fitted} fill="none" stroke="currentColor" strokeWidth={2} strokeDasharray="3 4" />}
      <path
        d={sorted.map((r, i) => `${i === 0 ? "M" : "L"}${atX(r.deg)} ${atY(r.dbm!)}`).join("")}
        fill="none"
        stroke="currentColor"
        strokeWidth={2.6}
      />
      {readAtDeg !== null && <path d={`M${atX(readAtDeg)} 12V${FLOOR}`} stroke="currentColor" strokeWidth={2} strokeDasharray="8 4" />}
      <path d={`M14 ${FLOOR}H${W - 14}`} stroke="currentColor" strokeWidth={2.4} />
      {ticks.map((t) => (
        <g key={t}>
          <path d={`M${atX(t)} ${FLOOR}v6`} stroke="currentColor" strokeWidth={2} />
          <text x={clamp(atX(t), 26, W - 26)} y={H - 8} fontSize={15.5} textAnchor="middle">
            {t === 0
              ? "start"
              : `${figure(Math.abs(t), t % 1 === 0 ? 0 : 1)}°${Math.abs(t) === stepDeg ? ` ${axis === "azimuth" ? (t < 0 ? "left" : "right") : t < 0 ? "down" : "up"}` : ""}`}
          </text>
        </g>
      ))}
      {readings.map((r, i) => {
        const last = i === readings.length - 1;
        const y = r.dbm === null ? FLOOR - 11 : atY(r.dbm);
        return (
          <g key={r.id}>
            <circle
              cx={atX(r.deg)}
              cy={y}
              r={10}
              fill={last ? "currentColor" : "var(--paper)"}
              stroke="currentColor"
              strokeWidth={2}
              strokeDasharray={r.dbm === null ? "3 3" : undefined}
            />
            <text
              x={atX(r.deg)}
              y={y + 5}
              fontSize={13.5}
              fontWeight={700}
              textAnchor="middle"
              style={last ? { fill: "var(--paper)" } : undefined}
            >
              {i + 1}
            </text>
            {misfit === i && <path d={`M${atX(r.deg) - 14} ${y - 14}l28 28m0 -28l-28 28`} stroke="currentColor" strokeWidth={2} />}
          </g>
        );
      })}
    </svg>
  );
};
