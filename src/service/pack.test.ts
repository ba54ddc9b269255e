/* The pack as another reader reads it (poppler), over the demo job on a real PostgreSQL. */
import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { eq } from "drizzle-orm";
import { expect, test } from "vitest";
import type { PackFor } from "../contract";
import { destination } from "../core/geo";
import { type Page, textWidthPt } from "../core/page";
import { NotFound } from "../data/clash";
import { getJob, linksOf, sitesOf } from "../data/jobs";
import { createLink } from "../data/links";
import { edit, listRecords } from "../data/records";
import { job } from "../data/schema";
import { testDb } from "../data/testing/db";
import { create, createJob, plainDesign } from "../data/testing/edits";
import { pagesPdf } from "../formats/pdf/page-pdf";
import { hardwareDto } from "./dto";
import { type PackAsk, pagesOfPack } from "./pack";
import { packFacts } from "./pack-facts";

const db = testDb();
const read = (tool: string, args: string[], pdf: Buffer): string => execFileSync(tool, args, { input: pdf, encoding: "utf8" });
const textOf = (pdf: Buffer): string => read("pdftotext", ["-layout", "-enc", "UTF-8", "-", "-"], pdf).replace(/\s+/g, " ");
const infoOf = (pdf: Buffer): string => read("pdfinfo", ["-"], pdf);
const printed = (pages: readonly Page[]): Promise<Buffer> => pagesPdf(pages, { title: "a pack", language: "en" });

const demo = async () => {
  const [row] = await db.select().from(job).where(eq(job.name, "Merrow Harbour Trust"));
  const [sites, links] = [await sitesOf(db, row!.id), await linksOf(db, row!.id)];
  const rope = sites.find((s) => s.name === "Rope Walk")!;
  return { row: await getJob(db, row!.id), rope, linkId: links.find((l) => l.farSiteId === rope.id)!.id, links };
};
const ask = (linkId: string | null, isFor: PackFor = "installer", more: Partial<PackAsk> = {}): PackAsk => ({
  linkId,
  isFor,
  paper: "a4",
  units: "metric",
  address: null,
  ...more,
});

/** All words of a page lie within its frame, as wide as they are set. */
const expectOnPaper = (pages: readonly Page[]): void => {
  const frame = 30;
  const off: string[] = [];
  for (const page of pages)
    for (const block of page.blocks)
      for (const mark of [...block.marks, ...(block.rows ?? []).flat(2)]) {
        if (mark.kind !== "text") continue;
        const width = textWidthPt(mark.text, mark.sizePt, mark.face);
        const left = mark.anchor === "start" ? mark.x : mark.anchor === "end" ? mark.x - width : mark.x - width / 2;
        const within = left >= frame && left + width <= page.widthPt - frame && mark.y >= frame && mark.y <= page.heightPt - frame;
        if (!within) off.push(`${page.name}: ${mark.text}`);
      }
  expect(off).toEqual([]);
};

test.each(["a4", "letter"] as const)(
  "the pack of a pair on %s: who, look along, tilt, read, the order with its locks, in a tagged file",
  async (paper) => {
    const { row, linkId } = await demo();
    const pages = await pagesOfPack(db, row, ask(linkId, "installer", { paper, units: paper === "a4" ? "metric" : "imperial" }));
    expectOnPaper(pages);
    const pdf = await printed(pages);
    if (process.env.PACK_OUT !== undefined) writeFileSync(`${process.env.PACK_OUT}-${paper}.pdf`, pdf);
    const info = infoOf(pdf);
    expect(info).toMatch(/Tagged:\s+yes/);
    expect(info).toMatch(/Title:\s+a pack/);
    expect(info).toMatch(paper === "a4" ? /595.28 x 841.89 pts \(A4\)/ : /612 x 792 pts \(letter\)/);
    expect(info).toMatch(new RegExp(`Pages:\\s+${pages.length}\\b`));
    // Headings, tables and figures are there for who has it read aloud; a figure says in words what it shows.
    const marked = read("pdfinfo", ["-struct-text", "-"], pdf);
    for (const tag of ["H1", "H2", "Table", "TR", "TD", "Figure"]) expect(marked).toContain(tag);
    expect(read("pdfinfo", ["-struct", "-"], pdf)).toMatch(/Figure/);
    const text = textOf(pdf);
    const facts = await packFacts(db, row, linkId);
    for (const end of facts.links[0]!.ends) {
      const magnetic = ((end.bearingDeg - end.declinationDeg + 360) % 360).toFixed(1).padStart(5, "0");
      expect(text).toContain(`${magnetic}°`);
      expect(text).toContain(String(Math.round(end.level!.dbm)).replace("-", "−"));
      expect(text).toContain(
        `A peak of ${String(Math.round(end.azimuth!.falsePeakDbm!)).replace("-", "−")} is a false one, ${end.azimuth!.falsePeakDeg!.toFixed(1)}° off.`,
      );
    }
    expect(text).toContain("Locked: Nothing is powered before the bond is made and checked");
    expect(text).toContain("Locked: Nothing is tightened before the peak is found");
    expect(text).toContain("An aid, not a permit");
    // No letter was put in place of another.
    expect(text).not.toContain("\ufffd");
  },
);

