/*
 * What is written down on a roof: entries that are only ever added to, each with an id of its own. Two phones without
 * coverage add to the same log and later have the union of both; nothing can clash, and nothing is overwritten. Ours.
 */
import { ANGLE_WAYS } from "../aim";
import type { Part, StepId } from "./steps";

export type End = "near" | "far";
export const otherEnd = (end: End): End => (end === "near" ? "far" : "near");

export const ROOF_ACTS = ["tick", "back", "sweep", "reading", "void", "peak", "level", "told", "stop", "lift"] as const;
/**
 * tick     a part of a step is done                     back   a step is taken back, with all that rests on it
 * sweep    a new sweep begins on an axis                reading  angle and level of one place of it
 * void     a reading or a level is taken back           peak   it stands on the peak of that axis
 * level    the level before or after tightening, or of an antenna that is not found by turning
 * told     a step of the other end, told by phone       stop, lift   work stops; somebody else lets it go on
 */
export type RoofAct = (typeof ROOF_ACTS)[number];

export const READ_AT = ["here", "there"] as const;
/** At this end's own radio, or at the other end and told by phone. */
export type ReadAt = (typeof READ_AT)[number];

export const AXES = ["azimuth", "tilt"] as const;
export type Axis = (typeof AXES)[number];

export { ANGLE_WAYS };

export interface RoofEntry {
  readonly id: string;
  readonly end: End;
  readonly act: RoofAct;
  /** Which phone wrote it, and after how many entries that it knew of: the order of all, whatever the clocks say. */
  readonly phone: string;
  readonly order: number;
  /** By the phone's own clock, and how far that one was ahead of the server's when they last met; null: not known. */
  readonly at: string;
  readonly aheadS: number | null;
  readonly by: string;
  readonly step: StepId | null;
  readonly part: Part | null;
  readonly axis: Axis | null;
  readonly angleDeg: number | null;
  /** Null: nothing was heard. */
  readonly levelDbm: number | null;
  readonly way: (typeof ANGLE_WAYS)[number] | null;
  readonly readAt: ReadAt | null;
  /** Of a reading that is taken back. */
  readonly of: string | null;
  /** A reason, or the name of who told it. */
  readonly words: string;
}

/** What an entry does not say. */
export const SAYS_NOTHING = {
  step: null,
  part: null,
  axis: null,
  angleDeg: null,
  levelDbm: null,
  way: null,
  readAt: null,
  of: null,
  words: "",
} as const satisfies Partial<RoofEntry>;

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** All entries once, in the one order that every phone comes to, whichever of them it heard first. */
export const inOrder = (entries: readonly RoofEntry[]): RoofEntry[] =>
  [...new Map(entries.map((e) => [e.id, e])).values()].sort(
    (a, b) => a.order - b.order || compare(a.phone, b.phone) || compare(a.id, b.id),
  );

/** The order of an entry that is written by whoever knows these. */
export const nextOrder = (known: readonly Pick<RoofEntry, "order">[]): number => known.reduce((most, e) => Math.max(most, e.order), 0) + 1;

/** When it was written by the server's clock, as far as the phone's error is known. */
export const writtenAtMs = (e: Pick<RoofEntry, "at" | "aheadS">): number => Date.parse(e.at) - (e.aheadS ?? 0) * 1000;
