/*
 * The doubt about a link by drawing its inputs again and again (seeded Monte Carlo): level, clearance
 * and rate as 10th, 50th and 90th of a hundred. Ground errors are a common shift of each dataset (60 % of
 * the variance) and a field with a length of 20 cells at 64 knots. Sigmas are the model's defaults or
 * the plan's. Each body is a rectangle across the ray at its nearest place; solid bodies and ground go
 * through the whole of P.526 again, leaves through their own sum.
 */
import { normalRandom, seededRandom } from "../units";
import { bodySections } from "./body-sections";
import { leavesCount, MET_WITHIN_M } from "./clearance";
import { kLowOf } from "./defaults";
import { airtimeOf, GAIN_SIGMA_DB, PACKET_ERROR_HELD, POWER_SIGMA_DB } from "./direction";
import { clearanceDraw } from "./draw-clearance";
import { levelDraw } from "./draw-level";
import type { Draw } from "./draws";
import { serviceOf } from "./evaluate";
import { groundField } from "./ground-field";
import { type PathState, pathStateOf } from "./path-state";
import type { PreparedPath } from "./prepare";
import { explainedShare, type Spread, spreadOf } from "./spread";
import type { Direction, LinkPlan } from "./types";

export const DEFAULT_DRAWS = 500;
const MOST_DRAWS = 100_000;
const READING_SIGMA_DB = 2;
const ROUGHNESS_SPREAD = 0.5;

const INPUTS = [
  "ground",
  "obstacle heights",
  "mount heights",
  "position",
  "k",
  "leaves",
  "reflection",
  "walls",
  "aim",
  "power and gain",
  "reading",
] as const;

/** What an input contributes to the variance of level and clearance, 0 to 1 each. */
export interface Contribution {
  readonly input: (typeof INPUTS)[number];
  readonly ofLevel: number;
  readonly ofClearance: number;
}

export interface Uncertainty {
  readonly draws: number;
  readonly seed: number;
  /** As a receiver would read it, its own error included; beside it the median of the model. */
  readonly levelToFarDbm: Spread;
  readonly levelToNearDbm: Spread;
  readonly expectedToFarDbm: number;
  readonly expectedToNearDbm: number;
  /** Room left beyond the policy at the worst place, metres; negative is missed. */
  readonly spareM: Spread;
  readonly shareOfF1: Spread;
  readonly policyShare: number;
  readonly probabilityClear: number;
  readonly rateToFarMbps: Spread;
  readonly rateToNearMbps: Spread;
  readonly contributions: readonly Contribution[];
}

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

/** Draws of the inputs one after another, from one seed. */
const drawer = (plan: LinkPlan, state: PathState, sections: ReturnType<typeof bodySections>, seed: number) => {
  const uniform = seededRandom(seed);
  const normal = normalRandom(uniform);
  const field = groundField(state.path.profile, normal);
  const { pathM } = state.path.profile;
  const { kFactor } = plan.policy;
  const lowK = Math.min(kFactor, kLowOf(plan.policy.kLow, pathM / 1000));
  const errorM = new Float64Array(sections.length);
  const next = (): Draw & { readonly typedNearM: number; readonly typedFarM: number } => {
    field.draw();
    const typedNearM = plan.near.mountSigmaM * normal();
    const typedFarM = plan.far.mountSigmaM * normal();
    const nearMountM = field.nearM() + typedNearM;
    const farMountM = field.farM() + typedFarM;
    const nearAsideM = plan.near.positionSigmaM * normal();
    const farAsideM = plan.far.positionSigmaM * normal();
    const lowShare = uniform();
    for (let i = 0; i < sections.length; i++) errorM[i] = sections[i]!.sigmaM * normal();
    return {
      nearMountM,
      farMountM,
      typedNearM,
      typedFarM,
      // Mostly near the median air, seldom near the low one.
      kFactor: 1 / (1 / kFactor + (1 / lowK - 1 / kFactor) * lowShare * lowShare),
      leafShare: uniform(),
      tideShare: uniform() - 0.5,
      roughnessM: plan.water.roughnessM * (1 + ROUGHNESS_SPREAD * (2 * uniform() - 1)),
      errorM,
      rayUpM: (xM) => nearMountM + ((farMountM - nearMountM) * xM) / pathM,
      asideM: (xM) => nearAsideM + ((farAsideM - nearAsideM) * xM) / pathM,
    };
  };
  return { uniform, normal, field, next };
};

