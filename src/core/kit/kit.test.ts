import fc from "fast-check";
import { describe, expect, test } from "vitest";
import catalogue from "../../../demo/hardware.json" with { type: "json" };
import {
  judgeMounts,
  kitFacts,
  kitSchema,
  kitSiteSchema,
  labourRows,
  lessonSchema,
  mountsOf,
  offeredLessons,
  pickedBeside,
  quoteLines,
  type SiteWiring,
  safetySchema,
  siteKit,
  sitesCost,
  taskSchema,
  wiringSchema,
} from "../../contract";
import type { Stands } from "../link";
import { cleanEnd, PARTS } from "../wiring/testing/ends";
import {
  centsText,
  customerQuote,
  fixingLoad,
  gustOfMean,
  judgeScreen,
  KIT_RULES,
  kitLines,
  ladderFor,
  ladderM,
  lineId,
  paybackMonths,
  quoteOf,
  RISKS,
  type RiskAnswer,
} from ".";
import { amountCents, shareCents } from "./money";

const SITE = "11111111-1111-4111-8111-111111111111";
const mountOf = mountsOf({ links: [] }, catalogue as unknown as Parameters<typeof mountsOf>[1], SITE);
const end = (): SiteWiring => ({
  ...wiringSchema.parse({ roofAglM: 5 }),
  ...(cleanEnd() as unknown as Pick<SiteWiring, "places" | "leads" | "earth">),
  siteId: SITE,
});
/** The kit of such an end, nothing of it in hand. @param kit what is told of it; @param more of what is asked besides. */
const plainKit = (kit: object = {}, more: Partial<Parameters<typeof siteKit>[0]> = {}) =>
  siteKit({
    wiring: end(),
    kit: kitSchema.parse(kit),
    safety: null,
    parts: PARTS,
    mountOf,
    pickOf: (id) => ({ id, pick: null }),
    ...more,
  });

/** An end on whose every rule some fact falls: two types of cable, an unknown device, a pole that no strap goes round, a high mount. */
const full = (): { wiring: SiteWiring; site: ReturnType<typeof kitSiteSchema.parse> } => {
  const w = end();
  const places = w.places.map((p) => (p.kind === "radio" ? { ...p, aglM: 7 } : p));
  return {
    wiring: {
      ...w,
      places: [
        ...places,
        { ...places[6]!, id: "x", name: "unknown camera", partId: null },
        { ...places[5]!, id: "high", name: "high radio", aglM: 22 },
        { ...places[5]!, id: "horn", name: "horn radio", partId: "kittiwake-bare", linkId: "bare" },
        { ...places[5]!, id: "none", name: "no antenna", partId: "kittiwake-bare" },
      ],
      leads: [...w.leads, { ...w.leads.find((l) => l.lengthM === 20)!, id: "some", cableId: null }],
    },
    site: kitSiteSchema.parse({ poleMm: 89, wall: "brick" }),
  };
};
const BARE = { id: "bare", nearSiteId: SITE, farSiteId: "far", design: { nearAntennaId: "levanter-30", farAntennaId: null } };
const withHorn = mountsOf({ links: [BARE] } as never, catalogue as never, SITE);
const factsOf = () => {
  const { wiring, site } = full();
  return kitFacts(wiring, site, PARTS, withHorn);
};

