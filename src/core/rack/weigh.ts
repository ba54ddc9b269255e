/*
 * The quick sum: every pair at every width on every channel worth trying, its two powers by the chosen school, and what
 * of the need it then keeps. The path is made ready once a channel centre; nothing is drawn. The figures are those of a
 * whole evaluation, to the digit; what only draws can tell is added for the best of them later.
 */
import {
  AIMED,
  AIMING_SHARE,
  askerOf,
  type EndPlan,
  fadingOnce,
  GAIN_SIGMA_DB,
  gainsAround,
  LEAST_YEAR_PERCENT,
  type LinkPlan,
  MOST_YEAR_PERCENT,
  marginForYear,
  multipleOf,
  type PathProfile,
  type PathState,
  POWER_SIGMA_DB,
  type PreparedPath,
  pathStateOf,
  preparePath,
  withChannel,
} from "../link";
import { bandKeyOf, frameRatios, type Radio, type RegulationResult, regulate, USUAL_TARGET_DBM, usesOf } from "../radio";
import { channelChooser } from "./channel-choice";
import { type LevelGuard, NO_GUARD, type PowerRange, rungAt, settingOf } from "./power";
import { type TemplateWay, templateOf } from "./templates";
import type { ChannelOption, PowerSchool, Unit, UnitPair, WayFigures } from "./types";

/** 90th percentile of the standard normal distribution. */
const Z90 = 1.2816;
/** Mean loss of two ends that point anywhere within the counted error, by the parabola of the main lobe. */
const MEAN_AIM_DB = (2 * 12 * 2 * AIMING_SHARE * AIMING_SHARE) / 3;
const RADIOS_DB = Z90 * Math.hypot(POWER_SIGMA_DB, Math.SQRT2 * GAIN_SIGMA_DB);
/** One case in ten lies farther off on either side, by the radios alone; what the path adds is drawn. */
export const USUAL_GUARD: LevelGuard = { lowDb: RADIOS_DB + MEAN_AIM_DB, highDb: RADIOS_DB };

export interface School {
  readonly name: PowerSchool;
  readonly targetDbm: number;
}
export const USUAL_SCHOOL: School = { name: "enough", targetDbm: USUAL_TARGET_DBM };

const mostPowerOf = (radio: Radio): number => Math.max(...radio.modulations.map((m) => m.maxTxPowerDbm));

/** An end with another unit on its mount, pointed true. What is the unit's own, its feeder, port and aim, stays only with the same unit. */
const endWith = (end: EndPlan, unit: Unit, use: EndPlan["use"], sameBand: boolean): EndPlan => {
  const same = end.radio.id === unit.radio.id && (end.antenna?.id ?? null) === (unit.antenna?.id ?? null);
  const cabled = same || (unit.antenna !== null && end.antenna !== null);
  return {
    ...end,
    radio: unit.radio,
    antenna: unit.antenna,
    use,
    portIndex: same ? end.portIndex : null,
    aim: same ? end.aim : AIMED,
    feederLossDb: cabled ? end.feederLossDb : 0,
    connectorLossDb: cabled ? end.connectorLossDb : 0,
    // What was heard was heard in the band of the planned radio.
    interferenceDbm: sameBand ? end.interferenceDbm : null,
  };
};

/** The planned link with a pair on a channel in place of its own; the powers as given. */
export const planWith = (
  plan: LinkPlan,
  { near, far }: UnitPair,
  widthMhz: number,
  centreMhz: number,
  powers: { readonly nearDbm: number; readonly farDbm: number },
): LinkPlan => {
  const [nearUse, farUse] = usesOf(near.radio, far.radio);
  const sameBand = bandKeyOf(centreMhz) === bandKeyOf(plan.centreMhz);
  const share = plan.frameShareToFar;
  const offers = (radio: Radio): boolean => share !== null && frameRatios(radio.duplex).some((r) => Math.abs(r - share) < 1e-6);
  const own = near.radio.id === plan.near.radio.id && far.radio.id === plan.far.radio.id;
  return {
    ...plan,
    near: { ...endWith(plan.near, near, nearUse, sameBand), txPowerDbm: powers.nearDbm },
    far: { ...endWith(plan.far, far, farUse, sameBand), txPowerDbm: powers.farDbm },
    centreMhz,
    widthMhz,
    frameShareToFar: own || offers(near.radio) || offers(far.radio) ? share : null,
  };
};

