import { expect, test } from "vitest";
import type { PackEnd, PackFacts, PackLink } from "../contract";
import { type Mark, PT_PER_MM } from "../core/page";
import { packPages, packTold } from ".";
import { curveBlock, poleScale } from "./aim-figures";
import { worstOf } from "./cover";
import { contentBox, flowing } from "./frame";
import { orderOf } from "./order";
import { niceStep } from "./section-figure";

const end = (name: string, beamwidthDeg: number | null): PackEnd =>
  ({
    name,
    level: { dbm: -58, lowDbm: -61, highDbm: -55, leastDbm: -88 },
    azimuth:
      beamwidthDeg === null
        ? null
        : { axis: "azimuth", beamwidthDeg, stepDeg: 1, rows: [], firstNullDeg: 20, falsePeakDeg: 30, falsePeakDbm: -79 },
  }) as unknown as PackEnd;
const link = (waits: readonly (number | null)[]): PackLink =>
  ({
    result: {
      service: {
        toFar: { regulation: { status: "allowed", radarWaitS: waits[0] } },
        toNear: { regulation: { status: "allowed", radarWaitS: waits[1] } },
      },
    },
  }) as unknown as PackLink;
const rowsOf = (l: PackLink, e: PackEnd): string[] => orderOf(l, e, end("B", 19)).map((r) => ("lock" in r ? `LOCK ${r.lock}` : r.step));
const place = (rows: readonly string[], words: RegExp): number => rows.findIndex((r) => words.test(r));

test.each([2.4, 19, null])("never power before bond, never tight before the peak, both ends read last (beam %s)", (beam) => {
  const rows = rowsOf(link([null, null]), end("A", beam));
  const order = [
    /Risk screen/,
    /bonded by whoever/,
    /^LOCK Nothing is powered/,
    /^Power on/,
    /^LOCK Nothing is tightened/,
    /^Tighten/,
    /^LOCK Both ends are read/,
  ].map((w) => place(rows, w));
  expect(order.every((at) => at >= 0)).toBe(true);
  expect([...order].sort((a, b) => a - b)).toEqual(order);
  expect(rows.some((r) => r.includes("only the adjusting screw"))).toBe(beam === 2.4);
  expect(rows.some((r) => r.includes("not found by turning"))).toBe(beam === null);
});

test.each([
  [[null, null], "The radio starts."],
  [[60, null], "listens 60 s for radar"],
  [[60, 600], "listens 10 minutes for radar"],
] as const)("the longer radar wait of both ends is told: %j", (waits, words) =>
  expect(rowsOf(link(waits), end("A", 19)).join(" ")).toContain(words),
);

test("where the plan's level lies under what the radio needs, the order of work says so before anybody climbs", () => {
  const weak = { ...end("A", 6), level: { dbm: -96, lowDbm: -100, highDbm: -93, leastDbm: -93 } };
  const rows = rowsOf(link([null, null]), weak);
  expect(rows.some((r) => r.includes("under what the radio needs (−93 dBm)"))).toBe(true);
  expect(rows.some((r) => r.includes("is a false one"))).toBe(true);
  const weaker = { ...weak, azimuth: { ...weak.azimuth!, falsePeakDbm: -117 } };
  expect(rowsOf(link([null, null]), weaker).some((r) => r.includes("is a false one"))).toBe(false);
  expect(rowsOf(link([null, null]), end("A", 19)).some((r) => r.includes("under what the radio needs"))).toBe(false);
});

