import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Limits, limitsSchema, planOf, RECORDS, type SearchLimits } from "@/contract";
import { LIMIT_CODES, NO_LIMITS, openRack, plainRack, type Refusal } from "@/core/rack";
import { end, plan, profile, radio } from "@/core/testing/scene";
import { bandSentence, hoursText, refusalFigure, spareText, triedText } from "../../../wording/gear";
import { onAxis, rateAxis } from "./axis";
import { faceFrom, faceIn, faceText } from "./face-text";
import { lettingIn } from "./let-in";
import { limitWords } from "./limit-words";
import { hasOwn, rackLimitsOf, schoolOf, searchOf, siteLimitsOf, withSearch, withSite } from "./limits-of";
import { designOf, isTaken } from "./settings";

const LINK = "00000000-0000-4000-8000-000000000001";
const OTHER = "00000000-0000-4000-8000-000000000002";
const NEAR = "00000000-0000-4000-8000-00000000000a";
const FAR = "00000000-0000-4000-8000-00000000000b";
const start = (): Limits => limitsSchema.parse({});
const ends = { nearSiteId: NEAR, nearName: "Mill", farSiteId: FAR, farName: "Kiln" };
const words = (l: Limits): string =>
  limitWords(l, LINK, ends, "metric")
    .map((w) => w.words)
    .join(", ")
    .replaceAll("\u00a0", " ");

describe("limits of a job and of a link", () => {
  test("nothing is limited but that both ends are alike", () => {
    expect(rackLimitsOf(start(), LINK, NEAR, FAR)).toEqual({ ...NO_LIMITS, alike: true });
    expect(schoolOf(start(), LINK)).toEqual({ name: "enough", targetDbm: -55 });
    expect(words(start())).toBe(
      "any price, any face, any band, any port, one radio for both ends, radar channels too, in stock or to order, any supply and pole, own types per link, any weather, power just enough",
    );
  });

  test("what a link has of its own holds there and nowhere else", () => {
    const limits = { ...start(), ...withSearch(start(), LINK, { priceMost: 290 }, true) };
    expect(searchOf(limits, LINK).priceMost).toBe(290);
    expect(searchOf(limits, OTHER).priceMost).toBeNull();
    expect(hasOwn(limits, LINK, ["priceMost"])).toBe(true);
    // Said for the whole job again, the link has no word of its own left.
    const back = { ...limits, ...withSearch(limits, LINK, { priceMost: 400 }, false) };
    expect(searchOf(back, LINK).priceMost).toBe(400);
    expect(searchOf(back, OTHER).priceMost).toBe(400);
    expect(back.links).toEqual({});
  });

  test("whatever is set, job or link, is what is searched by afterwards, and no other link's own is touched", () => {
    const fields = fc.constantFrom<Partial<SearchLimits>>(
      { priceMost: 5 },
      { bands: ["60"] },
      { noRadar: true },
      { coldestC: -20 },
      { power: "highest" },
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(fields, fc.boolean(), fc.constantFrom(LINK, OTHER)), { maxLength: 12 }), (steps) => {
        let limits = start();
        for (const [f, own, link] of steps) {
          const others = limits.links[link === LINK ? OTHER : LINK];
          limits = limitsSchema.parse({ ...limits, ...withSearch(limits, link, f, own) });
          expect(searchOf(limits, link)).toMatchObject(f);
          expect(limits.links[link === LINK ? OTHER : LINK]).toEqual(others);
        }
      }),
    );
  });

  test("a site's limits are read at whichever end it stands", () => {
    const limits = { ...start(), ...withSite(start(), FAR, { faceMostCm: 40, poleMm: 89, supplies: ["802.3at"] }) };
    expect(rackLimitsOf(limits, LINK, NEAR, FAR).far).toEqual({ faceMostCm: 40, poleMm: 89, supplies: ["802.3at"] });
    expect(rackLimitsOf(limits, LINK, FAR, NEAR).near).toEqual(siteLimitsOf(limits, FAR));
    expect(words(limits)).toContain("faces up to 40 cm at Kiln");
    expect(words(limits)).toContain("802.3at and a 89 mm pole at Kiln");
  });

  test("a slip is refused with the field it is in", () => {
    expect(RECORDS.limits.fields.safeParse({ targetDbm: 5 }).error?.issues[0]).toMatchObject({ path: ["targetDbm"] });
    expect(limitsSchema.safeParse({ links: { [LINK]: { colour: "red" } } }).success).toBe(false);
    expect(limitsSchema.safeParse({ sites: { elsewhere: {} } }).success).toBe(false);
  });
});

describe("letting in", () => {
  const loosened = (limits: Limits, refusal: Refusal): Limits => ({ ...limits, ...lettingIn(limits, LINK, ends, { refusal }) });

  test("the limit is off where it was set: of the link its own, of the job for all, of a site at that end", () => {
    const job = { ...start(), priceMost: 400 };
    const price = { code: "price", figure: 500, limit: 400, end: null } as const;
    expect(searchOf(loosened(job, price), LINK).priceMost).toBeNull();
    const own = { ...job, ...withSearch(job, LINK, { priceMost: 90 }, true) };
    expect(searchOf(loosened(own, price), LINK).priceMost).toBeNull();
    expect(searchOf(loosened(own, price), OTHER).priceMost).toBe(400);
    const faces = { ...start(), ...withSite({ ...start(), ...withSite(start(), NEAR, { faceMostCm: 20 }) }, FAR, { faceMostCm: 30 }) };
    const after = loosened(faces, { code: "face", figure: 42, limit: 30, end: "far" });
    expect([siteLimitsOf(after, NEAR).faceMostCm, siteLimitsOf(after, FAR).faceMostCm]).toEqual([20, null]);
  });

  test("every limit has a way to be off, and what is no limit has none", () => {
    for (const code of LIMIT_CODES)
      expect([code, lettingIn(start(), LINK, ends, { refusal: { code, figure: null, limit: "", end: null } })]).not.toEqual([code, null]);
    expect(lettingIn(start(), LINK, ends, { refusal: { code: "hot", overDb: 2 } })).toBeNull();
    expect(lettingIn(start(), LINK, ends, { refusal: null })).toBeNull();
  });
});