test("the cover's word is the worst of what is open, and its first line says what", async () => {
  const { row, linkId } = await demo();
  const text = textOf(await printed((await pagesOfPack(db, row, ask(linkId))).slice(0, 1)));
  expect(text).toContain("Short Harbour Office to Rope Walk; 430.1 m");
  expect(text).toContain("Poplar row stands 1.8 m into the zone");
});

test("a code is printed only where a phone can come by it", async () => {
  const { row, linkId } = await demo();
  const without = await pagesOfPack(db, row, ask(linkId));
  expect(textOf(await printed(without))).toContain("No address is known at which a phone reaches this server");
  const address = "https://dryarc.local:4650/jobs/x/survey";
  const withCode = await pagesOfPack(db, row, ask(linkId, "installer", { address }));
  const text = textOf(await printed(withCode));
  expect(text).toContain(address);
  expect(text).not.toContain("No address is known");
  const figure = withCode.flatMap((p) => p.blocks).find((b) => b.alt?.includes("QR code"))!;
  expect(figure.marks[0]).toMatchObject({ kind: "path", fill: "ink" });
});

test("the customer's pages hold neither kit nor wiring nor addresses; the permission's hold what a regulator asks", async () => {
  const { row, linkId } = await demo();
  const customer = textOf(await printed(await pagesOfPack(db, row, ask(linkId, "customer"))));
  expect(customer).toContain("Rope Walk");
  for (const own of ["Kit for this end", "Addresses", "192.168.", "Wiring", "Order of work"]) expect(customer).not.toContain(own);
  const permission = textOf(await printed(await pagesOfPack(db, row, ask(linkId, "permission"))));
  const [facts] = (await packFacts(db, row, linkId)).links;
  expect(permission).toContain(`${facts!.ends[0].position.latDeg.toFixed(4).slice(0, 6)}`);
  expect(permission).toContain("EIRP");
  // Nought is no distance to keep: the limit is kept everywhere, or there is a figure, rounded up.
  expect(permission).not.toMatch(/\b0\.0 m\b/);
  expect(permission).toMatch(/Keep off, by ICNIRP 2020 (kept everywhere in front|\d+\.\d m in front)/);
  expect(permission).toContain(
    `${(facts!.plan.centreMhz - facts!.plan.widthMhz / 2).toFixed(0)} to ${(facts!.plan.centreMhz + facts!.plan.widthMhz / 2).toFixed(0)} MHz`,
  );
  expect(permission).not.toContain("192.168.");
});

test("the whole job: every link has its pages, the first page names the worst; no price and no secret in any of it", async () => {
  const { row, links } = await demo();
  const before = performance.now();
  const pages = await pagesOfPack(db, row, ask(null));
  const pdf = await printed(pages);
  const tookMs = performance.now() - before;
  expectOnPaper(pages);
  const text = textOf(pdf);
  expect(text).toContain(`${links.length} links. The word is the worst of them.`);
  expect(pages.filter((p) => p.name === "A, 1 of 4" || p.name.startsWith("A, 1 of"))).toHaveLength(links.length);
  expect(text).not.toMatch(/€|\bEUR\b/);
  if (process.env.PACK_OUT !== undefined) process.stdout.write(`${pages.length} pages, ${pdf.length} bytes, ${Math.round(tookMs)} ms\n`);
});

test("what is seen from the mount: the other end lies straight ahead, landmarks by their own bearings", async () => {
  const { row, linkId } = await demo();
  const { ends } = (await packFacts(db, row, linkId)).links[0]!;
  for (const end of ends) {
    expect(Math.abs(end.seen.farEnd.offDeg)).toBeLessThan(0.2);
    expect(end.seen.farEnd.hidden).toBe(false);
    expect(end.seen.ridgeDeg.some((v) => Number.isFinite(v))).toBe(true);
  }
  // What lies left of the aim from one end lies right of it from the other when it stands between them.
  const [a, b] = ends;
  const poplar = (of: typeof a) => of.seen.bodies.find((x) => x.name.startsWith("Poplar"))!;
  expect(Math.sign((poplar(a).fromDeg + poplar(a).toDeg) / 2 || 1)).not.toBeNaN();
  expect(poplar(a).distanceM + poplar(b).distanceM).toBeGreaterThan(400);
  expect(poplar(a).distanceM + poplar(b).distanceM).toBeLessThan(440);
});