describe("a kit out of the plan", () => {
  test("every part that the plan names is in the kit once, in the number that the plan names", () => {
    const w = end();
    const lines = kitLines(SITE, kitFacts(w, kitSiteSchema.parse({}), PARTS, mountOf), PARTS);
    const counts = new Map<string, number>();
    for (const p of w.places) if (p.partId !== null && p.kind !== "mains") counts.set(p.partId, (counts.get(p.partId) ?? 0) + 1);
    for (const [partId, count] of counts) {
      const own = lines.filter((l) => l.part?.id === partId);
      // The protector stands at the entry and on the mast: a line in each place, together the number of the plan.
      expect(
        own.reduce((s, l) => s + l.quantity, 0),
        partId,
      ).toBe(count);
      expect(new Set(own.map((l) => l.where)).size, partId).toBe(own.length);
    }
    expect(new Set(lines.map((l) => l.key)).size).toBe(lines.length);
  });

  test("every line has its reason and its row; dropping any row takes lines or quantities away", () => {
    const facts = factsOf();
    const all = kitLines(SITE, facts, PARTS);
    expect(all.filter((l) => l.why.length === 0 || l.ruleIds.length === 0)).toEqual([]);
    const told = (lines: typeof all) => JSON.stringify(lines.map((l) => [l.key, l.quantity, l.why]));
    for (const row of KIT_RULES) {
      const without = kitLines(
        SITE,
        facts,
        PARTS,
        KIT_RULES.filter((r) => r.id !== row.id),
      );
      expect(told(without), row.id).not.toBe(told(all));
    }
    expect(new Set(KIT_RULES.map((r) => r.id)).size).toBe(KIT_RULES.length);
  });

  test("cable by hand: 20 and 2 m outside with loops and 10 %, 102 m inside; plugs two a run and four to spare", () => {
    const lines = kitLines(SITE, kitFacts(end(), kitSiteSchema.parse({}), PARTS, mountOf), PARTS);
    const of = (id: string) => lines.filter((l) => l.part?.id === id).reduce((s, l) => s + l.quantity, 0);
    // 20 x 1.1 + 3 = 25; 2 x 1.1 + 1 = 3.2, begun metres 4.
    expect(of("kelp-outdoor")).toBe(25 + 4);
    // 25, 30, 35 and 12 m: each x 1.1 + 0.5, begun metres.
    expect(of("kelp-indoor")).toBe([25, 30, 35, 12].reduce((s, m) => s + Math.ceil(m * 1.1 + 0.5 - 1e-9), 0));
    expect(of("cockle-shielded")).toBe(2 * 2 + 4);
    expect(of("cockle")).toBe(4 * 2 + 4);
    expect(
      lines.find((l) => l.part?.id === "kelp-outdoor" && l.quantity === 29)?.costCents ??
        lines.filter((l) => l.part?.id === "kelp-outdoor").reduce((s, l) => s + l.costCents!, 0),
    ).toBe(29 * 62);
  });

  test("straps, saw, ladder, wall: each is found by what was told, and gone when it suits", () => {
    const ask = (kit: object, aglM = 7) => {
      const w = end();
      return plainKit(kit, {
        wiring: { ...w, places: w.places.map((p) => (p.kind === "radio" ? { ...p, aglM } : p)) },
        pickOf: (key) => ({ id: lineId("job", key), pick: null }),
      })
        .findings.map((f) => f.code)
        .filter((c) => c !== "risk");
    };
    const suits = {
      sites: { [SITE]: { poleMm: 50, wall: "brick", pullHoldN: 5000, shearHoldN: 5000 } },
      wind: { speedMS: 40 },
      sawsMm: [20],
      laddersM: [9],
    };
    expect(ask(suits)).toEqual([]);
    expect(ask({ ...suits, sites: { [SITE]: { ...suits.sites[SITE], poleMm: 89 } } })).toEqual(["strap"]);
    expect(ask({ ...suits, sawsMm: [16, 22] })).toEqual(["saw"]);
    expect(ask({ ...suits, laddersM: [6] })).toEqual(["ladder"]);
    expect(ask({ ...suits, wind: {} })).toEqual(["wind-untold"]);
    expect(ask({ ...suits, wind: { speedMS: 30, kind: "mean" } })).toEqual(["wind-untold"]);
    expect(ask({ ...suits, sites: { [SITE]: { ...suits.sites[SITE], wall: "unknown" } } })).toEqual(["wall-unknown"]);
    expect(ask({ ...suits, sites: { [SITE]: { ...suits.sites[SITE], pullHoldN: 50 } } })).toEqual(["fixing"]);
    expect(ask(suits, 22)).toEqual(["lift"]);
  });

  describe("wind on each mount", () => {
    const radioOf = (name: string, partId: string, aglM: number, linkId: string | null = null) => ({
      ...end().places.find((p) => p.kind === "radio")!,
      id: name,
      name,
      partId,
      aglM,
      linkId,
    });
    const suits = { poleMm: 50, wall: "brick", pullHoldN: 120, shearHoldN: 1000 };
    const judged = (radios: ReturnType<typeof radioOf>[], site: object = suits, mount: typeof mountOf = mountOf) =>
      judgeMounts(radios, mount, kitSiteSchema.parse(site), kitSchema.parse({ wind: { speedMS: 40 } }));
    const codes = (j: ReturnType<typeof judged>) => j.findings.map((f) => ("name" in f ? [f.code, f.name] : [f.code]));
    const small = radioOf("small", "kittiwake-panel", 7);
    const great = radioOf("great", "razorbill-grand", 5);

    test("the one that bears it worst is told, wherever it hangs; each that fails by its name", () => {
      expect(codes(judged([small]))).toEqual([]);
      expect(codes(judged([small, great]))).toEqual([["fixing", "great"]]);
      expect(judged([small, great]).wind!.name).toBe("great");
      expect(judged([great, small]).wind!.name).toBe("great");
      const open = judged([small, great], { ...suits, pullHoldN: null });
      expect(codes(open)).toEqual([["fixing", "great"]]);
    });
    test("on one pole the forces add", () => {
      const each = [small, radioOf("other", "kittiwake-panel", 7)];
      const one = judged(each, { ...suits, poles: "one" }).wind!;
      expect(one.load.faceN).toBeCloseTo(2 * judged(each).wind!.load.faceN, 6);
      expect(one.load.deadN).toBeCloseTo(2 * judged(each).wind!.load.deadN, 6);
    });
    test("a sheet that is silent is not calm air; a pole that nobody measured is not guessed", () => {
      const silent: typeof mountOf = (p) => ({ ...mountOf(p), radio: { ...mountOf(p).radio!, windAreaM2: undefined } });
      const j = judged([small], suits, silent);
      expect(j.wind).toBeNull();
      expect(j.findings).toEqual([{ code: "sheet-silent", verdict: "unknown", name: "small", silent: ["its wind area"] }]);
      const untold = judged([small], { ...suits, poleMm: null, poleAboveM: 1.5 });
      expect(untold.wind).toBeNull();
      expect(codes(untold)).toEqual([["pole-untold"]]);
    });
    test("the antenna beside a radio with connectors counts: its wind, its weight, its straps; one that nobody chose is asked for", () => {
      const bare = radioOf("bare", "kittiwake-bare", 7, "bare");
      const areaM2 = 0.031 + 0.036;
      expect(judged([bare], suits, withHorn).wind!.load.faceN).toBeCloseTo(0.5 * 1.225 * 1600 * 1.2 * areaM2, 6);
      expect(judged([bare], suits, withHorn).wind!.load.deadN).toBeCloseTo(9.81 * (1 + 1.1), 6);
      expect(codes(judged([bare], { ...suits, poleMm: 80 }, withHorn))).toEqual([
        ["strap", "bare"],
        ["strap", "Levanter Thirty of bare"],
        ["fixing", "bare"],
      ]);
      // By the far end's plan, and at a site where no plan names one, none is chosen.
      expect(judged([bare]).wind).toBeNull();
      expect(codes(judged([bare]))).toEqual([["sheet-silent", "bare"]]);
      const lines = (mount: typeof mountOf) =>
        kitLines(SITE, kitFacts({ ...end(), places: [bare], leads: [] }, kitSiteSchema.parse({}), PARTS, mount), PARTS);
      expect(lines(withHorn).find((l) => l.ruleIds.includes("antenna"))).toMatchObject({
        name: "Levanter Thirty",
        quantity: 1,
        costCents: 8900,
      });
      expect(lines(withHorn).find((l) => l.ruleIds.includes("feeder"))?.quantity).toBe(2);
      expect(lines(mountOf).some((l) => l.ruleIds.includes("antenna-unknown"))).toBe(true);
    });
  });

  test("a catalogue without plugs and glands leaves their lines as words; a cable that nobody chose is asked for by its metres", () => {
    const bare = new Map([...PARTS].filter(([, p]) => p.kind !== "plug" && p.kind !== "gland"));
    const names = (w: SiteWiring) =>
      kitLines(SITE, kitFacts(w, kitSiteSchema.parse({}), bare, mountOf), bare).map((l) => `${l.quantity} ${l.name}`);
    expect(names(end())).toEqual(
      expect.arrayContaining(["12 plug for the cable, unshielded", "8 plug for the cable, shielded", "1 gland for a hole of 20 mm"]),
    );
    const unknown: SiteWiring = { ...end(), leads: end().leads.map((l) => (l.lengthM === 20 ? { ...l, cableId: null } : l)) };
    expect(names(unknown)).toContain("25 cable, not chosen yet");
    const kit = plainKit({}, { wiring: unknown });
    expect(kit.findings.find((f) => f.code === "not-chosen")).toMatchObject({ rows: [{ name: "cable, not chosen yet" }] });
  });

  test("a row of one's own is worth its price in whole cents", () => {
    const own = [{ id: SITE, siteId: SITE, where: "tools", name: "clips", quantity: 1, priceEur: 1.005 }];
    const kit = plainKit({ own });
    expect(kit.rows.find((r) => r.own)?.costCents).toBe(101);
  });

  test("what is held of a line counts for it: enough is reserved or picked, too little asks for the rest of the stock", () => {
    const cableWith = (stock: number, pick: { state: "reserved" | "picked" | "there"; count: number } | null) => {
      const w = end();
      const cableId = w.leads.find((l) => l.cableId !== null)!.cableId!;
      const counted = new Map(PARTS).set(cableId, { ...PARTS.get(cableId)!, stock });
      const kit = plainKit(
        {},
        {
          wiring: w,
          parts: counted,
          pickOf: (id) => ({ id, pick: pick !== null && id.includes(cableId) ? { id, version: 1, ...pick } : null }),
        },
      );
      const { state, held, isBegun, left, quantity } = kit.rows.find((r) => r.part?.id === cableId)!;
      return { state, held, isBegun, left, quantity };
    };
    const asked = Math.ceil(cableWith(1000, null).quantity);
    expect(cableWith(0, { state: "reserved", count: asked })).toMatchObject({ state: "reserved", held: asked });
    expect(cableWith(0, { state: "picked", count: asked })).toMatchObject({ state: "picked" });
    // The plan grew after it was picked: the rest is asked of what is left.
    expect(cableWith(2, { state: "picked", count: asked - 2 })).toMatchObject({ state: "open", held: asked - 2, isBegun: true });
    expect(cableWith(2, { state: "reserved", count: asked - 2 })).toMatchObject({ state: "open", isBegun: false });
    expect(cableWith(1, { state: "reserved", count: asked - 2 })).toMatchObject({ state: "missing", left: 1 });
    expect(cableWith(0, { state: "there", count: 1 })).toMatchObject({ state: "there", held: 0 });
  });

  test("findings stand the worst first, and what may hurt somebody before what only lacks", () => {
    const kit = plainKit(
      { sites: { [SITE]: { poleMm: 89 } } },
      { safety: safetySchema.parse({ answers: { lightning: { state: "stop" } } }) },
    );
    expect(kit.findings[0]).toMatchObject({ code: "risk", verdict: "short" });
    const ranks = kit.findings.map((f) => ["short", "unknown", "tight"].indexOf(f.verdict));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  });

  test("stock: what is counted and too few is missing; what is picked or there is not", () => {
    const parts = new Map([...PARTS, ["limpet-60", { ...PARTS.get("limpet-60")!, stock: 0 }]]);
    const kit = (state: "picked" | "there" | null) =>
      plainKit(
        {},
        {
          parts,
          pickOf: (key) => ({
            id: key,
            pick: state === null || !key.includes("limpet-60") ? null : { id: key, version: 1, state, count: 1 },
          }),
        },
      );
    const missing = kit(null).rows.filter((r) => r.state === "missing");
    expect(missing.map((r) => r.part!.id)).toEqual(["limpet-60", "limpet-60"]);
    expect(kit("picked").rows.filter((r) => r.state === "missing")).toEqual([]);
    // What is there already costs nothing.
    expect(kit(null).materialCents - kit("there").materialCents).toBe(2 * 2400);
  });
});

