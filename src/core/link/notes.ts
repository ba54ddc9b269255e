import { THROUGH_LIMIT_GHZ } from "../propagation";
import { leavesCount } from "./clearance";
import { aimLossDb, aimOffset, antennaNameOf, beamwidthOf, patternOfEnd } from "./end-gear";
import { type FindingCode, type FindingValues, type Observation, observed } from "./finding-types";
import { BEAM_EDGE_DB, RADIO_DISTANCE_LIMIT_M, REFLECTION_WORTH_DB } from "./limits";
import type { PathState } from "./path-state";
import type { EndPlan, LinkPlan, LinkResult, ReflectionSummary, Verdict } from "./types";

type Sides = Pick<LinkResult["service"], "toFar" | "toNear">;

const aimOf = (plan: LinkPlan, end: EndPlan, state: PathState): number => {
  const { nearBearingDeg, farBearingDeg } = state.path.profile;
  return end === plan.near
    ? aimLossDb(state.path, end, nearBearingDeg, state.nearTiltDeg)
    : aimLossDb(state.path, end, farBearingDeg, state.farTiltDeg);
};
/** How far off its axis an end sees the other: right and up positive. */
const offAxisOf = (plan: LinkPlan, end: EndPlan, state: PathState) => {
  const { nearBearingDeg, farBearingDeg } = state.path.profile;
  return end === plan.near ? aimOffset(end, nearBearingDeg, state.nearTiltDeg) : aimOffset(end, farBearingDeg, state.farTiltDeg);
};

/** Notes that weigh more than a remark, and what they make of a link. */
const GRAVER: Partial<Readonly<Record<FindingCode, readonly [Verdict, number]>>> = {
  "barrier-unknown": ["unknown", 78],
  "out-of-beam": ["tight", 57],
  "elevation-mask": ["tight", 54],
  reflection: ["tight", 46],
  "beyond-radio-range": ["clear", 45],
  "through-refused": ["clear", 44],
  "power-control": ["clear", 18],
};
const note = <K extends FindingCode>(code: K, values: FindingValues[K]): Observation => {
  const [verdict, weight] = GRAVER[code] ?? (["clear", 10] as const);
  return observed(code, verdict, weight, values);
};

const endWarnings = (plan: LinkPlan, end: EndPlan, state: PathState, elevationDeg: number, result: Sides): Observation[] => {
  const d = end === plan.near ? result.toFar : result.toNear;
  if (d === null) return [];
  const out: Observation[] = [];
  const lossDb = -aimOf(plan, end, state);
  if (lossDb > -BEAM_EDGE_DB) {
    const off = offAxisOf(plan, end, state);
    const which = end === plan.near ? "near" : "far";
    out.push(note("out-of-beam", { end: which, name: end.name, lossDb, azimuthOffDeg: off.azimuthDeg, elevationOffDeg: off.elevationDeg }));
  }
  if (beamwidthOf(end) === null && end.radio.antenna.form !== "omni") {
    out.push(note("beamwidth-derived", { antenna: antennaNameOf(end), widthDeg: patternOfEnd(state.path, end).azimuthBeamwidthDeg }));
  }
  const mask = d.regulation.status === "allowed" ? d.regulation.elevationMask : null;
  if (mask !== null) {
    // The envelope just at the mask's angle: the lobe there.
    const up = d.eirpDbm + patternOfEnd(state.path, end).envelopeDb(0, mask.aboveDeg - elevationDeg);
    if (up > mask.eirpMaxDbm)
      out.push(note("elevation-mask", { name: end.name, aboveDeg: mask.aboveDeg, eirpDbm: up, limitDbm: mask.eirpMaxDbm }));
  }
  return out;
};

/** What the models cannot vouch for, and what is worth knowing, as data. */
export const notesOf = (plan: LinkPlan, state: PathState, service: Sides, reflection: ReflectionSummary | null): Observation[] => {
  const out: Observation[] = [];
  const { rayM } = state;
  const frequencyGhz = plan.centreMhz / 1000;
  if (rayM < RADIO_DISTANCE_LIMIT_M) out.push(note("radio-distance", { pathM: rayM }));
  const owner = state.clearance.worst?.owner;
  const worst = owner?.kind === "body" ? state.path.profile.bodies.find((b) => b.id === owner.id) : undefined;
  if (worst?.baseSigmaM !== undefined) out.push(note("base-fitted", { name: worst.name, sigmaM: worst.baseSigmaM }));
  if (state.path.profile.thinned) out.push(note("profile-thinned", {}));
  const longestKm = Math.min(plan.near.radio.maxLinkKm, plan.far.radio.maxLinkKm);
  if (rayM > longestKm * 1000) out.push(note("beyond-radio-range", { longestKm, pathM: rayM }));
  if (!state.freeSpace.inRange) out.push(note("near-field", { farFieldM: Number(state.freeSpace.inputs.farFieldM), pathM: rayM }));
  const leaves = state.obstruction.find((t) => t.id === "vegetation");
  if (leaves !== undefined && leaves.valueDb < 0) {
    if (frequencyGhz > THROUGH_LIMIT_GHZ) out.push(note("leaves-out-of-range", { frequencyGhz }));
    else if (!leaves.inRange) out.push(note("leaves-too-deep", { depthM: Number(leaves.inputs.depthM) }));
  }
  if (plan.policy.trees === "through" && leavesCount(plan)) out.push(note("through-refused", { frequencyGhz }));
  const { multipath } = state;
  if (!multipath.negligible && !multipath.inRange) out.push(note("multipath-out-of-range", { pathM: rayM, frequencyGhz }));
  // Outside its range by the rest: rain.
  else if (service.toFar?.outage?.inRange === false) out.push(note("rain-out-of-range", { pathM: rayM }));
  if (reflection !== null && reflection.lowDb < REFLECTION_WORTH_DB) {
    const { lowDb, heightSigmaM, atM, surface, size } = reflection;
    out.push(note("reflection", { lowDb, heightSigmaM, atM, surface, size }));
  }
  for (const end of [plan.near, plan.far]) {
    if (end.barrier?.kind === "unknown") out.push(note("barrier-unknown", { name: end.name }));
    if (end.barrier?.kind === "material") out.push(note("barrier-by-table", { name: end.name, material: end.barrier.material }));
  }
  const loud = [service.toFar, service.toNear].flatMap((d) => {
    const aboveDbm = d?.regulation.status === "allowed" ? d.regulation.powerControlAboveDbm : null;
    return d !== null && aboveDbm !== null && d.eirpDbm > aboveDbm ? [{ eirpDbm: d.eirpDbm, aboveDbm }] : [];
  });
  if (loud.length > 0) {
    const values = { eirpDbm: Math.max(...loud.map((l) => l.eirpDbm)), aboveDbm: Math.min(...loud.map((l) => l.aboveDbm)) };
    out.push(note("power-control", values));
  }
  out.push(
    ...endWarnings(plan, plan.near, state, state.nearTiltDeg, service),
    ...endWarnings(plan, plan.far, state, state.farTiltDeg, service),
  );
  return out;
};
