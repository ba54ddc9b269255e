import { describe, expect, test } from "vitest";
import { seededRandom } from "../units";
import { type End, inOrder, ROOF_ACTS, type RoofEntry, writtenAtMs } from "./entries";
import { type EndStands, replayRoof } from "./replay";
import { PARTS, STEP_IDS, type StepId } from "./steps";
import { phoneOf, untilPowered } from "./testing/logs";

const TURNS = { near: { turns: true }, far: { turns: true } };
const SECTOR = { near: { turns: false }, far: { turns: true } };
const stateOf = (e: EndStands, id: StepId) => e.steps.find((s) => s.id === id)?.state;

describe("the order of work", () => {
  test("power waits for the bond, tightening for both axes and for the other end, leaving for both readings", () => {
    const p = phoneOf("one");
    p.tick("near", "risks", "read");
    p.tick("near", "mount", "bracket", "finger-tight");
    p.tick("near", "cable", "loop", "surge");
    p.tick("near", "load", "ports");
    p.tick("near", "power", "told", "on");
    let s = replayRoof(TURNS, p.known);
    expect(stateOf(s.near, "power")).toBe("locked");
    expect(s.near.steps.find((x) => x.id === "power")!.waitsFor).toEqual(["bond"]);
    expect(s.refused.map((r) => [r.entry.part, r.why, r.waitsFor])).toEqual([
      ["told", "locked", ["bond"]],
      ["on", "locked", ["bond"]],
    ]);
    p.tick("near", "bond", "lug", "protector", "mast");
    expect(stateOf(replayRoof(TURNS, p.known).near, "bond")).toBe("open");
    p.tick("near", "bond", "qualified");
    p.tick("near", "power", "told", "on");
    p.tick("near", "coarse", "aimed");
    p.write({ end: "near", act: "peak", axis: "azimuth", levelDbm: -58 });
    p.tick("near", "tighten", "little");
    s = replayRoof(TURNS, p.known);
    expect(s.near.steps.find((x) => x.id === "tighten")!.waitsFor).toEqual(["tilt", "other"]);
    p.write({ end: "near", act: "peak", axis: "tilt", levelDbm: -57 });
    p.write({ end: "near", act: "told", step: "tilt", words: "Bela" });
    p.tick("near", "tighten", "little");
    p.write({ end: "near", act: "level", step: "again", levelDbm: -57.5 });
    s = replayRoof(TURNS, p.known);
    expect([stateOf(s.near, "tighten"), stateOf(s.near, "again"), stateOf(s.near, "both"), stateOf(s.near, "leave")]).toEqual([
      "done",
      "done",
      "open",
      "locked",
    ]);
    p.write({ end: "near", act: "told", step: "again", words: "Bela", levelDbm: -56 });
    p.tick("near", "photos", "mount", "plug", "earth", "along");
    p.tick("near", "leave", "sealed", "label", "laptop", "clean");
    s = replayRoof(TURNS, p.known);
    expect(s.near.steps.every((x) => x.state === "done")).toBe(true);
    expect(stateOf(s.far, "risks")).toBe("open");
  });

  test("a level that fell by more than 1 dB opens the aim again; 1 dB exactly does not", () => {
    for (const [after, state] of [
      [-58, "done"],
      [-58.1, "locked"],
    ] as const) {
      const p = phoneOf("one");
      untilPowered(p, "near");
      p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg: 4, levelDbm: -57 });
      p.write({ end: "near", act: "peak", axis: "azimuth", levelDbm: -57 });
      p.write({ end: "near", act: "peak", axis: "tilt", levelDbm: -57 });
      p.write({ end: "near", act: "told", step: "tilt", words: "Bela" });
      p.tick("near", "tighten", "little");
      p.write({ end: "near", act: "level", step: "again", levelDbm: after });
      const { near } = replayRoof(TURNS, p.known);
      expect(stateOf(near, "again")).toBe(state);
      expect(stateOf(near, "azimuth")).toBe(state === "done" ? "done" : "open");
      expect(near.fellDb === null).toBe(state === "done");
      expect(stateOf(near, "power")).toBe("done");
      // What was read before it moved is no reading of where it stands now.
      expect(near.sweep.azimuth.readings).toHaveLength(state === "done" ? 1 : 0);
    }
  });

  test("a bond that is taken back takes power, peak and tightening with it", () => {
    const p = phoneOf("one");
    untilPowered(p, "near");
    p.write({ end: "near", act: "peak", axis: "azimuth", levelDbm: -57 });
    p.write({ end: "near", act: "back", step: "bond" });
    const { near } = replayRoof(TURNS, p.known);
    expect(["bond", "power", "azimuth", "coarse", "mount"].map((id) => stateOf(near, id as StepId))).toEqual([
      "open",
      "locked",
      "locked",
      "done",
      "done",
    ]);
    expect(near.steps.find((s) => s.id === "bond")!.parts.every((x) => x.by === null)).toBe(true);
  });

  test("a stop holds over all that is written after it, until somebody else lifts it with a reason", () => {
    const p = phoneOf("one", "Ada");
    p.write({ end: "near", act: "stop", words: "gusts" });
    p.tick("near", "risks", "read");
    p.write({ end: "near", act: "lift", words: "it is calm", by: "ada " });
    p.write({ end: "near", act: "lift", words: "", by: "Bela" });
    expect(replayRoof(TURNS, p.known).refused.map((r) => r.why)).toEqual(["stopped", "same-person", "no-words"]);
    expect(stateOf(replayRoof(TURNS, p.known).far, "risks")).toBe("open");
    p.write({ end: "near", act: "lift", words: "it is calm", by: "Bela" });
    p.tick("near", "risks", "read");
    const { near } = replayRoof(TURNS, p.known);
    expect([near.stop, stateOf(near, "risks")]).toEqual([null, "done"]);
  });

  test("an antenna that is not found by turning is read once, and nothing is swept", () => {
    const p = phoneOf("one");
    untilPowered(p, "near");
    p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg: 3, levelDbm: -60 });
    p.write({ end: "near", act: "level", step: "look", levelDbm: -60 });
    const s = replayRoof(SECTOR, p.known);
    expect(s.refused.map((r) => r.why)).toEqual(["unknown"]);
    expect(s.near.before?.levelDbm).toBe(-60);
    expect(s.near.steps.some((x) => x.id === "azimuth")).toBe(false);
    // The far end waits for it no longer.
    untilPowered(p, "far");
    expect(stateOf(replayRoof(SECTOR, p.known).far, "other")).toBe("done");
  });
});

