/* Links that leave out who and where: over the demo job, whatever is asked by one tells neither. */

import { sql } from "drizzle-orm";
import fc from "fast-check";
import { beforeAll, beforeEach, expect, test } from "vitest";
import { type FreeTextDto, kinds, type SheetName, VEILED_KINDS } from "../../contract";
import { inverse } from "../../core/geo";
import { asAsker, programFor } from "../../data/actor";
import { getJob } from "../../data/jobs";
import { firstOrganisation } from "../../data/people";
import { testDb } from "../../data/testing/db";
import { verdictsOf } from "../verdicts";
import { makePerson, type Person, signInOn } from "./testing/firm";
import { allRoutes, ask, cookiesOf } from "./testing/routes";
import { letterOf, madeUpCentre, markOfText, moved, veiling } from "./veil";

signInOn();
const db = testDb();
const SHEETS: readonly SheetName[] = ["section", "gear", "hub", "load", "air", "wiring", "kit"];
let planner: Person;
let jobId: string;

beforeAll(async () => {
  const firm = await firstOrganisation(db);
  planner = await makePerson(db, firm.id, "planner");
  const jobs = (await (await ask("GET jobs", planner.cookie)).json()) as { job: { id: string; number: number } }[];
  jobId = jobs.find((j) => j.job.number === 1)!.job.id;
  // What each link comes to, and where it is worst: hills and trees are named in it.
  const verdicts = await asAsker(programFor(firm.id), async () => verdictsOf(db, await getJob(db, jobId)));
  expect(JSON.stringify(verdicts)).toContain("Corrie Saddle");
});
beforeEach(() => db.execute(sql`DELETE FROM auth.tries`));

const endsOn = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);
const make = (more: object): Promise<Response> =>
  ask("POST jobs/[jobId]/shares", planner.cookie, {
    params: { jobId },
    body: { name: "a school", sheets: SHEETS, endsOn, identityOut: true, told: [], ...more },
  });
const open = async (more: object = {}): Promise<string> => {
  const made = await make(more);
  expect(made.status, await made.clone().text()).toBe(200);
  const token = ((await made.json()) as { url: string }).url.split("#")[1]!;
  return cookiesOf(await ask("POST share", null, { body: { token } }));
};
const read = async <T>(route: string, cookie: string, params: Readonly<Record<string, string>> = {}): Promise<T> => {
  const answer = await ask(route, cookie, { params: { jobId, ...params } });
  expect(answer.status, route).toBe(200);
  return (await answer.json()) as T;
};

type Row = Readonly<Record<string, unknown>>;
interface Bundle {
  readonly job: Row & { readonly name: string };
  readonly sites: readonly (Row & { readonly id: string; readonly name: string; readonly latDeg: number; readonly lonDeg: number })[];
  readonly links: readonly (Row & { readonly id: string; readonly nearSiteId: string; readonly farSiteId: string })[];
}

/** All that a link of every sheet can be asked: each answer as text, by its address. */
const everything = async (cookie: string): Promise<Map<string, string>> => {
  const told = new Map<string, string>();
  const put = async (route: string, params: Readonly<Record<string, string>>, name = route): Promise<void> => {
    const answer = await ask(route, cookie, { params: { jobId, ...params } });
    expect(answer.status, name).not.toBe(500);
    if (answer.ok && !(answer.headers.get("content-type") ?? "").includes("event-stream")) told.set(name, await answer.text());
  };
  const { links, sites } = await read<Bundle>("GET jobs/[jobId]", cookie);
  for (const route of await allRoutes()) {
    if (!route.startsWith("GET ") || /records|events/.test(route)) continue;
    if (!route.includes("[linkId]")) await put(route, { z: "12", x: "1", y: "1", hubId: links[0]!.id });
    else for (const l of links) await put(route, { linkId: l.id }, `${route} ${l.id}`);
  }
  for (const [name, k] of kinds()) {
    if (k.parent === "none") continue;
    await put("GET jobs/[jobId]/[records]", { records: k.route }, name);
    if (name === "site")
      for (const s of sites) await put("GET jobs/[jobId]/[records]/[recordId]", { records: k.route, recordId: s.id }, `site ${s.id}`);
  }
  return told;
};

