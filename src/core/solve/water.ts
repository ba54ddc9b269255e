/* The reflected ray over tide and heights: where a mount may stand without falling into a null. */
import { type LinkPlan, type PathState, type PreparedPath, pathStateOf, type Reflector, reflectedAt, reflectorOf } from "../link";
import { withHeights } from "./heights";

const TIDES = 33;
/** A worst level above this over the whole tide is no null (ours). */
export const NULL_BELOW_DB = -3;

export interface TideLevel {
  readonly tideM: number;
  /** Both rays against the direct one, dB; null where the geometry throws no second ray. */
  readonly relativeDb: number | null;
}

export interface HeightLevel {
  readonly aglM: number;
  /** Weakest and strongest over the tide; null where no second ray arrives. */
  readonly worstDb: number | null;
  readonly bestDb: number | null;
}

export interface WaterView {
  readonly surface: Reflector["surface"];
  readonly levelAmslM: number;
  readonly tideRangeM: number;
  readonly fromM: number;
  readonly toM: number;
}

const over = (plan: LinkPlan, state: PathState, reflector: Reflector): TideLevel[] => {
  const tides = reflector.tideRangeM > 0 ? TIDES : 1;
  return Array.from({ length: tides }, (_, i) => {
    const tideM = tides === 1 ? 0 : reflector.tideRangeM * (i / (tides - 1) - 0.5);
    return { tideM, relativeDb: reflectedAt(plan, state, reflector, { tideM }).relativeDb };
  });
};

/** Level against tide at the present heights, in fine steps; null when no level surface throws a second ray. */
export const levelOverTide = (plan: LinkPlan, path: PreparedPath, steps = 61): { water: WaterView; levels: TideLevel[] } | null => {
  const state = pathStateOf(plan, path);
  const reflector = reflectorOf(plan, state);
  if (reflector === null) return null;
  const { stretch, surface, tideRangeM } = reflector;
  const levels = Array.from({ length: steps }, (_, i) => {
    const tideM = tideRangeM * (i / (steps - 1) - 0.5);
    return { tideM, relativeDb: reflectedAt(plan, state, reflector, { tideM }).relativeDb };
  });
  return { water: { surface, levelAmslM: stretch.heightAmslM, tideRangeM, fromM: stretch.fromM, toM: stretch.toM }, levels };
};

/** Weakest and strongest level over the tide for heights of one mount, the other held. */
export const levelOverHeight = (
  plan: LinkPlan,
  path: PreparedPath,
  end: "near" | "far",
  fromAglM: number,
  toAglM: number,
  steps = 121,
): HeightLevel[] =>
  Array.from({ length: steps }, (_, i) => {
    const aglM = fromAglM + ((toAglM - fromAglM) * i) / (steps - 1);
    const moved = end === "near" ? withHeights(plan, aglM, plan.far.mountAglM) : withHeights(plan, plan.near.mountAglM, aglM);
    const state = pathStateOf(moved, path);
    const reflector = reflectorOf(moved, state);
    const levels = reflector === null ? [] : over(moved, state, reflector).flatMap((t) => (t.relativeDb === null ? [] : [t.relativeDb]));
    if (levels.length === 0) return { aglM, worstDb: null, bestDb: null };
    return { aglM, worstDb: Math.min(...levels), bestDb: Math.max(...levels) };
  });

/** Stretches of heights without a null over the tide, each with its best height. */
export const heightsWithoutNull = (levels: readonly HeightLevel[]): { fromM: number; toM: number; bestAglM: number; worstDb: number }[] => {
  const found: { fromM: number; toM: number; bestAglM: number; worstDb: number }[] = [];
  let open: (typeof found)[number] | null = null;
  for (const l of levels) {
    const worst = l.worstDb ?? 0;
    if (worst <= NULL_BELOW_DB) {
      open = null;
      continue;
    }
    if (open === null) {
      open = { fromM: l.aglM, toM: l.aglM, bestAglM: l.aglM, worstDb: worst };
      found.push(open);
    }
    open.toM = l.aglM;
    if (worst > open.worstDb) {
      open.worstDb = worst;
      open.bestAglM = l.aglM;
    }
  }
  return found;
};

/** Worst level over the tide for pairs of heights: rows of far heights from 0 up, each a row of near heights from 0 up; NaN without a second ray. */
export const worstOverTideGrid = (
  plan: LinkPlan,
  path: PreparedPath,
  tops: { readonly nearM: number; readonly farM: number },
  side: number,
): Float32Array => {
  const out = new Float32Array(side * side).fill(Number.NaN);
  for (let f = 0; f < side; f++) {
    for (let n = 0; n < side; n++) {
      const moved = withHeights(plan, (tops.nearM * n) / (side - 1), (tops.farM * f) / (side - 1));
      const state = pathStateOf(moved, path);
      const reflector = reflectorOf(moved, state);
      if (reflector === null) continue;
      const levels = over(moved, state, reflector).flatMap((t) => (t.relativeDb === null ? [] : [t.relativeDb]));
      if (levels.length > 0) out[f * side + n] = Math.min(...levels);
    }
  }
  return out;
};
