/*
 * Who waits for whom. A radio that listens before it talks waits for a preamble of its own standards on a channel that is its own
 * (IEEE 802.11-2020 clauses 17.3.10.6 and 21.3.18.5: -82, -79, -76, -73 dBm at 20, 40, 80, 160 MHz; n, ac, ax, be alike), and for
 * energy of anything else (-62 dBm in 20 MHz). Scheduled and fixed frames do not listen. Carrier sense is judged between
 * transmitters, harm at the receiver.
 */
import type { Access } from "../radio";
import { type Channel, commonMhz } from "./mask";

const PREAMBLE_AT_20_DBM = -82;
const ENERGY_IN_20_DBM = -62;
/** So near to a threshold either may be: both are told, the worse is planned. */
export const UNSURE_DB = 3;
const OFDM = new Set(["n", "ac", "ax", "be", "wifi"]);

export interface Talker {
  readonly standard: string;
  readonly access: Access;
  readonly channel: Channel;
}

/** One channel lies wholly in the other: their first 20 MHz can be one (ours; nobody states where it is). */
const sharesPrimary = (a: Channel, b: Channel): boolean => commonMhz(a, b) >= Math.min(a.widthMhz, b.widthMhz) - 1e-9;

export interface Threshold {
  readonly dbm: number;
  readonly of: "preamble" | "energy";
}

/** Level at which a listener waits for a sender; null: it never does. */
export const thresholdOf = (listener: Talker, sender: Talker): Threshold | null => {
  if (listener.access !== "contention") return null;
  const common = commonMhz(listener.channel, sender.channel);
  if (common <= 0) return null;
  if (OFDM.has(listener.standard) && OFDM.has(sender.standard) && sharesPrimary(listener.channel, sender.channel))
    return { dbm: PREAMBLE_AT_20_DBM + 10 * Math.log10(Math.min(sender.channel.widthMhz, listener.channel.widthMhz) / 20), of: "preamble" };
  return { dbm: ENERGY_IN_20_DBM + 10 * Math.log10(Math.max(common, 20) / 20), of: "energy" };
};

export type Hears = "yes" | "no" | "unsure";

export const hears = (levelDbm: number, threshold: Threshold | null): Hears => {
  if (threshold === null || levelDbm < threshold.dbm - UNSURE_DB) return "no";
  return levelDbm > threshold.dbm + UNSURE_DB ? "yes" : "unsure";
};

export type Relation = "takes turns" | "waits for it" | "it waits" | "bursts fall";

export const relationOf = (wantedHearsOther: boolean, otherHearsWanted: boolean): Relation =>
  wantedHearsOther ? (otherHearsWanted ? "takes turns" : "waits for it") : otherHearsWanted ? "it waits" : "bursts fall";

const MIDST_SHARE = 0.75;

/**
 * Part of the wanted bursts' time on which the other's fall, by who waits, for bursts of like length (ours). With neither listening
 * it is the other's own share of time. One that waits starts no burst over another, but does not stop the one it is in the midst
 * of; one that is waited for starts whenever it likes.
 */
export const hitShareOf = (relation: Relation, activity: number): number => {
  const a = Math.min(1, Math.max(0, activity));
  switch (relation) {
    case "takes turns":
      return 0;
    case "bursts fall":
      return a;
    case "waits for it": {
      if (a >= 1) return 1;
      const x = a / (1 - a);
      return x < 1e-6 ? x / 2 : 1 + Math.expm1(-x) / x;
    }
    case "it waits":
      // It is in the midst of one when the wanted burst begins; counted in runs of events, three quarters of its share fall on it.
      return MIDST_SHARE * a;
  }
};

/** Part of all time that the wanted transmitter leaves to the other. */
export const waitShareOf = (relation: Relation, activity: number): number =>
  relation === "takes turns" || relation === "waits for it" ? Math.min(1, Math.max(0, activity)) : 0;
