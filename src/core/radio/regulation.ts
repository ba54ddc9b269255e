/*
 * Power limits from rule rows (data with source, year and confidence). A planning aid: the local
 * regulator decides. The lowest of conducted, gain-rule, EIRP, gain-dependent EIRP and density limits holds.
 */
import rules from "./tables/regulation.json" with { type: "json" };

export type Domain = "cautious" | "FCC-like" | "ETSI-like";

interface EirpByGain {
  readonly baseDbm?: number;
  readonly refGainDbi?: number;
  readonly slopeDbPerDb?: number;
  readonly floorDbm?: number | null;
  readonly pieces?: readonly {
    readonly fromGainDbi: number;
    readonly toGainDbi: number | null;
    readonly baseDbm: number;
    readonly refGainDbi: number;
    readonly slopeDbPerDb: number;
  }[];
}

export interface RuleRow {
  readonly id: string;
  readonly domain: Domain;
  readonly lowMhz: number;
  readonly highMhz: number;
  readonly use: string;
  readonly fixedOutdoorPermitted: boolean;
  readonly indoorOnly: boolean;
  readonly conductedMaxDbm: number | null;
  readonly conductedLimitByBandwidth: string | null;
  readonly gainRule: { readonly freeGainDbi: number | null; readonly reduceConductedDbPerDb: number } | null;
  readonly eirpMaxDbm: number | null;
  readonly eirpByGain: EirpByGain | null;
  readonly psd: { readonly limitDbm: number; readonly perMhz: number; readonly kind: "conducted" | "eirp" } | null;
  readonly minGainDbi: number | null;
  readonly maxBeamwidthDeg: number | null;
  readonly dfs: { readonly required: boolean };
  readonly tpc: { readonly required: boolean; readonly fromEirpDbm?: number; readonly withoutEirpDbm?: number };
  readonly elevationMask: { readonly aboveDeg: number; readonly eirpMaxDbm: number } | null;
  readonly licence: string;
  readonly stopUntilRecorded: string | null;
  readonly notes: string;
  readonly source: string;
  readonly asOf: string;
  readonly confidence: string;
}

export const ruleRows: readonly RuleRow[] = rules.rows as unknown as readonly RuleRow[];

/** What a row's words about its use come to, read once. */
interface UseOfRow {
  readonly serves: { readonly ptp: boolean; readonly ptmp: boolean };
  readonly names: { readonly ptp: boolean; readonly ptmp: boolean };
}
const USE_OF_ROW: ReadonlyMap<RuleRow, UseOfRow> = new Map(
  ruleRows.map((r) => [
    r,
    {
      serves: {
        ptp: !/point-to-multipoint|mesh|client \(remote\)|any other/.test(r.use) || /point-to-point or/.test(r.use),
        ptmp: !/^fixed point-to-point(?! or)|fixed point-to-point, outdoors/.test(r.use),
      },
      names: { ptp: /point-to-point/.test(r.use), ptmp: /multipoint|mesh/.test(r.use) },
    },
  ]),
);
const ROWS_OF_DOMAIN: Readonly<Record<Domain, readonly RuleRow[]>> = {
  cautious: ruleRows.filter((r) => r.domain === "cautious"),
  "FCC-like": ruleRows.filter((r) => r.domain === "FCC-like"),
  "ETSI-like": ruleRows.filter((r) => r.domain === "ETSI-like"),
};

export type CutBy = "conducted limit" | "conducted limit and gain rule" | "EIRP limit" | "EIRP by gain" | "power density";

export interface PowerLimit {
  readonly maxConductedDbm: number;
  readonly maxEirpDbm: number;
  readonly cutBy: CutBy;
  readonly rule: RuleRow;
}

/** Two limits within this are one: the first named holds. */
const SAME_DB = 1e-9;

const eirpByGainDbm = (form: EirpByGain, gainDbi: number): number | null => {
  if (form.pieces !== undefined) {
    const piece = form.pieces.find((p) => gainDbi >= p.fromGainDbi && (p.toGainDbi === null || gainDbi < p.toGainDbi));
    return piece === undefined ? null : piece.baseDbm - piece.slopeDbPerDb * Math.max(0, piece.refGainDbi - gainDbi);
  }
  const dbm = (form.baseDbm ?? 0) - (form.slopeDbPerDb ?? 0) * Math.max(0, (form.refGainDbi ?? 0) - gainDbi);
  return form.floorDbm == null ? dbm : Math.max(form.floorDbm, dbm);
};

