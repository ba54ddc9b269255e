import fc from "fast-check";
import { describe, expect, test } from "vitest";
import catalogue from "../../../demo/hardware.json" with { type: "json" };
import { permission, radio } from "../testing/scene";
import {
  type Asker,
  exposureDistance,
  formulaModulations,
  frameRatios,
  type LinkUse,
  limitOfRow,
  matchPolarisation,
  noiseRiseDb,
  type OfdmStandard,
  ofdmRateMbps,
  type Permission,
  PLAIN_ASKER,
  pairingFaults,
  parseDuplex,
  parsePolarisation,
  plannedRateMbps,
  type Radio,
  rainTiltDeg,
  regulate,
  ruleRows,
  usableRate,
} from ".";
import rules from "./tables/regulation.json" with { type: "json" };

const asker = (use: LinkUse, gainDbi: number, more: Partial<Asker> = {}): Asker => ({ ...PLAIN_ASKER, use, gainDbi, ...more });

describe("regulation", () => {
  // The rows' own worked examples: 30 of them, made with the rows.
  test.each(rules.examples.map((e) => [`${e.rule} ${e.gainDbi} dBi ${e.widthMhz} MHz`, e] as const))("%s", (_name, e) => {
    const limit = limitOfRow(ruleRows.find((r) => r.id === e.rule)!, e.gainDbi, e.widthMhz)!;
    expect(limit.maxConductedDbm).toBeCloseTo(e.maxConductedDbm, 1);
    expect(limit.maxEirpDbm).toBeCloseTo(e.maxEirpDbm, 1);
    expect(limit.cutBy).toBe(e.cutBy);
  });

  const USES = ["pair", "hub", "remote"] as const;

  // By whole search: the row itself is chosen for some use and some channel inside it, and gives the example's figure.
  test.each(rules.examples.map((e) => [`${e.rule} ${e.gainDbi} dBi ${e.widthMhz} MHz by whole search`, e] as const))("%s", (_name, e) => {
    const row = ruleRows.find((r) => r.id === e.rule)!;
    const permissions = row.stopUntilRecorded === null ? [] : [permission()];
    const found = USES.filter((use) => row.serves.includes(use)).flatMap((use) => {
      const r = regulate(row.domain, (row.lowMhz + row.highMhz) / 2, e.widthMhz, asker(use, e.gainDbi, { permissions }));
      return r.status === "allowed" && r.limit.rule.id === e.rule ? [r] : [];
    });
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.maxConductedDbm).toBeCloseTo(e.maxConductedDbm, 1);
    expect(found[0]!.limit.cutBy).toBe(e.cutBy);
  });

  test("every row that permits something out of doors is chosen by some end", () => {
    const reached = new Set<string>();
    for (const row of ruleRows)
      for (const use of USES)
        for (const gainDbi of [0, 14, 25, 34, 39, 45])
          for (const permissions of [[], [permission()]])
            for (const share of [0.04, 0.5, 0.96]) {
              const centre = row.lowMhz + share * (row.highMhz - row.lowMhz);
              const r = regulate(row.domain, centre, 2, asker(use, gainDbi, { permissions, beamwidthDeg: gainDbi >= 34 ? 1 : 20 }));
              if (r.status === "allowed") reached.add(r.limit.rule.id);
            }
    const unreached = ruleRows.filter((r) => r.fixedOutdoorPermitted && limitOfRow(r, 25, 20) !== null && !reached.has(r.id));
    expect(unreached.map((r) => r.id)).toEqual([]);
  });

  test("ETSI-like 60 GHz with 39 dBi may send 55 dBm EIRP; 5725 with a registration 36 dBm, without 14 and told of more", () => {
    expect(regulate("ETSI-like", 60_480, 2160, asker("pair", 39))).toMatchObject({
      status: "allowed",
      limit: { maxEirpDbm: 55, rule: { id: "e-57-c3" } },
    });
    const free = regulate("ETSI-like", 5800, 40, asker("pair", 25));
    expect(free).toMatchObject({ limit: { maxEirpDbm: 14 }, permission: null, moreWith: { rule: { id: "e-5725-bfwa" } } });
    expect(regulate("ETSI-like", 5800, 40, asker("pair", 25, { permissions: [permission()] }))).toMatchObject({
      limit: { maxEirpDbm: 36 },
    });
  });

  test("a permission covers its channel, its power and its days, and nothing else", () => {
    const of = (p: Partial<Permission>, day = "2026-06-01") =>
      regulate("FCC-like", 6105, 40, asker("pair", 21, { permissions: [permission(p)], day }));
    expect(of({})).toMatchObject({ permission: { state: "covers" }, limit: { maxEirpDbm: 36 } });
    expect(of({ maxEirpDbm: 30 })).toMatchObject({ limit: { maxEirpDbm: 30, cutBy: "permission" } });
    expect(of({ highMhz: 6120 })).toMatchObject({ permission: { state: "open" } });
    expect(of({ until: "2026-05-31" })).toMatchObject({ permission: { state: "expired" } });
    expect(of({ until: "2026-06-01" })).toMatchObject({ permission: { state: "covers" } });
    expect(of({ from: "2026-06-02" })).toMatchObject({ permission: { state: "not yet" } });
    // One that has run out stops the design again, also where a weaker row would be free.
    const lapsed = regulate("ETSI-like", 5800, 40, asker("pair", 25, { permissions: [permission({ until: "2020-01-01" })] }));
    expect(lapsed).toMatchObject({ permission: { state: "expired" }, limit: { rule: { id: "e-5725-bfwa" } } });
  });

  test("notes as fields: a remote without radar detection, no power control, mesh; gain or beam against gain and beam", () => {
    const eirp = (more: Partial<Asker>, use: LinkUse = "remote", centre = 5550) => {
      const r = regulate("ETSI-like", centre, 40, asker(use, 20, more));
      return r.status === "allowed" ? [r.limit.maxEirpDbm, r.radarWaived] : r.reason;
    };
    expect(eirp({ radarDetection: false })).toEqual([23, true]);
    expect(eirp({ radarDetection: false }, "pair")).toEqual([30, false]);
    expect(eirp({ powerControl: false }, "pair")).toEqual([27, false]);
    expect(eirp({ mesh: true, permissions: [permission()] }, "hub", 5800)).toEqual([33, false]);
    expect(regulate("FCC-like", 24_150, 40, asker("pair", 30, { beamwidthDeg: 3 }))).toMatchObject({
      limit: { rule: { id: "f-24050-ptp" } },
    });
    expect(regulate("FCC-like", 73_000, 500, asker("pair", 44, { beamwidthDeg: 2 }))).toMatchObject({
      status: "forbidden",
      reason: "beam-too-wide",
    });
  });

  test("the radar wait is the row's, and the long one when any part of the channel lies where weather radar works", () => {
    const wait = (centre: number, width = 40) => {
      const r = regulate("ETSI-like", centre, width, asker("pair", 20));
      return r.status === "allowed" ? r.radarWaitS : null;
    };
    expect([wait(5550), wait(5581), wait(5620), wait(5669), wait(5671)]).toEqual([60, 600, 600, 600, 60]);
    expect(regulate("FCC-like", 5600, 40, asker("pair", 19))).toMatchObject({ radarWaitS: 60 });
    expect(regulate("cautious", 5500, 20, asker("pair", 19))).toMatchObject({ radarWaitS: 600, nonOccupancyMin: 30 });
  });

  test("a channel over two rows takes the lower limit and both duties", () => {
    const across = regulate("FCC-like", 5725, 40, asker("pair", 25));
    expect(across).toMatchObject({ status: "allowed", radarDetection: true, limit: { rule: { id: "f-5470" } } });
    const above = regulate("FCC-like", 5755, 40, asker("pair", 25));
    expect(above).toMatchObject({ status: "allowed", radarDetection: false, maxConductedDbm: 30 });
  });

  test("a gap between rows, an indoor row, and too small an antenna are refused by reason", () => {
    expect(regulate("FCC-like", 5400, 40, asker("pair", 20))).toMatchObject({ status: "forbidden", reason: "no-rule" });
    expect(regulate("ETSI-like", 5200, 40, asker("pair", 20))).toMatchObject({ status: "forbidden", reason: "indoor-only" });
    expect(regulate("FCC-like", 73_000, 500, asker("pair", 38))).toMatchObject({ status: "forbidden", reason: "gain-too-low" });
  });

  test("a row that needs a permission says so, and feeder loss is handed back", () => {
    expect(regulate("FCC-like", 6105, 40, asker("pair", 21))).toMatchObject({
      status: "allowed",
      permission: { state: "open", asks: expect.stringContaining("coordination") },
    });
    const bare = regulate("FCC-like", 5500, 40, asker("pair", 25));
    const fed = regulate("FCC-like", 5500, 40, asker("pair", 25), 2);
    if (bare.status !== "allowed" || fed.status !== "allowed") throw new Error("refused");
    expect(fed.maxConductedDbm - bare.maxConductedDbm).toBeCloseTo(2, 9);
  });
});