test("what was picked and is no longer in the plan is told, for it is still out of stock", () => {
  const pick = (key: string, more: object = {}) => ({ id: lineId("job", key), state: "picked", count: 1, ...more });
  const line = kitLines(SITE, kitFacts(end(), kitSiteSchema.parse({}), PARTS, mountOf), PARTS)[0]!;
  const kit = plainKit({}, { pickOf: (key) => ({ id: lineId("job", key), pick: null }) });
  const beside = pickedBeside(
    [
      pick(line.key),
      pick("old line"),
      pick("kept", { state: "reserved" }),
      pick("put back", { count: 0 }),
      pick("theirs", { state: "there" }),
    ],
    [kit],
  );
  expect(beside.map((p) => p.id)).toEqual([lineId("job", "old line"), lineId("job", "kept")]);
});

test("a pole above its bracket sways: by its length and thickness, against what the plan counts with", () => {
  const of = (poleMm: number | null, poleAboveM: number, stands: Stands | null) => {
    const sites = { [SITE]: { poleMm, poleAboveM } };
    const kit = plainKit({ sites }, { stands });
    const f = kit.findings.find((x) => x.code === "sways");
    return f?.code === "sways" ? [f.verdict, f.like] : null;
  };
  expect(of(50, 1.35, null)).toEqual(["unknown", "thin pole"]);
  expect(of(50, 1.35, "wall")).toEqual(["tight", "thin pole"]);
  expect(of(50, 1.35, "stiff pole")).toEqual(["tight", "thin pole"]);
  expect(of(50, 1.35, "thin pole")).toBeNull();
  // Just as long as twenty times its thickness: stiff still.
  expect(of(50, 1, "wall")).toEqual(["tight", "stiff pole"]);
  expect(of(50, 1.01, "wall")).toEqual(["tight", "thin pole"]);
  expect(of(89, 1.35, "stiff pole")).toBeNull();
  expect(of(50, 0, null)).toBeNull();
  expect(of(null, 1.35, null)).toBeNull();
  expect(of(50, 1.35, "tree")).toBeNull();
});

