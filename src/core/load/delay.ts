/*
 * How long a packet takes over the links of a way, as a range: at least its own time on the air, and what 95 in 100 stay below. A
 * model of ours: bursts come at random, wait for those before them (Pollaczek and Khinchine's mean, the tail taken as
 * exponential), and in scheduled and fixed frames for the next frame, too. Wires, routers and what lies outside are not in it.
 */
import { type Access, FRAME_US } from "../radio";
import { needInRange } from "../units";

/** One link's air as a burst of payload finds it. */
export interface DelayHop {
  readonly access: Access;
  /** Share of the air that is taken, both ways and all remotes together. */
  readonly load: number;
  /** One burst on the air with all that it waits for, us. */
  readonly burstUs: number;
}

export interface HopDelay {
  /** On the air, waiting for a frame, waiting for others: means, ms. */
  readonly airMs: number;
  readonly frameMs: number;
  readonly queueMs: number;
  /** 95 in 100 stay below, ms; infinite where the air is over. */
  readonly mostMs: number;
}

export interface Delay {
  readonly leastMs: number;
  readonly mostMs: number;
  /** Between the two. */
  readonly jitterMs: number;
  readonly hops: readonly HopDelay[];
}

const TAIL = 0.95;
/** Waiting grows without end towards a full air; from here on it is said to be over. */
const FULL = 0.995;

const isFramed = (access: Access): boolean => access === "scheduled" || access === "fixed-frame";

/** Chance that waiting for a frame (alike over its length) and for others (none with 1 - load, else exponential) takes longer. */
const longerThan = (ms: number, frameMs: number, load: number, meanWaitMs: number): number => {
  if (load === 0) return frameMs === 0 ? (ms > 0 ? 0 : 1) : Math.max(0, 1 - ms / frameMs);
  const rate = load / meanWaitMs;
  if (frameMs === 0) return load * Math.exp(-rate * ms);
  const covered = Math.min(ms, frameMs);
  const beyond = (frameMs - covered) / frameMs;
  return beyond + ((load / rate) * (Math.exp(-rate * (ms - covered)) - Math.exp(-rate * ms))) / frameMs;
};

/** @throws RangeError for a load below 0, or a burst that is not above 0. */
export const hopDelay = ({ access, load, burstUs }: DelayHop): HopDelay => {
  needInRange("load", load, 0, Number.MAX_VALUE);
  needInRange("burst, us", burstUs, 1e-3, Number.MAX_VALUE);
  const frameMs = isFramed(access) ? FRAME_US / 1000 : 0;
  const airMs = burstUs / 1000;
  if (load >= FULL) return { airMs, frameMs: frameMs / 2, queueMs: Number.POSITIVE_INFINITY, mostMs: Number.POSITIVE_INFINITY };
  const queueMs = (load * airMs) / (2 * (1 - load));
  let [low, high] = [0, frameMs + 200 * (queueMs + airMs)];
  if (longerThan(0, frameMs, load, queueMs) <= 1 - TAIL) high = 0;
  while (high - low > 1e-4) {
    const mid = (low + high) / 2;
    if (longerThan(mid, frameMs, load, queueMs) > 1 - TAIL) low = mid;
    else high = mid;
  }
  return { airMs, frameMs: frameMs / 2, queueMs, mostMs: airMs + high };
};

/** Several links in a row: means add, and what lies above them adds as errors do, by squares. */
export const delayOf = (hops: readonly DelayHop[]): Delay => {
  const each = hops.map(hopDelay);
  const leastMs = each.reduce((n, h) => n + h.airMs, 0);
  const mean = each.reduce((n, h) => n + h.airMs + h.frameMs + h.queueMs, 0);
  const above = Math.sqrt(each.reduce((n, h) => n + (h.mostMs - h.airMs - h.frameMs - h.queueMs) ** 2, 0));
  const mostMs = each.some((h) => !Number.isFinite(h.mostMs)) ? Number.POSITIVE_INFINITY : mean + above;
  return { leastMs, mostMs, jitterMs: mostMs - leastMs, hops: each };
};
