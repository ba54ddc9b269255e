import { f1RadiusM, isSolid, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { deltaBullingtonDb, finiteScreenLossDb, knifeEdgeLossDb, LEAST_V, vOfShare } from "../propagation";
import type { BodyApproach } from "./clearance";
import type { PreparedPath } from "./prepare";
import type { LevelTerm, LinkPlan } from "./types";

/** v of a height above the ray at a place: h sqrt(2) / F1. */
export const vOfHeight = (ray: Ray, xM: number, aboveM: number): number => (Math.SQRT2 * aboveM) / Math.max(0.01, f1RadiusM(ray, xM));

/**
 * Diffraction over ground and solid bodies: P.526-15 delta-Bullington, and with drawn bodies (ours) the
 * dominating one taken as a single edge, or as a finite screen when narrow, over the rest.
 */
export const diffractionTerm = (path: PreparedPath, ray: Ray, plan: LinkPlan, nearAmslM: number, farAmslM: number): LevelTerm => {
  const frequencyGhz = plan.centreMhz / 1000;
  const base = { id: "diffraction" as const, clause: "P.526-15 §4.5.4" };
  const whole = path.withBodies();
  if (whole === null) {
    return {
      ...base,
      valueDb: 0,
      worseByDb: 0,
      inputs: { frequencyGhz, kFactor: plan.policy.kFactor, over: "unknown ground", unknownGroundM: path.unknownGroundM },
      inRange: false,
    };
  }
  const allDb = deltaBullingtonDb(whole, nearAmslM, farAmslM);
  let dominant = -1;
  let dominantV = LEAST_V;
  let dominantAtM = 0;
  path.solids.forEach(({ prepared }, index) => {
    const top = prepared.topAt(plan.policy.year);
    for (const { fromM, toM } of prepared.stretches) {
      for (const x of [fromM, (fromM + toM) / 2, toM]) {
        if (x <= ray.startM || x >= ray.endM) continue;
        const v = vOfHeight(ray, x, top(x) + rayBulgeM(ray, x) - rayZM(ray, x));
        if (v > dominantV) {
          dominantV = v;
          dominant = index;
          dominantAtM = x;
        }
      }
    }
  });
  const rest = dominant < 0 ? null : path.without(dominant);
  if (dominant < 0 || rest === null) {
    return {
      ...base,
      valueDb: -allDb,
      worseByDb: 0,
      inputs: { frequencyGhz, kFactor: plan.policy.kFactor, over: "ground" },
      inRange: true,
    };
  }
  const { prepared, narrow } = path.solids[dominant]!;
  let edgeDb = knifeEdgeLossDb(dominantV);
  if (narrow !== null) {
    edgeDb = Math.min(
      edgeDb,
      finiteScreenLossDb(dominantV, vOfHeight(ray, dominantAtM, narrow.leftM), vOfHeight(ray, dominantAtM, narrow.rightM)),
    );
  }
  const restDb = deltaBullingtonDb(rest, nearAmslM, farAmslM);
  const medianDb = Math.min(allDb, edgeDb + restDb);
  return {
    id: "diffraction",
    valueDb: -medianDb,
    worseByDb: allDb - medianDb,
    clause: narrow === null ? "P.526-15 §4.5.4, §4.1 (31)" : "P.526-15 §4.5.4, §5.2",
    inputs: {
      frequencyGhz,
      kFactor: plan.policy.kFactor,
      v: dominantV,
      edgeDb,
      restDb,
      wholeDb: allDb,
      dominantShare: edgeDb / Math.max(1e-9, edgeDb + restDb),
      over: prepared.body.name,
      atM: dominantAtM,
    },
    inRange: true,
  };
};

/** Loss by solid bodies beside the ray: J(-sqrt(2) c) for the nearest on each side, P.526-15 §4.1. */
export const besideTerm = (bodies: readonly BodyApproach[]): LevelTerm => {
  let leftDb = 0;
  let rightDb = 0;
  let over = "";
  for (const b of bodies) {
    if (!isSolid(b.body.kind) || b.body.carries !== null || b.side === "over" || b.side === "through") continue;
    const lossDb = knifeEdgeLossDb(vOfShare(b.share));
    if (lossDb > Math.max(leftDb, rightDb)) over = b.body.name;
    if (b.side === "left") leftDb = Math.max(leftDb, lossDb);
    else rightDb = Math.max(rightDb, lossDb);
  }
  return {
    id: "beside",
    valueDb: -(leftDb + rightDb),
    worseByDb: 0,
    clause: "P.526-15 §4.1 (31)",
    inputs: { leftDb, rightDb, over },
    inRange: true,
  };
};

/** The share of an end's own building that comes into 60 % of F1 counts as one edge (ours). */
const OWN_EDGE_SHARE = 0.6;

export const ownEdgeTerm = (bodies: readonly BodyApproach[]): LevelTerm => {
  let lossDb = 0;
  let over = "";
  for (const b of bodies) {
    if (b.body.carries === null || b.vegetation || b.share >= OWN_EDGE_SHARE) continue;
    lossDb += knifeEdgeLossDb(vOfShare(b.share));
    over = b.body.name;
  }
  return { id: "own-edge", valueDb: -lossDb, worseByDb: 0, clause: "P.526-15 §4.1 (31)", inputs: { over }, inRange: true };
};