test("no answer has a name, a label, a word or a position of the demo job in it", async () => {
  const own = await read<Bundle>("GET jobs/[jobId]", planner.cookie);
  const texts = await read<FreeTextDto[]>("GET jobs/[jobId]/shares/texts", planner.cookie);
  expect(texts.length).toBeGreaterThan(20);
  // What only rows that are left out whole have: addresses, serials, photos.
  const left: string[] = [];
  for (const kind of VEILED_KINDS) {
    const k = kinds().find(([name]) => name === kind)![1];
    const given = JSON.stringify(await read("GET jobs/[jobId]/[records]", planner.cookie, { records: k.route }));
    for (const [, text] of given.matchAll(/"(?:name|note|serial|mac|address|gateway|subnet|timeServer|person|words)":"([^"]{4,})"/g))
      left.push(text!);
  }
  expect(left.length).toBeGreaterThan(10);
  const names = own.sites.map((s) => s.name);
  const secret = new Set([own.job.name, ...names, ...texts.map((t) => t.text), ...left].filter((t) => t.length >= 4));
  const positions = own.sites.flatMap((s) => [String(s.latDeg), String(s.lonDeg)]).filter((n) => n.length > 6);
  const cookie = await open();
  const told = await everything(cookie);
  expect(told.size).toBeGreaterThan(own.links.length * 2);
  // Names of types and what the program itself says are nobody's.
  const common = `${told.get("GET hardware")}${told.get("GET hardware/parts")}${told.get("GET openapi")}`;
  for (const [name, text] of told) {
    if (/hardware|openapi/.test(name)) continue;
    for (const s of secret)
      if (!common.includes(s)) expect(text.includes(JSON.stringify(s).slice(1, -1)), `${name} tells "${s}"`).toBe(false);
    for (const p of positions) expect(text.includes(p), `${name} tells the position ${p}`).toBe(false);
  }
  expect(await (await ask("GET me", cookie)).json()).toMatchObject({ person: { organisation: "", identityOut: true } });
});

test("the figures are what they were: lengths and bearings of every link, and what it comes to", async () => {
  const cookie = await open();
  const [own, veiled] = [await read<Bundle>("GET jobs/[jobId]", planner.cookie), await read<Bundle>("GET jobs/[jobId]", cookie)];
  expect(veiled.sites.map((s) => s.name).sort()).toEqual(own.sites.map((_s, i) => `Site ${letterOf(i)}`).sort());
  const way = (b: Bundle, l: Bundle["links"][number]) => {
    const at = (id: string) => b.sites.find((s) => s.id === id)!;
    return inverse(at(l.nearSiteId), at(l.farSiteId));
  };
  for (const [i, l] of own.links.entries()) {
    const [a, b] = [way(own, l), way(veiled, veiled.links[i]!)];
    expect(Math.abs(a.distanceM - b.distanceM)).toBeLessThan(0.01);
    expect(Math.abs(((a.azimuthAtADeg - b.azimuthAtADeg + 540) % 360) - 180)).toBeLessThan(0.25);
  }
  const verdicts = async (c: string) =>
    (await read<Row[]>("GET jobs/[jobId]/verdicts", c)).map((v) => [v.linkId, v.verdict, v.marginDb, v.pathM, v.clearanceVerdict]);
  expect(await verdicts(cookie)).toEqual(await verdicts(planner.cookie));
  const profile = await read<{ pathM: number; groundAmslM: number[] }>("GET jobs/[jobId]/links/[linkId]/profile", cookie, {
    linkId: own.links[0]!.id,
  });
  expect(profile.pathM).toBeCloseTo(way(veiled, veiled.links[0]!).distanceM, 1);
});

test("a text that was ticked is told, until it is changed", async () => {
  const { sites } = await read<Bundle>("GET jobs/[jobId]", planner.cookie);
  const site = sites[0]!;
  const write = async (notes: string): Promise<void> => {
    const { version } = await read<{ version: number }>("GET jobs/[jobId]/[records]/[recordId]", planner.cookie, {
      records: "sites",
      recordId: site.id,
    });
    const answer = await ask("PATCH jobs/[jobId]/[records]/[recordId]", planner.cookie, {
      params: { jobId, records: "sites", recordId: site.id },
      body: { version, notes },
    });
    expect(answer.status).toBe(200);
  };
  const before = String((site as Row).notes ?? "");
  await write("Ice falls from the north face");
  const cookie = await open({ told: [markOfText("Ice falls from the north face")] });
  const notes = async () => (await read<Bundle>("GET jobs/[jobId]", cookie)).sites.find((s) => s.id === site.id)!.notes;
  expect(await notes()).toBe("Ice falls from the north face");
  await write("Ask for Oda at the harbour");
  expect(await notes()).toBe("");
  await write(before);
});

