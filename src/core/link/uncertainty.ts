/*
 * The doubt about a link by drawing its inputs again and again (seeded Monte Carlo): level, clearance
 * and rate as 10th, 50th and 90th of a hundred. Ground errors are a common shift of each dataset (60 % of
 * the variance) and a field with a length of 20 cells at 64 knots. Sigmas are the model's defaults or
 * the plan's. Each body is a rectangle across the ray at its nearest place; solid bodies and ground go
 * through the whole of P.526 again, leaves through their own sum.
 */
import {
  deltaBullingtonDb,
  finiteScreenLossDb,
  knifeEdgeLossDb,
  type LeafLoss,
  leafLoss,
  shiftedDiffraction,
  shiftScratch,
  vOfShare,
} from "../propagation";
import { normalRandom, seededRandom } from "../units";
import { type BodySection, bodySections, clearOfSectionM } from "./body-sections";
import type { BodyApproach } from "./clearance";
import { leavesCount } from "./clearance";
import { kLowOf } from "./defaults";
import { AIMING_SHARE, airtimeOf, GAIN_SIGMA_DB, PACKET_ERROR_HELD, POWER_SIGMA_DB } from "./direction";
import { patternOfEnd } from "./end-gear";
import { serviceOf } from "./evaluate";
import { type GroundField, groundField } from "./ground-field";
import { vOfHeight } from "./obstruction";
import { type PathState, pathStateOf } from "./path-state";
import type { PreparedPath } from "./prepare";
import { reflectedAt, reflectorOf } from "./reflection-summary";
import type { Direction, LinkPlan } from "./types";
import { type CrownEdges, crownEdges, crownLossDb } from "./vegetation-term";

export const DEFAULT_DRAWS = 500;
const READING_SIGMA_DB = 2;
const ROUGHNESS_SPREAD = 0.5;
const AIMED_BELOW_DEG = 60;

export interface Spread {
  readonly p02: number;
  readonly p10: number;
  readonly p50: number;
  readonly p90: number;
  readonly p98: number;
}

/** What an input contributes to the variance of level and clearance, 0 to 1 each. */
export interface Contribution {
  readonly input:
    | "ground"
    | "obstacle heights"
    | "mount heights"
    | "position"
    | "k"
    | "leaves"
    | "reflection"
    | "walls"
    | "aim"
    | "power and gain"
    | "reading";
  readonly ofLevel: number;
  readonly ofClearance: number;
}

export interface Uncertainty {
  readonly draws: number;
  readonly seed: number;
  /** As a receiver would read it, its own error included. */
  readonly levelToFarDbm: Spread;
  readonly levelToNearDbm: Spread;
  /** Room left beyond the policy at the worst place, metres; negative is missed. */
  readonly spareM: Spread;
  readonly probabilityClear: number;
  readonly rateToFarMbps: Spread;
  readonly rateToNearMbps: Spread;
  readonly contributions: readonly Contribution[];
}

const spreadOf = (values: Float64Array): Spread => {
  const sorted = Float64Array.from(values).sort();
  const at = (share: number): number => {
    const x = share * (sorted.length - 1);
    const i = Math.floor(x);
    return sorted[i]! + (sorted[Math.min(sorted.length - 1, i + 1)]! - sorted[i]!) * (x - i);
  };
  return { p02: at(0.02), p10: at(0.1), p50: at(0.5), p90: at(0.9), p98: at(0.98) };
};

/** Square of the correlation of two series: the share of variance one explains of the other. */
const explained = (a: Float64Array, b: Float64Array): number => {
  const n = a.length;
  let sa = 0;
  let sb = 0;
  for (let i = 0; i < n; i++) {
    sa += a[i]!;
    sb += b[i]!;
  }
  let aa = 0;
  let bb = 0;
  let ab = 0;
  for (let i = 0; i < n; i++) {
    const x = a[i]! - sa / n;
    const y = b[i]! - sb / n;
    aa += x * x;
    bb += y * y;
    ab += x * y;
  }
  return aa > 1e-12 && bb > 1e-12 ? (ab * ab) / (aa * bb) : 0;
};

