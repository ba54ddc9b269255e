/*
 * Power limits from rule rows. A planning aid: the local regulator decides. The lowest of conducted, gain-rule,
 * EIRP, gain-dependent EIRP and density limits holds.
 */
import { type Permission, permissionState } from "./permission";
import { type Domain, type EirpByGain, type LimitByBandwidth, type LinkUse, type OwnRule, type RuleRow, rowsInForce } from "./rule-rows";

export type CutBy =
  | "conducted limit"
  | "conducted limit and gain rule"
  | "EIRP limit"
  | "EIRP by gain"
  | "power density"
  | "permission"
  | "limit without radar detection"
  | "limit without automatic power control"
  | "mesh limit";

export interface PowerLimit {
  readonly maxConductedDbm: number;
  readonly maxEirpDbm: number;
  readonly cutBy: CutBy;
  readonly rule: RuleRow;
}

/** Two limits within this are one: the first named holds. */
const SAME_DB = 1e-9;

const eirpByGainDbm = (form: EirpByGain, gainDbi: number): number | null => {
  if ("pieces" in form) {
    const piece = form.pieces.find((p) => gainDbi >= p.fromGainDbi && (p.toGainDbi === null || gainDbi < p.toGainDbi));
    return piece === undefined ? null : piece.baseDbm - piece.slopeDbPerDb * Math.max(0, piece.refGainDbi - gainDbi);
  }
  const dbm = form.baseDbm - form.slopeDbPerDb * Math.max(0, form.refGainDbi - gainDbi);
  return form.floorDbm === null ? dbm : Math.max(form.floorDbm, dbm);
};

const byBandwidthDbm = (form: LimitByBandwidth, conductedMaxDbm: number, widthMhz: number): number =>
  form.form === "logarithmic"
    ? Math.min(form.capDbm, form.baseDbm + 10 * Math.log10(widthMhz / form.perMhz))
    : conductedMaxDbm + Math.min(0, 10 * Math.log10(widthMhz / form.wholeFromMhz));

/** The end that asks: what it is, what it can, and what is recorded for it. */
export interface Asker {
  readonly use: LinkUse;
  readonly gainDbi: number;
  readonly beamwidthDeg: number | null;
  /** What its radio can; true where the sheet does not say. */
  readonly radarDetection: boolean;
  readonly powerControl: boolean;
  readonly mesh: boolean;
  readonly permissions: readonly Permission[];
  /** The job's own rule rows; left out: none. */
  readonly ownRules?: readonly OwnRule[] | undefined;
  /** The day that counts, year-month-day. */
  readonly day: string;
}

export const PLAIN_ASKER: Omit<Asker, "use" | "gainDbi"> = {
  beamwidthDeg: null,
  radarDetection: true,
  powerControl: true,
  mesh: false,
  permissions: [],
  day: "2026-01-01",
};