/** The bandwidth-dependent conducted limits written as sentences in the rows. */
const conductedByBandwidthDbm = (sentence: string, conductedMaxDbm: number, widthMhz: number): number => {
  if (sentence.startsWith("lesser of 24 dBm")) return Math.min(24, 11 + 10 * Math.log10(widthMhz));
  if (sentence.startsWith("500 mW peak for 100 MHz")) return 27 + Math.min(0, 10 * Math.log10(widthMhz / 100));
  return conductedMaxDbm;
};

/** The power one rule row allows with an antenna and a channel width, before any feeder loss. Null when the row sets none. */
export const limitOfRow = (rule: RuleRow, gainDbi: number, widthMhz: number): PowerLimit | null => {
  const reductionDb =
    rule.gainRule?.freeGainDbi == null ? 0 : Math.max(0, gainDbi - rule.gainRule.freeGainDbi) * rule.gainRule.reduceConductedDbPerDb;
  const candidates: { conductedDbm: number; cutBy: CutBy }[] = [];
  if (rule.conductedMaxDbm !== null) {
    const base =
      rule.conductedLimitByBandwidth === null
        ? rule.conductedMaxDbm
        : conductedByBandwidthDbm(rule.conductedLimitByBandwidth, rule.conductedMaxDbm, widthMhz);
    candidates.push({
      conductedDbm: base - reductionDb,
      cutBy: reductionDb > 0 ? "conducted limit and gain rule" : "conducted limit",
    });
  }
  if (rule.eirpMaxDbm !== null) candidates.push({ conductedDbm: rule.eirpMaxDbm - gainDbi, cutBy: "EIRP limit" });
  const byGain = rule.eirpByGain === null ? null : eirpByGainDbm(rule.eirpByGain, gainDbi);
  if (byGain !== null) candidates.push({ conductedDbm: byGain - gainDbi, cutBy: "EIRP by gain" });
  if (rule.psd !== null) {
    const wholeDbm = rule.psd.limitDbm + 10 * Math.log10(widthMhz / rule.psd.perMhz);
    candidates.push({
      conductedDbm: rule.psd.kind === "eirp" ? wholeDbm - gainDbi : wholeDbm - reductionDb,
      cutBy: "power density",
    });
  }
  let lowest: { conductedDbm: number; cutBy: CutBy } | null = null;
  for (const c of candidates) if (lowest === null || c.conductedDbm < lowest.conductedDbm - SAME_DB) lowest = c;
  if (lowest === null) return null;
  return { maxConductedDbm: lowest.conductedDbm, maxEirpDbm: lowest.conductedDbm + gainDbi, cutBy: lowest.cutBy, rule };
};

export type LinkUse = "ptp" | "ptmp";

export type RegulationResult =
  | {
      readonly status: "allowed";
      readonly limit: PowerLimit;
      /** Feeder loss is handed back: the limit holds at the antenna port. */
      readonly maxConductedDbm: number;
      readonly radarDetection: boolean;
      /** Automatic power control is asked for above this EIRP, dBm; null when it is not. */
      readonly powerControlAboveDbm: number | null;
      /** EIRP allowed above an elevation, when the rows say so. */
      readonly elevationMask: { readonly aboveDeg: number; readonly eirpMaxDbm: number } | null;
      /** What must be recorded before the design may go on, when the row asks for it. */
      readonly permission: string | null;
    }
  | {
      readonly status: "forbidden";
      readonly reason: "no-rule" | "indoor-only" | "gain-too-low" | "beam-too-wide";
      readonly rule: RuleRow | null;
    };

/** Rows that ask for gain or beamwidth: either one met is enough where both are named. */
const narrowEnough = (rule: RuleRow, gainDbi: number, beamwidthDeg: number | null): boolean => {
  const gainMet = rule.minGainDbi === null || gainDbi >= rule.minGainDbi;
  if (rule.maxBeamwidthDeg === null || beamwidthDeg === null) return gainMet;
  const beamMet = beamwidthDeg <= rule.maxBeamwidthDeg;
  return rule.minGainDbi === null ? beamMet : gainMet || beamMet;
};

const usable = (rule: RuleRow, use: LinkUse, gainDbi: number, beamwidthDeg: number | null): boolean =>
  narrowEnough(rule, gainDbi, beamwidthDeg) && (USE_OF_ROW.get(rule)?.serves[use] ?? false);

