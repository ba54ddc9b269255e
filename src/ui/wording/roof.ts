import type { Axis, Part, Refusal, RoofEntry, StepId } from "@/core/roof";
import { figure } from "./numbers";

/* Words of the roof: steps, what is ticked of them, what they wait for, what was written down. */

export const STEP_WORDS: Readonly<Record<StepId, readonly [title: string, how: string]>> = {
  risks: ["Risk screen", "read aloud by both, before anybody climbs"],
  mount: ["Mount and bracket", "two bolts finger-tight, so that it still turns"],
  cable: ["Cable up", "with a drip loop; surge protection at both ends as the wiring says"],
  load: ["Antenna or load on every port", "a radio that sends without one may be destroyed"],
  bond: ["Bond before power", "by whoever is qualified for it, as the local code says, the shortest way to the bar"],
  power: ["Power on, and wait", "the other end is told by phone first"],
  coarse: ["Coarse aim", "by a landmark or the compass"],
  azimuth: ["Sweep to the side", "write down every reading, also where nothing is heard"],
  tilt: ["Sweep up and down", "the same, with the side fixed where it peaked"],
  look: ["Look along, read", "this antenna is not found by turning"],
  other: ["The other end is aimed", "seen here when there is coverage, else told by phone"],
  tighten: ["Tighten", "a little on each bolt in turn"],
  again: ["Read again", "more than 1 dB lower, and it moved"],
  both: ["Both ends read", "the other end has read after tightening, too"],
  photos: ["Photos", "they are what the next visit starts from"],
  leave: ["Leave clean", "nobody comes back for a rag or an address"],
};

export const PART_WORDS: Readonly<Record<Part, string>> = {
  read: "Read aloud by both, nothing open that stops",
  bracket: "Bracket holds, pole is plumb",
  "finger-tight": "Two bolts finger-tight",
  loop: "Drip loop, sealed gland",
  surge: "Surge protection at both ends of the cable",
  ports: "Antenna or load on every port",
  lug: "Radio's lug to the bar",
  protector: "Surge protector to the bar",
  mast: "Mast or pole to the bar",
  qualified: "Checked by whoever is qualified",
  told: "The other end is told",
  on: "Power is on",
  aimed: "Looks along the bearing",
  little: "Tight, in turn, by the maker's torque",
  mount: "Mount",
  plug: "Plug and gland",
  earth: "Earth",
  along: "Along the line",
  sealed: "Openings sealed",
  label: "Label on",
  laptop: "Laptop's address put back",
  clean: "Nothing left behind",
};

/** The locks that are bars across the page, by the step behind them. */
export const LOCK_WORDS: Readonly<Partial<Record<StepId, string>>> = {
  power: "Nothing is powered before it is bonded",
  tighten: "Nothing is tightened before the peak",
  leave: "Both ends are read after tightening",
};

/** @param waits numbers of the steps that come first. */
export const waitsText = (waits: readonly number[]): string => (waits.length === 0 ? "" : `opens after ${waits.join(", ")}`);

const levelText = (dbm: number | null): string => (dbm === null ? "not heard" : `${figure(dbm, dbm % 1 === 0 ? 0 : 1)} dBm`);

/** "11° left of the start" */
export const angleWords = (axis: Axis, deg: number): string => {
  const side = axis === "azimuth" ? (deg < 0 ? "left" : "right") : deg < 0 ? "down" : "up";
  return Math.abs(deg) < 0.005 ? "at the start" : `${figure(Math.abs(deg), Math.abs(deg) % 1 === 0 ? 0 : 1)}° ${side}`;
};

export const AXIS_WORDS: Readonly<Record<Axis, string>> = { azimuth: "to the side", tilt: "up and down" };

export const REFUSAL_WORDS: Readonly<Record<Refusal, string>> = {
  stopped: "a stop stood that this phone did not know of",
  locked: "it was locked",
  unknown: "it belongs to nothing that is there",
  "same-person": "whoever stopped does not lift it",
  "no-words": "it needs a reason and a name",
};

/** One entry in a few words. */
export const entryText = (e: RoofEntry): string => {
  const step = e.step === null ? "" : STEP_WORDS[e.step][0];
  const axis = e.axis === null ? "" : AXIS_WORDS[e.axis];
  switch (e.act) {
    case "tick":
      return `${step}: ${e.part === null ? "" : PART_WORDS[e.part].toLowerCase()}`;
    case "back":
      return `${step} taken back`;
    case "sweep":
      return `new sweep ${axis}`;
    case "reading":
      return `${axis}, ${angleWords(e.axis ?? "azimuth", e.angleDeg ?? 0)}: ${levelText(e.levelDbm)}`;
    case "void":
      return "a reading taken back";
    case "peak":
      return `peak ${axis}: ${levelText(e.levelDbm)}${e.words === "" ? "" : `, though: ${e.words}`}`;
    case "level":
      return `${step}: ${levelText(e.levelDbm)}`;
    case "told":
      return `${step} of the other end, told by ${e.words}${e.levelDbm === null ? "" : `: ${levelText(e.levelDbm)}`}`;
    case "stop":
      return `stopped: ${e.words}`;
    case "lift":
      return `stop lifted: ${e.words}`;
  }
};

/** A level as a hand in a glove types it: 61 is minus 61. Null for what is none. */
export const typedLevel = (text: string): number | null => {
  const clean = text
    .trim()
    .replace(/[\u2212\u2013]/g, "-")
    .replace(",", ".");
  if (clean === "" || !/^-?\d{1,3}(\.\d)?$/.test(clean)) return null;
  const value = Number(clean);
  const level = value > 0 ? -value : value;
  return level < -120 || level > -5 ? null : level;
};

/** A turn as it is typed, whole or with tenths; null for none. */
export const typedTurn = (text: string): number | null => {
  const clean = text
    .trim()
    .replace(/[\u2212\u2013]/g, "-")
    .replace(",", ".");
  if (!/^-?\d{1,3}(\.\d{1,2})?$/.test(clean)) return null;
  const value = Number(clean);
  return Math.abs(value) > 180 ? null : value;
};
