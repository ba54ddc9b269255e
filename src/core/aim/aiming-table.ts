/* Level against turn, to be read beside the antenna: in steps that a hand can make, out to the false peak. */
import type { Pattern } from "../antenna";
import { type AimAxis, cutOf, lobesOf } from "./lobes";

export interface AimingRow {
  readonly offDeg: number;
  /** Of both sides, the higher: a measured cut may differ. */
  readonly levelDbm: number;
  /** Within the false peak, as far as it stands within 3 dB of its top. */
  readonly falsePeak: boolean;
}

export interface AimingTable {
  readonly axis: AimAxis;
  readonly beamwidthDeg: number;
  readonly stepDeg: number;
  readonly rows: readonly AimingRow[];
  readonly firstNullDeg: number | null;
  readonly falsePeakDeg: number | null;
  readonly falsePeakDbm: number | null;
}

const STEPS_DEG = [0.05, 0.1, 0.2, 0.25, 0.5, 1, 2, 2.5, 5, 10];
const ROWS = 19;
const LOBE_TOP_DB = 3;

/** The least step that a hand can make of those that reach so far in so many rows. */
export const stepFor = (reachDeg: number, rows: number): number => STEPS_DEG.find((s) => s * (rows - 1) >= reachDeg) ?? 10;

/** @returns null for an antenna that is not aimed by turning (omni, a beam over 90 degrees, one that steers itself). */
export const aimingTable = (pattern: Pattern, axis: AimAxis, peakDbm: number): AimingTable | null => {
  const lobes = lobesOf(pattern, axis);
  if (lobes === null) return null;
  const cut = cutOf(pattern, axis);
  const sides = [lobes.plus, lobes.minus].filter((s) => s.falsePeakDb !== null);
  const worst = sides.length === 0 ? null : sides.reduce((x, s) => (s.falsePeakDb! > x.falsePeakDb! ? s : x));
  const reachDeg = worst === null ? lobes.beamwidthDeg * 1.5 : worst.falsePeakDeg! + (worst.falsePeakDeg! - worst.nullDeg!);
  const stepDeg = stepFor(reachDeg, ROWS);
  const count = Math.min(ROWS, Math.ceil(reachDeg / stepDeg) + 1);
  const rows = Array.from({ length: count }, (_, i) => {
    const offDeg = i * stepDeg;
    const relative = Math.max(cut(offDeg), cut(-offDeg));
    return {
      offDeg,
      levelDbm: peakDbm + relative,
      falsePeak: worst !== null && offDeg > worst.nullDeg! && relative > worst.falsePeakDb! - LOBE_TOP_DB,
    };
  });
  const nulls = [lobes.plus.nullDeg, lobes.minus.nullDeg].filter((n) => n !== null);
  return {
    axis,
    beamwidthDeg: lobes.beamwidthDeg,
    stepDeg,
    rows,
    firstNullDeg: nulls.length === 0 ? null : Math.min(...nulls),
    falsePeakDeg: worst?.falsePeakDeg ?? null,
    falsePeakDbm: worst === null ? null : peakDbm + worst.falsePeakDb!,
  };
};