test("a lesson is offered where the same thing or wall is met, by an end that has not taught it, until it is read", () => {
  const kit = plainKit();
  const elsewhere = "0d000000-0000-4000-a000-0000000000ee";
  const lesson = (more: object) => ({
    ...lessonSchema.parse({ id: crypto.randomUUID(), siteId: elsewhere, words: "w", ...more }),
    jobId: "j",
    jobName: "",
    siteName: "",
  });
  const fits = (l: ReturnType<typeof lesson>, of: object = {}) =>
    offeredLessons([l], [kit], kitSchema.parse({ sites: { [SITE]: { wall: "brick" } }, ...of })).length === 1;
  expect(fits(lesson({}))).toBe(true);
  expect(fits(lesson({ partId: "limpet-60" }))).toBe(true);
  expect(fits(lesson({ partId: "no-such-part" }))).toBe(false);
  expect(fits(lesson({ wall: "brick" }))).toBe(true);
  expect(fits(lesson({ wall: "timber" }))).toBe(false);
  expect(fits(lesson({ siteId: SITE }))).toBe(false);
  const known = lesson({});
  expect(fits(known, { lessonsRead: [known.id] })).toBe(false);
});

test("a quote names each thing once a site, neither tools nor what is there already, in words a customer knows", () => {
  const kit = plainKit(
    {},
    { pickOf: (key) => ({ id: key, pick: key.includes("switch") ? { id: key, version: 1, state: "there", count: 1 } : null }) },
  );
  const lines = quoteLines([kit]);
  const names = lines.map((l) => l.name);
  expect(new Set(names).size).toBe(names.length);
  const surges = kit.rows.filter((r) => r.part?.id === "limpet-60");
  expect(surges.length).toBe(2);
  expect(lines.find((l) => l.name === "Limpet 60, surge protector")?.quantity).toBe(surges[0]!.quantity + surges[1]!.quantity);
  for (const r of kit.rows.filter((x) => x.where === "tools" && x.costCents === null)) expect(names).not.toContain(r.name);
  for (const r of kit.rows.filter((x) => x.state === "there")) expect(names).not.toContain(r.name);
  expect(kit.rows.some((r) => r.where === "tools")).toBe(true);
});

