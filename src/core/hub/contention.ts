/*
 * What several stations get of one channel when all of them have something to send all the time: listen before talk with a
 * back-off that doubles, IEEE 802.11-2020 clause 10.3 (distributed coordination). A fixed point after G. Bianchi, IEEE JSAC
 * 18-3 (2000), counted in idle slots, so that a station which has just sent may go first again at once (ours).
 */
import { needInRange, needPositive } from "../units";

const SIFS_US = 16;
const SLOT_US = 9;
const DIFS_US = SIFS_US + 2 * SLOT_US;
const LEAST_WINDOW = 16;
/** The window doubles this often, to 1024. */
const DOUBLINGS = 6;
/** Request and grant at 24 Mbps: 20 and 14 octets with their preambles, each followed by a short gap. */
const REQUEST_US = 28;
const GRANT_US = 28;
/** After a collision nobody answers: what a station waits before it counts again. */
const NO_ANSWER_US = SIFS_US + SLOT_US + 32;

/** One station's turn: a burst of data with its answer. */
export interface Turn {
  /** From the first preamble to the end of the answer, without waiting before it, us. */
  readonly burstUs: number;
  /** Payload carried in it, bits. */
  readonly payloadBits: number;
}

export interface SharedChannel {
  /** Of each station in order, Mbps. */
  readonly mbps: readonly number[];
  /** Chance that a burst meets another. */
  readonly collisionShare: number;
  /** Share of the time in which payload's bursts are on the air and are not lost. */
  readonly busyShare: number;
}

/** Lengths of what a collision and a success take beyond the burst itself, us. */
export const turnTimesUs = (burstUs: number, grant: boolean): { readonly success: number; readonly collision: number } => ({
  success: DIFS_US + (grant ? REQUEST_US + SIFS_US + GRANT_US + SIFS_US : 0) + burstUs,
  collision: DIFS_US + (grant ? REQUEST_US : burstUs) + NO_ANSWER_US,
});

/** A slot grows by the round trip to the farthest station, or its start would be missed. */
export const slotUs = (farthestTripUs: number): number => SLOT_US + 2 * farthestTripUs;

export const windowAt = (stage: number): number => LEAST_WINDOW * 2 ** Math.min(stage, DOUBLINGS);

interface Attempts {
  /** Chance that a station begins after an idle slot. */
  readonly perSlot: number;
  /** Attempts that follow the station's own last burst with no slot between. */
  readonly atOncePerSlot: number;
  readonly collisionShare: number;
}

const STAGES = 60;
const ROUNDS = 400;

/** What a station does when its bursts meet others with a given chance. */
const attemptsAt = (collisionShare: number): { readonly all: number; readonly atOnceShare: number } => {
  let weight = 1;
  let weights = 0;
  let slots = 0;
  let atOnce = 0;
  for (let stage = 0; stage < STAGES; stage++) {
    const window = windowAt(stage);
    weights += weight;
    slots += (weight * (window - 1)) / 2;
    atOnce += weight / window;
    weight *= collisionShare;
  }
  return { all: weights / slots, atOnceShare: atOnce / weights };
};

const known: Attempts[] = [];

const attemptsOf = (stations: number): Attempts => {
  const found = known[stations];
  if (found !== undefined) return found;
  let collisionShare = 0;
  let perSlot = 0;
  let atOnceShare = 0;
  let all = 0;
  for (let i = 0; i < ROUNDS; i++) {
    ({ all, atOnceShare } = attemptsAt(collisionShare));
    perSlot = all * (1 - atOnceShare);
    const meets = (1 - atOnceShare) * (1 - (1 - perSlot) ** (stations - 1));
    // Half way each round: the whole step swings about the answer.
    collisionShare += (meets - collisionShare) / 2;
  }
  known[stations] = { perSlot, atOncePerSlot: all * atOnceShare, collisionShare };
  return known[stations];
};

/**
 * @param turns of every station, each of which always has something to send and hears all the others (or asks and is granted).
 * @throws RangeError for a burst that is not above 0, or more than 200 stations.
 */
export const sharedChannel = (turns: readonly Turn[], farthestTripUs: number, grant: boolean): SharedChannel => {
  if (turns.length === 0) return { mbps: [], collisionShare: 0, busyShare: 0 };
  needInRange("stations", turns.length, 1, 200);
  for (const t of turns) needPositive("burst, us", t.burstUs);
  const { perSlot, atOncePerSlot, collisionShare } = attemptsOf(turns.length);
  const quiet = 1 - perSlot;
  const n = turns.length;
  const alone = perSlot * quiet ** (n - 1) + atOncePerSlot;
  const times = turns.map((t) => turnTimesUs(t.burstUs, grant));
  // Of those that collide the longest holds the channel: told by order of length.
  const lengths = times.map((t) => t.collision).sort((a, b) => a - b);
  let collidedUs = 0;
  for (let k = 1; k <= n; k++) {
    const longest = perSlot * quiet ** (n - k) - perSlot * quiet ** (n - 1);
    collidedUs += longest * lengths[k - 1]!;
  }
  let successUs = 0;
  let busyUs = 0;
  for (let i = 0; i < n; i++) {
    successUs += alone * times[i]!.success;
    busyUs += alone * turns[i]!.burstUs;
  }
  const slot = slotUs(farthestTripUs) + successUs + collidedUs;
  return {
    mbps: turns.map((t) => (alone * t.payloadBits) / slot),
    collisionShare,
    busyShare: busyUs / slot,
  };
};
