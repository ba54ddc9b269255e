/*
 * The narrowest place: the one with the least multiple by which all flows can be multiplied. Free: what one direction can add with
 * all else as it is. How many more of a device fit, and the year in which growth fills a place (ours, on the linear shares).
 */
import type { Verdict } from "../link";
import { DEVICE_CLASSES, type Load, type Moment, type Pair } from "./load";
import { BACK, type Hop, type Lane, type PlaceKind, THERE } from "./places";

/** Share of a place that is taken: of both lanes together where they are one, else of one of them. */
export const takenOf = (load: Load, moment: Moment, place: number, lane: Lane, years = 0): number => {
  const shared = load.places[place]!.shared;
  let sum = 0;
  for (const c of DEVICE_CLASSES) {
    const of = load.taken[moment][c];
    const now = shared ? of[place * 2]! + of[place * 2 + 1]! : of[place * 2 + lane]!;
    if (now > 0) sum += now * (1 + load.input.growth[c]) ** years;
  }
  return sum;
};

/** The fuller lane's share. */
export const fillOf = (load: Load, moment: Moment, place: number, years = 0): number =>
  Math.max(takenOf(load, moment, place, THERE, years), load.places[place]!.shared ? 0 : takenOf(load, moment, place, BACK, years));

/** All that passes a place can be multiplied by this; infinite where nothing passes or nobody said what it passes. */
export const multipleOfPlace = (load: Load, moment: Moment, place: number, years = 0): number => {
  const fill = fillOf(load, moment, place, years);
  return fill === 0 ? Number.POSITIVE_INFINITY : load.places[place]!.mayUse / fill;
};

/** Mbps through a place each way. */
export const askedOfPlace = (load: Load, moment: Moment, place: number): Pair => ({
  there: load.passing[moment][place * 2]!,
  back: load.passing[moment][place * 2 + 1]!,
});

/** What fits through a place in the mix that is asked, both ways together where they share it, Mbps. */
export const fitsOfPlace = (load: Load, moment: Moment, place: number): Pair => {
  const p = load.places[place]!;
  const asked = askedOfPlace(load, moment, place);
  const alone = p.aloneMbps;
  if (!p.shared) return { there: alone[THERE] * p.mayUse, back: alone[BACK] * p.mayUse };
  const multiple = multipleOfPlace(load, moment, place);
  if (Number.isFinite(multiple)) return { there: asked.there * multiple, back: asked.back * multiple };
  // Nothing passes yet: as much there as back.
  const each = p.mayUse / (1 / alone[THERE] + 1 / alone[BACK]);
  return { there: each, back: each };
};

/** What may still be added along a way, Mbps, and which place is full then. */
export const freeAlong = (load: Load, moment: Moment, hops: readonly Hop[]): { readonly mbps: number; readonly place: number | null } => {
  let mbps = Number.POSITIVE_INFINITY;
  let place: number | null = null;
  for (const h of hops) {
    const left = load.places[h.place]!.mayUse - takenOf(load, moment, h.place, h.lane);
    const more = Math.max(0, left) / h.perMbps;
    if (more < mbps) {
      mbps = more;
      place = h.place;
    }
  }
  return { mbps, place };
};

/** How many more of a device fit at a site, and which place is full before one more would. */
export const moreDevices = (
  load: Load,
  moment: Moment,
  ways: readonly [readonly Hop[], readonly Hop[]],
  each: Pair,
): { readonly count: number; readonly place: number | null } => {
  const per = new Map<number, number>();
  const key = (h: Hop): number => h.place * 2 + (load.places[h.place]!.shared ? THERE : h.lane);
  for (const [way, mbps] of [
    [ways[THERE], each.there],
    [ways[BACK], each.back],
  ] as const)
    if (mbps > 0) for (const h of way) per.set(key(h), (per.get(key(h)) ?? 0) + mbps * h.perMbps);
  let count = Number.POSITIVE_INFINITY;
  let place: number | null = null;
  for (const [k, share] of per) {
    const at = k >> 1;
    const left = load.places[at]!.mayUse - takenOf(load, moment, at, (k & 1) as Lane);
    const n = Math.max(0, Math.floor(left / share + 1e-9));
    if (n < count) {
      count = n;
      place = at;
    }
  }
  return { count, place };
};

const MOST_YEARS = 100;

/** Years until growth fills a place, 0 when it is full now; null when it does not within a hundred. */
export const yearsUntilFull = (load: Load, moment: Moment, place: number): number | null => {
  const { mayUse } = load.places[place]!;
  const over = (years: number): boolean => fillOf(load, moment, place, years) > mayUse + 1e-9;
  if (over(0)) return 0;
  if (!over(MOST_YEARS)) return null;
  let [low, high] = [0, MOST_YEARS];
  while (high - low > 1e-3) {
    const mid = (low + high) / 2;
    if (over(mid)) high = mid;
    else low = mid;
  }
  return high;
};

export interface JudgedPlace {
  readonly place: number;
  readonly multiple: number;
  readonly asked: Pair;
  readonly fits: Pair;
  readonly yearsLeft: number | null;
  readonly verdict: Verdict;
}

/** Short when it is over, tight when growth fills it within the job's years; of what nobody said nothing is known. */
export const judgePlace = (load: Load, moment: Moment, place: number, horizonYears: number): JudgedPlace => {
  const multiple = multipleOfPlace(load, moment, place);
  const yearsLeft = yearsUntilFull(load, moment, place);
  const asked = askedOfPlace(load, moment, place);
  const unknown = load.places[place]!.unsaid && asked.there + asked.back > 0;
  const verdict: Verdict =
    multiple < 1 - 1e-9 ? "short" : unknown ? "unknown" : yearsLeft !== null && yearsLeft <= horizonYears ? "tight" : "clear";
  return { place, multiple, asked, fits: fitsOfPlace(load, moment, place), yearsLeft, verdict };
};

/** Places that a site's devices pass, each once, from the feed outwards. */
export const placesAlong = (load: Load, siteId: string): number[] => {
  const seen = new Set<number>();
  for (const h of load.hopsTo(siteId, { kind: "feed" })?.[THERE] ?? []) seen.add(h.place);
  for (const f of load.flows) if (f.device.siteId === siteId) for (const way of f.ways) for (const h of way.hops) seen.add(h.place);
  return [...seen];
};

/** The place of a list with the least multiple; null for none. A wire as full as the air comes after it. */
export const narrowestOf = (load: Load, moment: Moment, places: readonly number[]): number | null => {
  const order: Readonly<Record<PlaceKind, number>> = { air: 0, feed: 1, port: 2, recorder: 3, device: 4 };
  let best: number | null = null;
  for (const p of places) {
    if (best === null) {
      best = p;
      continue;
    }
    const [a, b] = [multipleOfPlace(load, moment, p), multipleOfPlace(load, moment, best)];
    if (a < b - 1e-12 || (Math.abs(a - b) <= 1e-12 && order[load.places[p]!.kind] < order[load.places[best]!.kind])) best = p;
  }
  return best;
};