describe("catalogue", () => {
  const GI: Record<string, number> = { n: 0.4, ac: 0.4, ax: 0.8, be: 0.8 };
  const radios = catalogue.radios as unknown as (Radio & { bandKey: string })[];

  test("its OFDM rates follow from first principles", () => {
    let compared = 0;
    for (const r of radios.filter((x) => GI[x.standard] !== undefined)) {
      for (const m of r.modulations) {
        for (const [width, rate] of Object.entries(m.phyRateMbps).filter(([w]) => Number(w) >= 20)) {
          // n counts its streams in the MCS index; the catalogue's index is of one stream.
          const want = ofdmRateMbps(r.standard as OfdmStandard, Number(width), m.index, 1, GI[r.standard]!) * r.maxStreams;
          expect(Math.abs(rate - want), `${r.id} ${m.index} ${width}`).toBeLessThan(0.006 + 0.0001 * want);
          compared++;
        }
      }
    }
    expect(compared).toBeGreaterThan(300);
  });

  test.each([
    ["razorbill-dish", "razorbill-dish", 5500, 40, []],
    ["razorbill-dish", "kittiwake-dish", 5500, 40, ["family"]],
    ["dovekie-pair", "dovekie-long", 2437, 20, ["pair-only"]],
    ["eider-small", "eider-small", 60_480, 2160, []],
    ["razorbill-dish", "razorbill-dish", 5410, 40, ["band"]],
    ["razorbill-dish", "razorbill-dish", 5500, 160, ["width"]],
    ["shearwater-panel", "shearwater-dish", 6105, 40, []],
    ["skua-remote", "gannet-ninety", 5600, 40, []],
    ["gannet-ninety", "gannet-ninety", 5600, 40, ["roles"]],
  ] as const)("%s with %s at %i MHz, %i wide: %j", (a, b, centre, width, codes) => {
    const of = (id: string) => radios.find((r) => r.id === id)!;
    expect(pairingFaults(of(a), of(b), centre, width).map((f) => f.code)).toEqual(codes);
  });
});