/** The power one rule row allows with an antenna and a channel width, before any feeder loss. Null when the row sets none. */
export const limitOfRow = (rule: RuleRow, gainDbi: number, widthMhz: number, asker: Partial<Asker> = {}): PowerLimit | null => {
  const reductionDb =
    rule.gainRule?.freeGainDbi == null ? 0 : Math.max(0, gainDbi - rule.gainRule.freeGainDbi) * rule.gainRule.reduceConductedDbPerDb;
  const candidates: { conductedDbm: number; cutBy: CutBy }[] = [];
  const eirp = (eirpDbm: number | null | undefined, cutBy: CutBy): void => {
    if (eirpDbm != null) candidates.push({ conductedDbm: eirpDbm - gainDbi, cutBy });
  };
  if (rule.conductedMaxDbm !== null) {
    const base =
      rule.conductedLimitByBandwidth === null
        ? rule.conductedMaxDbm
        : byBandwidthDbm(rule.conductedLimitByBandwidth, rule.conductedMaxDbm, widthMhz);
    candidates.push({
      conductedDbm: base - reductionDb,
      cutBy: reductionDb > 0 ? "conducted limit and gain rule" : "conducted limit",
    });
  }
  eirp(rule.eirpMaxDbm, "EIRP limit");
  if (rule.eirpByGain !== null) eirp(eirpByGainDbm(rule.eirpByGain, gainDbi), "EIRP by gain");
  if (rule.psd !== null) {
    const wholeDbm = rule.psd.limitDbm + 10 * Math.log10(widthMhz / rule.psd.perMhz);
    candidates.push({
      conductedDbm: rule.psd.kind === "eirp" ? wholeDbm - gainDbi : wholeDbm - reductionDb,
      cutBy: "power density",
    });
  }
  if (asker.mesh === true) eirp(rule.meshEirpMaxDbm, "mesh limit");
  if (asker.powerControl === false && rule.tpc.required) {
    eirp(rule.tpc.withoutEirpDbm, "limit without automatic power control");
    if (rule.tpc.withoutPsdDbm !== undefined && rule.psd !== null)
      eirp(rule.tpc.withoutPsdDbm + 10 * Math.log10(widthMhz / rule.psd.perMhz), "limit without automatic power control");
  }
  if (asker.radarDetection === false && rule.dfs.required && asker.use === "remote")
    eirp(rule.remoteWithoutRadarEirpDbm, "limit without radar detection");
  let lowest: { conductedDbm: number; cutBy: CutBy } | null = null;
  for (const c of candidates) if (lowest === null || c.conductedDbm < lowest.conductedDbm - SAME_DB) lowest = c;
  if (lowest === null) return null;
  return { maxConductedDbm: lowest.conductedDbm, maxEirpDbm: lowest.conductedDbm + gainDbi, cutBy: lowest.cutBy, rule };
};

/** A row's demand for a permission, and how it stands with what is recorded. */
export interface PermissionNeed {
  readonly asks: string;
  readonly rule: RuleRow;
  readonly state: "open" | "not yet" | "expired" | "covers";
  readonly recorded: Permission | null;
}

export type RegulationResult =
  | {
      readonly status: "allowed";
      readonly limit: PowerLimit;
      /** Feeder loss is handed back: the limit holds at the antenna port. */
      readonly maxConductedDbm: number;
      readonly radarDetection: boolean;
      /** A radio without radar detection may all the same be used at the limit given. */
      readonly radarWaived: boolean;
      /** How long the channel is listened to before it is used, and left alone after radar; null without radar duty. */
      readonly radarWaitS: number | null;
      readonly nonOccupancyMin: number | null;
      /** Automatic power control is asked for above this EIRP, dBm; null when it is not. */
      readonly powerControlAboveDbm: number | null;
      /** EIRP allowed above an elevation, when the rows say so. */
      readonly elevationMask: { readonly aboveDeg: number; readonly eirpMaxDbm: number } | null;
      /** What must be recorded before the design may go on, when the row asks for it, and how that stands. */
      readonly permission: PermissionNeed | null;
      /** A row that would allow more once its permission is recorded. */
      readonly moreWith: { readonly rule: RuleRow; readonly maxConductedDbm: number } | null;
    }
  | {
      readonly status: "forbidden";
      readonly reason: "no-rule" | "indoor-only" | "gain-too-low" | "beam-too-wide";
      readonly rule: RuleRow | null;
    };

type Narrow = "enough" | "gain-too-low" | "beam-too-wide";

/** Rows that ask for gain or beamwidth, or for both. A beamwidth nobody stated is taken as met where the gain is. */
const narrowness = (rule: RuleRow, gainDbi: number, beamwidthDeg: number | null): Narrow => {
  const gainMet = rule.minGainDbi === null || gainDbi >= rule.minGainDbi;
  const beamMet = rule.maxBeamwidthDeg === null || (beamwidthDeg === null ? gainMet : beamwidthDeg <= rule.maxBeamwidthDeg);
  if (rule.narrowBy === "gain or beam" && rule.minGainDbi !== null && rule.maxBeamwidthDeg !== null)
    return gainMet || beamMet ? "enough" : "gain-too-low";
  return !gainMet ? "gain-too-low" : beamMet ? "enough" : "beam-too-wide";
};

