import {
  deltaBullingtonDb,
  finiteScreenLossDb,
  knifeEdgeLossDb,
  shiftedDiffraction,
  shiftScratch,
  thinnedDiffraction,
} from "../propagation";
import type { Draw } from "./draws";
import type { GroundField } from "./ground-field";
import { vOfHeight } from "./obstruction";
import type { PathState } from "./path-state";
import type { LinkPlan } from "./types";

/** Points of a profile that a draw looks at: the moved field is smooth over the rest. */
export const MOST_POINTS = 512;

/** Loss of one draw over moved ground and bodies, dB. @param solidErrorM height error of each solid of the path. */
export type DiffractionOfDraw = (draw: Draw, solidErrorM: readonly number[]) => number;

/** The same choice as in the median: the whole profile, or with a dominating body its edge over the rest. Null without a profile. */
export const diffractionDraw = (plan: LinkPlan, state: PathState, field: GroundField): DiffractionOfDraw | null => {
  const { path, ray } = state;
  const all = path.withBodies();
  if (all === null) return null;
  const whole = thinnedDiffraction(all, state.nearAmslM, state.farAmslM, MOST_POINTS);
  const term = state.obstruction[0]!;
  const atM = Number(term.inputs.atM);
  const dominant = term.inputs.v === undefined ? -1 : path.solids.findIndex((s) => s.prepared.body.name === term.inputs.over);
  const without = dominant < 0 ? null : path.without(dominant);
  const rest = without === null ? null : thinnedDiffraction(without, state.nearAmslM, state.farAmslM, MOST_POINTS);
  const wholeField = field.along(whole.fromNearKm);
  const wholeRoom = shiftScratch(whole);
  const restField = rest === null ? null : field.along(rest.fromNearKm);
  const restRoom = rest === null ? null : shiftScratch(rest);
  // Points that lie in a solid move with its own height error too.
  const tops = new Float64Array(whole.count);
  const ranges = path.solids.map(({ prepared }) =>
    prepared.stretches.map((s) => {
      const from = whole.fromNearKm.findIndex((d) => d * 1000 >= s.fromM);
      let to = from;
      while (to >= 0 && to < whole.count && whole.fromNearKm[to]! * 1000 <= s.toM) to++;
      return [Math.max(0, from), Math.max(0, to)] as const;
    }),
  );
  return (draw, solidErrorM) => {
    const scale = plan.policy.kFactor / draw.kFactor;
    const nearM = state.nearAmslM + draw.nearMountM;
    const farM = state.farAmslM + draw.farMountM;
    wholeField.fill();
    if (ranges.length > 0) {
      tops.fill(0);
      ranges.forEach((stretches, i) => {
        for (const [from, to] of stretches) for (let k = from; k < to; k++) tops[k] = solidErrorM[i] ?? 0;
      });
    }
    const bodies = ranges.length > 0 ? tops : null;
    const allDb = deltaBullingtonDb(
      shiftedDiffraction(whole, wholeField.shiftM, field.nearM(), field.farM(), bodies, scale, wholeRoom),
      nearM,
      farM,
    );
    if (rest === null || restField === null || restRoom === null) return allDb;
    restField.fill();
    const restDb = deltaBullingtonDb(
      shiftedDiffraction(rest, restField.shiftM, field.nearM(), field.farM(), null, scale, restRoom),
      nearM,
      farM,
    );
    const v = Number(term.inputs.v) + vOfHeight(ray, atM, field.at(atM) + (solidErrorM[dominant] ?? 0) - draw.rayUpM(atM));
    const { narrow } = path.solids[dominant]!;
    let edgeDb = knifeEdgeLossDb(v);
    if (narrow !== null) {
      edgeDb = Math.min(edgeDb, finiteScreenLossDb(v, vOfHeight(ray, atM, narrow.leftM), vOfHeight(ray, atM, narrow.rightM)));
    }
    return Math.min(allDb, edgeDb + restDb);
  };
};