describe("money", () => {
  test("a customer sees no margin and pays the same cents, whatever the shares", () => {
    const cents = fc.integer({ min: 0, max: 10_000_000 });
    const share = fc.integer({ min: 0, max: 3000 }).map((n) => n / 1000);
    fc.assert(
      fc.property(cents, fc.integer({ min: 0, max: 400 }), share, share, (materialCents, hours, marginShare, taxShare) => {
        const inner = quoteOf({
          materialCents,
          labourHours: hours / 4,
          labourPerHour: 52.35,
          travelKm: 7,
          travelPerKm: 0.45,
          marginShare,
          taxShare,
        });
        const seen = customerQuote(inner, marginShare);
        expect(seen).not.toHaveProperty("marginCents");
        expect(seen.materialCents + seen.labourCents + seen.travelCents).toBe(inner.netCents);
        expect(seen.totalCents).toBe(inner.totalCents);
        expect(seen.materialCents).toBeGreaterThanOrEqual(inner.materialCents);
        // One cent of rounding at most falls to the work.
        expect(seen.labourCents).toBeGreaterThanOrEqual(inner.labourCents - 1);
      }),
    );
  });

  test("what has no price counts nothing, and is named: neither tools nor what is there already", () => {
    const { rows } = plainKit();
    const { unpriced, quote } = sitesCost(kitSchema.parse({}), [plainKit()], [], true);
    const priced = rows.filter((r) => r.costCents !== null);
    expect(quote.materialCents).toBe(priced.reduce((s, r) => s + r.costCents!, 0));
    expect(unpriced).toContain("bond lead, by the local code");
    expect(unpriced).toHaveLength(new Set(rows.filter((r) => r.costCents === null && r.where !== "tools").map((r) => r.name)).size);
    const bond = rows.find((r) => r.name === "bond lead, by the local code")!;
    const there = plainKit(
      {},
      { pickOf: (id) => ({ id, pick: id === bond.pickId ? { id, version: 1, state: "there", count: 1 } : null }) },
    );
    expect(sitesCost(kitSchema.parse({}), [there], [], true).unpriced).not.toContain("bond lead, by the local code");
  });

  test("labour by task: each of one's own people counts, others' do not, nobody yet is one person", () => {
    const task = (name: string, hours: number, people: string[], siteId: string | null = SITE) =>
      taskSchema.parse({ id: crypto.randomUUID(), kind: "install", name, hours, people, siteId });
    const other = "0d000000-0000-4000-a000-0000000000ff";
    const tasks = [
      task("bench", 3.5, ["Ada"], null),
      task("office", 2, ["Ada", "Ben"]),
      task("trim", 2, ["the tree people"]),
      task("clean", 0.5, []),
      task("elsewhere", 8, ["Ada"], other),
    ];
    const hours = (sites: ReadonlySet<string> | null) => labourRows(tasks, ["Ada", "Ben"], sites).map((r) => r.hours);
    expect(hours(new Set([SITE]))).toEqual([3.5, 4, 0, 0.5]);
    expect(hours(null)).toEqual([3.5, 4, 0, 0.5, 8]);
    // A name typed in small letters is the same person.
    expect(labourRows([task("late", 2, ["ada", "BEN"])], ["Ada", "Ben"], null)[0]).toMatchObject({ hours: 4, others: [] });
    const money = { labourBy: "tasks", labourHours: 99, labourPerHour: 10 };
    const kit = kitSchema.parse({ crew: ["Ada", "Ben"], money });
    expect(sitesCost(kit, [], tasks, true)).toMatchObject({ labourHours: 16, quote: { labourCents: 16_000 } });
    expect(sitesCost(kitSchema.parse({ money: { ...money, labourBy: "hours" } }), [], tasks, true).labourHours).toBe(99);
  });

  test("sums are exact in cents, against whole numbers of ten-thousandths", () => {
    expect(amountCents(1.005, 1)).toBe(101);
    expect(amountCents(0.62, 27.5)).toBe(1705);
    expect(amountCents(0.1, 3)).toBe(30);
    expect(shareCents(999, 0.2)).toBe(200);
    expect(() => amountCents(Number.NaN, 1)).toThrow(RangeError);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000_000 }), fc.integer({ min: 0, max: 1_000_000 }), (price, quantity) => {
        // Prices of two decimals, quantities of two: exact in ten-thousandths, rounded once.
        const exact = BigInt(price) * BigInt(quantity);
        const half = (exact * 2n + 100n) / 200n;
        expect(amountCents(price / 100, quantity / 100)).toBe(Number(half));
      }),
    );
  });
  test("a quote adds up, and is paid back when it has cost less than what it replaces", () => {
    const q = quoteOf({
      materialCents: 87_512,
      labourHours: 14,
      labourPerHour: 52,
      travelKm: 38,
      travelPerKm: 0.42,
      marginShare: 0.12,
      taxShare: 0.21,
    });
    expect(q).toMatchObject({ labourCents: 72_800, travelCents: 1596, marginCents: 19_237 });
    expect(q.materialCents + q.labourCents + q.travelCents + q.marginCents).toBe(q.netCents);
    expect(q.netCents + q.taxCents).toBe(q.totalCents);
    expect(centsText(123_450)).toBe("1234.50");
    expect(centsText(-5)).toBe("−0.05");
    expect(paybackMonths(160_300, 45)).toBe(36);
    expect(paybackMonths(160_300, 0)).toBeNull();
    expect(paybackMonths(16_030_000, 45)).toBeNull();
  });
});

