import { elevationAngleDeg } from "../geo";
import { effectiveEnd, makeRay, type Ray } from "../obstacles";
import { type PairingFault, pairingFaults } from "../radio";
import { clearanceOf, policyShareOf, worstOf } from "./clearance";
import { antennaFaults, directionOf, halfApertureOf } from "./direction";
import { besideTerm, diffractionTerm, ownEdgeTerm, vegetationTerm } from "./obstruction";
import { type PreparedPath, preparePath } from "./prepare";
import type { Direction, LinkPlan, LinkResult, PathProfile, Verdict, Warning, WorstPlace } from "./types";

export const SHORTEST_LINK_M = 5;
export const LONGEST_LINK_M = 100_000;
/** Below this a distance shown by a radio is not a distance. */
const RADIO_DISTANCE_LIMIT_M = 300;

const RANK: Readonly<Record<Verdict, number>> = { clear: 0, tight: 1, unknown: 2, short: 3 };
export const worseVerdict = (a: Verdict, b: Verdict): Verdict => (RANK[a] >= RANK[b] ? a : b);

const groundAtEnds = (path: PreparedPath): { nearM: number; farM: number } => {
  const g = path.profile.groundAmslM;
  return { nearM: g[0]!, farM: g[g.length - 1]! };
};

/** Heights and ray for the plan's mounts. A mount below its own roof is moved out of its wall. */
export const rayOf = (
  plan: LinkPlan,
  path: PreparedPath,
): { ray: Ray; nearAmslM: number; farAmslM: number; nearWallOf: string | null; farWallOf: string | null } => {
  const ground = groundAtEnds(path);
  const nearAmslM = (!Number.isNaN(ground.nearM) ? ground.nearM : 0) + plan.near.mountAglM;
  const farAmslM = (!Number.isNaN(ground.farM) ? ground.farM : 0) + plan.far.mountAglM;
  const near = effectiveEnd(path.profile.bodies, "near", path.profile.pathM, nearAmslM);
  const far = effectiveEnd(path.profile.bodies, "far", path.profile.pathM, farAmslM);
  const ray = makeRay({
    pathM: path.profile.pathM,
    startM: near.shiftM,
    endM: path.profile.pathM - far.shiftM,
    nearAmslM,
    farAmslM,
    wavelengthM: path.wavelengthM,
    kFactor: plan.policy.kFactor,
    startHalfApertureM: halfApertureOf(plan.near, path.wavelengthM),
    endHalfApertureM: halfApertureOf(plan.far, path.wavelengthM),
  });
  return { ray, nearAmslM, farAmslM, nearWallOf: near.wallOf, farWallOf: far.wallOf };
};

/** Worst place alone, for solvers: no losses, no radios. */
export const worstPlaceOf = (plan: LinkPlan, path: PreparedPath, year: number): WorstPlace | null =>
  worstOf(path, rayOf(plan, path).ray, policyShareOf(plan.policy.clearance), year);

const checkPlan = (plan: LinkPlan, profile: PathProfile): void => {
  const { pathM } = profile;
  if (!(pathM >= SHORTEST_LINK_M && pathM <= LONGEST_LINK_M)) {
    throw new RangeError(`path of ${pathM} m is outside ${SHORTEST_LINK_M} to ${LONGEST_LINK_M} m`);
  }
  for (const end of [plan.near, plan.far]) {
    if (!(end.mountAglM >= 0)) throw new RangeError(`mount height ${end.mountAglM} m must be 0 or above`);
  }
  if (!(plan.centreMhz >= 1000)) throw new RangeError(`channel centre ${plan.centreMhz} MHz must be 1000 or above`);
};

