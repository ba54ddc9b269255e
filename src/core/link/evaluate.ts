import { type PairingFault, pairingFaults } from "../radio";
import { needAtLeast, needInRange } from "../units";
import { diffractionOpinions } from "./diffraction-compare";
import { directionOf } from "./direction";
import { antennaFaults } from "./end-gear";
import { LEAST_POWER_DBM, LONGEST_LINK_M, MOST_POWER_DBM, REFLECTION_WORTH_DB, SHORTEST_LINK_M } from "./limits";
import { type PathState, pathStateOf } from "./path-state";
import { type PreparedPath, preparePath } from "./prepare";
import { reflectionSummary } from "./reflection-summary";
import type { Direction, LinkPlan, LinkResult, PathProfile, ReflectionSummary, Verdict } from "./types";
import { isOutOfBeam, warningsOf } from "./warnings";

const LEAST_MHZ = 1000;
const MOST_MHZ = 350_000;

const RANK: Readonly<Record<Verdict, number>> = { clear: 0, tight: 1, unknown: 2, short: 3 };
export const worseVerdict = (a: Verdict, b: Verdict): Verdict => (RANK[a] >= RANK[b] ? a : b);

const checkPlan = (plan: LinkPlan, profile: PathProfile): void => {
  const { pathM } = profile;
  if (!(pathM >= SHORTEST_LINK_M && pathM <= LONGEST_LINK_M)) {
    throw new RangeError(`path of ${pathM} m is outside ${SHORTEST_LINK_M} to ${LONGEST_LINK_M} m`);
  }
  for (const end of [plan.near, plan.far]) {
    needAtLeast("mount height, m", end.mountAglM, 0);
    needAtLeast("feeder loss, dB", end.feederLossDb, 0);
    needAtLeast("connector loss, dB", end.connectorLossDb, 0);
    needInRange("transmit power, dBm", end.txPowerDbm, LEAST_POWER_DBM, MOST_POWER_DBM);
  }
  needInRange("channel centre, MHz", plan.centreMhz, LEAST_MHZ, MOST_MHZ);
  needInRange("channel width, MHz", plan.widthMhz, 0.1, 20_000);
  needInRange("k", plan.policy.kFactor, 0.1, 100);
  needInRange("temperature, C", plan.climate.temperatureC, -80, 70);
  needInRange("pressure, hPa", plan.climate.pressureHpa, 300, 1200);
};

/**
 * The radios over a path that was worked out before: pairing, both directions, service verdict.
 * @param detail false leaves out terms, availability and exposure, for trying thousands of radios on one path.
 * @param known the path's reflection when it was worked out before; without detail none is looked for.
 */
export const serviceOf = (
  plan: LinkPlan,
  state: PathState,
  detail = true,
  known: ReflectionSummary | null = null,
): Pick<LinkResult, "service" | "reflection"> => {
  const faults: PairingFault[] = [...pairingFaults(plan.near.radio, plan.far.radio, plan.centreMhz, plan.widthMhz), ...antennaFaults(plan)];
  const reflection = detail && faults.length === 0 ? reflectionSummary(plan, state) : known;
  let toFar: Direction | null = null;
  let toNear: Direction | null = null;
  if (faults.length === 0) {
    toFar = directionOf(plan, plan.near, plan.far, state, plan.needToFarMbps, reflection, detail);
    toNear = directionOf(plan, plan.far, plan.near, state, plan.needToNearMbps, reflection, detail);
  }
  const airtimeUsedShare = usedShare(toFar, toNear);
  let verdict = serviceVerdict(plan, state.path, faults, toFar, toNear, airtimeUsedShare);
  const offAxis = faults.length === 0 && [plan.near, plan.far].some((end) => isOutOfBeam(plan, end, state));
  if ((reflection !== null && reflection.lowDb < REFLECTION_WORTH_DB) || offAxis) verdict = worseVerdict(verdict, "tight");
  return { service: { verdict, faults, airtimeUsedShare, toFar, toNear }, reflection };
};

/** Evaluates a plan over a path that was made ready for its channel, k and trims. */
export const evaluatePrepared = (plan: LinkPlan, path: PreparedPath): LinkResult => {
  checkPlan(plan, path.profile);
  const state = pathStateOf(plan, path);
  const { service, reflection } = serviceOf(plan, state);
  const { ray, clearance } = state;
  const { occurrencePercent, form, negligible, inRange } = state.multipath;
  return {
    verdict: worseVerdict(clearance.verdict, service.verdict),
    geometry: {
      pathM: state.rayM,
      nearAmslM: state.nearAmslM,
      farAmslM: state.farAmslM,
      nearTiltDeg: state.nearTiltDeg,
      farTiltDeg: state.farTiltDeg,
      nearShiftM: ray.startM,
      farShiftM: path.profile.pathM - ray.endM,
      nearWallOf: state.nearWallOf,
      farWallOf: state.farWallOf,
      wavelengthM: path.wavelengthM,
    },
    clearance,
    reflection,
    opinions: diffractionOpinions(path, state.obstructed, state.nearAmslM, state.farAmslM),
    multipath: { occurrencePercent, form, negligible, inRange },
    service,
    warnings: warningsOf(plan, state, service, reflection),
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
  // A wall known only by statistics over all buildings leaves the level open.
  let verdict: Verdict =
    path.unknownGroundM > 0 || [plan.near, plan.far].some((end) => end.barrier?.kind === "unknown") ? "unknown" : "clear";
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
