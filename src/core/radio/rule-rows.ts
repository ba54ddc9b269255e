/* Rule rows as data: a planning aid, each with source, year and confidence. The local regulator decides. */
import rules from "./tables/regulation.json" with { type: "json" };

export type Domain = "cautious" | "FCC-like" | "ETSI-like";
/** What an end is to the rules: one of two alike, the hub of several remotes, or a remote. */
export type LinkUse = "pair" | "hub" | "remote";

/** A conducted limit that depends on the width: the lesser of a cap and base + 10 log10, or in proportion below a width. */
export type LimitByBandwidth =
  | { readonly form: "logarithmic"; readonly capDbm: number; readonly baseDbm: number; readonly perMhz: number; readonly words: string }
  | { readonly form: "proportional"; readonly wholeFromMhz: number; readonly words: string };

export type EirpByGain =
  | { readonly baseDbm: number; readonly refGainDbi: number; readonly slopeDbPerDb: number; readonly floorDbm: number | null }
  | {
      readonly pieces: readonly {
        readonly fromGainDbi: number;
        readonly toGainDbi: number | null;
        readonly baseDbm: number;
        readonly refGainDbi: number;
        readonly slopeDbPerDb: number;
      }[];
    };

export interface RuleRow {
  readonly id: string;
  readonly domain: Domain;
  readonly lowMhz: number;
  readonly highMhz: number;
  readonly use: string;
  /** Ends that may use the row, and those it is written for. */
  readonly serves: readonly LinkUse[];
  readonly writtenFor: readonly LinkUse[];
  readonly fixedOutdoorPermitted: boolean;
  readonly indoorOnly: boolean;
  readonly conductedMaxDbm: number | null;
  readonly conductedLimitByBandwidth: LimitByBandwidth | null;
  readonly gainRule: { readonly freeGainDbi: number | null; readonly reduceConductedDbPerDb: number } | null;
  readonly eirpMaxDbm: number | null;
  readonly eirpByGain: EirpByGain | null;
  readonly psd: { readonly limitDbm: number; readonly perMhz: number; readonly kind: "conducted" | "eirp" } | null;
  readonly minGainDbi: number | null;
  readonly maxBeamwidthDeg: number | null;
  /** Whether one of gain and beamwidth is enough, or both are asked for. */
  readonly narrowBy: "gain or beam" | "gain and beam" | null;
  readonly dfs: {
    readonly required: boolean;
    readonly availabilityCheckS?: number | undefined;
    readonly availabilityCheckWeatherS?: number | undefined;
    readonly weatherLowMhz?: number | undefined;
    readonly weatherHighMhz?: number | undefined;
    readonly nonOccupancyMin?: number | undefined;
    readonly channelMoveS?: number | undefined;
  };
  readonly tpc: {
    readonly required: boolean;
    readonly fromEirpDbm?: number | undefined;
    /** What holds without automatic power control. */
    readonly withoutEirpDbm?: number | undefined;
    readonly withoutPsdDbm?: number | undefined;
  };
  readonly elevationMask: { readonly aboveDeg: number; readonly eirpMaxDbm: number } | null;
  /** What a remote without radar detection of its own may send; null where it may not be used. */
  readonly remoteWithoutRadarEirpDbm: number | null;
  readonly meshEirpMaxDbm: number | null;
  readonly licence: string;
  readonly stopUntilRecorded: string | null;
  readonly notes: string;
  readonly source: string;
  readonly asOf: string;
  readonly confidence: string;
}

/** The shipped file is read through the schema of `formats/rules.ts` by a test: an unknown form is a fault of the file. */
export const ruleRows: readonly RuleRow[] = rules.rows as unknown as readonly RuleRow[];

/** A job's own row: beside the shipped ones, or in the place of one of them in that job alone. */
export interface OwnRule extends RuleRow {
  readonly replaces: string | null;
}

export const rowsOfDomain: Readonly<Record<Domain, readonly RuleRow[]>> = {
  cautious: ruleRows.filter((r) => r.domain === "cautious"),
  "FCC-like": ruleRows.filter((r) => r.domain === "FCC-like"),
  "ETSI-like": ruleRows.filter((r) => r.domain === "ETSI-like"),
};

/** The rows in force: the shipped ones of a domain, with a job's own of it. */
export const rowsInForce = (domain: Domain, own: readonly OwnRule[] = []): readonly RuleRow[] => {
  const mine = own.filter((r) => r.domain === domain);
  if (mine.length === 0) return rowsOfDomain[domain];
  const gone = new Set(mine.flatMap((r) => (r.replaces === null ? [] : [r.replaces])));
  return [...rowsOfDomain[domain].filter((r) => !gone.has(r.id)), ...mine];
};
