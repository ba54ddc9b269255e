/*
 * What one sender takes of one way: what of it falls into the receiver's channel, who of the two transmitters waits, and for what
 * part of the time. Within 3 dB of a threshold both outcomes are weighed and the worse is planned.
 */

import type { Heard, UnitOn } from "./job";
import type { WayRates } from "./link-rates";
import { type Hears, hears, hitShareOf, type Relation, relationOf, type Talker, thresholdOf, waitShareOf } from "./listening";
import { type Channel, commonMhz, overlapDb } from "./mask";
import { type AirField, type AirRadio, sameBand } from "./radios";

/** What falls into one receiver. */
export interface Contribution {
  /** Place of the sender in the field; null: heard in a scan. */
  readonly from: number | null;
  readonly heard: Heard | null;
  readonly unitId: string | null;
  /** At the receiver's port over the sender's whole channel, and what of it is in the receiver's channel, dBm. */
  readonly carrierDbm: number;
  readonly inChannelDbm: number;
  readonly overlapDb: number;
  readonly riseDb: number;
  readonly activity: number;
  readonly relation: Relation;
  /** Level of each at the other transmitter, and what it waits from; null where it does not listen. */
  readonly wantedHearsDbm: number | null;
  readonly otherHearsDbm: number | null;
  readonly unsure: boolean;
  readonly hitShare: number;
  readonly waitShare: number;
  /** The carrier alone is more than the receiver bears, on whatever channel. */
  readonly blinds: boolean;
  readonly inStep: boolean;
}

/** Under this against the noise nothing is told of. */
const HEARD_OF_DB = -20;
/** A stranger's access point sends with about so much, antenna and all (ours); what the job's radios are heard at there follows. */
const STRANGER_DBM = 20;
/** A carrier above the hottest level that works, less this, blinds a receiver on whatever channel. */
const BELOW_HOTTEST_DB = 6;

/** A burst that lifts the noise by so much is taken to lose what it falls on, where one of two outcomes has to be chosen (ours). */
const LOST_AT_DB = 10;

export interface Sender {
  readonly at: number;
  readonly channel: Channel;
  readonly powerDbm: number;
  readonly activity: number;
  readonly unitId: string;
}

/** A way of a link: places of its ends in the field, its unit on its channel, its rates. */
export interface Hit {
  readonly field: AirField;
  readonly transmitter: number;
  readonly receiver: number;
  readonly own: UnitOn;
  readonly way: WayRates;
  readonly grant: boolean;
}

const talker = (r: AirRadio, channel: Channel): Talker => ({ standard: r.standard, access: r.access, channel });
const outcomes = (h: Hears): readonly boolean[] => (h === "unsure" ? [true, false] : [h === "yes"]);

interface Weighed {
  readonly carrierDbm: number;
  readonly overlapDb: number;
  readonly activity: number;
  readonly wantedHears: Hears;
  readonly otherHears: Hears;
  readonly inStep: boolean;
}

type Effect = Omit<Contribution, "from" | "heard" | "unitId" | "wantedHearsDbm" | "otherHearsDbm">;

/** Null: 20 dB under the noise, and nobody waits for it. */
const weigh = ({ field, receiver, way }: Hit, w: Weighed): Effect | null => {
  const inChannelDbm = w.carrierDbm + w.overlapDb;
  const blinds = w.carrierDbm > field.radios[receiver]!.maxInputDbm - BELOW_HOTTEST_DB;
  if (inChannelDbm - way.floorDbm < HEARD_OF_DB && !blinds && w.wantedHears === "no") return null;
  const riseDb = 10 * Math.log10(1 + 10 ** ((inChannelDbm - way.floorDbm) / 10));
  const lost = blinds ? 1 : Math.min(1, riseDb / LOST_AT_DB);
  let worst: { readonly relation: Relation; readonly hit: number; readonly wait: number; readonly cost: number } | null = null;
  for (const wanted of outcomes(w.wantedHears))
    for (const other of outcomes(w.otherHears)) {
      const relation = relationOf(wanted, other);
      const hit = w.inStep ? 0 : hitShareOf(relation, w.activity);
      const wait = w.inStep ? 0 : waitShareOf(relation, w.activity);
      // Turns leave no less than half; a burst can take all of what it falls on.
      const cost = 1 - (1 - Math.min(wait, 0.5)) * (1 - hit * lost);
      if (worst === null || cost > worst.cost) worst = { relation, hit, wait, cost };
    }
  return {
    carrierDbm: w.carrierDbm,
    inChannelDbm,
    overlapDb: w.overlapDb,
    riseDb,
    activity: w.activity,
    relation: worst!.relation,
    unsure: w.wantedHears === "unsure" || w.otherHears === "unsure",
    hitShare: worst!.hit,
    waitShare: worst!.wait,
    blinds,
    inStep: w.inStep,
  };
};

/**
 * What a radio whose place is known takes of a way; null: nothing worth telling.
 * @param doubtDb by how much an estimated isolation is taken to be worse.
 */
