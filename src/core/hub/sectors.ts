/*
 * Which sectors on one mast take in all remotes: exact over a raster of axes by 1 degree and tilts by half a degree. The fewest
 * sectors first, then the greatest worst margin, then the lower price, then the lower axis (ours).
 */
import { offBy, type SectorAim } from "./beam";

export const AXIS_STEP_DEG = 1;
export const TILT_STEP_DEG = 0.5;
const AXES = 360 / AXIS_STEP_DEG;

export interface RemotePlace {
  /** From the hub, degrees from true north, and up positive. */
  readonly bearingDeg: number;
  readonly elevationDeg: number;
}

/** A radio with an antenna that could stand there. */
export interface SectorChoice {
  readonly id: string;
  readonly priceEur: number | null;
  /** Level below the peak, dB. */
  readonly relativeDb: (azimuthOffDeg: number, elevationOffDeg: number) => number;
  /** Below this the pattern promises nothing, dB: a remote there is not taken in. */
  readonly promisedDb: number;
  /** For each remote on its axis: what is left above the rung that its need takes, dB, the worse way. */
  readonly marginDb: readonly number[];
  /** For each remote: of all the air what its need takes on that rung. */
  readonly airShare: readonly number[];
}

export interface FoundSector extends SectorAim {
  readonly choice: number;
  readonly remotes: readonly number[];
}

export interface FoundSectors {
  readonly sectors: readonly FoundSector[];
  readonly worstDb: number;
  /** Remotes that no such set takes in, fewest of them. */
  readonly leftOver: readonly number[];
}

export interface SearchLimits {
  readonly mostSectors: number;
  /** Of all the air of each sector. */
  readonly mayUse: number;
  readonly tiltFromDeg: number;
  readonly tiltToDeg: number;
}

const MOST_REMOTES = 24;
const SAME_DB = 1e-6;
const KNOWN_WITHIN_DB = 0.001;
/** What asks for nothing has margin without end: more than this counts as this. */
const MOST_MARGIN_DB = 300;

/** All places on the raster where a choice could look, each with the margin of every remote. */
interface Raster {
  readonly count: number;
  readonly margins: Float64Array;
  readonly choice: Uint16Array;
  readonly axis: Uint16Array;
  readonly tilt: Float64Array;
}

/** A pattern's level on the raster: by steps off the axis all round, and by steps off in height. */
const tableOf = (relativeDb: SectorChoice["relativeDb"], fromStep: number, toStep: number): Float64Array => {
  const table = new Float64Array((toStep - fromStep + 1) * AXES);
  for (let e = fromStep; e <= toStep; e++)
    for (let a = 0; a < AXES; a++) table[(e - fromStep) * AXES + a] = relativeDb(offBy(0, a * AXIS_STEP_DEG), e * TILT_STEP_DEG);
  return table;
};

const rasterOf = (remotes: readonly RemotePlace[], choices: readonly SectorChoice[], limits: SearchLimits): Raster => {
  const n = remotes.length;
  const [low, high] = [Math.ceil(limits.tiltFromDeg / TILT_STEP_DEG - 1e-9), Math.floor(limits.tiltToDeg / TILT_STEP_DEG + 1e-9)];
  const bearing = remotes.map((r) => ((Math.round(r.bearingDeg / AXIS_STEP_DEG) % AXES) + AXES) % AXES);
  const height = remotes.map((r) => Math.round(r.elevationDeg / TILT_STEP_DEG));
  const [fromStep, toStep] = n === 0 ? [0, 0] : [Math.min(...height) - high, Math.max(...height) - low];
  const most = choices.length * (high - low + 1) * AXES;
  const raster = {
    margins: new Float64Array(most * n),
    choice: new Uint16Array(most),
    axis: new Uint16Array(most),
    tilt: new Float64Array(most),
  };
  let count = 0;
  for (let j = 0; j < choices.length; j++) {
    const { relativeDb, marginDb, promisedDb } = choices[j]!;
    const table = tableOf(relativeDb, fromStep, toStep);
    for (let t = low; t <= high; t++) {
      for (let axis = 0; axis < AXES; axis++) {
        let any = false;
        for (let i = 0; i < n; i++) {
          const off = bearing[i]! - axis;
          const level = table[(height[i]! - t - fromStep) * AXES + (off < 0 ? off + AXES : off)]!;
          const margin = marginDb[i]! < 0 || level < promisedDb ? Number.NEGATIVE_INFINITY : Math.min(MOST_MARGIN_DB, marginDb[i]!) + level;
          raster.margins[count * n + i] = margin;
          if (margin >= 0) any = true;
        }
        if (!any) continue;
        raster.choice[count] = j;
        raster.axis[count] = axis;
        raster.tilt[count] = t * TILT_STEP_DEG;
        count += 1;
      }
    }
  }
  return { count, ...raster };
};