describe("wind on the fixings", () => {
  const base = {
    gustMS: 40,
    faces: [{ areaM2: 0.044, form: "plate" as const, weightKg: 0.8 }],
    pole: null,
    faceAboveM: 0,
    bracketsApartM: 0.6,
    standOffM: 0,
    screwsPerBracket: 2,
    pullHoldN: 1500,
    shearHoldN: 1500,
    factor: 3,
    iceMm: null,
  };
  test("by hand: 40 m/s on 0.044 m² and a pole of 50 mm by 1.6 m", () => {
    const q = 0.5 * 1.225 * 1600;
    const face = q * 1.2 * 0.044;
    const pole = q * 1.2 * 0.05 * 1.6;
    const load = fixingLoad({ ...base, pole: { diameterMm: 50, lengthM: 1.6, weightKg: 0 }, faceAboveM: 1.6 });
    expect(load.faceN).toBeCloseTo(face, 6);
    expect(load.poleN).toBeCloseTo(pole, 6);
    expect(load.faceN + load.poleN).toBeCloseTo(146, 0);
    expect(load.momentNm).toBeCloseTo(face * 1.6 + pole * 0.8, 6);
    expect(load.pullN).toBeCloseTo(face + pole + load.momentNm / 0.6, 6);
    expect(load.asksPullN).toBeCloseTo((load.pullN / 2) * 3, 6);
    expect(load.verdict).toBe("clear");
  });
  test("weight on an arm pries, ice adds both, and nothing is clear without a hold that somebody stated", () => {
    const pried = fixingLoad({ ...base, standOffM: 0.3 });
    expect(pried.pullN - fixingLoad(base).pullN).toBeCloseTo((0.8 * 9.81 * 0.3) / 0.6, 6);
    expect(fixingLoad({ ...base, iceMm: 20 }).faceN).toBeGreaterThan(fixingLoad(base).faceN);
    expect(fixingLoad({ ...base, iceMm: 20 }).deadN).toBeGreaterThan(fixingLoad(base).deadN);
    expect(fixingLoad({ ...base, pullHoldN: null }).verdict).toBe("unknown");
    expect(fixingLoad({ ...base, pullHoldN: 10, shearHoldN: null }).verdict).toBe("short");
    expect(() => fixingLoad({ ...base, bracketsApartM: 0 })).toThrow(RangeError);
    expect(gustOfMean(25, 1.5)).toBeCloseTo(37.5, 9);
    expect(() => gustOfMean(25, 0.5)).toThrow(RangeError);
  });
  test("a ladder goes a metre beyond where one steps off, at 75°", () => {
    expect(ladderM(6)).toBeCloseTo(7 / Math.sin((75 * Math.PI) / 180), 9);
    expect(ladderFor(6)).toBe(8);
    expect(ladderFor(8.5)).toBe(10);
    expect(ladderFor(12)).toBeNull();
  });
});

