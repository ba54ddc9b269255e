import { describe, expect, test } from "vitest";
import { limitOfRow, type OwnRule, PLAIN_ASKER, regulate, rowsInForce, ruleRows } from "../radio";
import { skylineOf } from "./skyline";

const DOMAINS = ["cautious", "FCC-like", "ETSI-like"] as const;
const own = (fields: Partial<OwnRule>): OwnRule => ({
  ...ruleRows.find((r) => r.id === "f-5725-ptp")!,
  id: "own",
  replaces: null,
  ...fields,
});

describe("the rules as they are drawn", () => {
  test("every stretch of every domain, use and antenna reads back the numbers of its row", () => {
    let seen = 0;
    for (const domain of DOMAINS)
      for (const use of ["pair", "hub", "remote"] as const)
        for (const gainDbi of [3, 16, 25, 34])
          for (const s of skylineOf(domain, [], use, gainDbi, 40, 2000, 90_000)) {
            seen += 1;
            expect(ruleRows).toContain(s.rule);
            expect(s.lowMhz).toBeGreaterThanOrEqual(s.rule.lowMhz - 1e-9);
            expect(s.highMhz).toBeLessThanOrEqual(s.rule.highMhz + 1e-9);
            if (s.eirpDbm === null) {
              const r = regulate(domain, (s.lowMhz + s.highMhz) / 2, 0.01, { ...PLAIN_ASKER, use, gainDbi });
              expect(r.status).toBe("forbidden");
              continue;
            }
            expect(s.rule.fixedOutdoorPermitted).toBe(true);
            expect(s.rule.serves).toContain(use);
            expect(s.eirpDbm).toBeCloseTo(limitOfRow(s.rule, gainDbi, 40, { ...PLAIN_ASKER, use, gainDbi })!.maxEirpDbm, 9);
            expect(s.radar).toBe(s.rule.dfs.required);
          }
    expect(seen).toBeGreaterThan(300);
  });

  test("every row of a domain is drawn somewhere, or another row lies over all of it", () => {
    for (const domain of DOMAINS)
      for (const r of rowsInForce(domain)) {
        const drawn = (["pair", "hub", "remote"] as const).flatMap((use) =>
          [3, 16, 25, 34, 44].flatMap((gainDbi) => skylineOf(domain, [], use, gainDbi, 40, r.lowMhz, r.highMhz, { beamwidthDeg: 1 })),
        );
        const covered = drawn.some((s) => s.rule === r) || drawn.every((s) => s.rule.lowMhz <= r.highMhz && s.rule.highMhz >= r.lowMhz);
        expect(covered, r.id).toBe(true);
      }
  });

  test("stretches rise and never overlap", () => {
    for (const domain of DOMAINS) {
      const list = skylineOf(domain, [], "pair", 20, 20, 5000, 7200);
      for (let i = 1; i < list.length; i++) expect(list[i]!.lowMhz).toBeGreaterThanOrEqual(list[i - 1]!.highMhz - 1e-9);
    }
  });

  test("a job's own row stands beside the shipped ones, or in the place of one; the shipped ones stay as they are", () => {
    const before = JSON.stringify(ruleRows);
    const beside = own({ id: "own-5900", lowMhz: 5850, highMhz: 5895, conductedMaxDbm: null, gainRule: null, eirpMaxDbm: 33, psd: null });
    const at = (rows: readonly OwnRule[], mhz: number) =>
      skylineOf("FCC-like", rows, "pair", 16, 20, 5700, 5925).find((s) => s.lowMhz <= mhz && s.highMhz >= mhz);
    expect(at([], 5870)?.eirpDbm ?? null).toBeNull();
    expect(at([beside], 5870)?.eirpDbm).toBe(33);
    const instead = own({ replaces: "f-5725-ptp", eirpMaxDbm: 30 });
    expect(at([instead], 5800)!.eirpDbm).toBeLessThanOrEqual(30);
    expect(at([instead], 5800)!.rule.id).toBe("own");
    expect(rowsInForce("ETSI-like", [instead]).some((r) => r.id === "own")).toBe(false);
    expect(JSON.stringify(ruleRows)).toBe(before);
    const asked = { ...PLAIN_ASKER, use: "pair" as const, gainDbi: 16 };
    expect(regulate("FCC-like", 5870, 20, asked).status).toBe("forbidden");
    expect(regulate("FCC-like", 5870, 20, { ...asked, ownRules: [beside] })).toMatchObject({
      status: "allowed",
      limit: { maxEirpDbm: 33 },
    });
  });
});