test("the sheets that tell who or where by what they are go with none, and nothing beside the sheets is opened", async () => {
  for (const sheets of [["brief"], ["section", "ground"]]) {
    const answer = await make({ sheets });
    expect(answer.status).toBe(400);
    expect(await answer.text()).toContain("Brief and Ground tell who and where");
  }
  const cookie = await open();
  for (const route of ["GET jobs/[jobId]/obstacles", "GET jobs/[jobId]/photos", "GET jobs/[jobId]/basemap", "POST jobs/[jobId]/heights"])
    expect((await ask(route, cookie, { params: { jobId }, body: route.startsWith("POST") ? {} : undefined })).status, route).toBe(403);
  // A file tells what it tells: of those that a sheet could ask for, there is none.
  const [scan] = await read<{ id: string }[]>("GET jobs/[jobId]/[records]", planner.cookie, { records: "scans" });
  const taken = (c: string) => ask("GET jobs/[jobId]/air/scans", c, { params: { jobId }, query: `?scan=${scan!.id}` });
  expect((await taken(planner.cookie)).status).toBe(200);
  expect((await taken(cookie)).status).toBe(403);
  // The same sheets with identity are as they were.
  const plain = await open({ identityOut: false });
  expect((await read<Bundle>("GET jobs/[jobId]", plain)).sites.map((s) => s.name)).toEqual(
    (await read<Bundle>("GET jobs/[jobId]", planner.cookie)).sites.map((s) => s.name),
  );
});

test("wherever the job lies, moved positions keep their distance from its middle and one another to a metre in ten kilometres", () => {
  const at = fc.record({ latDeg: fc.double({ min: -78, max: 78, noNaN: true }), lonDeg: fc.double({ min: -180, max: 180, noNaN: true }) });
  const off = fc.tuple(fc.double({ min: -0.05, max: 0.05, noNaN: true }), fc.double({ min: -0.05, max: 0.05, noNaN: true }));
  fc.assert(
    fc.property(at, off, off, (centre, a, b) => {
      const place = ([dLat, dLon]: readonly [number, number]) => ({ latDeg: centre.latDeg + dLat, lonDeg: centre.lonDeg + dLon });
      const [p, q] = [place(a), place(b)];
      const [p2, q2] = [moved(p, centre), moved(q, centre)];
      const to = madeUpCentre(centre);
      expect(Math.abs(inverse(centre, p).distanceM - inverse(to, p2).distanceM)).toBeLessThan(0.001);
      expect(Math.abs(inverse(p, q).distanceM - inverse(p2, q2).distanceM)).toBeLessThan(1);
    }),
    { numRuns: 300 },
  );
});

test("names that are codes, figures or days by chance spoil none of those in an answer", () => {
  const veil = veiling({
    centre: { latDeg: 47.3, lonDeg: -19.4 },
    jobName: "ground",
    sites: ["far", "clear", "weak", "Quay", "12"].map((name, i) => ({ id: `${i}`, name })),
    labels: ["12", "5", "a"],
    told: new Set(),
  });
  const verdict = {
    linkId: "8d204471-5a12-4c5d-9e1f-0012a5a0c512",
    farName: "far",
    nearName: "Quay",
    label: "12",
    verdict: "clear",
    trouble: "too-weak",
    worstEnd: "far",
    changedAt: "2026-12-05T12:05:12.005Z",
    worst: { name: "Quay", kind: "ground", missM: 1.5 },
    loudest: "Quay to clear",
    otherName: "12",
  };
  expect(veil.answer([verdict], null)).toEqual([
    {
      ...verdict,
      farName: "Site A",
      nearName: "Site D",
      label: "",
      worst: { name: null, kind: "ground", missM: 1.5 },
      loudest: "Site D to Site B",
      otherName: "Site E",
    },
  ]);
});

test("letters go on behind Z", () => {
  expect([0, 25, 26, 27, 51, 52, 701, 702].map(letterOf)).toEqual(["A", "Z", "AA", "AB", "AZ", "BA", "ZZ", "AAA"]);
});

test("nothing of it holds for people of the firm", async () => {
  const own = await asAsker(planner.who, () => read<Bundle>("GET jobs/[jobId]", planner.cookie));
  expect(own.sites[0]!.name).not.toMatch(/^Site [A-Z]$/);
});
