/*
 * How both ends of a link stand by what was written down: the log read from its beginning. An entry that a lock forbids
 * where it stands in the order is kept and told, and changes nothing. Ours.
 */
import { movedByTightening } from "../aim";
import { AXES, type Axis, type End, inOrder, otherEnd, type RoofEntry } from "./entries";
import { type EndPlan, foundStep, type Part, restingOn, type StepDef, type StepId, stepsOf } from "./steps";

export type StepState = "done" | "open" | "locked";

export interface StepStands {
  readonly id: StepId;
  readonly state: StepState;
  readonly parts: readonly { readonly part: Part; readonly by: RoofEntry | null }[];
  /** What it waits for. */
  readonly waitsFor: readonly StepId[];
  /** The entry that completed it. */
  readonly done: RoofEntry | null;
}

export interface SweepSoFar {
  /** The entry that began it; null for one that began with its first reading. */
  readonly begun: RoofEntry | null;
  readonly readings: readonly RoofEntry[];
}

/** Why an entry changes nothing. */
export type Refusal = "stopped" | "locked" | "unknown" | "same-person" | "no-words";

export interface EndStands {
  readonly steps: readonly StepStands[];
  /** It holds until somebody else lifts it. */
  readonly stop: RoofEntry | null;
  /** The sweep that is under way on each axis. */
  readonly sweep: Readonly<Record<Axis, SweepSoFar>>;
  readonly peak: Readonly<Record<Axis, RoofEntry | null>>;
  readonly before: RoofEntry | null;
  readonly after: RoofEntry | null;
  /** By how much the level fell while it was tightened, when that was too much: loosen, peak, tighten. */
  readonly fellDb: number | null;
  /** What the other end was told to have done. */
  readonly told: readonly RoofEntry[];
}

export interface LinkStands {
  readonly near: EndStands;
  readonly far: EndStands;
  /** In order, without those that changed nothing. */
  readonly accepted: readonly RoofEntry[];
  readonly refused: readonly { readonly entry: RoofEntry; readonly why: Refusal; readonly waitsFor: readonly StepId[] }[];
}

/** Steps of the other end that may be met by a word on the phone: what one waits for at the own end when they are told. */
const TOLD: Readonly<Partial<Record<StepId, StepId>>> = { tilt: "other", look: "other", again: "both" };

interface Making {
  readonly plan: EndPlan;
  readonly steps: readonly StepDef[];
  readonly ticks: Map<StepId, Map<Part, RoofEntry>>;
  readonly done: Map<StepId, RoofEntry>;
  readonly sweeps: Record<Axis, { begun: RoofEntry | null; readings: RoofEntry[] }>;
  readonly peaks: Record<Axis, RoofEntry | null>;
  stop: RoofEntry | null;
  before: RoofEntry | null;
  after: RoofEntry | null;
  fellDb: number | null;
  told: RoofEntry[];
  /** Something was done, taken back or told: what waits for it may be met, or not any more. */
  changed: boolean;
}

const begin = (plan: EndPlan): Making => ({
  plan,
  steps: stepsOf(plan),
  ticks: new Map(),
  done: new Map(),
  sweeps: { azimuth: { begun: null, readings: [] }, tilt: { begun: null, readings: [] } },
  peaks: { azimuth: null, tilt: null },
  stop: null,
  before: null,
  after: null,
  fellDb: null,
  told: [],
  changed: false,
});

const stepOf = (m: Making, id: StepId): StepDef => m.steps.find((s) => s.id === id)!;
const waitsFor = (m: Making, id: StepId): StepId[] => stepOf(m, id).needs.filter((n) => !m.done.has(n));
const isOpen = (m: Making, id: StepId): boolean => stepOf(m, id).needs.every((n) => m.done.has(n));
const isDone = (m: Making, id: StepId, by: RoofEntry): void => {
  m.done.set(id, by);
  m.changed = true;
};

