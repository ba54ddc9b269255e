import { f1RadiusM, type Ray } from "../obstacles";
import { type DiffractionProfile, knifeEdgeLossDb, screenSpreadDb, vOfShare } from "../propagation";
import type { BodyApproach } from "./clearance";
import type { PreparedPath } from "./prepare";
import { type Obstructed, obstructedDb, type ScreenAt, screensAt } from "./screens";
import type { LevelTerm, LinkPlan } from "./types";

/** v of a height above the ray at a place: h sqrt(2) / F1. */
export const vOfHeight = (ray: Ray, xM: number, aboveM: number): number => (Math.SQRT2 * aboveM) / Math.max(0.01, f1RadiusM(ray, xM));

export interface Obstruction {
  readonly bare: DiffractionProfile;
  readonly at: readonly ScreenAt[];
  readonly loss: Obstructed;
}

/** Loss over ground and solid bodies between two heights; null where the ground is not known. */
export const obstructionOf = (path: PreparedPath, plan: LinkPlan, nearAmslM: number, farAmslM: number): Obstruction | null => {
  const bare = path.bare();
  if (bare === null) return null;
  const screens = path.screens();
  const top = (i: number): number => screens[i]!.prepared.topAt(plan.policy.year)(0);
  const at = screensAt(bare, screens, nearAmslM, farAmslM, top, null);
  return { bare, at, loss: obstructedDb(bare, screens, at, nearAmslM, farAmslM, new Float64Array(at.length === 0 ? 0 : bare.count)) };
};

/**
 * Diffraction over ground and solid bodies as two terms whose sum is the median: over, and past the side where
 * the body that stands alone is one the ray passes beside. P.526-15 delta-Bullington (§4.5.4); with drawn bodies
 * (ours) the least of the whole profile at once and of one finite screen (§5.2, damped) over the rest.
 */
export const diffractionTerms = (path: PreparedPath, plan: LinkPlan, found: Obstruction | null): [LevelTerm, LevelTerm] => {
  const frequencyGhz = plan.centreMhz / 1000;
  const { kFactor } = plan.policy;
  const clause = "P.526-15 §4.5.4";
  const noneBeside: LevelTerm = {
    id: "beside",
    valueDb: 0,
    worseByDb: 0,
    clause: "P.526-15 §4.1 (31), §5.2",
    inputs: { leftDb: 0, rightDb: 0, over: "" },
    inRange: true,
  };
  const over = (valueDb: number, more: Partial<LevelTerm>): LevelTerm => ({
    id: "diffraction",
    valueDb,
    worseByDb: 0,
    clause,
    inputs: { frequencyGhz, kFactor, over: "ground" },
    inRange: true,
    ...more,
  });
  if (found === null) {
    const inputs = { frequencyGhz, kFactor, over: "unknown ground", unknownGroundM: path.unknownGroundM };
    return [over(0, { inputs, inRange: false }), noneBeside];
  }
  const { allDb, medianDb, edge, restDb, aloneIsMedian } = found.loss;
  if (edge === null) return [over(-allDb, {}), noneBeside];
  const spreadDb = screenSpreadDb(edge.topV, edge.leftV, edge.rightV);
  const { prepared, shadow } = path.screens()[edge.index]!;
  const side = shadow.leftF1 > 0 ? "right" : shadow.rightF1 < 0 ? "left" : null;
  const besideDb = aloneIsMedian && side !== null ? edge.lossDb : 0;
  const diffraction = over(-(medianDb - besideDb), {
    worseByDb: allDb - medianDb + spreadDb,
    betterByDb: Math.min(medianDb, spreadDb),
    clause: `${clause}, §5.2`,
    inputs: {
      frequencyGhz,
      kFactor,
      v: edge.topV,
      leftV: edge.leftV,
      rightV: edge.rightV,
      edgeDb: edge.lossDb,
      spreadDb,
      restDb,
      wholeDb: allDb,
      dominantShare: edge.lossDb / Math.max(1e-9, edge.lossDb + restDb),
      over: besideDb > 0 ? "ground" : prepared.body.name,
      atM: edge.atKm * 1000,
    },
  });
  if (besideDb === 0) return [diffraction, noneBeside];
  return [
    diffraction,
    {
      ...noneBeside,
      valueDb: -besideDb,
      inputs: {
        leftDb: side === "left" ? besideDb : 0,
        rightDb: side === "right" ? besideDb : 0,
        over: prepared.body.name,
        wholeDb: allDb,
        atM: edge.atKm * 1000,
      },
    },
  ];
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
