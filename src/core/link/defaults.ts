import type { WaterPlan } from "./types";

/** Ground said to be level, at whatever height, is not thereby the sea: it reflects only where a surface was named. */
export const waterOver = (water: WaterPlan, toldLevel: boolean): WaterPlan =>
  toldLevel && water.surface === "auto" ? { ...water, surface: "none" } : water;

/** Low value of k exceeded for 99.99 % of the worst month, by path length (P.530-17 Fig. 2 read from memory; low confidence). */
export const K_LOW_DEFAULT = [
  { pathKm: 20, k: 0.6 },
  { pathKm: 50, k: 0.8 },
  { pathKm: 100, k: 0.9 },
] as const;

/** Pointed true at the other end. */
export const AIMED = { azimuthDeg: null, tiltDeg: null } as const;

/** Low k for a path, linear between the table's rows, held at its ends. @throws RangeError for an empty table. */
export const kLowOf = (table: readonly { readonly pathKm: number; readonly k: number }[], pathKm: number): number => {
  const first = table[0];
  if (first === undefined) throw new RangeError("the table of low k is empty");
  if (pathKm <= first.pathKm) return first.k;
  for (let i = 1; i < table.length; i++) {
    const a = table[i - 1]!;
    const b = table[i]!;
    if (pathKm <= b.pathKm) return a.k + ((b.k - a.k) * (pathKm - a.pathKm)) / (b.pathKm - a.pathKm);
  }
  return table[table.length - 1]!.k;
};
