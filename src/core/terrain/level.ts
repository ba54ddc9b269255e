/** A stretch of a profile that lies level: water, or ground as flat as water. */
export interface LevelStretch {
  readonly fromM: number;
  readonly toM: number;
  readonly heightAmslM: number;
  /** Within half a metre of mean sea level (ours): taken as sea. */
  readonly sea: boolean;
}

/** Points within this of the first belong to one level stretch (ours). */
const LEVEL_WITHIN_M = 0.02;
const SEA_WITHIN_M = 0.5;
/** Shorter stretches reflect nothing worth counting (ours). */
const SHORTEST_M = 20;

/** Level stretches of a profile, in order along it. */
export const levelStretches = (distanceM: Float64Array, groundAmslM: Float64Array): LevelStretch[] => {
  const out: LevelStretch[] = [];
  let start = 0;
  const close = (end: number): void => {
    const fromM = distanceM[start]!;
    const toM = distanceM[end]!;
    const h = groundAmslM[start]!;
    if (toM - fromM >= SHORTEST_M && !Number.isNaN(h)) out.push({ fromM, toM, heightAmslM: h, sea: Math.abs(h) <= SEA_WITHIN_M });
  };
  for (let i = 1; i < distanceM.length; i++) {
    if (Math.abs(groundAmslM[i]! - groundAmslM[start]!) <= LEVEL_WITHIN_M) continue;
    close(i - 1);
    start = i;
  }
  close(distanceM.length - 1);
  return out;
};
