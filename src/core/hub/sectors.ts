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

/** More remotes are not searched for at once. */
export const MOST_REMOTES = 24;
const SAME_DB = 1e-6;
/** Sets of so many remotes fit a list of all sets there are. */
const MOST_LISTED = 16;
const KNOWN_WITHIN_DB = 0.001;
/** What asks for nothing has margin without end: more than this counts as this. */
const MOST_MARGIN_DB = 300;

/** What the search reads of every choice: levels by steps off the axis all round, and by steps off in height. */
interface Raster {
  readonly bearing: readonly number[];
  readonly height: readonly number[];
  readonly tables: readonly Float64Array[];
  /** By choice and row of its table: the first and the last step off the axis at which the pattern promises anything; none where it never does. */
  readonly spans: readonly Int16Array[];
  readonly fromStep: number;
  readonly low: number;
  readonly high: number;
}

/** Where a choice could look. */
interface Spot {
  readonly choice: number;
  readonly axis: number;
  readonly tiltStep: number;
}

const tableOf = (relativeDb: SectorChoice["relativeDb"], fromStep: number, toStep: number): Float64Array => {
  const table = new Float64Array((toStep - fromStep + 1) * AXES);
  for (let e = fromStep; e <= toStep; e++)
    for (let a = 0; a < AXES; a++) table[(e - fromStep) * AXES + a] = relativeDb(offBy(0, a * AXIS_STEP_DEG), e * TILT_STEP_DEG);
  return table;
};

const HALF = AXES / 2;
const spansOf = (table: Float64Array, promisedDb: number): Int16Array => {
  const rows = table.length / AXES;
  const spans = new Int16Array(rows * 2);
  for (let row = 0; row < rows; row++) {
    let [first, last] = [HALF, -HALF - 1];
    for (let off = -HALF; off < HALF; off++)
      if (table[row * AXES + ((off + AXES) % AXES)]! >= promisedDb) {
        if (first === HALF) first = off;
        last = off;
      }
    spans[row * 2] = first;
    spans[row * 2 + 1] = last;
  }
  return spans;
};

const rasterOf = (remotes: readonly RemotePlace[], choices: readonly SectorChoice[], limits: SearchLimits): Raster => {
  const [low, high] = [Math.ceil(limits.tiltFromDeg / TILT_STEP_DEG - 1e-9), Math.floor(limits.tiltToDeg / TILT_STEP_DEG + 1e-9)];
  const bearing = remotes.map((r) => ((Math.round(r.bearingDeg / AXIS_STEP_DEG) % AXES) + AXES) % AXES);
  const height = remotes.map((r) => Math.round(r.elevationDeg / TILT_STEP_DEG));
  const [fromStep, toStep] = remotes.length === 0 ? [0, 0] : [Math.min(...height) - high, Math.max(...height) - low];
  const tables = choices.map((c) => tableOf(c.relativeDb, fromStep, toStep));
  return { bearing, height, tables, spans: choices.map((c, j) => spansOf(tables[j]!, c.promisedDb)), fromStep, low, high };
};

const levelAt = (r: Raster, { choice, axis, tiltStep }: Spot, i: number): number =>
  r.tables[choice]![(r.height[i]! - tiltStep - r.fromStep) * AXES + ((r.bearing[i]! - axis + AXES) % AXES)]!;

interface Cover {
  readonly mask: number;
  readonly at: Spot;
}

const bitsIn = (mask: number): number => {
  let n = 0;
  for (let m = mask; m !== 0; m &= m - 1) n += 1;
  return n;
};

/** Which remotes a choice takes in at a tilt, by axis: written into masks. */
const masksOf = (r: Raster, choice: number, tiltStep: number, least: Float64Array, wanted: number, masks: Uint32Array): void => {
  masks.fill(0);
  const table = r.tables[choice]!;
  for (let i = 0; i < least.length; i++) {
    const bit = 1 << i;
    const from = least[i]!;
    if ((wanted & bit) === 0 || from === Number.POSITIVE_INFINITY) continue;
    const row = r.height[i]! - tiltStep - r.fromStep;
    const spans = r.spans[choice]!;
    const last = spans[row * 2 + 1]!;
    const at = row * AXES;
    const own = r.bearing[i]! + 2 * AXES;
    // Off the axis by 0 with the axis on the bearing, one less with each step of the axis.
    for (let off = spans[row * 2]!; off <= last; off++)
      if (table[at + (off < 0 ? off + AXES : off)]! >= from) {
        const axis = (own - off) % AXES;
        masks[axis] = masks[axis]! | bit;
      }
  }
};

/** Sets that were seen, each with its lowest place: by the set itself where that is a short list, else by name. */
const seenSets = (n: number) => {
  const slots = n <= MOST_LISTED ? new Int32Array(2 ** n) : null;
  const named = new Map<number, number>();
  return {
    slotOf: (mask: number): number => (slots === null ? (named.get(mask) ?? 0) : slots[mask]!) - 1,
    note: (mask: number, slot: number): void => {
      if (slots === null) named.set(mask, slot + 1);
      else slots[mask] = slot + 1;
    },
    clear: (masks: readonly number[]): void => {
      if (slots === null) named.clear();
      else for (const mask of masks) slots[mask] = 0;
    },
  };
};