describe("faces", () => {
  test("typed in inches they are kept in centimetres, and read back in inches", () => {
    expect(faceFrom("imperial", 12)).toBeCloseTo(30.48, 9);
    expect(faceIn("imperial", faceFrom("imperial", 12))).toBe(12);
    expect(faceText(30, "imperial")).toBe("12\u00a0in");
    expect([faceFrom("metric", 30), faceIn("metric", 30), faceFrom("imperial", null)]).toEqual([30, 30, null]);
  });
});

describe("the axis of rates", () => {
  test("is round, reaches what is drawn, and keeps the need in sight", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 5000, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 20_000, noNaN: true }), { maxLength: 20 }),
        (need, rates) => {
          const axis = rateAxis(need, rates);
          expect(axis.ticksMbps[0]).toBe(0);
          expect(axis.ticksMbps.at(-1)).toBeCloseTo(axis.mostMbps, 9);
          expect(axis.mostMbps).toBeGreaterThanOrEqual(2 * need - 1e-9);
          expect(need / axis.mostMbps).toBeGreaterThan(0.05);
          for (const r of rates) {
            const at = onAxis(axis, r, 400);
            expect(at.x).toBeLessThanOrEqual(400);
            expect(at.broken).toBe(r > axis.mostMbps * (400.5 / 400));
          }
        },
      ),
    );
  });
});

describe("taking", () => {
  test("writes all that was judged: the design then evaluates to the candidate's own plan", () => {
    const radios = [
      radio({ id: "a", priceEur: 50 }),
      radio({ id: "b", antenna: { kind: "integrated", form: "dish", gainDbi: 24, azimuthBeamwidthDeg: 9 } }),
    ];
    const planned = plan(end("A", 12), end("B", 12), { needToFarMbps: 20, needToNearMbps: 30 });
    const rack = openRack(
      { ...planned, near: end("A", 12, { radio: radios[0]! }), far: end("B", 12, { radio: radios[0]! }) },
      profile(900, () => 0),
      {
        radios,
        antennas: [],
      },
    );
    const { best } = plainRack(rack.arrange(NO_LIMITS)).rows[0]!;
    const settings = best.option!.settings!;
    const design = RECORDS.design.fields.parse({
      nearMountAglM: 12,
      farMountAglM: 12,
      ...designOf(settings),
      needToFarMbps: 20,
      needToNearMbps: 30,
    });
    expect(isTaken(design, settings)).toBe(true);
    expect(isTaken({ ...design, widthMhz: 80 }, settings)).toBe(false);
    const hardware = { radios: radios.map((r) => ({ ...r, bandKey: "5", source: "own" })), antennas: [] };
    const job = {
      ...RECORDS.job.fields.parse({ name: "x", visitOn: "2026-06-01", centreLatDeg: 0, centreLonDeg: 0 }),
      ruleDomain: "FCC-like",
    };
    const made = planOf(job as never, { name: "A", mountMaxAglM: null }, { name: "B", mountMaxAglM: null }, design, hardware, null);
    expect(made).toMatchObject({
      centreMhz: settings.centreMhz,
      widthMhz: settings.widthMhz,
      near: { txPowerDbm: settings.near.powerDbm, radio: { id: settings.near.radioId } },
      far: { txPowerDbm: settings.far.powerDbm, radio: { id: settings.far.radioId } },
    });
  });
});

describe("words", () => {
  test("figures as one would say them", () => {
    expect(spareText(-79.6)).toBe("80 Mbps short");
    expect(spareText(3.74)).toBe("3.7 Mbps to spare");
    expect(hoursText(null)).toBe("more than 88 hours a year");
    expect(hoursText(0.9)).toBe("54 minutes a year");
    expect(hoursText(4.2)).toBe("4 hours a year");
    expect(refusalFigure({ code: "hot", overDb: 12.34 })).toBe("12\u00a0dB");
    expect(refusalFigure({ code: "slow", keptMbps: 78.6, shortMbps: 1.4 })).toBe("keeps 79: 1.4 short");
  });

  test("every refusal has a sentence of its own for a band, without a hole in it", () => {
    const radios = [radio({ id: "a", priceEur: 50, sizeMm: { width: 200, height: 300 } })];
    const open = openRack(
      plan(end("A", 12), end("B", 12), { needToFarMbps: 20, needToNearMbps: 30 }),
      profile(900, () => 0),
      { radios, antennas: [] },
    );
    for (const limits of [
      NO_LIMITS,
      { ...NO_LIMITS, priceMost: 10 },
      { ...NO_LIMITS, bands: [] },
      { ...NO_LIMITS, near: { ...NO_LIMITS.near, faceMostCm: 10 } },
    ]) {
      const rack = open.arrange(limits);
      for (const { best } of rack.bands) {
        const words = bandSentence(best!, true, 50, 80, 99.9, "metric");
        expect(words).toMatch(/^[\w ].*\.$/);
        expect(words).not.toMatch(/undefined|NaN|null|\[object/);
      }
      expect(triedText(rack)).not.toMatch(/undefined|NaN/);
    }
  });
});
