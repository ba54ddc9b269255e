import { type KitFields, kitSchema, kitSiteSchema, type SafetyFields, safetySchema } from "../src/contract";

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

export const demoKit = (siteId: (key: string) => string): KitFields =>
  kitSchema.parse({
    sites: Object.fromEntries(Object.entries(SITE).map(([key, of]) => [siteId(key), kitSiteSchema.parse(of)])),
    wind: { speedMS: 40, kind: "gust", source: "made up for the demo" },
    sawsMm: [16, 20, 22],
    laddersM: [4, 6],
    crew: ["Ada", "Ben"],
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
