import { acrossExtent, type Ray, rayBulgeM, rayZM } from "../obstacles";
import { knifeEdgeLossDb, LEAST_V, type LeafLoss, leafLoss, THROUGH_LIMIT_GHZ, vOfShare, woodlandLossDb } from "../propagation";
import { powerSumDb } from "../units";
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

/** A crown on the ray as edges: v of its top and both its sides, and how v moves with a metre. */
export interface CrownEdges {
  readonly topV: number;
  readonly leftV: number;
  readonly rightV: number;
  readonly vPerM: number;
  readonly depthM: number;
  readonly atM: number;
}

export const crownEdges = (
  ray: Ray,
  prepared: PreparedBody,
  stretch: { fromM: number; toM: number },
  topM: (xM: number) => number,
): CrownEdges => {
  const atM = Math.min(ray.endM - 0.5, Math.max(ray.startM + 0.5, (stretch.fromM + stretch.toM) / 2));
  const aside = acrossExtent(prepared.body, stretch.fromM, stretch.toM) ?? { leftM: -1e6, rightM: 1e6 };
  return {
    topV: vOfHeight(ray, atM, topM(atM) + rayBulgeM(ray, atM) - rayZM(ray, atM)),
    leftV: vOfHeight(ray, atM, -aside.leftM),
    rightV: vOfHeight(ray, atM, aside.rightM),
    vPerM: vOfHeight(ray, atM, 1),
    depthM: Math.min(ray.endM, stretch.toM) - Math.max(ray.startM, stretch.fromM),
    atM,
  };
};

/**
 * Loss by one crown whose leaves take `throughDb`: the power sum of over the top, round each side and
 * through, and never more than the leaves alone. Both ways past the top are weighed by their edge, so
 * nothing jumps at grazing.
 */
export const crownLossDb = (topV: number, leftV: number, rightV: number, throughDb: number): number => {
  if (topV <= LEAST_V) return 0;
  const ways = powerSumDb([knifeEdgeLossDb(topV), knifeEdgeLossDb(leftV), knifeEdgeLossDb(rightV), throughDb + knifeEdgeLossDb(-topV)]);
  return Math.max(0, Math.min(throughDb, ways));
};

const crossedCrown = (e: CrownEdges, leafOf: (depthM: number) => LeafLoss): CrownLoss => {
  const leaf = leafOf(e.depthM);
  const all = (throughDb: number): number => crownLossDb(e.topV, e.leftV, e.rightV, throughDb);
  return {
    medianDb: all(leaf.medianDb),
    leastDb: all(leaf.leastDb),
    mostDb: all(leaf.mostDb),
    depthM: e.topV <= LEAST_V ? 0 : e.depthM,
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
    const stretch = prepared.stretches.find((s) => s.toM > ray.startM && s.fromM < ray.endM);
    const inside = b.body.kind === "wood" ? insideWood(ray, prepared, frequencyGhz, topM) : null;
    let crown: CrownLoss;
    if (inside !== null) crown = inside;
    else if (stretch !== undefined) crown = crossedCrown(crownEdges(ray, prepared, stretch, topM), leafOf);
    else {
      // Beside the ray: its edge, and never more than the leaves it could hold.
      const spanM = Math.max(...b.body.xM) - Math.min(...b.body.xM);
      const edgeDb = knifeEdgeLossDb(vOfShare(b.share));
      const leaf = leafOf(spanM);
      const held = (db: number): number => Math.min(edgeDb, db);
      crown = {
        medianDb: held(leaf.medianDb),
        leastDb: held(leaf.leastDb),
        mostDb: held(leaf.mostDb),
        depthM: 0,
        inRange: leaf.inRange,
        woodland: false,
      };
    }
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