/** Paths made ready, one a channel centre. */
export interface Paths {
  readonly stateAt: (centreMhz: number) => PathState;
  readonly pathAt: (centreMhz: number) => PreparedPath;
}

export const openPaths = (plan: LinkPlan, profile: PathProfile): Paths => {
  const known = new Map<number, { path: PreparedPath; state: PathState | null }>();
  const first = preparePath(plan, profile);
  const at = (centreMhz: number) => {
    let found = known.get(centreMhz);
    if (found === undefined) {
      found = { path: withChannel(first, { ...plan, centreMhz }), state: null };
      known.set(centreMhz, found);
    }
    return found;
  };
  return {
    pathAt: (centreMhz) => at(centreMhz).path,
    stateAt: (centreMhz) => {
      const found = at(centreMhz);
      found.state ??= pathStateOf({ ...plan, centreMhz }, found.path, false);
      return found.state;
    },
  };
};

interface Ruled {
  readonly result: RegulationResult;
  readonly legalDbm: number;
}

/** Margin that a way must hold: the job's, or what the need's share of the year asks, the larger. */
export const marginOf = (plan: LinkPlan, tx: EndPlan, state: PathState, years: Map<object, number>): number => {
  const fading = fadingOnce(plan, tx, state);
  let year = years.get(fading);
  if (year === undefined) {
    const known = plan.yearPercent >= LEAST_YEAR_PERCENT && plan.yearPercent <= MOST_YEAR_PERCENT;
    year = known ? marginForYear(fading, plan.yearPercent) : Number.POSITIVE_INFINITY;
    years.set(fading, year);
  }
  return Math.max(plan.policy.marginDb, year);
};

/** One way of an option, with what explains it when it keeps too little. */
export interface WeighedWay {
  readonly template: TemplateWay;
  readonly range: PowerRange;
  readonly fixedDb: number;
  readonly marginDb: number;
  readonly figures: WayFigures;
}

export interface WeighedOption extends ChannelOption {
  readonly plan: LinkPlan;
  readonly state: PathState;
  readonly far: WeighedWay;
  readonly near: WeighedWay;
}

export interface Weigher {
  readonly option: (pair: UnitPair, widthMhz: number, centreMhz: number) => WeighedOption | null;
  /** Every channel worth trying; empty where neither antennas nor radios leave one. */
  readonly options: (pair: UnitPair, widthMhz: number) => readonly WeighedOption[];
  readonly paths: Paths;
  readonly plan: LinkPlan;
  readonly school: School;
}

/** The figures of a way at a setting. */
export const figuresAt = (way: Omit<WeighedWay, "figures">, powerDbm: number, legalDbm: number): WayFigures => {
  const { template, fixedDb, marginDb } = way;
  const { rungs } = template;
  const held = rungAt(rungs, powerDbm, fixedDb, marginDb, NO_GUARD);
  const sure = rungAt(rungs, powerDbm, fixedDb, marginDb, USUAL_GUARD);
  const shown = held ?? rungs[0];
  return {
    powerDbm,
    levelDbm: Math.min(powerDbm, shown?.mostPowerDbm ?? powerDbm) + fixedDb,
    rungIndex: held?.index ?? null,
    modulation: held?.modulation ?? null,
    plannedMbps: held?.plannedMbps ?? 0,
    sureMbps: sure?.plannedMbps ?? 0,
    legalDbm,
  };
};

const bySchool = (way: Omit<WeighedWay, "figures">, legalDbm: number, { name, targetDbm }: School): WayFigures =>
  figuresAt(way, settingOf(name, way.template.rungs, way.range, way.fixedDb, way.marginDb, USUAL_GUARD, targetDbm), legalDbm);

