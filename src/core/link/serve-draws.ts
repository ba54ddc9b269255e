/* The draws that decide whether a need is kept, apart from any power: one set serves every setting of both ends. */
import { drawnBodies } from "./chance";
import { moveDraw } from "./draw-moves";
import { DEFAULT_SEED, drawSource } from "./draws";
import { serviceOf } from "./evaluate";
import { marginsByRain, waysOf } from "./kept";
import type { PathState } from "./path-state";
import type { LinkPlan } from "./types";

export interface ServeDraws {
  readonly draws: number;
  /** By how much each way's level moves against its median, dB. */
  readonly toFarDb: Float64Array;
  readonly toNearDb: Float64Array;
  /** Margin that the need's share of the year asks for in the rain of each draw, dB. */
  readonly marginFarDb: Float64Array;
  readonly marginNearDb: Float64Array;
}

/**
 * The same moves that the section's doubt draws.
 * @returns null when the ground is not known all along, or the radios do not pair.
 */
export const serveDraws = (plan: LinkPlan, state: PathState, draws: number, seed = DEFAULT_SEED): ServeDraws | null => {
  const { path } = state;
  if (path.unknownGroundM > 0 || state.clearance.worst === null) return null;
  const { toFar, toNear } = serviceOf(plan, state).service;
  if (toFar === null || toNear === null) return null;
  const bodies = drawnBodies(plan, path, state.conditions);
  const source = drawSource(plan, path.profile, bodies.heights, draws, seed);
  const move = moveDraw(plan, state, toFar, source.field, bodies.parts[0]!.sections, seed);
  const ways = waysOf(plan, state, toFar, toNear);
  const marginFar = marginsByRain(ways.toFar);
  const marginNear = marginsByRain(ways.toNear);
  const make = (): Float64Array => new Float64Array(draws);
  const out = { draws, toFarDb: make(), toNearDb: make(), marginFarDb: make(), marginNearDb: make() };
  for (let n = 0; n < draws; n++) {
    const m = move(source.next());
    out.toFarDb[n] = m.toFarDb;
    out.toNearDb[n] = m.toNearDb;
    out.marginFarDb[n] = marginFar(m.rainSigmas);
    out.marginNearDb[n] = marginNear(m.rainSigmas);
  }
  return out;
};
