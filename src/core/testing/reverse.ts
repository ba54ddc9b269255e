import type { LinkPlan, PathProfile } from "../link";

const back = <T extends Float64Array | Uint8Array>(a: T): T => a.slice().reverse() as T;

/** The same link told from its other end. */
export const reversed = (plan: LinkPlan, q: PathProfile): { plan: LinkPlan; profile: PathProfile } => ({
  plan: {
    ...plan,
    near: plan.far,
    far: plan.near,
    needToFarMbps: plan.needToNearMbps,
    needToNearMbps: plan.needToFarMbps,
    frameShareToFar: plan.frameShareToFar === null ? null : 1 - plan.frameShareToFar,
  },
  profile: {
    ...q,
    nearBearingDeg: q.farBearingDeg,
    farBearingDeg: q.nearBearingDeg,
    distanceM: back(q.distanceM).map((x) => q.pathM - x),
    groundAmslM: back(q.groundAmslM),
    datasetIndex: back(q.datasetIndex),
    bodies: q.bodies.map((b) => ({
      ...b,
      xM: b.xM.map((x) => q.pathM - x),
      yM: b.yM.map((y) => -y),
      carries: b.carries === null ? null : b.carries === "near" ? ("far" as const) : ("near" as const),
    })),
    features: q.features.map((f) => ({ ...f, alongM: q.pathM - f.alongM, acrossM: -f.acrossM })),
  },
});