test("level against turn stays within its panel, also where the level lies under what the radio needs", () => {
  for (const dbm of [-10, -58, -90, -96, -130])
    for (const leastDbm of [-98, -88, -70]) {
      const of = {
        ...end("A", 6),
        level: { dbm, lowDbm: dbm - 4, highDbm: dbm + 4, leastDbm },
        curve: Array.from({ length: 41 }, (_, i) => ({ offDeg: i - 20, dbm: dbm - Math.min(45, (i - 20) ** 2 / 4) })),
      };
      const box = { x: 100, y: 200, width: 200, height: 150 };
      const { marks } = curveBlock(of, { ...of.azimuth!, falsePeakDbm: dbm - 21 }, box);
      for (const m of marks) {
        const ys = m.kind === "text" ? [m.y] : [...m.d.matchAll(/[ML]([\d.-]+) ([\d.-]+)/g)].map((x) => Number(x[2]));
        for (const y of ys) {
          expect(y, `${dbm} ${leastDbm} ${m.kind === "text" ? m.text : m.kind}`).toBeGreaterThanOrEqual(box.y - 12);
          expect(y).toBeLessThanOrEqual(box.y + box.height);
        }
      }
    }
});

test("a link that has no pages is not clear: the word is Unknown, and why stands on the page and beside it", () => {
  const facts = {
    job: { name: "J", visitOn: "2026-12-03" },
    contact: "",
    madeAt: "2026-12-02 08:00",
    links: [],
    without: [{ name: "A to B", code: "hardware-missing" }],
  } as unknown as PackFacts;
  expect(packTold(facts, "installer", { units: "metric" })).toEqual({
    verdict: "unknown",
    points: [{ verdict: "unknown", words: "A to B: no pages, radio not in the catalogue." }],
  });
  const [page] = packPages(facts, "installer", { paper: "a4", units: "metric", address: null });
  const words = page!.blocks.flatMap((b) => b.marks).flatMap((m) => (m.kind === "text" ? [m.text] : []));
  expect(words).toContain("Unknown");
  expect(words.join(" ")).toContain("A to B: no pages, radio not in the catalogue.");
  // What is not known is worse than what is tight, as on the section.
  expect(worstOf(["clear", "tight", "unknown"])).toBe("unknown");
  expect(worstOf(["tight", "short", "unknown"])).toBe("short");
  expect(worstOf(["clear", "tight"])).toBe("tight");
  expect(packTold({ ...facts, without: [] }, "installer", { units: "metric" }).verdict).toBeNull();
});

const xOf = (marks: readonly Mark[], words: string): number => {
  const found = marks.find((m) => m.kind === "text" && m.text === words);
  if (found?.kind !== "text") throw new Error(`no ${words}`);
  return found.x;
};

test("on the scale for a pole of 60 mm ten degrees are 5.24 mm long in print", () => {
  const { block } = poleScale(60, 30, 100, 530);
  const tens = block.marks.filter((m) => m.kind === "text" && m.text === "10");
  const right = Math.max(...tens.map((m) => (m.kind === "text" ? m.x : 0)));
  expect((right - xOf(block.marks, "0")) / PT_PER_MM).toBeCloseTo((Math.PI * 60 * 10) / 360, 2);
  // The line to check the print by.
  expect(block.marks.some((m) => m.kind === "path" && m.d === `M30 146L${Math.round((30 + 100 * PT_PER_MM) * 100) / 100} 146`)).toBe(true);
});

test("a column goes on over pages; wherever a page ends, no heading is left alone at its foot", () => {
  const box = contentBox("a4");
  for (let gap = 1; gap < 60; gap++) {
    const flow = flowing("a4");
    flow.put(gap, () => ({ role: "Artifact", marks: [] }));
    for (let i = 0; i < 30; i++) {
      flow.heading(`Part ${i}`);
      flow.words("Words that fill a line or so of the page. ".repeat(1 + (i % 4)));
    }
    expect(flow.pages.length).toBeGreaterThan(1);
    for (const page of flow.pages) {
      const told = page.filter((b) => b.marks.some((m) => m.kind === "text"));
      expect(told.at(-1)!.role).toBe("P");
      for (const m of told.flatMap((b) => b.marks)) if (m.kind === "text") expect(m.y).toBeLessThan(box.y + box.height);
    }
  }
});

test.each([
  [0.9, 4, 0.5],
  [430, 6, 100],
  [19_000, 6, 5000],
  [1, 1, 1],
])("a span of %d in at most %d steps goes by %d", (span, most, step) => expect(niceStep(span, most)).toBe(step));