/** The channel's edges and every edge of a row strictly inside it, rising. */
const edgesWithin = (rows: readonly RuleRow[], lowMhz: number, highMhz: number): number[] => {
  const edges = [lowMhz, highMhz];
  for (const r of rows) {
    if (r.lowMhz > lowMhz && r.lowMhz < highMhz && !edges.includes(r.lowMhz)) edges.push(r.lowMhz);
    if (r.highMhz > lowMhz && r.highMhz < highMhz && !edges.includes(r.highMhz)) edges.push(r.highMhz);
  }
  return edges.length === 2 ? edges : edges.sort((a, b) => a - b);
};

const STATE_ORDER = { covers: 0, expired: 1, "not yet": 2, open: 3 } as const;

const needOf = (rule: RuleRow, asker: Asker, lowMhz: number, highMhz: number): PermissionNeed | null => {
  if (rule.stopUntilRecorded === null) return null;
  let best: PermissionNeed = { asks: rule.stopUntilRecorded, rule, state: "open", recorded: null };
  for (const recorded of asker.permissions) {
    const found = permissionState(recorded, Math.max(lowMhz, rule.lowMhz), Math.min(highMhz, rule.highMhz), asker.day);
    if (found === "other channel" || STATE_ORDER[found] >= STATE_ORDER[best.state]) continue;
    best = { ...best, state: found, recorded };
  }
  return best;
};

interface Choice {
  readonly limit: PowerLimit;
  readonly need: PermissionNeed | null;
}

const choiceOf = (rule: RuleRow, asker: Asker, lowMhz: number, highMhz: number): Choice | null => {
  const limit = limitOfRow(rule, asker.gainDbi, highMhz - lowMhz, asker);
  if (limit === null) return null;
  const need = needOf(rule, asker, lowMhz, highMhz);
  const granted = need?.state === "covers" ? (need.recorded?.maxEirpDbm ?? null) : null;
  if (granted === null || granted >= limit.maxEirpDbm) return { limit, need };
  return { limit: { ...limit, maxEirpDbm: granted, maxConductedDbm: granted - asker.gainDbi, cutBy: "permission" }, need };
};

const most = (choices: readonly Choice[]): Choice | null =>
  choices.reduce<Choice | null>((a, b) => (a === null || b.limit.maxConductedDbm > a.limit.maxConductedDbm + SAME_DB ? b : a), null);

/** The row for one stretch of a channel: those written for the use first, then what is free or recorded, then the most. */
const rowFor = (fit: readonly RuleRow[], asker: Asker, lowMhz: number, highMhz: number): { chosen: Choice; more: Choice | null } | null => {
  const written = fit.filter((r) => r.writtenFor.includes(asker.use));
  const choices = (written.length > 0 ? written : fit).flatMap((r) => choiceOf(r, asker, lowMhz, highMhz) ?? []);
  const open = choices.filter((c) => c.need === null || c.need.state === "covers");
  const asking = choices.filter((c) => c.need !== null && c.need.state !== "covers");
  // One that was recorded and has run out stops the design again: it does not quietly become another row.
  const lapsed = most(asking.filter((c) => c.need !== null && c.need.state !== "open"));
  const chosen = lapsed ?? most(open) ?? most(asking);
  if (chosen === null) return null;
  const best = most(asking);
  return { chosen, more: best !== null && best.limit.maxConductedDbm > chosen.limit.maxConductedDbm + SAME_DB ? best : null };
};

/** How long a channel is listened to: the long wait when any part of it lies where weather radar works. */
const waitOf = (rule: RuleRow, lowMhz: number, highMhz: number): number => {
  const { availabilityCheckS = 60, availabilityCheckWeatherS, weatherLowMhz, weatherHighMhz } = rule.dfs;
  const weather = weatherLowMhz !== undefined && weatherHighMhz !== undefined && lowMhz < weatherHighMhz && highMhz > weatherLowMhz;
  return weather ? (availabilityCheckWeatherS ?? availabilityCheckS) : availabilityCheckS;
};