describe("airtime", () => {
  const base = {
    standard: "ac",
    duplex: "TDD, contention",
    phyRateMbps: 400,
    distanceM: 500,
    blockAckWindowFrames: 64,
    maxAggregateMs: 5.484,
    packetsPerFrame: 1,
    portMbps: 1000,
    packetErrorShare: 0,
  };

  test("by hand: 64 frames of 1562 octets at 400 Mbps in one exchange", () => {
    const travelUs = (500 / 299_792_458) * 1e6;
    const dataUs = (64 * 1562 * 8) / 400;
    const overheadUs = 34 + 7.5 * (9 + 2 * travelUs) + 44 + 16 + 32 + 2 * travelUs;
    expect(usableRate(base).udpMbps).toBeCloseTo((0.98 * 64 * 1472 * 8) / (dataUs + overheadUs), 6);
  });

  test("falls with distance, least at low rates, and never passes the port or the air rate", () => {
    fc.assert(
      fc.property(fc.double({ min: 100, max: 40_000, noNaN: true }), fc.constantFrom("ac", "ax", "n"), (distanceM, standard) => {
        const at = (phyRateMbps: number, d: number) => usableRate({ ...base, standard, phyRateMbps, distanceM: d });
        const share = (rate: number) => at(rate, distanceM * 2).tcpMbps / at(rate, distanceM).tcpMbps;
        expect(at(400, distanceM * 2).tcpMbps).toBeLessThan(at(400, distanceM).tcpMbps);
        expect(share(30)).toBeGreaterThanOrEqual(share(400) - 1e-9);
        expect(at(400, distanceM).udpMbps).toBeLessThan(400);
        expect(usableRate({ ...base, portMbps: 100 }).tcpMbps).toBeLessThan(95);
      }),
    );
  });

  test("the three schools of planning", () => {
    expect(plannedRateMbps("third", 300, 250, 0.3)).toBe(100);
    expect(plannedRateMbps("headroom", 300, 200, 0.3)).toBeCloseTo(140, 9);
    expect(plannedRateMbps("full", 300, 200, 0.3)).toBe(200);
    expect(() => usableRate({ ...base, phyRateMbps: 0 })).toThrow(RangeError);
    expect(radio().chains).toBe(2);
  });

  test("the parts add up to the exchange; joined packets carry more; a set frame share carries its share", () => {
    const r = usableRate({ ...base, packetsPerFrame: 2 });
    const { answersUs, ...parts } = r.parts;
    expect(Object.values(parts).reduce((s, x) => s + x, 0)).toBeCloseTo(r.burstUs, 9);
    expect(answersUs).toBeGreaterThan(0);
    expect(r.udpMbps).toBeGreaterThan(usableRate(base).udpMbps);
    const hub = { ...base, standard: "ax", duplex: "TDD, scheduled, ratios 50/50 67/33 75/25" };
    const of = (frameShare: number | null) => usableRate({ ...hub, frameShare }).udpMbps;
    expect(of(0.75) / of(0.5)).toBeCloseTo(1.5, 6);
    expect(of(null)).toBeGreaterThan(of(0.75));
    expect(frameRatios(hub.duplex)[1]).toBeCloseTo(0.67, 9);
  });
});

