/* The radios of a job as they stand against each other: where each hangs, which way it looks, what of it goes where. */
import type { Pattern } from "../antenna";
import { freeSpaceLossDb } from "../propagation";
import { type Access, matchPolarisation, type Polarisation } from "../radio";
import { DEG_PER_RAD } from "../units";

export interface Spot {
  readonly eastM: number;
  readonly northM: number;
  readonly amslM: number;
}

export interface AirRadio {
  readonly id: string;
  /** The link or sector whose channel it is on; of other people's radios their own. */
  readonly unitId: string;
  readonly siteId: string | null;
  readonly name: string;
  readonly at: Spot;
  /** Which way it looks; null: all ways alike. */
  readonly axis: { readonly azimuthDeg: number; readonly tiltDeg: number } | null;
  readonly gainDbi: number;
  /** Null: all ways alike. */
  readonly pattern: Pattern | null;
  readonly polarisation: Polarisation;
  readonly chains: number;
  readonly powerDbm: number;
  /** Cables, plugs, and a wall before it, dB. */
  readonly lossDb: number;
  readonly access: Access;
  readonly standard: string;
  readonly family: string;
  readonly noiseFigureDb: number;
  readonly maxInputDbm: number;
  /** Name of the beat that scheduled hubs of one family keep on one mast; null: none. */
  readonly beat: string | null;
  /** What the levels are worked out at, MHz: its planned channel. */
  readonly atMhz: number;
}

/** Radios of one site that hang nearer than this are on one mast; so near, no formula of distance is sure. */
export const ONE_MAST_M = 30;
/** An estimate of what one mast's radios hear of each other may be out by so much. */
export const ISOLATION_DOUBT_DB = 10;
/** Two on one spot hang side by side at this distance (ours). */
const LEAST_APART_M = 1;
/** Nothing on one mast is better parted than by this, whatever its antennas (ours: brackets, cables and the mast itself carry it over). */
const BEST_ISOLATION_DB = 80;
/** Nor worse than this where both look away. */
const LEAST_ISOLATION_DB = 20;
/** An earth of 4/3, for the drop over distance. */
const EARTH_43_M = (6_371_000 * 4) / 3;

export interface Coupling {
  /** Level at the other's port per receive chain against the power sent, dB: 0 or less. */
  readonly totalDb: number;
  readonly distanceM: number;
  readonly outDb: number;
  readonly outGainDbi: number;
  readonly inDb: number;
  readonly inGainDbi: number;
  readonly freeSpaceDb: number;
  /** By ground and bodies beyond free space; null: not looked at, free space. */
  readonly excessDb: number | null;
  readonly chainsDb: number;
  readonly polarisationDb: number;
  readonly cablesDb: number;
  readonly way: "path" | "typed isolation" | "estimated isolation";
}

const turn = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

interface Seen {
  readonly azimuthDeg: number;
  readonly elevationDeg: number;
  readonly distanceM: number;
}

const seenFrom = (a: Spot, b: Spot): Seen => {
  const [east, north, up] = [b.eastM - a.eastM, b.northM - a.northM, b.amslM - a.amslM];
  const flat = Math.hypot(east, north);
  const drop = (flat * flat) / (2 * EARTH_43_M);
  return {
    azimuthDeg: Math.atan2(east, north) * DEG_PER_RAD,
    elevationDeg: Math.atan2(up - drop, flat) * DEG_PER_RAD,
    distanceM: Math.hypot(flat, up),
  };
};

/** Level below the peak towards another, by the envelope over the lobes, dB. Two on one spot look across each other. */
const towards = (r: AirRadio, seen: Seen): number => {
  if (r.pattern === null || r.axis === null) return 0;
  if (seen.distanceM < 0.01) return r.pattern.envelopeDb(90, 0);
  // Straight above or below there is no bearing: only the angle from the axis counts.
  if (Math.abs(seen.elevationDeg) > 89) return r.pattern.envelopeDb(0, turn(seen.elevationDeg - r.axis.tiltDeg));
  return r.pattern.envelopeDb(turn(seen.azimuthDeg - r.axis.azimuthDeg), seen.elevationDeg - r.axis.tiltDeg);
};

export interface Between {
  /** Isolation between two radios of one site, port to port, where somebody measured it; null: estimated. */
  readonly isolationDb: number | null;
  /** By ground and bodies beyond free space; null: not known. */
  readonly excessDb: number | null;
}

export const sameMast = (a: AirRadio, b: AirRadio): boolean =>
  a.siteId !== null &&
  a.siteId === b.siteId &&
  Math.hypot(a.at.eastM - b.at.eastM, a.at.northM - b.at.northM, a.at.amslM - b.at.amslM) <= ONE_MAST_M;