/**
 * Draws a link's inputs and evaluates each draw.
 * @param options.seed the same seed gives the same draws: figures stand still while a mast is dragged.
 * @returns null when the ground is not known all along, or the radios do not pair: there is then no spread to tell.
 * @throws RangeError for a number of draws outside 1 to 100000.
 */
export const monteCarlo = (plan: LinkPlan, path: PreparedPath, options: { draws?: number; seed?: number } = {}): Uncertainty | null => {
  const draws = options.draws ?? DEFAULT_DRAWS;
  const seed = options.seed ?? 1;
  if (!(Number.isInteger(draws) && draws >= 1 && draws <= MOST_DRAWS))
    throw new RangeError(`draws is ${draws}; it must be 1 to ${MOST_DRAWS}`);
  if (path.unknownGroundM > 0) return null;
  const state = pathStateOf(plan, path);
  const { toFar, toNear } = serviceOf(plan, state).service;
  const { worst } = state.clearance;
  if (toFar === null || toNear === null || worst === null) return null;
  const governs = state.conditions.find((c) => c.ray.kFactor === worst.kFactor && c.share === worst.policyShare) ?? state.conditions[0]!;
  const sections = bodySections(governs.ray, state.bodies, plan);
  const { uniform, normal, field, next } = drawer(plan, state, sections, seed);
  const clearance = clearanceDraw(state, governs, field, sections, leavesCount(plan));
  const level = levelDraw(plan, state, toFar, field, sections, uniform);
  const rateFar = rateBy(plan, toFar, true, state.rayM);
  const rateNear = rateBy(plan, toNear, false, state.rayM);

  const make = (): Float64Array => new Float64Array(draws);
  const out = { far: make(), near: make(), spare: make(), share: make(), rateFar: make(), rateNear: make() };
  const by = Object.fromEntries(INPUTS.map((i) => [i, make()])) as Record<(typeof INPUTS)[number], Float64Array>;
  const ownerAt = worst.owner.kind === "body" ? sections.findIndex((s) => s.body.id === (worst.owner as { id: string }).id) : -1;
  const t = worst.atM / path.profile.pathM;
  let clear = 0;
  for (let n = 0; n < draws; n++) {
    const draw = next();
    const { share, spareM } = clearance(draw);
    if (spareM >= -MET_WITHIN_M) clear++;
    const l = level(draw);
    const gainDb = Math.SQRT2 * GAIN_SIGMA_DB * normal();
    const pathDb = l.obstructionDb + l.leavesDb + l.aimDb + l.reflectionDb + l.wallsDb + gainDb;
    const toFarDb = pathDb + POWER_SIGMA_DB * normal();
    const toNearDb = pathDb + POWER_SIGMA_DB * normal();
    const readingDb = READING_SIGMA_DB * normal();
    out.spare[n] = spareM;
    out.share[n] = share;
    out.far[n] = toFar.levelDbm + toFarDb + readingDb;
    out.near[n] = toNear.levelDbm + toNearDb + READING_SIGMA_DB * normal();
    out.rateFar[n] = rateFar(toFarDb);
    out.rateNear[n] = rateNear(toNearDb);
    by.ground[n] = field.at(worst.atM) - field.nearM() * (1 - t) - field.farM() * t;
    by["obstacle heights"][n] = ownerAt < 0 ? 0 : draw.errorM[ownerAt]!;
    by["mount heights"][n] = draw.typedNearM * (1 - t) + draw.typedFarM * t;
    by.position[n] = draw.asideM(worst.atM);
    by.k[n] = 1 / draw.kFactor;
    by.leaves[n] = draw.leafShare;
    by.reflection[n] = l.reflectionDb;
    by.walls[n] = l.wallsDb;
    by.aim[n] = l.aimDb;
    by["power and gain"][n] = toFarDb - pathDb + gainDb;
    by.reading[n] = readingDb;
  }
  return {
    draws,
    seed,
    levelToFarDbm: spreadOf(out.far),
    levelToNearDbm: spreadOf(out.near),
    expectedToFarDbm: toFar.levelDbm,
    expectedToNearDbm: toNear.levelDbm,
    spareM: spreadOf(out.spare),
    shareOfF1: spreadOf(out.share),
    policyShare: governs.share,
    probabilityClear: clear / draws,
    rateToFarMbps: spreadOf(out.rateFar),
    rateToNearMbps: spreadOf(out.rateNear),
    contributions: INPUTS.map((input) => ({
      input,
      ofLevel: explainedShare(by[input], out.far),
      ofClearance: explainedShare(by[input], out.share),
    })).sort((a, b) => b.ofLevel + b.ofClearance - a.ofLevel - a.ofClearance),
  };
};
