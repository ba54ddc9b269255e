import { type PairingFault, pairingFaults } from "../radio";
import { needAtLeast, needInRange } from "../units";
import { outageOf } from "./availability";
import { diffractionOpinions } from "./diffraction-compare";
import { directionOf } from "./direction";
import { antennaFaults } from "./end-gear";
import { observe, verdictOf } from "./judge";
import { fadingOnce, keptOf, outageRung, waysOf } from "./kept";
import { LEAST_POWER_DBM, LONGEST_LINK_M, MOST_POWER_DBM, SHORTEST_LINK_M } from "./limits";
import { notesOf } from "./notes";
import { type PathState, pathStateOf } from "./path-state";
import { type PreparedPath, preparePath } from "./prepare";
import { reflectionSummary } from "./reflection-summary";
import type { Direction, EndPlan, LinkPlan, LinkResult, PathProfile, ReflectionSummary } from "./types";

const LEAST_MHZ = 1000;
const MOST_MHZ = 350_000;

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

type Service = Omit<LinkResult["service"], "verdict">;

/** What takes the slowest rung that still carries one way's need beside the other's; without a need the slowest of all. */
const withOutage = (plan: LinkPlan, state: PathState, tx: EndPlan, d: Direction, other: Direction): Direction => ({
  ...d,
  outage: outageOf(fadingOnce(plan, tx, state), outageRung(d, other)?.marginDb ?? 0),
});

/**
 * The radios over a path that was worked out before: pairing, both directions, what is kept.
 * @param detail false leaves out terms, availability and exposure, for trying thousands of radios on one path.
 * @param known the path's reflection when it was worked out before; without detail none is looked for.
 */
export const serviceOf = (
  plan: LinkPlan,
  state: PathState,
  detail = true,
  known: ReflectionSummary | null = null,
): { service: Service; reflection: ReflectionSummary | null } => {
  const faults: PairingFault[] = [...pairingFaults(plan.near.radio, plan.far.radio, plan.centreMhz, plan.widthMhz), ...antennaFaults(plan)];
  const reflection = detail && faults.length === 0 ? reflectionSummary(plan, state) : known;
  if (faults.length > 0) return { service: { faults, kept: null, toFar: null, toNear: null }, reflection };
  const far = directionOf(plan, plan.near, plan.far, state, plan.needToFarMbps, reflection, detail);
  const near = directionOf(plan, plan.far, plan.near, state, plan.needToNearMbps, reflection, detail);
  const kept = keptOf(plan, waysOf(plan, state, far, near));
  const toFar = detail ? withOutage(plan, state, plan.near, far, near) : far;
  const toNear = detail ? withOutage(plan, state, plan.far, near, far) : near;
  return { service: { faults, kept, toFar, toNear }, reflection };
};

/** The result over a path state, with the verdict of its findings. */
export const resultOf = (plan: LinkPlan, state: PathState, detail = true, known: ReflectionSummary | null = null): LinkResult => {
  const { path, ray, clearance } = state;
  const { service, reflection } = serviceOf(plan, state, detail, known);
  const { occurrencePercent, form, negligible, inRange } = state.multipath;
  const open: LinkResult = {
    verdict: "clear",
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
    opinions: detail ? diffractionOpinions(path, state.obstructed, state.nearAmslM, state.farAmslM) : null,
    multipath: { occurrencePercent, form, negligible, inRange },
    service: { ...service, verdict: "clear" },
    notes: notesOf(plan, state, service, reflection),
  };
  const found = observe(plan, open, () => 0, null);
  return { ...open, verdict: verdictOf(found), service: { ...service, verdict: verdictOf(found, "service") } };
};

/** Evaluates a plan over a path that was made ready for its channel, k and trims. */
export const evaluatePrepared = (plan: LinkPlan, path: PreparedPath): LinkResult => {
  checkPlan(plan, path.profile);
  return resultOf(plan, pathStateOf(plan, path));
};

/** The whole: a plan and a sampled path to levels, rates, verdicts. @throws RangeError on impossible arguments. */
export const evaluateLink = (plan: LinkPlan, profile: PathProfile): LinkResult => {
  checkPlan(plan, profile);
  return evaluatePrepared(plan, preparePath(plan, profile));
};
