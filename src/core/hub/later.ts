/* A bearing kept free for later: whether a beam takes it in, and what would then be left of that sector's air (ours). */
import { offBy, type SectorAim } from "./beam";
import type { JudgedSector } from "./hub";

export interface LaterPlace {
  /** The sector whose axis is nearest of those whose beam takes the bearing in; else the nearest of all; null for none. */
  readonly sector: number | null;
  /** Beyond the edge of its beam, degrees; 0 inside. */
  readonly besideDeg: number;
  /** Of the air, at the mean rate of those that hang there now; null where nobody does. */
  readonly airShare: number | null;
  /** Left of what may be used once it is taken. */
  readonly leftShare: number | null;
}

export const laterPlace = (
  sectors: readonly (JudgedSector | null)[],
  aims: readonly SectorAim[],
  later: { readonly bearingDeg: number; readonly mbps: number },
): LaterPlace => {
  let best: { readonly sector: number; readonly besideDeg: number; readonly offDeg: number } | null = null;
  sectors.forEach((s, i) => {
    const aim = aims[i];
    if (s === null || aim === undefined) return;
    const offDeg = Math.abs(offBy(aim.azimuthDeg, later.bearingDeg));
    const besideDeg = s.edges.asideDeg === null ? 0 : Math.max(0, offDeg - s.edges.asideDeg);
    if (best === null || besideDeg < best.besideDeg || (besideDeg === best.besideDeg && offDeg < best.offDeg))
      best = { sector: i, besideDeg, offDeg };
  });
  const found = best as { readonly sector: number; readonly besideDeg: number } | null;
  if (found === null) return { sector: null, besideDeg: 0, airShare: null, leftShare: null };
  const { air } = sectors[found.sector]!;
  const rates = air.remotes.map((r) => r.backMbps).filter((r) => r > 0);
  const mean = rates.reduce((n, r) => n + r, 0) / rates.length;
  const airShare = rates.length === 0 ? null : later.mbps / mean;
  return { ...found, airShare, leftShare: airShare === null || !Number.isFinite(air.asked) ? null : air.mayUse - air.asked - airShare };
};
