/*
 * What only draws can tell of a candidate: in how many of a hundred cases its need is kept, and with which powers it
 * is kept best. One set of draws serves every setting of both ends.
 */
import {
  DEFAULT_DRAWS,
  multipleOf,
  NEARLY_SERVES_DRAWS,
  NEARLY_SERVES_HIGH,
  NEARLY_SERVES_LOW,
  type PathState,
  pathStateOf,
  type ServeDraws,
  serveDraws,
} from "../link";
import { clearanceWords, type WeighedCandidate } from "./candidates";
import { type PowerRange, topSetting } from "./power";
import type { TemplateRung } from "./templates";
import type { DrawnCandidate } from "./types";
import { figuresAt, type School, type WeighedOption, type WeighedWay } from "./weigh";

/** The rate of a way at a setting in every draw. */
const ratesAt = (
  { template, fixedDb }: WeighedWay,
  setDbm: number,
  leastMarginDb: number,
  moveDb: Float64Array,
  marginDb: Float64Array,
): Float64Array => {
  const out = new Float64Array(moveDb.length);
  const { rungs } = template;
  for (let n = 0; n < out.length; n++) {
    const wantedDb = Math.max(leastMarginDb, marginDb[n]!);
    let best: TemplateRung | null = null;
    for (const r of rungs) {
      const levelDbm = Math.min(setDbm, r.mostPowerDbm) + fixedDb;
      if (levelDbm + moveDb[n]! > r.ceilingDbm || levelDbm - r.needsDbm + moveDb[n]! < wantedDb) continue;
      if (best === null || r.plannedMbps > best.plannedMbps) best = r;
    }
    out[n] = best?.plannedMbps ?? 0;
  }
  return out;
};

const atShare = (sorted: Float64Array, share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;

const settingsFrom = (range: PowerRange): number[] => {
  const top = topSetting(range);
  const count = Math.max(0, Math.round((top - range.leastDbm) / range.stepDb));
  return Array.from({ length: count + 1 }, (_, i) => range.leastDbm + i * range.stepDb);
};

/** The setting of a school by what is kept in nine cases of ten, then in the middle one: the lowest such, or the highest. */
const settingByDraws = (way: WeighedWay, school: School, leastMarginDb: number, moveDb: Float64Array, marginDb: Float64Array): number => {
  if (school.name === "target") return way.figures.powerDbm;
  let best: { dbm: number; p10: number; p50: number } | null = null;
  for (const dbm of settingsFrom(way.range)) {
    const rates = ratesAt(way, dbm, leastMarginDb, moveDb, marginDb).sort();
    const p10 = atShare(rates, 0.1);
    const p50 = atShare(rates, 0.5);
    const more = best === null || p10 > best.p10 || (p10 === best.p10 && p10 === 0 && p50 > best.p50);
    if (more || (school.name === "highest" && p10 === best!.p10 && (p10 > 0 || p50 === best!.p50))) best = { dbm, p10, p50 };
  }
  return best === null || best.p50 === 0 ? way.figures.powerDbm : best.dbm;
};

/** What is kept of the need over some draws with both settings. */
const keptOver = (option: WeighedOption, farDbm: number, nearDbm: number, draws: ServeDraws): DrawnCandidate => {
  const { plan, far, near } = option;
  const { marginDb } = plan.policy;
  const farMbps = ratesAt(far, farDbm, marginDb, draws.toFarDb, draws.marginFarDb);
  const nearMbps = ratesAt(near, nearDbm, marginDb, draws.toNearDb, draws.marginNearDb);
  const [needFar, needNear] = [plan.needToFarMbps ?? 0, plan.needToNearMbps ?? 0];
  const multiples = new Float64Array(draws.draws);
  let kept = 0;
  for (let n = 0; n < draws.draws; n++) {
    const m = multipleOf(needFar, needNear, farMbps[n]!, nearMbps[n]!, far.template.shared, far.template.portMbps, near.template.portMbps);
    multiples[n] = m;
    if (m >= 1) kept++;
  }
  multiples.sort();
  return { serves: kept / draws.draws, p10: atShare(multiples, 0.1), p50: atShare(multiples, 0.5), p90: atShare(multiples, 0.9) };
};

/** Draws of one candidate, kept: any setting is then asked of them. */
export interface OpenDraws {
  readonly state: PathState;
  readonly usual: ServeDraws | null;
  readonly more: () => ServeDraws | null;
}

export const openDraws = (option: WeighedOption): OpenDraws => {
  const state = pathStateOf(option.plan, option.state.path);
  let more: ServeDraws | null | undefined;
  return {
    state,
    usual: serveDraws(option.plan, state, DEFAULT_DRAWS),
    more: () => {
      more ??= serveDraws(option.plan, state, NEARLY_SERVES_DRAWS);
      return more;
    },
  };
};

/** What is kept with two settings; where the usual draws are too few to tell, by more of them. */
export const drawnAt = (option: WeighedOption, farDbm: number, nearDbm: number, draws: OpenDraws): DrawnCandidate | null => {
  if (draws.usual === null) return null;
  const usual = keptOver(option, farDbm, nearDbm, draws.usual);
  if (usual.serves < NEARLY_SERVES_LOW || usual.serves > NEARLY_SERVES_HIGH) return usual;
  const more = draws.more();
  return more === null ? usual : keptOver(option, farDbm, nearDbm, more);
};

/** An option at the settings that its draws choose. */
export const setByDraws = (option: WeighedOption, school: School, draws: OpenDraws): WeighedOption => {
  if (draws.usual === null) return option;
  const { usual } = draws;
  const { marginDb } = option.plan.policy;
  const farDbm = settingByDraws(option.far, school, marginDb, usual.toFarDb, usual.marginFarDb);
  const nearDbm = settingByDraws(option.near, school, marginDb, usual.toNearDb, usual.marginNearDb);
  return withPowers(option, farDbm, nearDbm);
};

/** The same option at other settings. */
export const withPowers = (option: WeighedOption, farDbm: number, nearDbm: number): WeighedOption => {
  const toFar = figuresAt(option.far, farDbm, option.toFar.legalDbm);
  const toNear = figuresAt(option.near, nearDbm, option.toNear.legalDbm);
  const { plan, far, near } = option;
  const multiple = (a: number, b: number): number =>
    multipleOf(plan.needToFarMbps ?? 0, plan.needToNearMbps ?? 0, a, b, far.template.shared, far.template.portMbps, near.template.portMbps);
  return {
    ...option,
    toFar,
    toNear,
    multiple: multiple(toFar.plannedMbps, toNear.plannedMbps),
    sureMultiple: multiple(toFar.sureMbps, toNear.sureMbps),
  };
};

/** A candidate with its draws: clearance by chance, powers by what is kept best, and how often the need is kept. */
export const drawCandidate = (candidate: WeighedCandidate, school: School): WeighedCandidate => {
  if (candidate.option === null) return candidate;
  const draws = openDraws(candidate.option);
  const option = setByDraws(candidate.option, school, draws);
  return {
    ...candidate,
    option,
    clearance: clearanceWords(draws.state.clearance),
    drawn: drawnAt(option, option.toFar.powerDbm, option.toNear.powerDbm, draws),
  };
};