export const effectOf = (hit: Hit, s: Sender, doubtDb: number): Contribution | null => {
  const { field, transmitter, receiver, own } = hit;
  if (!sameBand(own.channel.centreMhz, s.channel.centreMhz)) return null;
  const R = field.radios[receiver]!;
  const I = field.radios[s.at]!;
  // Within a band the way between two is as it is on the sender's planned channel: at 5 GHz within 1 dB.
  const carrierDbm = s.powerDbm + Math.min(0, field.couplingDb(s.at, receiver, doubtDb));
  const cutDb = overlapDb(I.standard, s.channel, own.channel);
  const faint = carrierDbm + cutDb - hit.way.floorDbm < HEARD_OF_DB && carrierDbm <= R.maxInputDbm - BELOW_HOTTEST_DB;
  // Nobody waits for a channel that has nothing in common with its own.
  if (faint && commonMhz(s.channel, own.channel) <= 0) return null;
  const T = field.radios[transmitter]!;
  const toHim = (from: number, fallbackDbm: number): number =>
    (own.sends.get(from)?.powerDbm ?? fallbackDbm) + Math.min(0, field.couplingDb(from, s.at, doubtDb));
  const [mine, his] = [talker(T, own.channel), talker(I, s.channel)];
  const wantedLimit = thresholdOf(mine, his);
  const otherLimit = thresholdOf(his, mine);
  const wantedHearsDbm = wantedLimit === null ? null : s.powerDbm + Math.min(0, field.couplingDb(s.at, transmitter, doubtDb));
  const otherHearsDbm = otherLimit === null ? null : toHim(transmitter, T.powerDbm);
  let otherHears: Hears = otherHearsDbm === null ? "no" : hears(otherHearsDbm, otherLimit);
  // A grant is sent by the receiver: whoever hears it is silent, wherever the transmitter stands.
  if (hit.grant && otherLimit !== null && otherHears !== "yes") {
    const granted = hears(toHim(receiver, R.powerDbm), otherLimit);
    if (granted !== "no") otherHears = granted;
  }
  const effect = weigh(hit, {
    carrierDbm,
    overlapDb: cutDb,
    activity: s.activity,
    wantedHears: wantedHearsDbm === null ? "no" : hears(wantedHearsDbm, wantedLimit),
    otherHears,
    inStep: I.beat !== null && I.beat === R.beat && field.onOneMast(s.at, receiver),
  });
  return effect === null ? null : { ...effect, from: s.at, heard: null, unitId: s.unitId, wantedHearsDbm, otherHearsDbm };
};

/**
 * The same of what a scan heard. The ends count apart: at the receiver it harms, at the transmitter it is waited for.
 * @param here null where only the transmitter hears it.
 */
export const effectOfHeard = (hit: Hit, here: Heard | null, there: Heard | null): Contribution | null => {
  const heard = here ?? there;
  if (heard === null || !sameBand(hit.own.channel.centreMhz, heard.channel.centreMhz)) return null;
  const T = hit.field.radios[hit.transmitter]!;
  const mine = talker(T, hit.own.channel);
  const his: Talker = { standard: "wifi", access: "contention", channel: heard.channel };
  const wantedLimit = thresholdOf(mine, his);
  const wantedHearsDbm = wantedLimit === null || there === null ? null : there.levelDbm;
  // The same way back, by what each sends with; who is not heard is taken not to hear.
  const otherHearsDbm =
    there === null ? null : there.levelDbm + (hit.own.sends.get(hit.transmitter)?.powerDbm ?? T.powerDbm) - STRANGER_DBM;
  const effect = weigh(hit, {
    carrierDbm: here?.levelDbm ?? Number.NEGATIVE_INFINITY,
    overlapDb: overlapDb("wifi", heard.channel, hit.own.channel),
    activity: heard.activity,
    wantedHears: wantedHearsDbm === null ? "no" : hears(wantedHearsDbm, wantedLimit),
    otherHears: otherHearsDbm === null ? "no" : hears(otherHearsDbm, thresholdOf(his, mine)),
    inStep: false,
  });
  return effect === null ? null : { ...effect, from: null, heard, unitId: null, wantedHearsDbm, otherHearsDbm };
};

/** What one sender after another takes of a way, the loudest first. */
export const effectsOn = (
  hit: Hit,
  senders: readonly Sender[],
  heard: ReadonlyMap<string, readonly Heard[]>,
  doubtDb: number,
): Contribution[] => {
  const out: Contribution[] = [];
  const add = (c: Contribution | null): void => {
    if (c !== null) out.push(c);
  };
  for (const s of senders) if (!hit.own.radios.has(s.at)) add(effectOf(hit, s, doubtDb));
  const at = (place: number): readonly Heard[] => heard.get(hit.field.radios[place]!.id) ?? [];
  const [here, there] = [at(hit.receiver), at(hit.transmitter)];
  for (const h of here) add(effectOfHeard(hit, h, there.find((o) => o.id === h.id) ?? null));
  for (const h of there) if (!here.some((o) => o.id === h.id)) add(effectOfHeard(hit, null, h));
  return out.sort((a, b) => Number(b.blinds) - Number(a.blinds) || b.inChannelDbm - a.inChannelDbm);
};
