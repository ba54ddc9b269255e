import { type DaysFields, daysSchema, type KitFields, kitSchema, kitSiteSchema, type SafetyFields, safetySchema } from "../src/contract";

/* The made-up kit: a pole that no strap goes round, a gland wider than the saws, a ladder too short, things missing, risks half answered. */

const SITE = {
  office: {
    poleMm: 60,
    wall: "brick",
    behind: "granite, two feet",
    pullHoldN: 1500,
    shearHoldN: 1800,
    holdSource: "made up for the demo",
    stepOffM: 6,
  },
  rope: {
    poleMm: 50,
    newBracket: false,
    wall: "timber",
    behind: "studs at 600 mm",
    pullHoldN: 1500,
    shearHoldN: 1500,
    holdSource: "made up for the demo",
    poleAboveM: 1.35,
  },
  pilot: { poleMm: 89, wall: "render over insulation", behind: "brick behind 80 mm of foam" },
} as const;

const dayId = (n: number): string => `0d000000-0000-4000-a000-00000000000${n}`;

export const demoKit = (siteId: (key: string) => string): KitFields =>
  kitSchema.parse({
    sites: Object.fromEntries(Object.entries(SITE).map(([key, of]) => [siteId(key), kitSiteSchema.parse(of)])),
    wind: { speedMS: 40, kind: "gust", source: "made up for the demo" },
    sawsMm: [16, 20, 22],
    laddersM: [4, 6],
    crew: ["Ada", "Ben"],
    lessons: [
      {
        id: "0d000000-0000-4000-a000-0000000000a1",
        siteId: siteId("ice"),
        words: "The gland goes on before the plug.",
        partId: "whelk-25",
      },
    ],
    money: { labourHours: 14, labourPerHour: 52, travelKm: 6, travelPerKm: 0.45, marginShare: 0.1, taxShare: 0.2 },
  });

export const demoSafety = (siteId: (key: string) => string): (SafetyFields & { readonly siteId: string })[] => [
  {
    siteId: siteId("rope"),
    ...safetySchema.parse({
      answers: {
        height: { state: "do" },
        trees: { state: "help", competent: "", note: "the owner of the poplars is asked" },
        alone: { state: "stop", note: "two on the roof or none" },
        "roof-edge": { state: "help", competent: "lift hire of the island" },
        mains: { state: "do" },
        road: { state: "none" },
        plant: { state: "none" },
      },
      windLimitMS: 10,
      rescue: "lift on site while anybody is up; island rescue is told",
    }),
  },
];

/** The days of the visit: a trim that waits for its owner, a berth that is closed while a ship lies there. */
export const demoDays = (siteId: (key: string) => string): DaysFields => {
  const both = ["Ada", "Ben"];
  const [bench, trim, office, rope, aim, clean] = [1, 2, 3, 4, 5, 6].map(dayId) as [string, string, string, string, string, string];
  return daysSchema.parse({
    tasks: [
      { id: bench, kind: "bench", name: "bench", people: ["Ada"], day: "2026-12-02", from: "09:00", hours: 3.5, outside: false },
      {
        id: trim,
        kind: "trees",
        name: "trim",
        siteId: siteId("rope"),
        people: ["the tree people"],
        day: "2026-12-03",
        from: "08:00",
        hours: 2,
        waitsFor: "tree-owner",
      },
      {
        id: office,
        kind: "install",
        name: "Office",
        siteId: siteId("office"),
        people: both,
        day: "2026-12-03",
        from: "08:30",
        hours: 2,
        after: [bench],
      },
      {
        id: rope,
        kind: "install",
        name: "Rope Walk",
        siteId: siteId("rope"),
        people: both,
        day: "2026-12-03",
        from: "10:30",
        hours: 3,
        after: [bench, trim],
      },
      {
        id: aim,
        kind: "aim",
        name: "aim, read",
        siteId: siteId("rope"),
        people: both,
        day: "2026-12-03",
        from: "13:30",
        hours: 1.5,
        after: [office, rope],
      },
      {
        id: clean,
        kind: "clean",
        name: "clean",
        siteId: siteId("rope"),
        people: ["Ben"],
        day: "2026-12-03",
        from: "15:00",
        hours: 0.5,
        after: [aim],
      },
      {
        id: dayId(7),
        kind: "aim",
        name: "re-aim the berth",
        siteId: siteId("fuel"),
        people: both,
        day: "2026-12-04",
        from: "10:30",
        hours: 2.5,
      },
    ],
    // High water on Friday while the ship lies alongside; heights in the harbour's own datum.
    tides: (
      [
        ["2026-12-02", "05:38", 0.9],
        ["2026-12-02", "11:50", 3.6],
        ["2026-12-02", "18:03", 1.0],
        ["2026-12-03", "00:15", 3.7],
        ["2026-12-03", "06:28", 0.8],
        ["2026-12-03", "12:40", 3.8],
        ["2026-12-03", "18:53", 0.9],
        ["2026-12-04", "01:05", 3.8],
        ["2026-12-04", "07:18", 0.7],
        ["2026-12-04", "13:30", 3.9],
        ["2026-12-04", "19:43", 0.8],
      ] as const
    ).map(([day, at, heightM]) => ({ day, at, heightM })),
    closures: [
      {
        id: dayId(8),
        siteId: siteId("fuel"),
        day: "2026-12-04",
        from: "12:00",
        to: "15:00",
        kind: "closed",
        why: "ship alongside at high water",
      },
      {
        id: dayId(9),
        siteId: siteId("fuel"),
        day: "2026-12-04",
        from: "08:00",
        to: "16:00",
        kind: "water",
        why: "ladder dry below half tide",
      },
    ],
  });
};