describe("rules, noise, waves, exposure", () => {
  test("what a row asks beside power: beamwidth, automatic power control, a mask above 30 degrees", () => {
    expect(regulate("FCC-like", 24_150, 40, asker("pair", 34, { beamwidthDeg: 3 }))).toMatchObject({ status: "allowed" });
    expect(regulate("FCC-like", 5600, 40, asker("pair", 19))).toMatchObject({ status: "allowed", powerControlAboveDbm: 27 });
    expect(regulate("FCC-like", 5755, 40, asker("pair", 19))).toMatchObject({ status: "allowed", powerControlAboveDbm: null });
    expect(regulate("FCC-like", 6105, 40, asker("pair", 21))).toMatchObject({
      status: "allowed",
      elevationMask: { aboveDeg: 30, eirpMaxDbm: 21 },
    });
  });

  test("interference as loud as the noise lifts it by 3.01 dB, none by nothing", () => {
    expect(noiseRiseDb(-92, -92)).toBeCloseTo(3.0103, 4);
    expect(noiseRiseDb(-92, null)).toBe(0);
  });

  test.each([
    ["single linear V", "single linear H", 20],
    ["single linear V", "dual slant +45/-45", 10 * Math.log10(2)],
    ["circular", "single linear V", 10 * Math.log10(2)],
    ["dual linear H+V", "dual slant +45/-45", 0],
    ["single linear V or H by turning the feed", "single linear H", 0],
  ])("%s to %s loses %f dB a chain", (a, b, lossDb) => {
    const [p, q] = [parsePolarisation(a)!, parsePolarisation(b)!];
    expect(matchPolarisation(p, q).lossDb).toBeCloseTo(lossDb, 9);
    expect(matchPolarisation(q, p).lossDb).toBeCloseTo(lossDb, 9);
  });

  test("words of a data sheet are read once: each known form, and null for any other", () => {
    for (const r of catalogue.radios) expect([parsePolarisation(r.polarisation), parseDuplex(r.duplex)], r.id).not.toContain(null);
    for (const a of catalogue.antennas) expect(parsePolarisation(a.polarisation), a.id).not.toBeNull();
    for (const words of ["dual", "H or so", "vertical-ish"]) expect(parsePolarisation(words)).toBeNull();
    for (const words of ["TDD", "scheduled", "FDD high"]) expect(parseDuplex(words)).toBeNull();
    expect(parsePolarisation("dual slant +45/-45")).toEqual({ dual: true, form: "slant" });
    // A dual antenna has a horizontal part: it is planned with for rain and mirror alike, whatever its turn.
    expect([rainTiltDeg(parsePolarisation("dual linear H+V")!), rainTiltDeg(parsePolarisation("single linear V")!)]).toEqual([0, 90]);
  });

  test("a radio without a table gets one by formula: rates of the standard, sensitivity rising 3 dB a doubling", () => {
    const rows = formulaModulations("ac", [20, 40, 80], 2, 24);
    expect(rows[7]!.phyRateMbps["40"]).toBeCloseTo(300, 6);
    expect(rows[0]!.sensitivityDbm["40"]! - rows[0]!.sensitivityDbm["20"]!).toBe(3);
    expect(rows.at(-1)!.maxTxPowerDbm).toBeLessThan(rows[0]!.maxTxPowerDbm);
    expect(rows[9]!.phyRateMbps["20"]).toBeUndefined();
  });

  test("exposure by hand: 1 W into 30 dBi at 10 W/m2 is 2.8 m; a big dish at low power needs none", () => {
    expect(exposureDistance(30, 30, 0.4, 5.5, 1).distanceM).toBeCloseTo(Math.sqrt(1000 / (4 * Math.PI * 10)), 9);
    expect(exposureDistance(10, 30, 0.65, 5.5, 1).distanceM).toBe(0);
  });
});
