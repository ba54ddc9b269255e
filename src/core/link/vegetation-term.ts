import { type Ray, rayBulgeM, rayZM, shadowOf } from "../obstacles";
import { type LeafLoss, leafLoss, screenLoss, THROUGH_LIMIT_GHZ, woodlandLossDb } from "../propagation";
import type { BodyApproach } from "./clearance";
import { vOfHeight } from "./obstruction";
import type { PreparedBody } from "./prepare";
import type { LevelTerm, LinkPlan } from "./types";

interface CrownLoss {
  readonly medianDb: number;
  readonly leastDb: number;
  readonly mostDb: number;
  readonly depthM: number;
  readonly inRange: boolean;
  readonly woodland: boolean;
}

/** An end this far inside an outline is inside the wood (ours). */
const MIN_INSIDE_M = 0.5;

/** A crown as a screen: v of its top and both its sides, how v moves with a metre, and the leaves behind one another. */
export interface CrownEdges {
  readonly topV: number;
  readonly leftV: number;
  readonly rightV: number;
  readonly vPerM: number;
  readonly depthM: number;
  readonly atM: number;
}

/** @returns null for a crown that lies behind an end. */
export const crownEdges = (ray: Ray, prepared: PreparedBody, topM: (xM: number) => number): CrownEdges | null => {
  const shadow = shadowOf(prepared.body, ray.pathM, ray.wavelengthM);
  if (shadow === null) return null;
  const fromM = Math.max(ray.startM, shadow.fromM);
  const toM = Math.min(ray.endM, shadow.toM);
  const atM = Math.min(ray.endM - 0.5, Math.max(ray.startM + 0.5, (shadow.fromM + shadow.toM) / 2));
  return {
    topV: vOfHeight(ray, atM, topM(atM) + rayBulgeM(ray, atM) - rayZM(ray, atM)),
    leftV: Math.SQRT2 * shadow.leftF1,
    rightV: Math.SQRT2 * shadow.rightF1,
    vPerM: vOfHeight(ray, atM, 1),
    depthM: Math.max(0, toM - fromM),
    atM,
  };
};

/**
 * Loss by one crown whose leaves take `throughDb`: the power that passes over and round it, and through the
 * leaves what the covered part of the zone carries; never more than the leaves alone.
 */
export const crownLossDb = (topV: number, leftV: number, rightV: number, throughDb: number): number => {
  const { lossDb, covered } = screenLoss(topV, leftV, rightV);
  if (lossDb <= 0) return 0;
  return Math.max(0, Math.min(throughDb, -10 * Math.log10(10 ** (-lossDb / 10) + covered * 10 ** (-throughDb / 10))));
};

const crownLoss = (e: CrownEdges, leafOf: (depthM: number) => LeafLoss): CrownLoss => {
  const leaf = leafOf(e.depthM);
  const all = (throughDb: number): number => crownLossDb(e.topV, e.leftV, e.rightV, throughDb);
  const medianDb = all(leaf.medianDb);
  return {
    medianDb,
    leastDb: all(leaf.leastDb),
    mostDb: all(leaf.mostDb),
    depthM: medianDb > 0 ? e.depthM : 0,
    inRange: leaf.inRange,
    woodland: false,
  };
};

/** An end inside a wood looks out through it: the woodland form over the depth to its edge. */
const insideWood = (ray: Ray, prepared: PreparedBody, frequencyGhz: number, topM: (xM: number) => number): CrownLoss | null => {
  for (const s of prepared.stretches) {
    const nearIn =
      s.fromM <= ray.startM && s.toM > ray.startM + MIN_INSIDE_M && topM(ray.startM) + rayBulgeM(ray, ray.startM) > ray.startZM;
    const farIn = s.toM >= ray.endM && s.fromM < ray.endM - MIN_INSIDE_M && topM(ray.endM) + rayBulgeM(ray, ray.endM) > ray.endZM;
    if (!nearIn && !farIn) continue;
    const depthM = Math.min(s.toM, ray.endM) - Math.max(s.fromM, ray.startM);
    const lossDb = woodlandLossDb(frequencyGhz, depthM);
    // Figure 2 scatters by half about its curve.
    return { medianDb: lossDb, leastDb: lossDb * 0.5, mostDb: lossDb * 1.5, depthM, inRange: frequencyGhz <= 30, woodland: true };
  }
  return null;
};

/** Loss by all crowns and woods on the ray, added one after another. */
export const vegetationTerm = (ray: Ray, plan: LinkPlan, bodies: readonly BodyApproach[]): LevelTerm => {
  const frequencyGhz = plan.centreMhz / 1000;
  const leafOf = (depthM: number): LeafLoss => leafLoss(frequencyGhz, Math.max(0, depthM), plan.policy.leaf);
  const sum = { medianDb: 0, leastDb: 0, mostDb: 0, depthM: 0 };
  let over = "";
  let largestDb = 0;
  let inRange = true;
  let woodland = false;
  for (const b of bodies) {
    if (!b.vegetation) continue;
    const { prepared } = b;
    const topM = prepared.topAt(plan.policy.year);
    const inside = b.body.kind === "wood" ? insideWood(ray, prepared, frequencyGhz, topM) : null;
    const edges = inside === null ? crownEdges(ray, prepared, topM) : null;
    const crown = inside ?? (edges === null ? null : crownLoss(edges, leafOf));
    if (crown === null) continue;
    sum.medianDb += crown.medianDb;
    sum.leastDb += crown.leastDb;
    sum.mostDb += crown.mostDb;
    sum.depthM += crown.depthM;
    inRange &&= crown.inRange || crown.medianDb === 0;
    woodland ||= crown.woodland;
    if (crown.medianDb > largestDb) {
      largestDb = crown.medianDb;
      over = b.body.name;
    }
  }
  return {
    id: "vegetation",
    valueDb: -sum.medianDb,
    worseByDb: sum.mostDb - sum.medianDb,
    betterByDb: sum.medianDb - sum.leastDb,
    clause: woodland
      ? "P.833 §2.1 (1), Fig. 2 from memory"
      : plan.policy.leaf === "in"
        ? "P.833 early form 0.2 f^0.3 d^0.6; band FITU-R"
        : "FITU-R out of leaf; band to in leaf",
    inputs: { frequencyGhz, depthM: sum.depthM, over, leaf: plan.policy.leaf, leastDb: sum.leastDb, mostDb: sum.mostDb },
    inRange: inRange && (sum.medianDb === 0 || frequencyGhz <= THROUGH_LIMIT_GHZ),
  };
};
