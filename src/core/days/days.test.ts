import fc from "fast-check";
import ICAL from "ical.js";
import { describe, expect, test } from "vitest";
import { calendarText } from "../../formats";
import { sunPosition, sunTimes } from "../geo";
import {
  clockText,
  instantOf,
  isHighWater,
  isZone,
  judgeDays,
  localTime,
  minutesOf,
  proposeTasks,
  readTides,
  type Task,
  tideAt,
  tideMin,
} from ".";

const ZONES = [
  "UTC",
  "Atlantic/Azores",
  "Europe/Lisbon",
  "America/New_York",
  "Asia/Kathmandu",
  "Australia/Lord_Howe",
  "Pacific/Kiritimati",
];

describe("clocks of a place", () => {
  test("every instant comes back from the clock that shows it, in every zone and season", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ZONES),
        fc.integer({ min: Date.UTC(2020, 0, 1) / 60_000, max: Date.UTC(2035, 0, 1) / 60_000 }),
        (zone, minute) => {
          const at = new Date(minute * 60_000);
          const shown = localTime(at, zone);
          const back = instantOf(shown, zone);
          // Where clocks are put back one time stands for two instants: the first of them.
          expect(localTime(back, zone)).toEqual(shown);
          expect(back.getTime()).toBeLessThanOrEqual(at.getTime());
          expect(at.getTime() - back.getTime()).toBeLessThanOrEqual(3_600_000);
        },
      ),
      { numRuns: 500 },
    );
  });
  test("known changes: the night of summer time, an hour that never comes, a zone of three quarters", () => {
    expect(instantOf({ day: "2026-07-01", minutes: 720 }, "Europe/Lisbon").toISOString()).toBe("2026-07-01T11:00:00.000Z");
    expect(instantOf({ day: "2026-12-01", minutes: 720 }, "Europe/Lisbon").toISOString()).toBe("2026-12-01T12:00:00.000Z");
    expect(instantOf({ day: "2026-03-29", minutes: 90 }, "Europe/Lisbon").toISOString()).toBe("2026-03-29T01:30:00.000Z");
    // An hour that comes twice: the first of them.
    expect(instantOf({ day: "2026-10-25", minutes: 90 }, "Europe/Lisbon").toISOString()).toBe("2026-10-25T00:30:00.000Z");
    expect(instantOf({ day: "2026-01-01", minutes: 0 }, "Asia/Kathmandu").toISOString()).toBe("2025-12-31T18:15:00.000Z");
    expect([isZone("Atlantic/Azores"), isZone("Mars/Base"), isZone("")]).toEqual([true, false, false]);
    expect([minutesOf("09:30"), minutesOf("9:05"), minutesOf("24:00"), minutesOf("9.30")]).toEqual([570, 545, null, null]);
    expect(clockText(570.4)).toBe("09:30");
    expect(clockText(570.6)).toBe("09:31");
    expect(clockText(1439.7)).toBe("00:00");
  });
  test("light: the sun is on the horizon when it is said to rise and set, and stays away in the polar night", () => {
    const merrow = { latDeg: 47.3, lonDeg: -19.4 };
    const sun = sunTimes(merrow, instantOf({ day: "2026-12-03", minutes: 0 }, "Atlantic/Azores"))!;
    for (const at of [sun.rise, sun.set]) expect(Math.abs(sunPosition(merrow, at).elevationDeg)).toBeLessThan(0.6);
    expect(sunPosition(merrow, new Date((sun.rise.getTime() + sun.set.getTime()) / 2)).elevationDeg).toBeGreaterThan(15);
    // By the middle of its disc, in steps of a minute: 07:48.
    expect(Math.abs(localTime(sun.rise, "Atlantic/Azores").minutes - (7 * 60 + 48))).toBeLessThan(3);
    expect(sunTimes({ latDeg: 78, lonDeg: 15 }, new Date("2026-12-21T00:00:00Z"))).toBeNull();
  });
});