interface Cover {
  readonly mask: number;
  readonly at: number;
}

/** What each place takes in at a margin, each set once by its cheapest and lowest place, and none that lies within another of one choice. */
const coversAt = (raster: Raster, n: number, leastDb: number, choices: readonly SectorChoice[], wanted: number): Cover[] => {
  const byMask = new Map<number, number>();
  const price = (at: number): number => choices[raster.choice[at]!]!.priceEur ?? Number.POSITIVE_INFINITY;
  let last = -1;
  for (let at = 0; at < raster.count; at++) {
    let mask = 0;
    for (let i = 0; i < n; i++) if (raster.margins[at * n + i]! >= leastDb) mask |= 1 << i;
    mask &= wanted;
    // The air that a remote takes is its choice's: sets of unlike choices are kept apart.
    const key = raster.choice[at]! * 2 ** MOST_REMOTES + mask;
    // Beside the one before it, and no lower.
    if (mask === 0 || (key === last && raster.axis[at]! > 0)) continue;
    last = key;
    const before = byMask.get(key);
    if (before === undefined || isLower(raster, at, before)) byMask.set(key, at);
  }
  const ofChoice = new Map<number, Cover[]>();
  for (const [key, at] of byMask) {
    const own = ofChoice.get(raster.choice[at]!) ?? [];
    ofChoice.set(raster.choice[at]!, own);
    own.push({ mask: key % 2 ** MOST_REMOTES, at });
  }
  return [...ofChoice.values()]
    .flatMap((own) => own.filter((a) => !own.some((b) => b.mask !== a.mask && (b.mask | a.mask) === b.mask)))
    .sort((a, b) => price(a.at) - price(b.at) || raster.axis[a.at]! - raster.axis[b.at]!);
};

const isLower = (r: Raster, a: number, b: number): boolean =>
  r.axis[a]! < r.axis[b]! || (r.axis[a]! === r.axis[b]! && Math.abs(r.tilt[a]!) < Math.abs(r.tilt[b]!));

/** Shares out remotes that several sectors take in, so that each sector's air is enough; null where it cannot be. */
const sharedOut = (
  covers: readonly Cover[],
  wanted: number,
  shareOf: (at: number, i: number) => number,
  mayUse: number,
): number[] | null => {
  const used = covers.map(() => 0);
  const of: number[] = [];
  const open: number[] = [];
  for (let i = 0; i < MOST_REMOTES; i++) if ((wanted & (1 << i)) !== 0) open.push(i);
  const place = (k: number): boolean => {
    if (k === open.length) return true;
    const i = open[k]!;
    for (let s = 0; s < covers.length; s++) {
      if ((covers[s]!.mask & (1 << i)) === 0) continue;
      const share = shareOf(covers[s]!.at, i);
      if (used[s]! + share > mayUse + 1e-9) continue;
      used[s] = used[s]! + share;
      of[i] = s;
      if (place(k + 1)) return true;
      used[s] = used[s]! - share;
    }
    return false;
  };
  return place(0) ? of : null;
};

const bitsIn = (mask: number): number => {
  let n = 0;
  for (let m = mask; m !== 0; m &= m - 1) n += 1;
  return n;
};

/** The first set of at most so many covers, in their order, that takes in all that is wanted and whose air is enough. */
const coveredBy = (
  covers: readonly Cover[],
  wanted: number,
  most: number,
  isEnough: (chosen: readonly Cover[]) => boolean,
): readonly Cover[] | null => {
  const chosen: Cover[] = [];
  const largest = Math.max(0, ...covers.map((c) => bitsIn(c.mask)));
  const go = (left: number, from: number): boolean => {
    if (left === 0 && isEnough(chosen)) return true;
    if (chosen.length === most || bitsIn(left) > (most - chosen.length) * largest) return false;
    if (left !== 0) {
      const next = left & -left;
      for (const c of covers) {
        if ((c.mask & next) === 0) continue;
        chosen.push(c);
        if (go(left & ~c.mask, 0)) return true;
        chosen.pop();
      }
      return false;
    }
    // All are taken in, but the air of one is not enough: a further sector may take some of them over.
    for (let k = from; k < covers.length; k++) {
      chosen.push(covers[k]!);
      if (go(0, k)) return true;
      chosen.pop();
    }
    return false;
  };
  return go(wanted, 0) ? [...chosen] : null;
};