describe("a sweep", () => {
  test("keeps its readings in their order, without those that were taken back; a new one begins empty", () => {
    const p = phoneOf("one");
    untilPowered(p, "near");
    const [a, b] = [-3, 0].map((angleDeg) => p.write({ end: "near", act: "reading", axis: "azimuth", angleDeg, levelDbm: -70 + angleDeg }));
    p.write({ end: "near", act: "reading", axis: "tilt", angleDeg: 1, levelDbm: -70 });
    p.write({ end: "near", act: "void", of: b!.id });
    let s = replayRoof(TURNS, p.known);
    expect(s.near.sweep.azimuth.readings).toEqual([a]);
    expect(s.refused.map((r) => [r.entry.axis, r.waitsFor])).toEqual([["tilt", ["azimuth"]]]);
    p.write({ end: "near", act: "sweep", axis: "azimuth" });
    s = replayRoof(TURNS, p.known);
    expect(s.near.sweep.azimuth.readings).toEqual([]);
  });
});

describe("two phones", () => {
  test("without coverage each does one end; later both know all of it, whichever heard the other first", () => {
    const [one, two] = [phoneOf("one", "Ada"), phoneOf("two", "Bela")];
    for (const [p, end] of [
      [one, "near"],
      [two, "far"],
    ] as const) {
      untilPowered(p, end);
      p.write({ end, act: "reading", axis: "azimuth", angleDeg: 0, levelDbm: -61 });
      p.write({ end, act: "peak", axis: "azimuth", levelDbm: -57 });
      p.write({ end, act: "peak", axis: "tilt", levelDbm: -57 });
    }
    expect(stateOf(replayRoof(TURNS, one.known).near, "tighten")).toBe("locked");
    const both = replayRoof(TURNS, [...one.known, ...two.known]);
    expect(both).toEqual(replayRoof(TURNS, [...two.known, ...one.known, ...one.known]));
    expect(both.refused).toEqual([]);
    expect([stateOf(both.near, "tighten"), stateOf(both.far, "tighten")]).toEqual(["open", "open"]);
    expect(both.accepted).toHaveLength(one.known.length + two.known.length);
  });

  test("a stop that one phone did not know of is told: what was done meanwhile is kept, and counts for nothing", () => {
    const [one, two] = [phoneOf("one", "Ada"), phoneOf("two", "Bela")];
    one.tick("near", "risks", "read");
    two.hear(one.known);
    two.write({ end: "near", act: "stop", words: "ice" });
    one.tick("near", "mount", "bracket", "finger-tight");
    one.tick("near", "cable", "loop");
    const s = replayRoof(TURNS, [...one.known, ...two.known]);
    expect(s.near.stop?.by).toBe("Bela");
    expect(s.refused.map((r) => [r.entry.part, r.why])).toEqual([
      ["finger-tight", "stopped"],
      ["loop", "stopped"],
    ]);
  });

  test("a phone whose clock is three hours wrong changes no order, only what is told as the time", () => {
    const p = phoneOf("one");
    const e = p.write({ end: "near", act: "tick", step: "risks", part: "read", at: "2026-12-03T13:00:00Z", aheadS: 10_800 });
    expect(new Date(writtenAtMs(e)).toISOString()).toBe("2026-12-03T10:00:00.000Z");
  });
});

