import { describe, expect, test } from "vitest";
import { apertureCut, patternOf } from "./antenna";
import { awgDiameterMm, batteryHours, cableRun, solarSupply, windLoad } from "./infra";
import { evaluateLink, kLowOf, monteCarlo, preparePath } from "./link";
import {
  barrierLoss,
  buildingEntryLossDb,
  earlyLeafLossDb,
  freeSpaceLossDb,
  multipath,
  rainCoefficients,
  roundedObstacleLossDb,
  twoEdgeLossDb,
  twoRayLevel,
  woodlandLossDb,
  worstMonthPercent,
  zoneRainRateMmH,
} from "./propagation";
import { exposureDistance, localLimitWm2, ofdmRateMbps, thermalNoiseDbm, usableRate, wholeBodyLimitWm2 } from "./radio";
import { CLIMATE, end, POLICY, plan, profile } from "./testing/scene";
import { normalQuantile } from "./units";

const flat = profile(400, () => 0);
const run =
  (fields: Parameters<typeof plan>[2], mountM = 10, q = flat) =>
  () =>
    evaluateLink(plan(end("A", mountM), end("B", 10), fields), q);
const air = { standard: "ac", duplex: "TDD, contention", distanceM: 500, blockAckWindowFrames: 64, maxAggregateMs: 5.484, portMbps: 1000 };
const ray = {
  nearHeightM: 10,
  farHeightM: 10,
  effectiveRadiusM: 8.5e6,
  surface: { real: 70, imaginary: 30 },
  polarisation: "vertical" as const,
  roughnessM: 0,
  nearDiscriminationDb: () => 0,
  farDiscriminationDb: () => 0,
};
const mp = { nearAmslM: 1, farAmslM: 1, gradientDn1NPerKm: -250, roughnessSaM: null, latDeg: 0 };
const sun = { loadW: 9, daysWithoutSun: 3, depthOfDischarge: 0.5, batteryV: 12, panelEfficiency: 0.8, batteryEfficiency: 0.9 };
const shape = (width: number) => patternOf({ form: "panel", gainDbi: 15, azimuthBeamwidthDeg: width, elevationBeamwidthDeg: 20 }, 5);
/** Just inside, just outside, and what the message names. */
const ROWS: readonly (readonly [string, () => unknown, () => unknown, RegExp])[] = [
  ["free space, distance", () => freeSpaceLossDb(5, 1e-9), () => freeSpaceLossDb(5, 0), /distance 0/],
  ["free space, frequency", () => freeSpaceLossDb(1e-9, 5), () => freeSpaceLossDb(-1, 5), /frequency -1/],
  ["rain coefficients, low", () => rainCoefficients(1), () => rainCoefficients(0.999), /0.999/],
  ["rain coefficients, high", () => rainCoefficients(1000), () => rainCoefficients(1001), /1001/],
  ["rain zone share, low", () => zoneRainRateMmH("A", 0.001), () => zoneRainRateMmH("A", 0.0009), /0.0009/],
  ["rain zone share, high", () => zoneRainRateMmH("A", 1), () => zoneRainRateMmH("A", 1.01), /1.01/],
  [
    "building entry, low",
    () => buildingEntryLossDb(0.08, "traditional", 0.5),
    () => buildingEntryLossDb(0.079, "traditional", 0.5),
    /0.079/,
  ],
  ["building entry, high", () => buildingEntryLossDb(100, "traditional", 0.5), () => buildingEntryLossDb(101, "traditional", 0.5), /101/],
  ["building entry, share", () => buildingEntryLossDb(5, "traditional", 0.999), () => buildingEntryLossDb(5, "traditional", 1), /share 1/],
  ["leaf depth", () => earlyLeafLossDb(5, 0), () => earlyLeafLossDb(5, -0.01), /-0.01/],
  ["woodland depth", () => woodlandLossDb(5, 0), () => woodlandLossDb(5, -1), /-1/],
  ["wall loss", () => barrierLoss({ kind: "measured", lossDb: 0 }, 5), () => barrierLoss({ kind: "measured", lossDb: -1 }, 5), /-1/],
  [
    "multipath length",
    () => multipath({ ...mp, pathKm: 0.01, frequencyGhz: 5 }),
    () => multipath({ ...mp, pathKm: 0, frequencyGhz: 5 }),
    /is 0/,
  ],
  ["month share", () => worstMonthPercent(100), () => worstMonthPercent(100.1), /100.1/],
  ["rounded radius", () => roundedObstacleLossDb(1, 10, 10, 0.01, 0.05), () => roundedObstacleLossDb(1, 10, 10, 0, 0.05), /radius is 0/],
  ["two edges apart", () => twoEdgeLossDb(10, 0.1, 10, 1, 1, 0.05), () => twoEdgeLossDb(10, 0, 10, 1, 1, 0.05), /b is 0/],
  [
    "two rays, path",
    () => twoRayLevel({ ...ray, pathM: 1, frequencyGhz: 5 }),
    () => twoRayLevel({ ...ray, pathM: 0, frequencyGhz: 5 }),
    /is 0/,
  ],
  ["beamwidth", () => shape(360), () => shape(361), /361/],
  ["noise width", () => thermalNoiseDbm(0.001), () => thermalNoiseDbm(0), /bandwidth 0/],
  ["streams", () => ofdmRateMbps("ac", 80, 5, 8, 0.4), () => ofdmRateMbps("ac", 80, 5, 9, 0.4), /9 streams/],
  [
    "rate",
    () => usableRate({ ...air, phyRateMbps: 1, packetErrorShare: 1 }),
    () => usableRate({ ...air, phyRateMbps: 0, packetErrorShare: 0 }),
    /is 0/,
  ],
  [
    "errors",
    () => usableRate({ ...air, phyRateMbps: 9, packetErrorShare: 0 }),
    () => usableRate({ ...air, phyRateMbps: 9, packetErrorShare: 1.1 }),
    /1.1/,
  ],
  ["exposure, low", () => wholeBodyLimitWm2(2), () => wholeBodyLimitWm2(1.9), /1.9/],
  ["exposure, high", () => localLimitWm2(300), () => localLimitWm2(301), /301/],
  ["duty", () => exposureDistance(20, 20, 0.3, 5, 1), () => exposureDistance(20, 20, 0.3, 5, 1.1), /1.1/],
  ["gauge", () => awgDiameterMm(40), () => awgDiameterMm(41), /41/],
  ["pairs", () => cableRun(24, 5, 10, 24, 4), () => cableRun(24, 5, 10, 24, 5), /is 5/],
  ["sun", () => solarSupply({ ...sun, sunHours: 0.1 }), () => solarSupply({ ...sun, sunHours: 0 }), /is 0/],
  ["battery load", () => batteryHours(10, 0.1, 1), () => batteryHours(10, 0, 1), /is 0/],
  ["wind", () => windLoad("plate", 0, 0, 0), () => windLoad("plate", 0.1, -1, 0), /-1/],
  ["quantile", () => normalQuantile(0.0001), () => normalQuantile(0), /share 0/],
  ["low k table", () => kLowOf([{ pathKm: 1, k: 1 }], 5), () => kLowOf([], 5), /empty/],
  ["mount", run({}, 0), run({}, -0.1), /-0.1/],
  [
    "path, short",
    run(
      {},
      10,
      profile(5, () => 0, [], 9),
    ),
    run(
      {},
      10,
      profile(4.9, () => 0, [], 9),
    ),
    /4.9/,
  ],
  [
    "path, long",
    run(
      {},
      10,
      profile(100_000, () => 0),
    ),
    run(
      {},
      10,
      profile(100_001, () => 0),
    ),
    /100001/,
  ],
  ["centre", run({ centreMhz: 1000 }), run({ centreMhz: 999 }), /999/],
  ["k", run({ policy: { ...POLICY, kFactor: 0.1 } }), run({ policy: { ...POLICY, kFactor: 0 } }), /is 0/],
  ["pressure", run({ climate: { ...CLIMATE, pressureHpa: 300 } }), run({ climate: { ...CLIMATE, pressureHpa: 299 } }), /299/],
];

describe("both sides of each bound", () => {
  test.each(ROWS)("%s", (_name, inside, outside, names) => {
    expect(JSON.stringify(inside()) ?? "").not.toContain("null,null,null,null");
    expect(inside).not.toThrow();
    expect(outside).toThrow(RangeError);
    expect(outside).toThrow(names);
  });

  test("draws: 1 to 100000", () => {
    const p = plan(end("A", 10), end("B", 10));
    const path = preparePath(p, flat);
    expect(monteCarlo(p, path, { draws: 1 })!.draws).toBe(1);
    for (const draws of [0, 1.5, 100_001]) expect(() => monteCarlo(p, path, { draws })).toThrow(new RegExp(String(draws)));
  });

  test("NaN and infinities are refused, not carried on", () => {
    for (const bad of [Number.NaN, Number.POSITIVE_INFINITY]) {
      expect(() => freeSpaceLossDb(5, Number.isNaN(bad) ? bad : -bad)).toThrow(RangeError);
      expect(run({}, bad)).toThrow(RangeError);
      expect(() => multipath({ ...mp, pathKm: bad, frequencyGhz: 5 })).toThrow(RangeError);
    }
    expect(apertureCut("line", 20, -20).relativeDb(45)).toBeLessThan(0);
  });
});