/** Evaluates a plan over a path that was made ready for its channel, k and trims. */
export const evaluatePrepared = (plan: LinkPlan, path: PreparedPath): LinkResult => {
  const { profile } = path;
  checkPlan(plan, profile);
  const { ray, nearAmslM, farAmslM, nearWallOf, farWallOf } = rayOf(plan, path);
  const { result: clearance, bodies } = clearanceOf(path, ray, plan);
  const rayM = ray.endM - ray.startM;
  const nearTiltDeg = elevationAngleDeg(nearAmslM, farAmslM, rayM, plan.policy.kFactor);
  const farTiltDeg = elevationAngleDeg(farAmslM, nearAmslM, rayM, plan.policy.kFactor);
  const faults: PairingFault[] = [...pairingFaults(plan.near.radio, plan.far.radio, plan.centreMhz, plan.widthMhz), ...antennaFaults(plan)];
  let toFar: Direction | null = null;
  let toNear: Direction | null = null;
  if (faults.length === 0) {
    const terms = {
      pathM: rayM,
      elevationDeg: Math.abs(nearTiltDeg),
      wavelengthM: path.wavelengthM,
      obstruction: [
        diffractionTerm(path, ray, plan, nearAmslM, farAmslM),
        besideTerm(bodies),
        ownEdgeTerm(bodies),
        vegetationTerm(path, ray, plan, bodies),
      ],
    };
    toFar = directionOf(plan, plan.near, plan.far, terms, plan.needToFarMbps);
    toNear = directionOf(plan, plan.far, plan.near, terms, plan.needToNearMbps);
  }
  const airtimeUsedShare = usedShare(toFar, toNear);
  const service = serviceVerdict(plan, path, faults, toFar, toNear, airtimeUsedShare);
  return {
    verdict: worseVerdict(clearance.verdict, service),
    geometry: {
      pathM: rayM,
      nearAmslM,
      farAmslM,
      nearTiltDeg,
      farTiltDeg,
      nearShiftM: ray.startM,
      farShiftM: profile.pathM - ray.endM,
      nearWallOf,
      farWallOf,
      wavelengthM: path.wavelengthM,
    },
    clearance,
    service: { verdict: service, faults, airtimeUsedShare, toFar, toNear },
    warnings: warningsOf(plan, path, rayM, toFar),
    notModelled: ["reflection", "clear-air multipath", "walls and windows", "Monte Carlo band"],
  };
};

/** The whole: a plan and a sampled path to levels, rates, verdicts. @throws RangeError on impossible arguments. */
export const evaluateLink = (plan: LinkPlan, profile: PathProfile): LinkResult => {
  checkPlan(plan, profile);
  return evaluatePrepared(plan, preparePath(plan, profile));
};

/** Share of the common airtime both needs take of the planned rates; each direction alone when it has its own. */
const usedShare = (toFar: Direction | null, toNear: Direction | null): number | null => {
  if (toFar === null || toNear === null || (toFar.needMbps === null && toNear.needMbps === null)) return null;
  const part = (d: Direction): number => ((d.needMbps ?? 0) === 0 ? 0 : (d.needMbps ?? 0) / d.plannedMbps);
  const shared = toFar.airtime?.sharedAirtime ?? true;
  return shared ? part(toFar) + part(toNear) : Math.max(part(toFar), part(toNear));
};

const serviceVerdict = (
  plan: LinkPlan,
  path: PreparedPath,
  faults: readonly PairingFault[],
  toFar: Direction | null,
  toNear: Direction | null,
  airtimeUsedShare: number | null,
): Verdict => {
  if (faults.length > 0 || toFar === null || toNear === null) return "short";
  let verdict: Verdict = path.unknownGroundM > 0 ? "unknown" : "clear";
  for (const d of [toFar, toNear]) {
    if (d.regulation.status === "forbidden") return "short";
    if (d.regulation.permission !== null && !plan.permissionRecorded) verdict = worseVerdict(verdict, "unknown");
    if (d.levelDbm > d.maxOperatingInputDbm || d.held === null) return "short";
    if (!d.heldWithMargin || d.levelDbm > d.ceilingDbm) verdict = worseVerdict(verdict, "tight");
  }
  for (const [end, d] of [
    [plan.near, toFar],
    [plan.far, toNear],
  ] as const) {
    if (d.regulation.status === "allowed" && end.radio.minTxPowerDbm > d.regulation.maxConductedDbm) return "short";
    if (d.regulation.status === "allowed" && d.regulation.radarDetection && !end.radio.radarDetection) return "short";
  }
  if (airtimeUsedShare !== null && airtimeUsedShare > 1) return "short";
  return verdict;
};

const warningsOf = (plan: LinkPlan, path: PreparedPath, rayM: number, toFar: Direction | null): Warning[] => {
  const out: Warning[] = [];
  if (rayM < RADIO_DISTANCE_LIMIT_M) out.push({ code: "radio-distance", values: { pathM: rayM } });
  if (path.profile.thinned) out.push({ code: "profile-thinned", values: {} });
  const longestKm = Math.min(plan.near.radio.maxLinkKm, plan.far.radio.maxLinkKm);
  if (rayM > longestKm * 1000) out.push({ code: "beyond-radio-range", values: { longestKm, pathM: rayM } });
  const free = toFar?.terms.find((t) => t.id === "free-space");
  if (free !== undefined && !free.inRange)
    out.push({ code: "near-field", values: { farFieldM: Number(free.inputs.farFieldM), pathM: rayM } });
  const leaves = toFar?.terms.find((t) => t.id === "vegetation");
  if (leaves !== undefined && !leaves.inRange) out.push({ code: "leaves-out-of-range", values: { frequencyGhz: plan.centreMhz / 1000 } });
  if (toFar !== null && !toFar.rain.inRange) out.push({ code: "rain-out-of-range", values: { pathM: rayM } });
  return out;
};
