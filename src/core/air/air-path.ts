/* What a link's path is to its radios on any channel, kept with its verdict: no path is walked again for a change of channel. */
import { type Direction, gainsAround, type Kept, type LinkPlan, type PathState } from "../link";
import type { AirPath } from "./link-rates";

/** Null where the radios do not pair. */
export const airPathOf = (
  plan: LinkPlan,
  state: PathState,
  service: { readonly kept: Kept | null; readonly toFar: Direction | null; readonly toNear: Direction | null },
): AirPath | null => {
  const far = service.toFar?.ladder[0];
  const near = service.toNear?.ladder[0];
  if (far === undefined || near === undefined) return null;
  const gains = gainsAround(plan, plan.near, plan.far, state);
  const { kept } = service;
  const margin = (of: number | undefined): number => (of === undefined || !Number.isFinite(of) ? plan.policy.marginDb : of);
  return {
    pathM: state.rayM,
    nearAmslM: state.nearAmslM,
    farAmslM: state.farAmslM,
    nearTiltDeg: state.nearTiltDeg,
    farTiltDeg: state.farTiltDeg,
    toFarDb: far.levelDbm - far.txPowerDbm,
    toNearDb: near.levelDbm - near.txPowerDbm,
    marginToFarDb: margin(kept?.toFar.neededMarginDb),
    marginToNearDb: margin(kept?.toNear.neededMarginDb),
    nearWallDb: gains.barrierOut?.medianDb ?? 0,
    farWallDb: gains.barrierIn?.medianDb ?? 0,
  };
};