/** The channel's edges and every edge of a row strictly inside it, rising. */
const edgesWithin = (rows: readonly RuleRow[], lowMhz: number, highMhz: number): number[] => {
  const edges = [lowMhz, highMhz];
  for (const r of rows) {
    if (r.lowMhz > lowMhz && r.lowMhz < highMhz && !edges.includes(r.lowMhz)) edges.push(r.lowMhz);
    if (r.highMhz > lowMhz && r.highMhz < highMhz && !edges.includes(r.highMhz)) edges.push(r.highMhz);
  }
  return edges.length === 2 ? edges : edges.sort((a, b) => a - b);
};

/**
 * The limit for an outdoor channel in a domain. The whole channel must lie inside rows that permit it;
 * over two rows the lower limits and both duties hold. Of several rows for one place those of the declared
 * use are taken, then those that need no permission, then the lowest.
 */
export const regulate = (
  domain: Domain,
  centreMhz: number,
  widthMhz: number,
  gainDbi: number,
  use: LinkUse,
  feederLossDb = 0,
  beamwidthDeg: number | null = null,
): RegulationResult => {
  const lowMhz = centreMhz - widthMhz / 2;
  const highMhz = centreMhz + widthMhz / 2;
  const touching = ROWS_OF_DOMAIN[domain].filter((r) => r.lowMhz < highMhz && r.highMhz > lowMhz);
  const outdoor = touching.filter((r) => r.fixedOutdoorPermitted);
  const cuts = edgesWithin(touching, lowMhz, highMhz);
  let lowest: PowerLimit | null = null;
  let radarDetection = false;
  let powerControlAboveDbm: number | null = null;
  let elevationMask: RuleRow["elevationMask"] = null;
  let permission: string | null = null;
  for (let i = 0; i + 1 < cuts.length; i++) {
    const midMhz = (cuts[i]! + cuts[i + 1]!) / 2;
    const here = outdoor.filter((r) => r.lowMhz <= midMhz && r.highMhz >= midMhz);
    const fit = here.filter((r) => usable(r, use, gainDbi, beamwidthDeg));
    if (fit.length === 0) {
      const other = touching.find((r) => r.lowMhz <= midMhz && r.highMhz >= midMhz) ?? null;
      const reason = here.some((r) => !narrowEnough(r, gainDbi, beamwidthDeg))
        ? here.some((r) => r.minGainDbi !== null)
          ? "gain-too-low"
          : "beam-too-wide"
        : other === null
          ? "no-rule"
          : "indoor-only";
      return { status: "forbidden", reason, rule: here[0] ?? other };
    }
    const free = fit.filter((r) => r.stopUntilRecorded === null);
    const pool = (free.length > 0 ? free : fit).filter((r) => limitOfRow(r, gainDbi, widthMhz) !== null);
    const named = pool.filter((r) => USE_OF_ROW.get(r)?.names[use] === true);
    const chosen = named.length > 0 ? named : pool;
    let here1: PowerLimit | null = null;
    for (const rule of chosen) {
      const limit = limitOfRow(rule, gainDbi, widthMhz);
      if (limit !== null && (here1 === null || limit.maxConductedDbm < here1.maxConductedDbm)) here1 = limit;
    }
    if (here1 === null) return { status: "forbidden", reason: "no-rule", rule: null };
    radarDetection ||= here1.rule.dfs.required;
    permission ??= here1.rule.stopUntilRecorded;
    const { tpc, elevationMask: mask } = here1.rule;
    if (tpc.required) powerControlAboveDbm = Math.min(powerControlAboveDbm ?? Infinity, tpc.fromEirpDbm ?? tpc.withoutEirpDbm ?? -Infinity);
    if (mask !== null && (elevationMask === null || mask.eirpMaxDbm < elevationMask.eirpMaxDbm)) elevationMask = mask;
    if (lowest === null || here1.maxConductedDbm < lowest.maxConductedDbm) lowest = here1;
  }
  if (lowest === null) return { status: "forbidden", reason: "no-rule", rule: null };
  return {
    status: "allowed",
    limit: lowest,
    maxConductedDbm: lowest.maxConductedDbm + feederLossDb,
    radarDetection,
    powerControlAboveDbm: powerControlAboveDbm === -Infinity ? null : powerControlAboveDbm,
    elevationMask,
    permission,
  };
};
