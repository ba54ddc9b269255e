import { type Observation, observed, type PlaceValues } from "./finding-types";
import { LOWEST_KNOWN_MOUNT_M, MOST_LEVER } from "./limits";
import type { ClearanceResult, LinkPlan, LinkResult, WorstPlace } from "./types";

export const beyondStructure = (maxM: number | null, heightM: number): boolean => maxM !== null && heightM > maxM + 1e-9;

const bySigma = (c: ClearanceResult): PlaceValues["bySigma"] => {
  if (c.sigmaOf === null) return null;
  const { obstacleM, groundM, positionM } = c.sigmaOf;
  if (positionM > Math.max(obstacleM, groundM)) return "position";
  return obstacleM >= groundM ? "obstacle" : "ground";
};

export const placeValues = (c: ClearanceResult, w: WorstPlace): PlaceValues => ({
  name: w.ownerName,
  kind: w.owner.kind === "ground" ? "ground" : w.owner.bodyKind,
  atM: w.atM,
  missM: w.missM,
  side: w.side,
  acrossM: w.acrossM,
  share: w.share,
  policyShare: c.policyShare,
  probability: c.probability,
  sigmaM: c.sigmaM,
  bySigma: bySigma(c),
});

const ofPath = (plan: LinkPlan, c: ClearanceResult): Observation[] => {
  const out: Observation[] = [];
  if (c.unknownGroundM > 0) out.push(observed("ground-unknown", "unknown", 80, { unknownM: c.unknownGroundM }));
  const w = c.worst;
  if (w === null) return out;
  const values = placeValues(c, w);
  if (c.verdict === "short") out.push(observed("short", "short", 100, values));
  else if (c.verdict === "unknown" && c.unknownGroundM === 0) out.push(observed("unsure", "unknown", 70, values));
  else if (c.verdict === "tight" && c.lostInYear === null) out.push(observed("little-spare", "tight", 60, values));
  else if (c.verdict === "clear") {
    const grows = c.worstAtHorizon !== null && c.worstAtHorizon.missM > w.missM + 1e-6;
    out.push(observed("clear", "clear", 11, { ...values, untilYear: grows ? plan.policy.year + plan.policy.horizonYears : null }));
  }
  return out;
};

const growth = (c: ClearanceResult, growthOf: (id: string) => number): Observation[] => {
  const later = c.worstAtHorizon;
  if (c.lostInYear === null || later === null) return [];
  const growthM = later.owner.kind === "body" ? growthOf(later.owner.id) : 0;
  return [observed("grows", "tight", 62, { name: later.ownerName, year: c.lostInYear, growthM, missM: later.missM, atM: later.atM })];
};

const ends = (plan: LinkPlan): Observation[] =>
  [plan.near, plan.far].flatMap((end) => {
    const out: Observation[] = [];
    if (end.mountMaxAglM !== null && beyondStructure(end.mountMaxAglM, end.mountAglM))
      out.push(observed("beyond-structure", "tight", 55, { name: end.name, mountM: end.mountAglM, maxM: end.mountMaxAglM }));
    if (end.mountAglM < LOWEST_KNOWN_MOUNT_M)
      out.push(observed("mount-on-ground", "unknown", 66, { name: end.name, mountM: end.mountAglM }));
    return out;
  });

/** A worst place so near one end that a centimetre there is metres at the other. */
const lever = (plan: LinkPlan, result: LinkResult): Observation[] => {
  const w = result.clearance.worst;
  if (w === null || result.clearance.verdict === "clear") return [];
  const t = Math.min(w.atM, result.geometry.pathM - w.atM) / result.geometry.pathM;
  if (t <= 0 || 1 / t < MOST_LEVER) return [];
  const name = w.atM * 2 < result.geometry.pathM ? plan.near.name : plan.far.name;
  return [observed("long-lever", "clear", 40, { name, atM: w.atM, lever: 1 / t })];
};

/** What the path says. @param growthOf growth of a body by its id, metres a year. */
export const observeClearance = (plan: LinkPlan, result: LinkResult, growthOf: (id: string) => number): Observation[] => [
  ...ofPath(plan, result.clearance),
  ...growth(result.clearance, growthOf),
  ...ends(plan),
  ...lever(plan, result),
];
