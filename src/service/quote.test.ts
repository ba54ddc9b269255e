/* The quote of a job: its sums to the cent, and every letter of it on paper as another reader reads it (poppler); on a real PostgreSQL. */
import { execFileSync } from "node:child_process";
import { eq } from "drizzle-orm";
import { expect, test } from "vitest";
import type { KitDto } from "../contract";
import { getJob, linksOf, sitesOf } from "../data/jobs";
import { edit, listRecords } from "../data/records";
import { job } from "../data/schema";
import { testDb } from "../data/testing/db";
import { createJob } from "../data/testing/edits";
import { pagesPdf } from "../formats/pdf/page-pdf";
import { type QuoteSheet, quotePages } from "../pack/quote-pages";
import { kitVerdict } from "./kit-verdict";
import { quoteOfJob } from "./quote";

const db = testDb();
const DAY = "2026-11-28";

const textOf = (pdf: Buffer): string => execFileSync("pdftotext", ["-layout", "-enc", "UTF-8", "-", "-"], { input: pdf, encoding: "utf8" });
const quotePdf = (q: QuoteSheet, paper: "a4" | "letter" = "a4"): Promise<Buffer> =>
  pagesPdf(quotePages(q, paper), { title: `Quote, ${q.of}`, language: "en" });
const words = (text: string): string => text.replace(/\s+/g, " ");

const demo = async () => {
  const [row] = await db.select().from(job).where(eq(job.name, "Merrow Harbour Trust"));
  const [sites, links] = [await sitesOf(db, row!.id), await linksOf(db, row!.id)];
  const rope = sites.find((s) => s.name === "Rope Walk")!;
  return { row: await getJob(db, row!.id), linkId: links.find((l) => l.farSiteId === rope.id)!.id };
};

test("the sums are whole cents, paper and table say the same, and neither price nor margin stands in them", async () => {
  const { row, linkId } = await demo();
  const { sheet, csv } = await quoteOfJob(db, row, { linkId: linkId, units: "metric" });
  const cents = (name: string): number => Math.round(Number(sheet.sums.find((s) => s.name.startsWith(name))!.amount.split(" ")[0]) * 100);
  expect(cents("Material") + cents("Work") + cents("Way")).toBe(cents("Together"));
  expect(cents("Together") + cents("Tax")).toBe(cents("To pay"));
  expect(csv).toContain(`,To pay,,,${(cents("To pay") / 100).toFixed(2)},€`);
  // 14 hours at 52 with ten parts in a hundred on top.
  expect(cents("Work")).toBe(80_080);
  const text = words(textOf(await quotePdf(sheet)));
  for (const s of sheet.sums) expect(text).toContain(`${s.name} ${s.amount}`);
  for (const of of sheet.sections) for (const r of of.rows) expect(text).toContain(words(`${r.quantity} ${r.name}`));
  expect(text).toContain("1 of 2");
  for (const said of [text, csv]) {
    expect(said).not.toMatch(/margin/i);
    // What a panel costs the firm.
    expect(said).not.toContain("129.00");
  }
  const feet = await quoteOfJob(db, row, { linkId: linkId, units: "imperial" });
  expect(feet.sheet.sections.flatMap((s) => s.rows).some((r) => r.quantity.endsWith(" ft"))).toBe(true);
});

test("of the whole job every wired site stands once; work is by its tasks when that is chosen; a job without any has sums of nought", async () => {
  const { row } = await demo();
  const { sheet } = await quoteOfJob(db, row, { linkId: null, units: "metric" });
  const names = sheet.sections.map((s) => s.name);
  expect(names.length).toBeGreaterThan(5);
  expect(new Set(names).size).toBe(names.length);
  const [kit] = (await listRecords(db, row.id, "kit")) as unknown as KitDto[];
  const changed = await edit(db, row.id, (door) =>
    door.patch("kit", row.id, kit!.version, { money: { ...kit!.money, labourBy: "tasks" } }),
  );
  const byTask = (await quoteOfJob(db, row, { linkId: null, units: "metric" })).sheet;
  await edit(db, row.id, (door) => door.patch("kit", row.id, changed.version, { money: kit!.money }));
  expect(byTask.labour).toContainEqual({ quantity: "4 h", name: "Office" });
  expect(byTask.labour.map((t) => t.name)).not.toContain("trim");
  const bare = await createJob(db, "Bare");
  const none = await quoteOfJob(db, bare, { linkId: null, units: "metric" });
  expect(none.sheet.sections).toEqual([]);
  expect(none.sheet.sums.at(-1)).toMatchObject({ name: "To pay", amount: "0.00 €" });
  await expect(quoteOfJob(db, bare, { linkId: bare.id, units: "metric" })).rejects.toMatchObject({ entity: "link" });
});

test("what the kit comes to is told to every sheet: short where a stop stands, nothing where nothing is wired", async () => {
  const { row, linkId } = await demo();
  expect(await kitVerdict(db, row, linkId)).toBe("short");
  expect(await kitVerdict(db, row, null)).toBe("short");
  const bare = await createJob(db, "Bare kit");
  expect(await kitVerdict(db, bare, null)).toBeNull();
  await expect(kitVerdict(db, bare, linkId)).rejects.toMatchObject({ entity: "link" });
});

test("every sign that the program writes is read back from the paper; a letter without a typeface is a box, never another letter", async () => {
  const signs = "€ × ÷ ± − – … ° ′ ″ µ Ω λ α β Δ π ² ³ ½ ≤ ≥ ≈ → ← ↑ ↓ ∞ § ¹ ‰ é ß å ł ş ž Ø";
  const sheet: QuoteSheet = {
    job: signs,
    place: "",
    of: "A to B",
    to: "界 Ж",
    day: DAY,
    validUntil: null,
    sections: [{ name: "Long", rows: Array.from({ length: 90 }, (_, i) => ({ quantity: `${i}`, name: `row ${i} =cmd()` })) }],
    labour: [],
    sums: [],
    terms: "line one\nline two",
    notes: [],
  };
  const text = textOf(await quotePdf(sheet, "letter"));
  // Two letters of different typefaces stand as close as the reader pleases.
  const close = text.replace(/\s+/g, "");
  expect(close).toContain(signs.replaceAll(" ", ""));
  expect(close).toContain("□Ж");
  for (let i = 0; i < 90; i++) expect(text).toContain(`row ${i} =cmd()`);
  expect(text).toContain("3 of 3");
});