/** A value between least, median and most for a share 0 to 1: straight on either side of the median. */
const between = (leastDb: number, medianDb: number, mostDb: number, share: number): number =>
  share < 0.5 ? leastDb + (medianDb - leastDb) * 2 * share : medianDb + (mostDb - medianDb) * (2 * share - 1);

interface Crown {
  readonly edges: CrownEdges;
  readonly leaf: LeafLoss;
  readonly section: BodySection;
}

interface Diffraction {
  /** Loss in dB for mounts and moved ground. */
  readonly lossDb: (nearM: number, farM: number, sections: readonly number[]) => number;
}

/** Diffraction over moved ground: the whole profile, and with a dominating body the edge over the rest. */
const movedDiffraction = (plan: LinkPlan, state: PathState, field: GroundField, kAt: () => number): Diffraction | null => {
  const { path, ray } = state;
  const whole = path.withBodies();
  if (whole === null) return null;
  const term = state.obstruction[0]!;
  const at = Number(term.inputs.atM);
  const dominant = term.inputs.v === undefined ? -1 : path.solids.findIndex((s) => s.prepared.body.name === term.inputs.over);
  const rest = dominant < 0 ? null : path.without(dominant);
  const wholeField = field.along(whole.fromNearKm);
  const restField = rest === null ? null : field.along(rest.fromNearKm);
  const wholeRoom = shiftScratch(whole);
  const restRoom = rest === null ? null : shiftScratch(rest);
  // Points of each profile that lie in a solid: its own height error moves them too.
  const tops = new Float64Array(whole.count);
  const ranges = path.solids.map(({ prepared }) =>
    prepared.stretches.map((s) => {
      const from = whole.fromNearKm.findIndex((d) => d * 1000 >= s.fromM);
      let to = from;
      while (to >= 0 && to < whole.count && whole.fromNearKm[to]! * 1000 <= s.toM) to++;
      return [Math.max(0, from), Math.max(0, to)] as const;
    }),
  );
  const restTops = rest === null ? null : new Float64Array(rest.count);
  return {
    lossDb: (nearM, farM, bodyErrorM) => {
      const scale = plan.policy.kFactor / kAt();
      wholeField.fill();
      if (ranges.length > 0) {
        tops.fill(0);
        ranges.forEach((stretches, i) => {
          for (const [from, to] of stretches) for (let k = from; k < to; k++) tops[k] = bodyErrorM[i] ?? 0;
        });
      }
      const moved = shiftedDiffraction(
        whole,
        wholeField.shiftM,
        field.nearM(),
        field.farM(),
        ranges.length > 0 ? tops : null,
        scale,
        wholeRoom,
      );
      const allDb = deltaBullingtonDb(moved, nearM, farM);
      if (rest === null || restField === null || restRoom === null) return allDb;
      restField.fill();
      const movedRest = shiftedDiffraction(rest, restField.shiftM, field.nearM(), field.farM(), restTops, scale, restRoom);
      const restDb = deltaBullingtonDb(movedRest, nearM, farM);
      const t = at / ray.pathM;
      const rayMoveM = (nearM - state.nearAmslM) * (1 - t) + (farM - state.farAmslM) * t;
      const v = Number(term.inputs.v) + vOfHeight(ray, at, field.at(at) + (bodyErrorM[dominant] ?? 0) - rayMoveM);
      const { narrow } = path.solids[dominant]!;
      let edgeDb = knifeEdgeLossDb(v);
      if (narrow !== null)
        edgeDb = Math.min(edgeDb, finiteScreenLossDb(v, vOfHeight(ray, at, narrow.leftM), vOfHeight(ray, at, narrow.rightM)));
      return Math.min(allDb, edgeDb + restDb);
    },
  };
};