/** What each place takes in at a margin, each set once by its cheapest and lowest place, and none that lies within another of one choice. */
const coversAt = (r: Raster, leastDb: number, choices: readonly SectorChoice[], wanted: number): Cover[] => {
  const n = r.bearing.length;
  const least = new Float64Array(n);
  const masks = new Uint32Array(AXES);
  const seen = seenSets(n);
  const all: Cover[] = [];
  for (let choice = 0; choice < choices.length; choice++) {
    const { marginDb, promisedDb } = choices[choice]!;
    for (let i = 0; i < n; i++)
      least[i] = marginDb[i]! < 0 ? Number.POSITIVE_INFINITY : Math.max(promisedDb, leastDb - Math.min(MOST_MARGIN_DB, marginDb[i]!));
    const sets: number[] = [];
    const axes: number[] = [];
    const tilts: number[] = [];
    for (let tiltStep = r.low; tiltStep <= r.high; tiltStep++) {
      masksOf(r, choice, tiltStep, least, wanted, masks);
      let last = 0;
      for (let axis = 0; axis < AXES; axis++) {
        const mask = masks[axis]!;
        // Beside the one before it, and no lower.
        if (mask === 0 || mask === last) continue;
        last = mask;
        const slot = seen.slotOf(mask);
        if (slot < 0) {
          seen.note(mask, sets.length);
          sets.push(mask);
          axes.push(axis);
          tilts.push(tiltStep);
        } else if (axis < axes[slot]! || (axis === axes[slot]! && Math.abs(tiltStep) < Math.abs(tilts[slot]!))) {
          axes[slot] = axis;
          tilts[slot] = tiltStep;
        }
      }
    }
    seen.clear(sets);
    // The larger first: a set within another is found by looking at those that were kept. The air that a remote takes is its
    // choice's: sets of unlike choices are kept apart.
    const sizes = sets.map(bitsIn);
    const order = sets.map((_, k) => k).sort((x, y) => sizes[y]! - sizes[x]!);
    const kept: number[] = [];
    for (const k of order) {
      const mask = sets[k]!;
      let isWithin = false;
      for (let q = 0; q < kept.length && !isWithin; q++) isWithin = (kept[q]! | mask) === kept[q]!;
      if (isWithin) continue;
      kept.push(mask);
      all.push({ mask, at: { choice, axis: axes[k]!, tiltStep: tilts[k]! } });
    }
  }
  const price = ({ at }: Cover): number => choices[at.choice]!.priceEur ?? Number.POSITIVE_INFINITY;
  return all.sort((a, b) => price(a) - price(b) || a.at.axis - b.at.axis);
};

/** Shares out remotes that several sectors take in, so that each sector's air is enough; null where it cannot be. */
const sharedOut = (covers: readonly Cover[], wanted: number, shareOf: (at: Spot, i: number) => number, mayUse: number): number[] | null => {
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
  const shareOf = (at: Spot, i: number): number => choices[at.choice]!.airShare[i]!;
  const everyMask = n === 0 ? 0 : 2 ** n - 1;
  const at0 = coversAt(raster, 0, choices, everyMask);
  const reachable = at0.reduce(
    (mask, c) => mask | indices(c.mask).reduce((m, i) => (shareOf(c.at, i) <= limits.mayUse ? m | (1 << i) : m), 0),
    0,
  );
  const solve = (covers: readonly Cover[], wanted: number, most: number): readonly Cover[] | null =>
    coveredBy(covers, wanted, most, (chosen) => sharedOut(chosen, wanted, shareOf, limits.mayUse) !== null);
  const most = Math.min(limits.mostSectors, Math.max(1, n));
  // What cannot be for its number or for its air alone is not tried: sectors hold no more than their largest set, and no more air.
  const leastShare = remotes.map((_, i) => Math.min(...choices.map((c) => c.airShare[i]!)));
  const holds = (mask: number): boolean => indices(mask).reduce((sum, i) => sum + leastShare[i]!, 0) <= most * limits.mayUse + 1e-9;
  let inOneAir = 0;
  let airOfOne = 0;
  for (const share of indices(reachable)
    .map((i) => leastShare[i]!)
    .sort((a, b) => a - b)) {
    airOfOne += share;
    if (airOfOne > limits.mayUse + 1e-9) break;
    inOneAir += 1;
  }
  const mostKept = most * Math.min(inOneAir, Math.max(0, ...at0.map((c) => bitsIn(c.mask))));
  let wanted = reachable;
  search: for (let drop = Math.max(0, bitsIn(reachable) - mostKept); drop <= n; drop++) {
    for (const out of without(indices(reachable), drop)) {
      wanted = out.reduce((m, i) => m & ~(1 << i), reachable);
      if (!holds(wanted)) continue;
      if (wanted === 0 || solve(at0, wanted, most) !== null) break search;
    }
  }
  const leftOver = indices(everyMask & ~wanted);
  if (wanted === 0) return { sectors: [], worstDb: Number.NEGATIVE_INFINITY, leftOver };
  let count = 1;
  while (solve(at0, wanted, count) === null) count += 1;

  // The greatest worst margin lies between what a set that was found has and what none was found for: halved until it is known.
  const atLeast = (db: number): readonly Cover[] | null => solve(coversAt(raster, db, choices, wanted), wanted, count);
  const marginOn = (at: Spot, i: number): number => Math.min(MOST_MARGIN_DB, choices[at.choice]!.marginDb[i]!) + levelAt(raster, at, i);
  const worstOf = (set: readonly Cover[]): number => {
    const of = sharedOut(set, wanted, shareOf, limits.mayUse)!;
    return Math.min(...indices(wanted).map((i) => marginOn(set[of[i]!]!.at, i)));
  };
  let chosen = atLeast(0)!;
  let low = worstOf(chosen);
  let high = Math.max(0, ...choices.flatMap((c) => c.marginDb.map((m) => Math.min(MOST_MARGIN_DB, m)))) + KNOWN_WITHIN_DB;
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
      choice: at.choice,
      azimuthDeg: at.axis * AXIS_STEP_DEG,
      tiltDeg: at.tiltStep * TILT_STEP_DEG,
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