/** Opens the quick sum over one path. @param plan the link as planned, from which everything but the radios is taken. */
export const openWeigher = (plan: LinkPlan, profile: PathProfile, school: School = USUAL_SCHOOL): Weigher => {
  const paths = openPaths(plan, profile);
  const channels = channelChooser(plan.policy.domain, plan);
  const templates = new Map<string, { far: TemplateWay; near: TemplateWay }>();
  const years = new Map<object, number>();
  const ruled = new Map<string, Ruled>();

  const templatesFor = (of: LinkPlan, rayM: number): { far: TemplateWay; near: TemplateWay } => {
    const key = `${of.near.radio.id}|${of.far.radio.id}|${of.widthMhz}|${of.near.interferenceDbm}|${of.far.interferenceDbm}|${of.near.portIndex}|${of.far.portIndex}|${of.frameShareToFar}`;
    let found = templates.get(key);
    if (found === undefined) {
      found = { far: templateOf(of, of.near, of.far, rayM), near: templateOf(of, of.far, of.near, rayM) };
      templates.set(key, found);
    }
    return found;
  };
  const ruledFor = (of: LinkPlan, end: EndPlan): Ruled => {
    const cableDb = end.feederLossDb + end.connectorLossDb;
    const key = `${end.radio.id}|${end.antenna?.id ?? ""}|${end.use}|${of.centreMhz}|${of.widthMhz}|${cableDb}`;
    let found = ruled.get(key);
    if (found === undefined) {
      const result = regulate(of.policy.domain, of.centreMhz, of.widthMhz, askerOf(of, end), cableDb);
      found = { result, legalDbm: result.status === "allowed" ? result.maxConductedDbm : Number.NEGATIVE_INFINITY };
      ruled.set(key, found);
    }
    return found;
  };

  const option = (pair: UnitPair, widthMhz: number, centreMhz: number): WeighedOption | null => {
    const of = planWith(plan, pair, widthMhz, centreMhz, { nearDbm: 0, farDbm: 0 });
    const state = paths.stateAt(centreMhz);
    const both = templatesFor(of, state.rayM);
    // The sheets name the width and give no rate for it.
    if (both.far.rungs.length === 0 || both.near.rungs.length === 0) return null;
    const gains = gainsAround(of, of.near, of.far, state);
    const farFixedDb = gains.totalDb + state.airDb;
    const nearFixedDb = farFixedDb + gains.chainsDb - 10 * Math.log10(of.far.radio.chains);
    const way = (template: TemplateWay, tx: EndPlan, fixedDb: number): WeighedWay & { ruled: Ruled } => {
      const rules = ruledFor(of, tx);
      // A channel that is forbidden is looked at as if it were not: what the radio could do there is told with the refusal.
      const legalDbm = rules.result.status === "allowed" ? rules.legalDbm : Number.POSITIVE_INFINITY;
      const range: PowerRange = {
        leastDbm: tx.radio.minTxPowerDbm,
        stepDb: tx.radio.txPowerStepDb > 0 ? tx.radio.txPowerStepDb : 1,
        mostDbm: Math.min(mostPowerOf(tx.radio), legalDbm),
      };
      const open = { template, range, fixedDb, marginDb: marginOf(of, tx, state, years) };
      return { ...open, figures: bySchool(open, rules.legalDbm, school), ruled: rules };
    };
    const far = way(both.far, of.near, farFixedDb);
    const near = way(both.near, of.far, nearFixedDb);
    const [needFar, needNear] = [plan.needToFarMbps ?? 0, plan.needToNearMbps ?? 0];
    const multiple = (a: number, b: number): number =>
      multipleOf(needFar, needNear, a, b, both.far.shared, both.far.portMbps, both.near.portMbps);
    const results = [far.ruled.result, near.ruled.result] as const;
    const allowed = results.flatMap((r) => (r.status === "allowed" ? [r] : []));
    const permission = allowed.map((r) => r.permission).find((p) => p !== null && p.state !== "covers") ?? null;
    const missing = [of.near, of.far].some((end, i) => {
      const r = results[i]!;
      return r.status === "allowed" && r.radarDetection && !end.radio.radarDetection && !r.radarWaived;
    });
    const belowRadioDb = Math.max(
      0,
      ...[far, near].map(({ ruled: r, range }) => (r.result.status === "allowed" ? range.leastDbm - r.legalDbm : 0)),
    );
    const forbidden = results.find((r) => r.status === "forbidden");
    return {
      centreMhz,
      lawful: allowed.length === 2 && permission === null && !missing && belowRadioDb <= 1e-9,
      permission: permission?.asks ?? null,
      radar: allowed.some((r) => r.radarDetection),
      radarMissing: missing,
      belowRadioDb,
      rule: forbidden?.status === "forbidden" ? forbidden.reason : null,
      toFar: far.figures,
      toNear: near.figures,
      multiple: multiple(far.figures.plannedMbps, near.figures.plannedMbps),
      sureMultiple: multiple(far.figures.sureMbps, near.figures.sureMbps),
      plan: of,
      state,
      far,
      near,
    };
  };

  const options = (pair: UnitPair, widthMhz: number): WeighedOption[] =>
    channels(pair, widthMhz).flatMap((mhz) => option(pair, widthMhz, mhz) ?? []);

  return { option, options, paths, plan, school };
};