test("an end that is set to its own axis is told to look along that, and is not swept for one remote", async () => {
  const { row, linkId } = await demo();
  const designOf = async () => (await linksOf(db, row.id)).find((l) => l.id === linkId)!.design;
  const before = await designOf();
  await edit(db, row.id, (door) => door.patch("design", before.id, before.version, { nearAimAzimuthDeg: 90, nearAimTiltDeg: -2 }));
  try {
    const [near, far] = (await packFacts(db, row, linkId)).links[0]!.ends;
    expect(near).toMatchObject({ lookDeg: 90, lookTiltDeg: -2, ownAxis: true, azimuth: null });
    expect(far.ownAxis).toBe(false);
    const text = textOf(await printed(await pagesOfPack(db, row, ask(linkId))));
    expect(text).toContain(`${(((90 - near.declinationDeg + 360) % 360).toFixed(1)).padStart(5, "0")}° 2.0°`);
    expect(text).toContain("10.4° left of the axis");
    expect(text).toContain("this antenna is set to its own axis and tilt, not to one remote");
  } finally {
    const now = await designOf();
    await edit(db, row.id, (door) => door.patch("design", now.id, now.version, { nearAimAzimuthDeg: null, nearAimTiltDeg: null }));
  }
});

test("a link of another job is not there; a job without links has one page that says so", async () => {
  const { linkId } = await demo();
  const own = await createJob(db, "An empty job");
  await expect(pagesOfPack(db, own, ask(linkId))).rejects.toThrow(NotFound);
  const pages = await pagesOfPack(db, own, ask(null));
  expect(pages).toHaveLength(1);
  expect(textOf(await printed(pages))).toContain("No link");
});

test("odd lengths and bearings over ground that nobody knows: every pack is whole, within its paper, and without a figure that is none", async () => {
  const own = await createJob(db, "Odd lengths");
  const hardware = await hardwareDto(db);
  const at = { latDeg: -21.13, lonDeg: 179.995 };
  const near = await create(db, own.id, "site", { ...at, name: "N", mountAglM: 4 });
  const radios = [
    hardware.radios.find((r) => r.name === "Kittiwake Panel")!,
    hardware.radios.find((r) => r.antenna.form?.includes("steered"))!,
  ];
  const lengths = [
    [5.3, 0.04, 0],
    [37.3, 359.96, 1],
    [999.95, 179.999, 0],
    [10_000, 90, 0],
    [64_321, 269.97, 0],
  ] as const;
  for (const [lengthM, bearingDeg, radio] of lengths) {
    const spot = destination(at, bearingDeg, lengthM);
    const far = await create(db, own.id, "site", { latDeg: spot.latDeg, lonDeg: spot.lonDeg, name: `F ${lengthM}`, mountAglM: 9 });
    const link = await createLink(db, own.id, {
      nearSiteId: near.id,
      farSiteId: far.id,
      label: "",
      design: plainDesign(radios[radio]!.id),
    });
    for (const isFor of ["installer", "customer", "permission"] as const) {
      const pages = await pagesOfPack(db, own, ask(link.id, isFor, { units: "imperial", paper: "letter" }));
      expectOnPaper(pages);
      const text = textOf(await printed(pages));
      expect(text, `${lengthM} m, ${isFor}`).not.toMatch(/NaN|Infinity|undefined|null|360\.0°|-0\b/);
      expect(text).toContain("ground not known for");
      if (isFor === "installer") expect(text).toMatch(/^.{0,120}(Unknown|Short)/);
    }
  }
});

test("letters that the typeface lacks are boxes, long names are cut, and nothing runs off the paper", async () => {
  const { row, rope, linkId } = await demo();
  const wide = `${"Wharf and warehouse ".repeat(3)}№ 7 漢`.slice(0, 78);
  const list = await listRecords(db, row.id, "site");
  const version = list.find((s) => s.id === rope.id)!.version;
  const named = await edit(db, row.id, (door) => door.patch("site", rope.id, version, { name: wide }));
  try {
    const pages = await pagesOfPack(db, row, ask(linkId));
    expectOnPaper(pages);
    expect(textOf(await printed(pages))).toContain("\u25a1");
  } finally {
    const now = (await listRecords(db, row.id, "site")).find((s) => s.id === rope.id)!.version;
    await edit(db, row.id, (door) => door.patch("site", rope.id, now, { name: "Rope Walk" }));
  }
  expect(named).toBeDefined();
});