/** Rate of the rung that a level moved by some dB would hold. */
const rateBy = (plan: LinkPlan, d: Direction, toFar: boolean, pathM: number): ((moveDb: number) => number) => {
  const [tx, rx] = toFar ? [plan.near, plan.far] : [plan.far, plan.near];
  const rows = d.ladder.map((r) => ({ r, mbps: airtimeOf(plan, tx, rx, pathM, r, PACKET_ERROR_HELD).tcpMbps }));
  return (moveDb) => {
    let best = 0;
    let thin = 0;
    for (const { r, mbps } of rows) {
      if (r.levelDbm + moveDb > r.ceilingDbm) continue;
      const margin = r.marginDb + moveDb;
      if (margin >= plan.policy.marginDb && mbps > best) best = mbps;
      else if (margin >= 0 && thin === 0) thin = mbps;
    }
    return best > 0 ? best : thin;
  };
};

/**
 * Draws a link's inputs and evaluates each draw.
 * @param seed the same seed gives the same draws: figures stand still while a mast is dragged.
 * @returns null when the ground is not known all along, or the radios do not pair: there is then no spread to tell.
 */
export const monteCarlo = (plan: LinkPlan, path: PreparedPath, options: { draws?: number; seed?: number } = {}): Uncertainty | null => {
  const draws = options.draws ?? DEFAULT_DRAWS;
  const seed = options.seed ?? 1;
  if (!(Number.isInteger(draws) && draws >= 1 && draws <= 100_000)) throw new RangeError(`draws is ${draws}; it must be 1 to 100000`);
  if (path.unknownGroundM > 0) return null;
  const state = pathStateOf(plan, path);
  const { service } = serviceOf(plan, state);
  const { toFar, toNear } = service;
  const { worst } = state.clearance;
  if (toFar === null || toNear === null || worst === null) return null;

  const uniform = seededRandom(seed);
  const normal = normalRandom(uniform);
  const field = groundField(path.profile, normal);
  let k = plan.policy.kFactor;
  const kLow = Math.min(plan.policy.kFactor, kLowOf(plan.policy.kLow, path.profile.pathM / 1000));
  const diffraction = movedDiffraction(plan, state, field, () => k);
  const governs = state.conditions.find((c) => c.ray.kFactor === worst.kFactor && c.share === worst.policyShare) ?? state.conditions[0]!;
  const leaves = leavesCount(plan);
  const sections = bodySections(governs.ray, state.bodies, plan);
  const sectionOf = (b: BodyApproach): BodySection | undefined => sections.find((s) => s.body === b.body);
  const crowns: Crown[] = state.bodies.flatMap((b) => {
    const { prepared } = b;
    const stretch = prepared.stretches.find((s) => s.toM > state.ray.startM && s.fromM < state.ray.endM);
    const section = sectionOf(b);
    if (!b.vegetation || stretch === undefined || section === undefined) return [];
    const edges = crownEdges(state.ray, prepared, stretch, prepared.topAt(plan.policy.year));
    return [{ edges, leaf: leafLoss(plan.centreMhz / 1000, Math.max(0, edges.depthM), plan.policy.leaf), section }];
  });
  const solidSections = path.solids.map((s) => sections.findIndex((x) => x.body === s.prepared.body));
  const reflector = reflectorOf(plan, state);
  const patterns = [plan.near, plan.far].map((end) => patternOfEnd(path, end));
  const walls = toFar.terms.filter((t) => t.id.startsWith("barrier") && t.valueDb < 0);
  const medianOf = (id: string): number => state.obstruction.find((t) => t.id === id)?.valueDb ?? 0;
  const baseDiffractionDb = -medianOf("diffraction");
  const baseLeavesDb = crowns.reduce((s, c) => s + crownLossDb(c.edges.topV, c.edges.leftV, c.edges.rightV, c.leaf.medianDb), 0);
  const groundProfile = field.along(path.profile.distanceM.map((d) => d / 1000));
  const rateFar = rateBy(plan, toFar, true, state.rayM);
  const rateNear = rateBy(plan, toNear, false, state.rayM);

  const make = (): Float64Array => new Float64Array(draws);
  const out = { far: make(), near: make(), spare: make(), rateFar: make(), rateNear: make() };
  const by = {
    ground: make(),
    obstacle: make(),
    mount: make(),
    position: make(),
    k: make(),
    leaves: make(),
    reflection: make(),
    walls: make(),
    aim: make(),
    gear: make(),
    reading: make(),
  };
  const owner = worst.owner;
  const worstT = worst.atM / path.profile.pathM;
  const errorM = new Float64Array(sections.length);
  const solidErrorM: number[] = solidSections.map(() => 0);
  let clear = 0;
  for (let n = 0; n < draws; n++) {
    field.draw();
    const nearMountM = field.nearM() + plan.near.mountSigmaM * normal();
    const farMountM = field.farM() + plan.far.mountSigmaM * normal();
    const nearAsideM = plan.near.positionSigmaM * normal();
    const farAsideM = plan.far.positionSigmaM * normal();
    const lowShare = uniform();
    k = 1 / (1 / plan.policy.kFactor + (1 / kLow - 1 / plan.policy.kFactor) * lowShare * lowShare);
    const leafShare = uniform();
    for (let i = 0; i < sections.length; i++) errorM[i] = sections[i]!.sigmaM * normal();
    for (let i = 0; i < solidSections.length; i++) solidErrorM[i] = solidSections[i]! < 0 ? 0 : errorM[solidSections[i]!]!;

    // Clearance under the governing condition.
    let spareM = Number.POSITIVE_INFINITY;
    for (let i = 0; i < sections.length; i++) {
      const s = sections[i]!;
      if (s.vegetation && !leaves) continue;
      const t = s.atM / path.profile.pathM;
      const rayUpM = nearMountM * (1 - t) + farMountM * t;
      const asideM = nearAsideM * (1 - t) + farAsideM * t;
      const room = clearOfSectionM(s, rayUpM - field.at(s.atM) - errorM[i]!, asideM) - governs.share * s.f1M;
      if (room < spareM) spareM = room;
    }
    groundProfile.fill();
    const overGround = groundSpareM(state, governs.ray, governs.share, groundProfile.shiftM, nearMountM, farMountM);
    if (overGround < spareM) spareM = overGround;
    out.spare[n] = spareM;
    if (spareM >= -0.0005) clear++;

    // Level.
    const lossDb =
      diffraction === null ? baseDiffractionDb : diffraction.lossDb(state.nearAmslM + nearMountM, state.farAmslM + farMountM, solidErrorM);
    let leavesDb = 0;
    for (const c of crowns) {
      const t = c.edges.atM / path.profile.pathM;
      const upM = nearMountM * (1 - t) + farMountM * t - field.at(c.edges.atM) - errorM[sections.indexOf(c.section)]!;
      const asideM = nearAsideM * (1 - t) + farAsideM * t;
      const through = between(c.leaf.leastDb, c.leaf.medianDb, c.leaf.mostDb, leafShare);
      leavesDb += crownLossDb(
        c.edges.topV - upM * c.edges.vPerM,
        c.edges.leftV + asideM * c.edges.vPerM,
        c.edges.rightV - asideM * c.edges.vPerM,
        through,
      );
    }
    let besideDb = 0;
    for (let i = 0; i < sections.length; i++) {
      const s = sections[i]!;
      if (s.vegetation || s.baseEdgeDb <= 0) continue;
      const t = s.atM / path.profile.pathM;
      const m = clearOfSectionM(
        s,
        nearMountM * (1 - t) + farMountM * t - field.at(s.atM) - errorM[i]!,
        nearAsideM * (1 - t) + farAsideM * t,
      );
      besideDb += knifeEdgeLossDb(vOfShare(m / s.f1M)) - s.baseEdgeDb;
    }
    let aimDb = 0;
    for (const p of patterns) {
      if (Math.min(p.azimuthBeamwidthDeg, p.elevationBeamwidthDeg) >= AIMED_BELOW_DEG) continue;
      const az = (2 * uniform() - 1) * AIMING_SHARE * p.azimuthBeamwidthDeg;
      const el = (2 * uniform() - 1) * AIMING_SHARE * p.elevationBeamwidthDeg;
      aimDb += p.relativeDb(az, el);
    }
    let reflectionDb = 0;
    const tideShare = uniform() - 0.5;
    const rough = plan.water.roughnessM * (1 + ROUGHNESS_SPREAD * (2 * uniform() - 1));
    if (reflector !== null) {
      const r = reflectedAt(plan, state, reflector, {
        tideM: reflector.tideRangeM * tideShare,
        nearAmslM: state.nearAmslM + nearMountM,
        farAmslM: state.farAmslM + farMountM,
        kFactor: k,
        roughnessM: rough,
      });
      reflectionDb = r.relativeDb ?? 0;
    }
    let wallsDb = 0;
    for (const w of walls) wallsDb -= between(-(w.betterByDb ?? 0), 0, w.worseByDb, uniform());
    const gearDb = Math.SQRT2 * GAIN_SIGMA_DB * normal();
    const pathDb = -(lossDb - baseDiffractionDb) - (leavesDb - baseLeavesDb) - besideDb + aimDb + reflectionDb + wallsDb + gearDb;
    const toFarDb = pathDb + POWER_SIGMA_DB * normal();
    const toNearDb = pathDb + POWER_SIGMA_DB * normal();
    const readingDb = READING_SIGMA_DB * normal();
    out.far[n] = toFar.levelDbm + toFarDb + readingDb;
    out.near[n] = toNear.levelDbm + toNearDb + READING_SIGMA_DB * normal();
    out.rateFar[n] = rateFar(toFarDb);
    out.rateNear[n] = rateNear(toNearDb);

    by.ground[n] = field.at(worst.atM) - field.nearM() * (1 - worstT) - field.farM() * worstT;
    by.obstacle[n] = owner.kind === "body" ? (errorM[sections.findIndex((s) => s.body.id === owner.id)] ?? 0) : 0;
    by.mount[n] = (nearMountM - field.nearM()) * (1 - worstT) + (farMountM - field.farM()) * worstT;
    by.position[n] = nearAsideM * (1 - worstT) + farAsideM * worstT;
    by.k[n] = 1 / k;
    by.leaves[n] = crowns.length > 0 ? leafShare : 0;
    by.reflection[n] = reflectionDb;
    by.walls[n] = wallsDb;
    by.aim[n] = aimDb;
    by.gear[n] = toFarDb - pathDb + gearDb;
    by.reading[n] = readingDb;
  }
  const row = (input: Contribution["input"], series: Float64Array): Contribution => ({
    input,
    ofLevel: explained(series, out.far),
    ofClearance: explained(series, out.spare),
  });
  return {
    draws,
    seed,
    levelToFarDbm: spreadOf(out.far),
    levelToNearDbm: spreadOf(out.near),
    spareM: spreadOf(out.spare),
    probabilityClear: clear / draws,
    rateToFarMbps: spreadOf(out.rateFar),
    rateToNearMbps: spreadOf(out.rateNear),
    contributions: [
      row("ground", by.ground),
      row("obstacle heights", by.obstacle),
      row("mount heights", by.mount),
      row("position", by.position),
      row("k", by.k),
      row("leaves", by.leaves),
      row("reflection", by.reflection),
      row("walls", by.walls),
      row("aim", by.aim),
      row("power and gain", by.gear),
      row("reading", by.reading),
    ].sort((a, b) => b.ofLevel + b.ofClearance - a.ofLevel - a.ofClearance),
  };
};

/** Least room over moved ground beyond the policy's share of F1, metres. */
const groundSpareM = (
  state: PathState,
  ray: PathState["ray"],
  share: number,
  shiftM: Float64Array,
  nearMoveM: number,
  farMoveM: number,
): number => {
  const { distanceM, groundAmslM } = state.path.profile;
  const length = ray.endM - ray.startM;
  const startZ = ray.startZM + nearMoveM;
  const slope = (ray.endZM + farMoveM - startZ) / length;
  const half = 1 / (2 * ray.effectiveRadiusM);
  const perM = (ray.wavelengthM / length) * share * share;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < distanceM.length; i++) {
    const x = distanceM[i]!;
    const d1 = x - ray.startM;
    const d2 = ray.endM - x;
    if (d1 <= 0 || d2 <= 0) continue;
    const room = startZ + slope * d1 - groundAmslM[i]! - shiftM[i]! - x * (ray.pathM - x) * half - Math.sqrt(perM * d1 * d2);
    if (room < least) least = room;
  }
  return least;
};
