/* What the kit's page says: every finding, risk and clash in a whole sentence, in both units; a table without prices. */
import { describe, expect, test } from "vitest";
import { type KitFinding, type KitRow, kitSchema } from "@/contract";
import type { DayClash } from "@/core/days";
import { type JudgedRisk, RISKS } from "@/core/kit";
import { findingText, quantityText, RISK_CAUTION, RISK_WORDS, riskText } from "../../wording/kit";
import { clashText } from "./days-words";
import { kitCsv } from "./kit-csv";
import type { OpenKit } from "./use-open-kit";

const row = (more: Partial<KitRow> = {}): KitRow => ({
  key: "s|mast|limpet|",
  siteId: "s",
  where: "mast",
  name: "Limpet 60",
  part: null,
  quantity: 2,
  unit: "",
  why: ["surge at the entry of the wiring"],
  ruleIds: ["unit"],
  held: 0,
  isBegun: false,
  costCents: 4800,
  pickId: "p",
  state: "missing",
  stock: 0,
  left: 0,
  own: false,
  ...more,
});
const load = {
  faceN: 52,
  poleN: 90,
  momentNm: 140,
  deadN: 20,
  pullN: 388,
  pullPerScrewN: 194,
  shearPerScrewN: 180,
  asksPullN: 582,
  asksShearN: 540,
  verdict: "short" as const,
};
const risk = (reason: JudgedRisk["reason"], verdict: JudgedRisk["verdict"] = "short"): JudgedRisk => ({
  risk: "height",
  state: "stop",
  verdict,
  reason,
});
const FINDINGS: readonly KitFinding[] = [
  { code: "missing", verdict: "short", rows: [row()] },
  { code: "missing", verdict: "short", rows: [row(), row({ name: "Thrift 8" })] },
  { code: "not-chosen", verdict: "unknown", rows: [row()] },
  { code: "strap", verdict: "short", name: "Harbour radio", poleMm: 89, low: 25, high: 60 },
  { code: "saw", verdict: "short", holeMm: 25, sawsMm: [22, 16] },
  { code: "ladder", verdict: "short", asksM: 8.8, longestM: 6 },
  { code: "lift", verdict: "tight", name: "Harbour radio", aglM: 22 },
  { code: "fixing", verdict: "short", name: "Harbour radio", load },
  { code: "fixing", verdict: "unknown", name: "Harbour radio", load: { ...load, verdict: "unknown" } },
  { code: "wind-untold", verdict: "unknown" },
  { code: "wall-unknown", verdict: "unknown" },
  { code: "pole-untold", verdict: "unknown" },
  { code: "sways", verdict: "unknown", stands: null, like: "thin pole", aboveM: 1.35 },
  { code: "sways", verdict: "tight", stands: "wall", like: "stiff pole", aboveM: 0.5 },
  { code: "risk", verdict: "short", risk: risk("stop") },
];