/** The rules again, by nothing but what was accepted, one after the other: the bond holds, the peak holds. */
const brokenRule = (accepted: readonly RoofEntry[], turns: Record<End, boolean>): string | null => {
  const NEED = { bond: ["lug", "protector", "mast", "qualified"], power: ["told", "on"] };
  const now = { near: new Set<string>(), far: new Set<string>() };
  /** Steps that a step taken back undoes, written out by hand. */
  const UNDOES: Record<string, readonly string[]> = {
    risks: ["bond", "power", "peak-a", "peak-t"],
    mount: ["bond", "power", "peak-a", "peak-t"],
    cable: ["power", "peak-a", "peak-t"],
    load: ["power", "peak-a", "peak-t"],
    bond: ["bond", "power", "peak-a", "peak-t"],
    power: ["power", "peak-a", "peak-t"],
    coarse: ["peak-a", "peak-t"],
    azimuth: ["peak-a", "peak-t"],
    look: ["peak-a", "peak-t"],
    tilt: ["peak-t"],
  };
  for (const e of accepted) {
    const mine = now[e.end];
    const drop = (group: string): void => {
      for (const k of [...mine]) if (k === group || k.startsWith(`${group}/`)) mine.delete(k);
    };
    if (e.act === "back") for (const g of UNDOES[e.step!] ?? []) drop(g);
    if (e.act === "tick" && e.step === "power" && !NEED.bond.every((x) => mine.has(`bond/${x}`))) return `${e.id}: powered before the bond`;
    if (e.act === "tick") mine.add(`${e.step}/${e.part}`);
    const powered = NEED.power.every((x) => mine.has(`power/${x}`));
    if ((e.act === "peak" || e.act === "reading" || (e.act === "level" && e.step === "look")) && !powered)
      return `${e.id}: read without power`;
    if (e.act === "peak") {
      if (e.axis === "azimuth") drop("peak-t");
      mine.add(e.axis === "azimuth" ? "peak-a" : "peak-t");
    }
    if (e.act === "level" && e.step === "look") mine.add("peak-a").add("peak-t");
    if (e.act === "tick" && e.step === "tighten" && !(mine.has("peak-a") && mine.has("peak-t"))) return `${e.id}: tight before the peak`;
    if (e.act === "level" && e.step === "again" && e.levelDbm! < -61) {
      // May have moved: then the peak is to be found anew. The levels below make that plain.
      drop("peak-a");
      drop("peak-t");
    }
    if (!turns[e.end] && e.act === "peak") return `${e.id}: a peak of what does not turn`;
  }
  return null;
};

