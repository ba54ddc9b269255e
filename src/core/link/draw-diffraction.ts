import { shiftedDiffraction, shiftScratch, thinnedDiffraction } from "../propagation";
import type { Draw } from "./draws";
import type { GroundField } from "./ground-field";
import type { PathState } from "./path-state";
import { obstructedDb, type Screen, screensAt } from "./screens";
import type { LinkPlan } from "./types";

/** Points of a profile that a draw looks at: the moved field is smooth over the rest. */
const MOST_POINTS = 512;

/** Loss of one draw over moved ground and bodies, dB. @param errorM height error of a screen by its index. */
export type DiffractionOfDraw = (draw: Draw, errorM: (screen: number) => number) => number;

/** The same as in the median, over everything moved. Null without a profile. */
export const diffractionDraw = (plan: LinkPlan, state: PathState, field: GroundField): DiffractionOfDraw | null => {
  const { path } = state;
  const bare = path.bare();
  if (bare === null) return null;
  const whole = path.screens();
  const stay = whole.flatMap((s) => [s.from, (s.from + s.to) >> 1, s.to]);
  const { profile: thin, kept } = thinnedDiffraction(bare, state.nearAmslM, state.farAmslM, MOST_POINTS, stay);
  const placeOf = new Map(kept.map((k, i) => [k, i]));
  const screens = whole.map((s: Screen) => ({ ...s, from: placeOf.get(s.from)!, to: placeOf.get(s.to)! }));
  const tops = whole.map((s) => s.prepared.topAt(plan.policy.year)(0));
  const atM = screens.map((s) => (thin.fromNearKm[s.from]! + thin.fromNearKm[s.to]!) * 500);
  const along = field.along(thin.fromNearKm);
  const room = shiftScratch(thin);
  const topM = new Float64Array(thin.count);
  return (draw, errorM) => {
    along.fill();
    const scale = plan.policy.kFactor / draw.kFactor;
    const nearM = state.nearAmslM + draw.nearMountM;
    const farM = state.farAmslM + draw.farMountM;
    const moved = shiftedDiffraction(thin, along.shiftM, field.nearM(), field.farM(), null, scale, room);
    const at = screensAt(moved, screens, nearM, farM, (i) => tops[i]! + field.at(atM[i]!) + errorM(i), draw.asideM);
    return obstructedDb(moved, screens, at, nearM, farM, topM).medianDb;
  };
};