/**
 * The limit for an outdoor channel in a domain. The whole channel must lie inside rows that permit it;
 * over two rows the lower limits and both duties hold.
 */
export const regulate = (domain: Domain, centreMhz: number, widthMhz: number, asker: Asker, feederLossDb = 0): RegulationResult => {
  const lowMhz = centreMhz - widthMhz / 2;
  const highMhz = centreMhz + widthMhz / 2;
  const touching = rowsInForce(domain, asker.ownRules).filter((r) => r.lowMhz < highMhz && r.highMhz > lowMhz);
  const outdoor = touching.filter((r) => r.fixedOutdoorPermitted);
  const cuts = edgesWithin(touching, lowMhz, highMhz);
  const parts: { chosen: Choice; more: Choice | null }[] = [];
  for (let i = 0; i + 1 < cuts.length; i++) {
    const midMhz = (cuts[i]! + cuts[i + 1]!) / 2;
    const at = (r: RuleRow): boolean => r.lowMhz <= midMhz && r.highMhz >= midMhz;
    const here = outdoor.filter((r) => at(r) && r.serves.includes(asker.use));
    const fit = here.filter((r) => narrowness(r, asker.gainDbi, asker.beamwidthDeg) === "enough");
    const part = rowFor(fit, asker, lowMhz, highMhz);
    if (part !== null) {
      parts.push(part);
      continue;
    }
    const other = touching.find(at) ?? null;
    const narrow = here
      .map((r) => narrowness(r, asker.gainDbi, asker.beamwidthDeg))
      .find((n): n is Exclude<Narrow, "enough"> => n !== "enough");
    const reason = narrow !== undefined ? narrow : other === null || fit.length > 0 ? "no-rule" : "indoor-only";
    return { status: "forbidden", reason, rule: fit.length > 0 ? null : (here[0] ?? other) };
  }
  const chosen = parts.map((p) => p.chosen);
  if (chosen.length === 0) return { status: "forbidden", reason: "no-rule", rule: null };
  const lowest = chosen.reduce((a, b) => (b.limit.maxConductedDbm < a.limit.maxConductedDbm ? b : a)).limit;
  const rules = chosen.map((c) => c.limit.rule);
  const radar = rules.filter((r) => r.dfs.required);
  const control = rules.filter((r) => r.tpc.required);
  const aboveDbm = Math.min(...control.map((r) => r.tpc.fromEirpDbm ?? r.tpc.withoutEirpDbm ?? Number.NEGATIVE_INFINITY));
  const masks = rules.flatMap((r) => r.elevationMask ?? []);
  const needs = chosen.flatMap((c) => c.need ?? []).sort((a, b) => STATE_ORDER[b.state] - STATE_ORDER[a.state]);
  const more = parts.length === 1 ? parts[0]!.more : null;
  return {
    status: "allowed",
    limit: lowest,
    maxConductedDbm: lowest.maxConductedDbm + feederLossDb,
    radarDetection: radar.length > 0,
    radarWaived: asker.use === "remote" && radar.length > 0 && radar.every((r) => r.remoteWithoutRadarEirpDbm !== null),
    radarWaitS: radar.length === 0 ? null : Math.max(...radar.map((r) => waitOf(r, lowMhz, highMhz))),
    nonOccupancyMin: radar.length === 0 ? null : Math.max(...radar.map((r) => r.dfs.nonOccupancyMin ?? 0)),
    powerControlAboveDbm: Number.isFinite(aboveDbm) ? aboveDbm : null,
    elevationMask: masks.length === 0 ? null : masks.reduce((a, b) => (b.eirpMaxDbm < a.eirpMaxDbm ? b : a)),
    permission: needs[0] ?? null,
    moreWith: more === null ? null : { rule: more.limit.rule, maxConductedDbm: more.limit.maxConductedDbm + feederLossDb },
  };
};