/** What of one radio's power comes to another's port. */
export const couplingOf = (from: AirRadio, into: AirRadio, between: Between): Coupling => {
  const there = seenFrom(from.at, into.at);
  const back = seenFrom(into.at, from.at);
  const onMast = sameMast(from, into);
  const distanceM = Math.max(LEAST_APART_M, there.distanceM);
  const outDb = towards(from, there);
  const inDb = towards(into, back);
  const freeSpaceDb = freeSpaceLossDb(from.atMhz / 1000, distanceM);
  const chainsDb = 10 * Math.log10(from.chains);
  const polarisationDb = onMast ? 0 : matchPolarisation(from.polarisation, into.polarisation).lossDb;
  const cablesDb = from.lossDb + into.lossDb;
  const parts = {
    distanceM,
    outDb,
    outGainDbi: from.gainDbi,
    inDb,
    inGainDbi: into.gainDbi,
    freeSpaceDb,
    chainsDb,
    polarisationDb,
    cablesDb,
  };
  if (onMast) {
    if (between.isolationDb !== null) return { ...parts, excessDb: null, totalDb: -between.isolationDb, way: "typed isolation" };
    const open = freeSpaceDb - from.gainDbi - outDb - into.gainDbi - inDb + cablesDb;
    const isolation = Math.min(BEST_ISOLATION_DB, Math.max(LEAST_ISOLATION_DB, open));
    return { ...parts, excessDb: null, totalDb: -isolation, way: "estimated isolation" };
  }
  const totalDb = from.gainDbi + outDb + into.gainDbi + inDb - freeSpaceDb - (between.excessDb ?? 0) - chainsDb - polarisationDb - cablesDb;
  return { ...parts, excessDb: between.excessDb, totalDb: Math.min(0, totalDb), way: "path" };
};

/** A field in plain figures. */
export interface PackedField {
  readonly radios: readonly AirRadio[];
  readonly db: Float64Array;
  readonly mast: Uint8Array;
  readonly guessed: Uint8Array;
}

/** What was packed, made whole again: what it is made of can no longer be told. */
export const unpackedField = (p: PackedField): AirField => new AirField(p.radios, () => ({ isolationDb: null, excessDb: null }), p);

/** All of them against all, made once: what a change of channel does not touch. */
export class AirField {
  readonly indexOf: ReadonlyMap<string, number>;
  private readonly db: Float64Array;
  private readonly mast: Uint8Array;
  private readonly guessed: Uint8Array;

  /** @param packed as it was worked out before; then nothing is. */
  constructor(
    readonly radios: readonly AirRadio[],
    readonly between: (from: AirRadio, into: AirRadio) => Between,
    packed?: Pick<PackedField, "db" | "mast" | "guessed">,
  ) {
    const n = radios.length;
    if (packed !== undefined) {
      this.indexOf = new Map(radios.map((r, i) => [r.id, i]));
      this.db = packed.db;
      this.mast = packed.mast;
      this.guessed = packed.guessed;
      return;
    }
    this.indexOf = new Map(radios.map((r, i) => [r.id, i]));
    this.db = new Float64Array(n * n);
    this.mast = new Uint8Array(n * n);
    this.guessed = new Uint8Array(n * n);
    for (let i = 0; i < n; i++)
      for (let k = 0; k < n; k++) {
        const [a, b] = [radios[i]!, radios[k]!];
        if (i === k || !sameBand(a.atMhz, b.atMhz)) {
          this.db[i * n + k] = Number.NEGATIVE_INFINITY;
          continue;
        }
        const c = couplingOf(a, b, between(a, b));
        this.db[i * n + k] = c.totalDb;
        this.mast[i * n + k] = c.way === "path" ? 0 : 1;
        this.guessed[i * n + k] = c.way === "estimated isolation" ? 1 : 0;
      }
  }

  /**
   * dB from one radio's power to another's port, by their places in the list.
   * @param doubtDb by how much what is only estimated on a mast is taken to be worse.
   */
  couplingDb(from: number, into: number, doubtDb = 0): number {
    const at = from * this.radios.length + into;
    return this.db[at]! + doubtDb * this.guessed[at]!;
  }

  isGuessed(from: number, into: number): boolean {
    return this.guessed[from * this.radios.length + into] === 1;
  }

  onOneMast(a: number, b: number): boolean {
    return this.mast[a * this.radios.length + b] === 1;
  }

  /** As it travels to a worker: without patterns, which are in its figures. */
  packed(): PackedField {
    return { radios: this.radios.map((r) => ({ ...r, pattern: null })), db: this.db, mast: this.mast, guessed: this.guessed };
  }

  /** The same with all that it is made of. */
  explain(from: number, into: number): Coupling {
    const [a, b] = [this.radios[from]!, this.radios[into]!];
    return couplingOf(a, b, this.between(a, b));
  }
}

/** Radios hear each other within a band; between bands nothing passes the filters (ours). */
const BAND_REACH = 1.3;
export const sameBand = (aMhz: number, bMhz: number): boolean => Math.max(aMhz, bMhz) / Math.min(aMhz, bMhz) < BAND_REACH;
