/*
 * Kinds of supply over a data lead, and what IEEE 802.3 (clause 33 and 145) says of its own: least volts at the source, most watts
 * a port gives, volts a device must work from, and the watts that a switch sets aside by class.
 */

/** Pins of a passive supply as most have it, or with plus and minus exchanged. */
export type Pins = "usual" | "reversed";

export interface PowerKind {
  readonly key: string;
  readonly scheme: "802.3" | "passive" | "own" | "dc" | "mains";
  /** Nominal volts. */
  readonly volts: number;
  /** Pairs that carry the supply; 1 for a two-core lead. */
  readonly pairs: 1 | 2 | 4;
  /** Type of IEEE 802.3, 1 (af) to 4 (bt, 90 W); 0 for what is none. */
  readonly type: 0 | 1 | 2 | 3 | 4;
  readonly pins: Pins;
  /** Maker's name of a supply of its own kind. */
  readonly maker: string;
}

/** One type of IEEE 802.3. */
export interface PoeType {
  readonly key: string;
  /** Least at the source's port under load, V. */
  readonly sourceLeastV: number;
  readonly sourceMostW: number;
  readonly pairs: 2 | 4;
  readonly deviceMostW: number;
  /** Least at which a device of this type must work, V. */
  readonly deviceLeastV: number;
}

export const DEVICE_MOST_V = 57;
/** A device may stay asleep below this until it has woken once. */
export const WAKES_AT_V = 42;

export const POE_TYPES: Readonly<Record<1 | 2 | 3 | 4, PoeType>> = {
  1: { key: "802.3af", sourceLeastV: 44, sourceMostW: 15.4, pairs: 2, deviceMostW: 12.95, deviceLeastV: 37 },
  2: { key: "802.3at", sourceLeastV: 50, sourceMostW: 30, pairs: 2, deviceMostW: 25.5, deviceLeastV: 42.5 },
  3: { key: "802.3bt", sourceLeastV: 50, sourceMostW: 60, pairs: 4, deviceMostW: 51, deviceLeastV: 42.5 },
  4: { key: "802.3bt4", sourceLeastV: 52, sourceMostW: 90, pairs: 4, deviceMostW: 71.3, deviceLeastV: 41.2 },
};

/** Watts that a port sets aside for a class 1 to 8, and most that such a device takes. */
export const CLASS_SOURCE_W = [4, 7, 15.4, 30, 45, 60, 75, 90] as const;
export const CLASS_DEVICE_W = [3.84, 6.49, 12.95, 25.5, 40, 51, 62, 71.3] as const;
/** A class that nobody states counts as this one. */
export const CLASS_UNSTATED = 3;

const POE: Readonly<Record<string, 1 | 2 | 3 | 4>> = { "802.3af": 1, "802.3at": 2, "802.3bt": 3, "802.3bt3": 3, "802.3bt4": 4 };
const PASSIVE = /^passive(\d+(?:\.\d+)?)(?:-([24])pair)?(-reversed)?$/;
const DC = /^dc(\d+(?:\.\d+)?)$/;
const OWN = /^own(\d+(?:\.\d+)?)-([24])pair:(.+)$/;

/** Reads "802.3at", "passive24-2pair", "passive48", "passive24-2pair-reversed", "own56-4pair:maker", "dc12" or "mains"; null for anything else. */
export const powerKind = (key: string): PowerKind | null => {
  const base = { key, pins: "usual", maker: "", type: 0 } as const;
  const type = Object.hasOwn(POE, key) ? POE[key]! : null;
  if (type !== null) return { ...base, scheme: "802.3", volts: POE_TYPES[type].sourceLeastV, pairs: POE_TYPES[type].pairs, type };
  if (key === "mains") return { ...base, scheme: "mains", volts: 230, pairs: 1 };
  const passive = PASSIVE.exec(key);
  if (passive !== null)
    return {
      ...base,
      scheme: "passive",
      volts: Number(passive[1]),
      pairs: passive[2] === "4" ? 4 : 2,
      pins: passive[3] === undefined ? "usual" : "reversed",
    };
  const dc = DC.exec(key);
  if (dc !== null) return { ...base, scheme: "dc", volts: Number(dc[1]), pairs: 1 };
  const own = OWN.exec(key);
  return own === null ? null : { ...base, scheme: "own", volts: Number(own[1]), pairs: own[2] === "4" ? 4 : 2, maker: own[3]! };
};

/** Kinds that somebody may state, with the passive ones that are usual. */
export const isPowerKind = (key: string): boolean => powerKind(key) !== null;

export type Fit =
  | "fits"
  /** Nothing happens: the source waits for an answer that never comes, or the device for a kind that it knows. */
  | "dark"
  /** Volts on pins of a device that is not made for them. */
  | "harms"
  | "pairs"
  | "polarity"
  | "volts";

/** How many volts two nominal figures may lie apart and still be one kind (24 and 27, 48 and 54). */
const SAME_KIND = 0.15;
const sameVolts = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_KIND * Math.max(a, b);

/** How one source's kind meets one kind that a device takes. */
export const fitOf = (gives: PowerKind, takes: PowerKind): Fit => {
  if (gives.scheme === "802.3") return takes.scheme === "802.3" ? "fits" : "dark";
  if (gives.scheme !== takes.scheme) {
    // Nobody asks before a passive supply stands on the pins; a two-core lead has other plugs.
    return takes.scheme === "dc" || takes.scheme === "mains" || gives.scheme === "mains" || gives.scheme === "dc" ? "dark" : "harms";
  }
  if (gives.scheme === "own" && gives.maker !== takes.maker) return "harms";
  if (!sameVolts(gives.volts, takes.volts)) return gives.volts > takes.volts ? "harms" : "volts";
  if (gives.pins !== takes.pins) return "polarity";
  return gives.pairs === takes.pairs ? "fits" : "pairs";
};

/** What serves best is what a device is told to be fed by. */
const BEST_FIRST: readonly Fit[] = ["fits", "pairs", "volts", "polarity", "dark", "harms"];

/** The best meeting of a source with all kinds that a device takes, and the kind that it meets. */
export const bestFit = (gives: PowerKind, takes: readonly string[]): { readonly fit: Fit; readonly kind: PowerKind | null } => {
  let best: { fit: Fit; kind: PowerKind | null } = { fit: "dark", kind: null };
  let rank = Number.POSITIVE_INFINITY;
  for (const key of takes) {
    const kind = powerKind(key);
    if (kind === null) continue;
    const fit = fitOf(gives, kind);
    if (BEST_FIRST.indexOf(fit) < rank) {
      rank = BEST_FIRST.indexOf(fit);
      best = { fit, kind };
    }
  }
  return best;
};

/** The class a device is counted as: as stated, else the least that bears what it may draw, and never less than the one unstated counts as. */
export const classOf = (stated: number | null | undefined, drawMostW: number | null): number => {
  if (stated != null) return stated;
  if (drawMostW === null) return CLASS_UNSTATED;
  const bears = CLASS_DEVICE_W.findIndex((w) => w >= drawMostW - 1e-9) + 1;
  return Math.max(CLASS_UNSTATED, bears === 0 ? CLASS_DEVICE_W.length : bears);
};

/** @param poeClass 1 to 8. */
export const reservedW = (poeClass: number): number => CLASS_SOURCE_W[poeClass - 1] ?? CLASS_SOURCE_W[CLASS_UNSTATED - 1]!;
