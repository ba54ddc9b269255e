/* Measured cuts out of a table of angles and gains: both planes through the peak, sorted, each level against the peak. */
import type { Cut, MeasuredCuts } from "./cuts";

export interface CutRow {
  /** Line of the file, for faults. */
  readonly line: number;
  readonly plane: string;
  readonly angle: string;
  readonly gain: string;
}

interface CutFault {
  readonly line: number;
  readonly column: "plane" | "angle" | "gain";
  readonly reason: string;
}

const PLANES: Readonly<Record<string, "azimuth" | "elevation">> = {
  azimuth: "azimuth",
  az: "azimuth",
  horizontal: "azimuth",
  elevation: "elevation",
  el: "elevation",
  vertical: "elevation",
};
const MOST_FAULTS = 20;
const LEAST_POINTS = 3;
const DEEPEST_DB = -120;

const figure = (text: string): number => {
  const clean = text.trim().replace("\u2212", "-").replace(",", ".");
  return clean === "" ? Number.NaN : Number(clean);
};

/** Angles of a whole turn are told from the axis to both sides. */
const aboutAxis = (deg: number): number => (deg > 180 ? deg - 360 : deg);

/**
 * @param rows gains in dBi or in dB below the peak: only their differences count.
 * @returns both cuts, or every fault with its line.
 */
export const cutsOfRows = (rows: readonly CutRow[]): { readonly cuts: MeasuredCuts } | { readonly faults: readonly CutFault[] } => {
  const faults: CutFault[] = [];
  const planes = { azimuth: new Map<number, number>(), elevation: new Map<number, number>() };
  for (const { line, plane, angle, gain } of rows) {
    const into = PLANES[plane.trim().toLowerCase()];
    const angleDeg = figure(angle);
    const level = figure(gain);
    if (into === undefined) faults.push({ line, column: "plane", reason: `"${plane.slice(0, 20)}" is neither azimuth nor elevation` });
    if (!(angleDeg >= -180 && angleDeg <= 360))
      faults.push({ line, column: "angle", reason: `"${angle.slice(0, 20)}" is no angle from -180 to 360 degrees` });
    if (!Number.isFinite(level)) faults.push({ line, column: "gain", reason: `"${gain.slice(0, 20)}" is not a number` });
    if (into === undefined || !Number.isFinite(level) || !(angleDeg >= -180 && angleDeg <= 360)) continue;
    const at = aboutAxis(angleDeg);
    if (planes[into].has(at)) faults.push({ line, column: "angle", reason: `${at} degrees stands in this plane already` });
    else planes[into].set(at, level);
  }
  for (const [name, points] of Object.entries(planes))
    if (points.size < LEAST_POINTS)
      faults.push({
        line: 0,
        column: "plane",
        reason: `the plane of ${name} has ${points.size} points; at least ${LEAST_POINTS} are needed`,
      });
  if (faults.length > 0) return { faults: faults.slice(0, MOST_FAULTS) };
  const cut = (points: ReadonlyMap<number, number>): Cut => {
    const sorted = [...points].sort(([a], [b]) => a - b);
    const peak = Math.max(...points.values());
    return { angleDeg: sorted.map(([a]) => a), relativeDb: sorted.map(([, g]) => Math.max(DEEPEST_DB, g - peak)) };
  };
  return { cuts: { azimuth: cut(planes.azimuth), elevation: cut(planes.elevation) } };
};