/** A step is taken back, and what rests on it falls with it. */
const fall = (m: Making, id: StepId): void => {
  m.changed = true;
  for (const fallen of restingOn(m.steps, id)) {
    m.done.delete(fallen);
    m.ticks.delete(fallen);
    if (fallen === "azimuth" || fallen === "tilt") m.peaks[fallen] = null;
    if (fallen === "look" || fallen === "tilt") m.before = null;
    if (fallen === "again") m.after = null;
  }
};

/** What one end waits for the other to do is done as soon as that one did it, or was told to have. */
const meet = (own: Making, other: Making): void => {
  const meets = (id: StepId, isMet: boolean, by: RoofEntry | null): void => {
    if (isMet && by !== null && isOpen(own, id)) {
      if (!own.done.has(id)) isDone(own, id, by);
      // What is tight here stays tight while the other end looks for its peak once more.
    } else if (own.done.has(id) && !(id === "other" && own.done.has("tighten"))) fall(own, id);
  };
  const told = (id: StepId): RoofEntry | null => own.told.findLast((e) => e.step !== null && TOLD[e.step] === id) ?? null;
  for (const [id, step] of [
    ["other", foundStep(other.plan)],
    ["both", "again"],
  ] as const) {
    const by = other.done.get(step) ?? told(id);
    meets(id, by !== null, by);
  }
};

type Taken = { readonly why: Refusal; readonly waitsFor: readonly StepId[] } | null;
const TAKEN: Taken = null;
const no = (why: Refusal, waits: readonly StepId[] = []): Taken => ({ why, waitsFor: waits });

const tick = (m: Making, e: RoofEntry): Taken => {
  const step = m.steps.find((s) => s.id === e.step);
  if (step === undefined || e.part === null || !step.parts.includes(e.part)) return no("unknown");
  const waits = waitsFor(m, step.id);
  if (waits.length > 0) return no("locked", waits);
  const ticks = m.ticks.get(step.id) ?? new Map<Part, RoofEntry>();
  m.ticks.set(step.id, ticks);
  if (!ticks.has(e.part)) ticks.set(e.part, e);
  if (!m.done.has(step.id) && step.parts.every((p) => ticks.has(p))) isDone(m, step.id, e);
  return TAKEN;
};

const peak = (m: Making, e: RoofEntry): Taken => {
  if (e.axis === null || !m.plan.turns) return no("unknown");
  const waits = waitsFor(m, e.axis);
  if (waits.length > 0) return no("locked", waits);
  // Found anew: what was found and tightened upon the old one does not hold.
  if (m.done.has(e.axis)) fall(m, e.axis);
  m.peaks[e.axis] = e;
  isDone(m, e.axis, e);
  if (e.axis === "tilt") {
    m.before = e;
    m.fellDb = null;
  }
  return TAKEN;
};

const level = (m: Making, e: RoofEntry): Taken => {
  const step = e.step === "look" || e.step === "again" ? e.step : null;
  if (step === null || !m.steps.some((s) => s.id === step) || e.levelDbm === null) return no("unknown");
  const waits = waitsFor(m, step);
  if (waits.length > 0) return no("locked", waits);
  if (m.done.has(step)) fall(m, step);
  if (step === "look") {
    m.before = e;
    m.fellDb = null;
    isDone(m, "look", e);
    return TAKEN;
  }
  const was = m.before?.levelDbm ?? null;
  if (was !== null && movedByTightening(was, e.levelDbm)) {
    // It moved: the peak is to be found again before anything is tightened.
    fall(m, m.plan.turns ? "azimuth" : "look");
    // Angles from where it stood before say nothing of where it stands now.
    for (const axis of AXES) m.sweeps[axis] = { begun: e, readings: [] };
    m.fellDb = was - e.levelDbm;
    return TAKEN;
  }
  m.fellDb = null;
  m.after = e;
  isDone(m, "again", e);
  return TAKEN;
};