test("in 1,000 random orders of steps nothing is powered before the bond, and nothing is tight before the peak", () => {
  let powered = 0;
  let tight = 0;
  for (let seed = 1; seed <= 1000; seed++) {
    const random = seededRandom(seed);
    const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const plans = seed % 4 === 0 ? SECTOR : TURNS;
    const phones = [phoneOf("one", "Ada"), phoneOf("two", "Bela")];
    const all: RoofEntry[] = [];
    // What each phone last looked at; it need not be the newest.
    const looked = phones.map((p) => replayRoof(plans, p.known));
    for (let i = 0; i < 140; i++) {
      const p = one(phones);
      const end = one(["near", "far"] as const);
      // Mostly what is open by what this phone knows, so that work gets far; else anything at all.
      const at = phones.indexOf(p);
      if (i % 7 === 0) looked[at] = replayRoof(plans, p.known);
      const known = looked[at]![end];
      const open = known.steps.filter((s) => s.state === "open" && s.parts.length > 0);
      const lost = one(known.steps.flatMap((s) => s.parts.filter((x) => x.by === null).map((x) => ({ step: s.id, part: x.part }))));
      const step = one(STEP_IDS);
      const levelDbm = one([-60, -60, -60, -70]);
      const made =
        random() < 0.5 && open.length > 0
          ? {
              act: "tick" as const,
              ...one(open.flatMap((x) => x.parts.filter((y) => y.by === null).map((y) => ({ step: x.id, part: y.part })))),
            }
          : random() < 0.55
            ? one([
                { act: "peak" as const, axis: "azimuth" as const, levelDbm: -60 },
                { act: "peak" as const, axis: "tilt" as const, levelDbm: -60 },
                { act: "level" as const, step: "look" as const, levelDbm: -60 },
                { act: "level" as const, step: "again" as const, levelDbm },
                { act: "told" as const, step: one(["tilt", "look", "again"] as const), words: "Cai" },
              ])
            : random() < 0.75
              ? { act: "tick" as const, ...(lost ?? { step, part: one(PARTS) }) }
              : {
                  act: one(ROOF_ACTS.filter((a) => a !== "stop" || random() < 0.2)),
                  step,
                  part: one(PARTS),
                  axis: one(["azimuth", "tilt"] as const),
                  angleDeg: random() * 40 - 20,
                  levelDbm: -60,
                  of: all.length === 0 ? null : one(all).id,
                  words: "words",
                };
      all.push(p.write({ end, ...made }));
      if (random() < 0.1) for (const q of phones) q.hear(all);
    }
    const s = replayRoof(plans, all);
    expect(brokenRule(s.accepted, { near: plans.near.turns, far: plans.far.turns }), `seed ${seed}`).toBeNull();
    expect(s.accepted.length + s.refused.length).toBe(inOrder(all).length);
    powered += Number(s.accepted.some((e) => e.act === "tick" && e.step === "power"));
    tight += Number(s.accepted.some((e) => e.act === "tick" && e.step === "tighten"));
  }
  // The orders are not so random that nothing ever gets that far.
  expect(powered).toBeGreaterThan(500);
  expect(tight).toBeGreaterThan(50);
});