const indices = (mask: number): number[] => Array.from({ length: MOST_REMOTES }, (_, i) => i).filter((i) => (mask & (1 << i)) !== 0);

/** Every way of leaving so many of a set out. */
function* without(all: readonly number[], count: number, from = 0): Generator<number[]> {
  if (count === 0) {
    yield [];
    return;
  }
  for (let i = from; i <= all.length - count; i++) for (const rest of without(all, count - 1, i + 1)) yield [all[i]!, ...rest];
}

/**
 * The fewest sectors that take in all remotes with their need kept, the air of each enough; of those the set whose worst margin
 * is greatest. Remotes that no such set takes in are left over, as few as can be.
 * @throws RangeError for more than 24 remotes.
 */
export const findSectors = (remotes: readonly RemotePlace[], choices: readonly SectorChoice[], limits: SearchLimits): FoundSectors => {
  const n = remotes.length;
  if (n > MOST_REMOTES) throw new RangeError(`${n} remotes are more than ${MOST_REMOTES}`);
  const raster = rasterOf(remotes, choices, limits);
  const shareOf = (at: number, i: number): number => choices[raster.choice[at]!]!.airShare[i]!;
  const everyMask = n === 0 ? 0 : 2 ** n - 1;
  const at0 = coversAt(raster, n, 0, choices, everyMask);
  const reachable = at0.reduce(
    (mask, c) => mask | indices(c.mask).reduce((m, i) => (shareOf(c.at, i) <= limits.mayUse ? m | (1 << i) : m), 0),
    0,
  );
  const solve = (covers: readonly Cover[], wanted: number, most: number): readonly Cover[] | null =>
    coveredBy(covers, wanted, most, (chosen) => sharedOut(chosen, wanted, shareOf, limits.mayUse) !== null);
  const most = Math.min(limits.mostSectors, Math.max(1, n));
  let wanted = reachable;
  search: for (let drop = 0; drop <= n; drop++) {
    for (const out of without(indices(reachable), drop)) {
      wanted = out.reduce((m, i) => m & ~(1 << i), reachable);
      if (wanted === 0 || solve(at0, wanted, most) !== null) break search;
    }
  }
  const leftOver = indices(everyMask & ~wanted);
  if (wanted === 0) return { sectors: [], worstDb: Number.NEGATIVE_INFINITY, leftOver };
  let count = 1;
  while (solve(at0, wanted, count) === null) count += 1;

  // The greatest worst margin lies between what a set that was found has and what none was found for: halved until it is known.
  const atLeast = (db: number): readonly Cover[] | null => solve(coversAt(raster, n, db, choices, wanted), wanted, count);
  const worstOf = (set: readonly Cover[]): number => {
    const of = sharedOut(set, wanted, shareOf, limits.mayUse)!;
    return Math.min(...indices(wanted).map((i) => raster.margins[set[of[i]!]!.at * n + i]!));
  };
  let chosen = atLeast(0)!;
  let low = worstOf(chosen);
  let high = raster.margins.subarray(0, raster.count * n).reduce((most, m) => Math.max(most, m), 0) + KNOWN_WITHIN_DB;
  while (high - low > KNOWN_WITHIN_DB) {
    const mid = (low + high) / 2;
    const better = atLeast(mid);
    if (better === null) high = mid;
    else {
      chosen = better;
      low = Math.max(mid, worstOf(better));
    }
  }
  // The same with the least that it may have: of sets as good the cheaper, then the lower axis.
  chosen = atLeast(low - SAME_DB) ?? chosen;
  const of = sharedOut(chosen, wanted, shareOf, limits.mayUse)!;
  const sectors = chosen.map(
    ({ at }, s): FoundSector => ({
      choice: raster.choice[at]!,
      azimuthDeg: raster.axis[at]! * AXIS_STEP_DEG,
      tiltDeg: raster.tilt[at]!,
      remotes: indices(wanted).filter((i) => of[i] === s),
    }),
  );
  // Told at the true angles, not at those of the raster.
  const worstDb = Math.min(
    ...sectors.flatMap((s) =>
      s.remotes.map((i) => {
        const c = choices[s.choice]!;
        return c.marginDb[i]! + c.relativeDb(offBy(s.azimuthDeg, remotes[i]!.bearingDeg), remotes[i]!.elevationDeg - s.tiltDeg);
      }),
    ),
  );
  return { sectors: sectors.sort((a, b) => a.azimuthDeg - b.azimuthDeg), worstDb, leftOver };
};