const task = (id: string, more: Partial<Task> = {}): Task => ({
  id,
  kind: "other",
  name: id,
  siteId: "s",
  people: ["Ada"],
  day: "2026-12-03",
  fromMin: 540,
  hours: 1,
  after: [],
  outside: false,
  waitsFor: null,
  ...more,
});
const RULES = { lightOf: () => ({ riseMin: 468, setMin: 987 }), closures: [], granted: new Set<string>() };
const codes = (tasks: Task[], rules: Partial<Parameters<typeof judgeDays>[1]> = {}) =>
  judgeDays(tasks, { ...RULES, ...rules }).map((c) => `${c.taskId} ${c.code}`);

describe("what stands against the days", () => {
  test("nothing stands against tasks that follow one another, each in its light", () => {
    expect(codes([task("a"), task("b", { fromMin: 600, after: ["a"], outside: true })])).toEqual([]);
  });
  test.each<[string, Task[], Partial<Parameters<typeof judgeDays>[1]>, string[]]>([
    ["it begins before what it needs is over", [task("a"), task("b", { fromMin: 590, people: ["Ben"], after: ["a"] })], {}, ["b before"]],
    ["a day too early", [task("a"), task("b", { day: "2026-12-02", after: ["a"] })], {}, ["b before"]],
    ["one person twice", [task("a"), task("b", { fromMin: 570, people: ["ada", "Ben"] })], {}, ["b twice"]],
    ["in the dark", [task("a", { outside: true, fromMin: 960 })], {}, ["a dark"]],
    [
      "closed",
      [task("a")],
      { closures: [{ siteId: "s", day: "2026-12-03", fromMin: 570, toMin: 580, kind: "closed", why: "" }] },
      ["a closed"],
    ],
    [
      "closed elsewhere, or another day",
      [task("a")],
      {
        closures: [
          { siteId: "t", day: "2026-12-03", fromMin: 0, toMin: 1440, kind: "closed", why: "" },
          { siteId: null, day: "2026-12-04", fromMin: 0, toMin: 1440, kind: "closed", why: "" },
        ],
      },
      [],
    ],
    [
      "not within the water",
      [task("a", { outside: true })],
      { closures: [{ siteId: "s", day: "2026-12-03", fromMin: 600, toMin: 700, kind: "water", why: "" }] },
      ["a no-water"],
    ],
    [
      "within the water",
      [task("a", { outside: true })],
      { closures: [{ siteId: "s", day: "2026-12-03", fromMin: 500, toMin: 700, kind: "water", why: "" }] },
      [],
    ],
    ["waits for somebody", [task("a", { waitsFor: "tree-owner" })], {}, ["a waiting"]],
    ["has waited", [task("a", { waitsFor: "tree-owner" })], { granted: new Set(["tree-owner"]) }, []],
    ["no day, nobody", [task("a", { day: null, people: [] })], {}, ["a nobody", "a no-day"]],
    ["after one that is gone", [task("a", { after: ["x"] })], {}, ["a gone"]],
    ["in a circle", [task("a", { after: ["b"] }), task("b", { fromMin: 600, after: ["a"] })], {}, ["a round", "b round", "a before"]],
  ])("%s", (_name, tasks, rules, found) => expect(codes(tasks, rules)).toEqual(found));

  test("days proposed from a plan follow one another, and wait for the owner of the trees", () => {
    let n = 0;
    const facts = {
      nearSiteId: "n",
      farSiteId: "f",
      nearName: "N",
      farName: "F",
      trims: true,
      lift: true,
      people: ["Ada", "Ben"],
      visitOn: "2026-06-03",
      lightFromMin: 300,
      dayBefore: "2026-06-02",
      newId: () => `t${++n}`,
    };
    const tasks = proposeTasks(facts);
    expect(Math.min(...tasks.map((t) => t.fromMin))).toBe(8 * 60);
    expect(judgeDays(tasks, { lightOf: () => ({ riseMin: 300, setMin: 1300 }), closures: [], granted: new Set(["tree-owner"]) })).toEqual(
      [],
    );
    expect(judgeDays(tasks, { lightOf: () => null, closures: [], granted: new Set() }).map((c) => c.code)).toEqual(["waiting"]);
    expect(tasks.find((t) => t.kind === "aim")!.after).toHaveLength(2);
    // In the dark of the year nobody is sent out before it is light.
    const winter = proposeTasks({ ...facts, lightFromMin: 10 * 60 + 5 }).filter((t) => t.outside);
    expect(Math.min(...winter.map((t) => t.fromMin))).toBe(10 * 60 + 15);
  });
});

