import { THROUGH_LIMIT_GHZ } from "../propagation";
import { leavesCount } from "./clearance";
import { aimLossDb, antennaNameOf, beamwidthOf, patternOfEnd } from "./end-gear";
import { BEAM_EDGE_DB, RADIO_DISTANCE_LIMIT_M, REFLECTION_WORTH_DB } from "./limits";
import type { PathState } from "./path-state";
import type { EndPlan, LinkPlan, LinkResult, ReflectionSummary, Warning } from "./types";

const aimOf = (plan: LinkPlan, end: EndPlan, state: PathState): number => {
  const { nearBearingDeg, farBearingDeg } = state.path.profile;
  return end === plan.near
    ? aimLossDb(state.path, end, nearBearingDeg, state.nearTiltDeg)
    : aimLossDb(state.path, end, farBearingDeg, state.farTiltDeg);
};
export const isOutOfBeam = (plan: LinkPlan, end: EndPlan, state: PathState): boolean => aimOf(plan, end, state) < BEAM_EDGE_DB;

const endWarnings = (plan: LinkPlan, end: EndPlan, state: PathState, elevationDeg: number, result: LinkResult["service"]): Warning[] => {
  const d = end === plan.near ? result.toFar : result.toNear;
  if (d === null) return [];
  const out: Warning[] = [];
  if (isOutOfBeam(plan, end, state)) {
    out.push({ code: "out-of-beam", values: { name: end.name, lossDb: -aimOf(plan, end, state), tiltDeg: elevationDeg } });
  }
  if (beamwidthOf(end) === null && end.radio.antenna.form !== "omni") {
    out.push({
      code: "beamwidth-derived",
      values: { antenna: antennaNameOf(end), widthDeg: patternOfEnd(state.path, end).azimuthBeamwidthDeg },
    });
  }
  const mask = d.regulation.status === "allowed" ? d.regulation.elevationMask : null;
  if (mask !== null) {
    // The weakest the pattern gets above the mask's angle: the lobe just there.
    const up = d.eirpDbm + patternOfEnd(state.path, end).relativeDb(0, mask.aboveDeg - elevationDeg);
    if (up > mask.eirpMaxDbm)
      out.push({ code: "elevation-mask", values: { name: end.name, aboveDeg: mask.aboveDeg, eirpDbm: up, limitDbm: mask.eirpMaxDbm } });
  }
  return out;
};

/** What the models cannot vouch for, and what is worth knowing, as data. */
export const warningsOf = (
  plan: LinkPlan,
  state: PathState,
  service: LinkResult["service"],
  reflection: ReflectionSummary | null,
): Warning[] => {
  const out: Warning[] = [];
  const { rayM } = state;
  const frequencyGhz = plan.centreMhz / 1000;
  if (rayM < RADIO_DISTANCE_LIMIT_M) out.push({ code: "radio-distance", values: { pathM: rayM } });
  if (state.path.profile.thinned) out.push({ code: "profile-thinned", values: {} });
  const longestKm = Math.min(plan.near.radio.maxLinkKm, plan.far.radio.maxLinkKm);
  if (rayM > longestKm * 1000) out.push({ code: "beyond-radio-range", values: { longestKm, pathM: rayM } });
  if (!state.freeSpace.inRange)
    out.push({ code: "near-field", values: { farFieldM: Number(state.freeSpace.inputs.farFieldM), pathM: rayM } });
  const leaves = state.obstruction.find((t) => t.id === "vegetation");
  if (leaves !== undefined && leaves.valueDb < 0) {
    if (frequencyGhz > THROUGH_LIMIT_GHZ) out.push({ code: "leaves-out-of-range", values: { frequencyGhz } });
    else if (!leaves.inRange) out.push({ code: "leaves-too-deep", values: { depthM: Number(leaves.inputs.depthM) } });
  }
  if (plan.policy.trees === "through" && leavesCount(plan)) out.push({ code: "through-refused", values: { frequencyGhz } });
  const { multipath } = state;
  if (!multipath.negligible && !multipath.inRange) out.push({ code: "multipath-out-of-range", values: { pathM: rayM, frequencyGhz } });
  // Outside its range by the rest: rain.
  else if (service.toFar?.outage?.inRange === false) out.push({ code: "rain-out-of-range", values: { pathM: rayM } });
  if (reflection !== null && reflection.lowDb < REFLECTION_WORTH_DB) {
    out.push({
      code: "reflection",
      values: {
        lowDb: reflection.lowDb,
        heightSigmaM: reflection.heightSigmaM,
        atM: reflection.atM,
        surface: reflection.surface,
        size: reflection.size,
      },
    });
  }
  for (const end of [plan.near, plan.far]) {
    if (end.barrier?.kind === "unknown") out.push({ code: "barrier-unknown", values: { name: end.name } });
    if (end.barrier?.kind === "material")
      out.push({ code: "barrier-by-table", values: { name: end.name, material: end.barrier.material } });
  }
  const loud = [service.toFar, service.toNear].flatMap((d) => {
    const aboveDbm = d?.regulation.status === "allowed" ? d.regulation.powerControlAboveDbm : null;
    return d !== null && aboveDbm !== null && d.eirpDbm > aboveDbm ? [{ eirpDbm: d.eirpDbm, aboveDbm }] : [];
  });
  if (loud.length > 0) {
    const values = { eirpDbm: Math.max(...loud.map((l) => l.eirpDbm)), aboveDbm: Math.min(...loud.map((l) => l.aboveDbm)) };
    out.push({ code: "power-control", values });
  }
  out.push(
    ...endWarnings(plan, plan.near, state, state.nearTiltDeg, service),
    ...endWarnings(plan, plan.far, state, state.farTiltDeg, service),
  );
  return out;
};