describe("what is said of a kit", () => {
  test.each(FINDINGS.map((f, i) => [f.code, i] as const))("%s (%i) is a whole sentence, in metres and feet", (_code, i) => {
    for (const units of ["metric", "imperial"] as const) {
      const text = findingText(FINDINGS[i]!, units, () => "Carol");
      expect(text).toMatch(/^[A-Z].*[.?]$/);
      expect(text).not.toMatch(/undefined|NaN|null|\[object/);
    }
  });
  test("lengths are told in the reader's unit, saws in order, figures as they are asked", () => {
    expect(findingText(FINDINGS[5]!, "metric", () => "")).toContain("8.8");
    expect(findingText(FINDINGS[5]!, "imperial", () => "")).toContain("28.9");
    expect(findingText(FINDINGS[4]!, "metric", () => "")).toBe("The gland needs a hole of 25 mm; the saws on the van make 16, 22 mm.");
    expect(findingText(FINDINGS[7]!, "metric", () => "")).toContain("582 N of pull");
    expect(quantityText({ quantity: 145, unit: "m" }, "metric")).toMatch(/^145\s?m$/);
    expect(quantityText({ quantity: 10, unit: "m" }, "imperial")).toMatch(/^33\s?ft$/);
    expect([
      quantityText({ quantity: 2, unit: "" }, "metric"),
      quantityText({ quantity: 1.5, unit: "" }, "metric"),
      quantityText({ quantity: 2, unit: "rolls" }, "metric"),
    ]).toEqual(["2", "1.5", "2 rolls"]);
  });
  test("each risk has a name and a caution; each state of one its own words", () => {
    for (const r of RISKS) {
      expect(RISK_WORDS[r]).toMatch(/^[A-Z]/);
      expect(RISK_CAUTION[r]).toMatch(/\.$/);
    }
    const said = (["open", "line-near", "line-untold", "one-person", "self-lifted", "lifted", "stop"] as const).map((reason) =>
      riskText(risk(reason), "Carol"),
    );
    expect(new Set(said).size).toBe(said.length);
    // Only what is lifted may be taken for done.
    for (const text of said.filter((t) => t.startsWith("stop") && !t.includes("lifted by"))) expect(text).not.toContain("do it");
    expect(riskText({ risk: "road", state: "none", verdict: "clear", reason: "answered" }, "")).toBe("none here");
    expect(riskText({ risk: "road", state: "help", verdict: "tight", reason: "answered" }, "")).toBe("help: nobody named yet");
  });
});

test("every clash of the days names its task, and what it meets", () => {
  const tasks = [
    { id: "a", name: "Office" },
    { id: "b", name: "Rope Walk" },
  ] as never;
  const closure = { siteId: null, day: "2026-12-04", fromMin: 720, toMin: 900, kind: "closed" as const, why: "ship alongside" };
  const clashes: readonly DayClash[] = [
    { code: "no-day", taskId: "a", verdict: "unknown" },
    { code: "nobody", taskId: "a", verdict: "unknown" },
    { code: "waiting", taskId: "a", verdict: "unknown", permission: "tree-owner" },
    { code: "before", taskId: "a", verdict: "short", other: "b" },
    { code: "gone", taskId: "a", verdict: "tight" },
    { code: "round", taskId: "a", verdict: "short" },
    { code: "twice", taskId: "a", verdict: "short", other: "b", person: "Ada" },
    { code: "dark", taskId: "a", verdict: "short", light: { riseMin: 468, setMin: 987 } },
    { code: "closed", taskId: "a", verdict: "short", closure },
    { code: "no-water", taskId: "a", verdict: "short" },
  ];
  const said = clashes.map((c) => clashText(c, tasks));
  for (const text of said) expect(text).toMatch(/Office.*[.?]$/);
  expect(new Set(said).size).toBe(said.length);
  expect(said[7]).toContain("07:48 to 16:27");
  expect(said[8]).toContain("12:00 to 15:00, ship alongside");
  expect(clashText({ code: "before", taskId: "a", verdict: "short", other: "x" }, tasks)).toContain("a task that is gone");
});

test("the table holds every line with its reason, and not a single price where none is to be seen", () => {
  const open = {
    job: { sites: [{ id: "s", name: "Rope Walk" }] },
    sites: [
      {
        siteId: "s",
        rows: [row({ name: 'a "gland", M25' }), row({ costCents: null, state: "picked", unit: "m", quantity: 12.5, stock: null })],
      },
    ],
    fields: kitSchema.parse({}),
  } as unknown as OpenKit;
  const lines = kitCsv(open).trim().split("\r\n");
  expect(lines).toHaveLength(3);
  expect(lines[1]).toBe('Rope Walk,on the mast,"a ""gland"", M25",2,pieces,missing,0,surge at the entry of the wiring,48.00,€');
  expect(lines[2]).toBe("Rope Walk,on the mast,Limpet 60,12.5,m,picked,,surge at the entry of the wiring,,");
  expect(kitCsv(open, false)).not.toMatch(/48|€|cost/);
});
