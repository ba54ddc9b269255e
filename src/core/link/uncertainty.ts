/*
 * The doubt about a link by drawing its inputs again and again (seeded Monte Carlo): level, clearance
 * and rate as 10th, 50th and 90th of a hundred. Ground errors are a common shift of each dataset (60 % of
 * the variance) and a field with a length of 20 cells at 64 knots. Sigmas are the model's defaults or
 * the plan's. Each body is a rectangle across the ray at its nearest place; solid bodies and ground go
 * through the whole of P.526 again, leaves through their own sum.
 */
import { CHANCE_DRAWS, chanceOfClearance, drawnBodies } from "./chance";
import { leavesCount } from "./clearance";
import { clearanceDraw } from "./draw-clearance";
import { moveDraw } from "./draw-moves";
import { DEFAULT_SEED, drawSource } from "./draws";
import { serviceOf } from "./evaluate";
import { keptMultiple, marginsByRain, waysOf } from "./kept";
import { NEARLY_SERVES_DRAWS, NEARLY_SERVES_HIGH, NEARLY_SERVES_LOW } from "./limits";
import { pathStateOf } from "./path-state";
import type { PreparedPath } from "./prepare";
import { explainedShare, type Spread, spreadOf } from "./spread";
import type { Direction, LinkPlan } from "./types";

export const DEFAULT_DRAWS = 500;
const MOST_DRAWS = 100_000;

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
  /** Share of the draws in which the need is kept, the reader's own error left out; null without a need. */
  readonly probabilityServes: number | null;
  readonly rateToFarMbps: Spread;
  readonly rateToNearMbps: Spread;
  readonly contributions: readonly Contribution[];
}

/** Rate of the rung that a level moved by some dB would hold. */
const rateBy = (plan: LinkPlan, d: Direction): ((moveDb: number) => number) => {
  const rows = d.rates.map(({ rung, airtime }) => ({ r: rung, mbps: airtime.tcpMbps }));
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
 * @param options.seed the same seed gives the same draws: figures stand still while a mast is dragged.
 * @returns null when the ground is not known all along, or the radios do not pair: there is then no spread to tell.
 * @throws RangeError for a number of draws outside 1 to 100000.
 */
export const monteCarlo = (plan: LinkPlan, path: PreparedPath, options: { draws?: number; seed?: number } = {}): Uncertainty | null => {
  const draws = options.draws ?? DEFAULT_DRAWS;
  const seed = options.seed ?? DEFAULT_SEED;
  if (!(Number.isInteger(draws) && draws >= 1 && draws <= MOST_DRAWS))
    throw new RangeError(`draws is ${draws}; it must be 1 to ${MOST_DRAWS}`);
  if (path.unknownGroundM > 0) return null;
  const state = pathStateOf(plan, path);
  const { toFar, toNear } = serviceOf(plan, state).service;
  const { worst } = state.clearance;
  if (toFar === null || toNear === null || worst === null) return null;
  const governs = state.conditions.find((c) => c.ray.kFactor === worst.kFactor && c.share === worst.policyShare) ?? state.conditions[0]!;
  const bodies = drawnBodies(plan, path, state.conditions);
  const sections = bodies.parts[0]!.sections;
  const source = drawSource(plan, path.profile, bodies.heights, draws, seed);
  const { field, next } = source;
  const leaves = leavesCount(plan);
  const clearance = clearanceDraw(path.profile, bodies.parts, source, leaves, bodies.groundReachM);
  const move = moveDraw(plan, state, toFar, field, sections, seed);
  const rateFar = rateBy(plan, toFar);
  const rateNear = rateBy(plan, toNear);
  const ways = waysOf(plan, state, toFar, toNear);
  const marginFarDb = marginsByRain(ways.toFar);
  const marginNearDb = marginsByRain(ways.toNear);
  const asked = plan.needToFarMbps !== null || plan.needToNearMbps !== null;
  let serves = 0;

  const make = (): Float64Array => new Float64Array(draws);
  const out = { far: make(), near: make(), spare: make(), share: make(), rateFar: make(), rateNear: make() };
  const by = Object.fromEntries(INPUTS.map((i) => [i, make()])) as Record<(typeof INPUTS)[number], Float64Array>;
  const ownerAt = worst.owner.kind === "body" ? sections.findIndex((s) => s.body.id === (worst.owner as { id: string }).id) : -1;
  const t = worst.atM / path.profile.pathM;
  for (let n = 0; n < draws; n++) {
    const draw = next();
    const { share, spareM } = clearance(draw, false);
    const m = move(draw);
    const { toFarDb, toNearDb, rainSigmas } = m;
    if (asked && keptMultiple(plan, ways.toFar, ways.toNear, toFarDb, toNearDb, marginFarDb(rainSigmas), marginNearDb(rainSigmas)) >= 1)
      serves++;
    out.spare[n] = spareM;
    out.share[n] = share;
    out.far[n] = toFar.levelDbm + toFarDb + m.readFarDb;
    out.near[n] = toNear.levelDbm + toNearDb + m.readNearDb;
    out.rateFar[n] = rateFar(toFarDb);
    out.rateNear[n] = rateNear(toNearDb);
    by.ground[n] = field.at(worst.atM) - field.nearM() * (1 - t) - field.farM() * t;
    by["obstacle heights"][n] = ownerAt < 0 ? 0 : draw.errorM(ownerAt);
    by["mount heights"][n] = draw.typedNearM * (1 - t) + draw.typedFarM * t;
    by.position[n] = draw.asideM(worst.atM);
    by.k[n] = 1 / draw.kFactor;
    by.leaves[n] = draw.leafShare;
    by.reflection[n] = m.level.reflectionDb;
    by.walls[n] = m.level.wallsDb;
    by.aim[n] = m.level.aimDb;
    by["power and gain"][n] = m.radiosDb;
    by.reading[n] = m.readFarDb;
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
    probabilityClear:
      draws <= CHANCE_DRAWS && seed === DEFAULT_SEED
        ? (state.clearance.probability ?? 0)
        : chanceOfClearance(plan, path, state.conditions, leaves, -worst.missM, state.clearance.sigmaM ?? 0, draws, seed).met,
    probabilityServes: asked ? serves / draws : null,
    rateToFarMbps: spreadOf(out.rateFar),
    rateToNearMbps: spreadOf(out.rateNear),
    contributions: INPUTS.map((input) => ({
      input,
      ofLevel: explainedShare(by[input], out.far),
      ofClearance: explainedShare(by[input], out.share),
    })).sort((a, b) => b.ofLevel + b.ofClearance - a.ofLevel - a.ofClearance),
  };
};

/**
 * The doubt that a verdict rests on: the usual draws, and more of them where the share that serves lies so near to what
 * is asked that they cannot tell. The chance of clearance stays that of the verdict.
 * @returns null as `monteCarlo`.
 */
export const decidingDraws = (plan: LinkPlan, path: PreparedPath): Uncertainty | null => {
  const usual = monteCarlo(plan, path);
  const serves = usual?.probabilityServes ?? null;
  if (usual === null || serves === null || serves < NEARLY_SERVES_LOW || serves > NEARLY_SERVES_HIGH) return usual;
  const more = monteCarlo(plan, path, { draws: NEARLY_SERVES_DRAWS });
  return more === null ? usual : { ...more, probabilityClear: usual.probabilityClear };
};