const reading = (m: Making, e: RoofEntry): Taken => {
  if (e.axis === null || e.angleDeg === null || !m.plan.turns) return no("unknown");
  const waits = waitsFor(m, e.axis);
  if (waits.length > 0) return no("locked", waits);
  m.sweeps[e.axis].readings.push(e);
  return TAKEN;
};

const lift = (m: Making, e: RoofEntry): Taken => {
  if (m.stop === null) return no("unknown");
  if (e.words.trim() === "" || e.by.trim() === "") return no("no-words");
  if (e.by.trim().toLowerCase() === m.stop.by.trim().toLowerCase()) return no("same-person");
  m.stop = null;
  return TAKEN;
};

const voided = (m: Making, e: RoofEntry): Taken => {
  for (const axis of ["azimuth", "tilt"] as const) {
    const at = m.sweeps[axis].readings.findIndex((r) => r.id === e.of);
    if (at >= 0) {
      m.sweeps[axis].readings.splice(at, 1);
      return TAKEN;
    }
  }
  return no("unknown");
};

const take = (m: Making, e: RoofEntry): Taken => {
  if (e.act === "stop") {
    m.stop ??= e;
    return TAKEN;
  }
  if (e.act === "lift") return lift(m, e);
  // A reading that was typed wrong and what was undone are put right whatever stands.
  if (e.act === "void") return voided(m, e);
  if (e.act === "back") {
    if (!m.steps.some((s) => s.id === e.step)) return no("unknown");
    fall(m, e.step!);
    // What was told goes with what it met.
    m.told = m.told.filter((t) => TOLD[t.step!] !== e.step);
    return TAKEN;
  }
  if (m.stop !== null) return no("stopped");
  if (e.act === "tick") return tick(m, e);
  if (e.act === "peak") return peak(m, e);
  if (e.act === "level") return level(m, e);
  if (e.act === "reading") return reading(m, e);
  if (e.act === "told") {
    if (e.step === null || TOLD[e.step] === undefined) return no("unknown");
    if (e.words.trim() === "") return no("no-words");
    m.told.push(e);
    m.changed = true;
    return TAKEN;
  }
  if (e.axis === null || !m.plan.turns) return no("unknown");
  m.sweeps[e.axis] = { begun: e, readings: [] };
  return TAKEN;
};

const stands = (m: Making): EndStands => ({
  steps: m.steps.map((s) => {
    const waits = waitsFor(m, s.id);
    const done = m.done.get(s.id) ?? null;
    return {
      id: s.id,
      state: done !== null ? "done" : waits.length > 0 ? "locked" : "open",
      parts: s.parts.map((part) => ({ part, by: m.ticks.get(s.id)?.get(part) ?? null })),
      waitsFor: waits,
      done,
    };
  }),
  stop: m.stop,
  sweep: m.sweeps,
  peak: m.peaks,
  before: m.before,
  after: m.after,
  fellDb: m.fellDb,
  told: m.told,
});

/** Reads a link's log. @param entries of one link, of as many phones as there are, in any order. */
export const replayRoof = (plans: Readonly<Record<End, EndPlan>>, entries: readonly RoofEntry[]): LinkStands => {
  const ends = { near: begin(plans.near), far: begin(plans.far) };
  const accepted: RoofEntry[] = [];
  const refused: LinkStands["refused"][number][] = [];
  for (const entry of inOrder(entries)) {
    const own = ends[entry.end];
    const other = ends[otherEnd(entry.end)];
    const refusal = take(own, entry);
    if (refusal !== null) {
      refused.push({ entry, ...refusal });
      continue;
    }
    accepted.push(entry);
    // What one end did may meet the other's wait, and the other way round, until nothing follows any more.
    while (own.changed || other.changed) {
      own.changed = false;
      other.changed = false;
      meet(own, other);
      meet(other, own);
    }
  }
  return { near: stands(ends.near), far: stands(ends.far), accepted, refused };
};