describe("the calendar", () => {
  const event = (more: object = {}) => ({
    id: "a1",
    name: "Rope Walk; install, aim",
    from: new Date("2026-12-03T10:30:00Z"),
    hours: 3.5,
    place: "Rope Walk",
    people: ["Ada", "Ben"],
    note: "ladder\nof 9 m",
    latDeg: 47.3,
    lonDeg: -19.4,
    ...more,
  });
  test("read back by another reader: names that stay, instants, lengths, words with commas and semicolons", () => {
    const text = calendarText(
      "Merrow, harbour",
      [event(), event({ id: "b2", name: "bench", from: new Date("2026-12-02T09:00:00Z"), hours: 2 })],
      7,
      new Date("2026-11-01T00:00:00Z"),
    );
    const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents("vevent").map((v) => new ICAL.Event(v));
    expect(events.map((e) => e.uid).sort()).toEqual(["a1@dry-arc", "b2@dry-arc"]);
    const a = events.find((e) => e.uid === "a1@dry-arc")!;
    expect(a.summary).toBe("Rope Walk; install, aim");
    expect(a.sequence).toBe(7);
    expect(a.startDate.toJSDate().toISOString()).toBe("2026-12-03T10:30:00.000Z");
    expect(a.endDate.toJSDate().toISOString()).toBe("2026-12-03T14:00:00.000Z");
    expect(a.description).toBe("Who: Ada, Ben\nladder\nof 9 m");
    expect(text.split("\r\n").every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
  });
  test("without a task it is a calendar still", () => {
    expect(new ICAL.Component(ICAL.parse(calendarText("Empty; job", [], 1, new Date(0)))).getAllSubcomponents("vevent")).toHaveLength(0);
  });
});

describe("tide", () => {
  const table = `Merrow, heights in metres
2026-12-03  00:15 3.7  06:28 0,8 12:40 3.8m HW 18:53 0.9
2026-12-04 07:18 −0.2
  13:30 3.9
noon is later
2026-13-04 01:00 2
12:75 3`;

  test("a pasted table is read line by line; what is none is named", () => {
    const { marks, faults } = readTides(table);
    expect(marks).toEqual([
      { day: "2026-12-03", at: "00:15", heightM: 3.7 },
      { day: "2026-12-03", at: "06:28", heightM: 0.8 },
      { day: "2026-12-03", at: "12:40", heightM: 3.8 },
      { day: "2026-12-03", at: "18:53", heightM: 0.9 },
      { day: "2026-12-04", at: "07:18", heightM: -0.2 },
      { day: "2026-12-04", at: "13:30", heightM: 3.9 },
    ]);
    expect(faults).toEqual([
      { line: 6, text: "2026-13-04 01:00 2" },
      { line: 7, text: "12:75 3" },
    ]);
  });

  test("between two marks the height is the rule of twelfths to a twentieth of the range, and nothing outside or over a gap", () => {
    const { marks } = readTides("2026-12-03 06:00 1.0 12:00 4.0\n2026-12-04 12:00 4.2");
    const at = (clock: string, day = "2026-12-03") => tideAt(marks, tideMin({ day, at: clock }));
    // After hour n of the flood so many twelfths of the range.
    for (const [hour, twelfths] of [
      [6, 0],
      [7, 1],
      [8, 3],
      [9, 6],
      [10, 9],
      [11, 11],
      [12, 12],
    ] as const)
      expect(Math.abs(at(`${hour}:00`)! - (1 + (3 * twelfths) / 12)), `at ${hour}`).toBeLessThan(0.15);
    expect(at("05:59")).toBeNull();
    expect(at("18:00")).toBeNull();
    expect(at("12:01", "2026-12-04")).toBeNull();
    expect(marks.map((_, i) => isHighWater(marks, i))).toEqual([false, false, true]);
  });

  test("high waters of a table", () => {
    const { marks } = readTides(table);
    expect(marks.filter((_, i) => isHighWater(marks, i)).map((m) => m.at)).toEqual(["00:15", "12:40", "13:30"]);
  });
});