describe("the risk screen", () => {
  const facts: Parameters<typeof judgeScreen>[1] = {
    mountAglM: 7,
    lineM: null,
    reachM: 8,
    approachM: 3,
    workers: ["Ada", "Ben"],
    harness: false,
    rescue: "",
  };
  const answer = (state: RiskAnswer["state"], more: Partial<RiskAnswer> = {}): RiskAnswer => ({
    state,
    note: "",
    competent: "",
    lifted: false,
    ...more,
  });
  const of = (answers: Partial<Record<(typeof RISKS)[number], RiskAnswer>>, risk: (typeof RISKS)[number], f = facts) =>
    judgeScreen(answers, f).find((r) => r.risk === risk)!;

  test("what nobody answered is open; an answer settles it", () => {
    expect(judgeScreen({}, facts).every((r) => r.verdict === "unknown")).toBe(true);
    expect(of({ road: answer("none") }, "road").verdict).toBe("clear");
    expect(of({ mains: answer("help") }, "mains").verdict).toBe("tight");
    expect(of({ mains: answer("help", { competent: "the electrician" }) }, "mains").verdict).toBe("clear");
  });
  test("a stop is lifted by somebody competent who does not do the work; never by the one who does", () => {
    expect(of({ height: answer("stop") }, "height")).toMatchObject({ verdict: "short", reason: "stop" });
    expect(of({ height: answer("stop", { lifted: true }) }, "height")).toMatchObject({ verdict: "short" });
    expect(of({ height: answer("stop", { lifted: true, competent: "ada " }) }, "height")).toMatchObject({
      verdict: "short",
      reason: "self-lifted",
    });
    expect(of({ height: answer("stop", { lifted: true, competent: "Carol" }) }, "height")).toMatchObject({
      verdict: "tight",
      reason: "lifted",
    });
  });
  test("a line nearer than what is raised and the approach distance stops, whatever was answered", () => {
    const lifted = { lines: answer("stop", { lifted: true, competent: "Carol" }) };
    expect(of(lifted, "lines", { ...facts, lineM: 10.9 })).toMatchObject({ verdict: "short", reason: "line-near" });
    expect(of({ lines: answer("do") }, "lines", { ...facts, lineM: 11 })).toMatchObject({ verdict: "clear" });
    expect(of({ lines: answer("do") }, "lines", { ...facts, lineM: 20, approachM: null })).toMatchObject({ verdict: "unknown" });
  });
  test("a stop is not lifted while nobody is named who does the work", () => {
    const lifted = { height: answer("stop", { lifted: true, competent: "Carol" }) };
    expect(of(lifted, "height", { ...facts, workers: [] })).toMatchObject({ verdict: "short", reason: "nobody-named" });
  });
  test("lines that are there are measured; none here needs no distance", () => {
    for (const state of ["do", "help"] as const)
      expect(of({ lines: answer(state, { competent: "Carol" }) }, "lines")).toMatchObject({
        verdict: "unknown",
        reason: "line-unmeasured",
      });
    expect(of({ lines: answer("none") }, "lines").verdict).toBe("clear");
  });
  test("where a harness is worn, how somebody is brought down is written before the height is settled", () => {
    const high = { ...facts, harness: true };
    expect(of({ height: answer("do") }, "height", high)).toMatchObject({ verdict: "unknown", reason: "no-rescue" });
    expect(of({ height: answer("do") }, "height", { ...high, rescue: "lift on site" }).verdict).toBe("clear");
    expect(of({ height: answer("do") }, "height").verdict).toBe("clear");
  });
  test("one person alone is told so, whatever is ticked", () => {
    expect(of({ alone: answer("none") }, "alone", { ...facts, workers: ["Ada"] })).toMatchObject({
      verdict: "short",
      reason: "one-person",
    });
    expect(of({ alone: answer("none") }, "alone").verdict).toBe("clear");
  });
  test("no answers of any kind make a stop clear", () => {
    const state = fc.constantFrom<RiskAnswer["state"]>("open", "none", "do", "help", "stop");
    fc.assert(
      fc.property(fc.constantFrom(...RISKS), state, fc.boolean(), fc.constantFrom("", "Ada", "Carol"), (risk, s, lifted, competent) => {
        const judged = of({ [risk]: answer(s, { lifted, competent }) }, risk);
        if (s === "stop") expect(judged.verdict).not.toBe("clear");
        if (s === "open") expect(judged.verdict).toBe("unknown");
      }),
    );
  });
});

test("a line's record has one name everywhere, of the form of a UUID, and no two lines of a large kit share it", () => {
  const ids = new Set(Array.from({ length: 20_000 }, (_, i) => lineId(SITE, `site|mast|part-${i}`)));
  expect(ids.size).toBe(20_000);
  for (const id of [...ids].slice(0, 50)) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-a[0-9a-f]{3}-[0-9a-f]{12}$/);
  expect(lineId(SITE, "x")).toBe(lineId(SITE, "x"));
});
