/* What people made with the version before: its database and its bundle open whole, and its edits can still be taken back. */
import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { Pool } from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { bundleBytes, takeBundle } from "../jobs/testing/bring";
import { asClient } from "./actor";
import { basemapOf } from "./basemaps";
import { type Db, openDb } from "./client";
import { historyOf, undoLast } from "./history";
import { getJob, linksOf, listJobs } from "./jobs";
import { keptDesigns } from "./links";
import { migrateDb } from "./migrate";
import { photoBytes } from "./photos";
import { listRecords } from "./records";

const BEFORE = "src/data/testing/before";
/** A cluster of its own: the application's role makes no databases. */
const CLUSTER = "before";
const cluster = (command: "start" | "stop" | "url", role = "owner"): string =>
  execFileSync("node", ["bin/db.mjs", command, CLUSTER, role], { encoding: "utf8" }).trim();
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-before-"));
let db: Db;
let close: () => Promise<void>;
let pool: Pool;

beforeAll(async () => {
  process.env.DRYARC_FILES ??= path.join(dir, "files");
  mkdirSync(process.env.DRYARC_FILES, { recursive: true });
  rmSync(path.join(".data", CLUSTER), { recursive: true, force: true });
  cluster("start");
  const url = cluster("url");
  execFileSync("psql", ["-q", "-v", "ON_ERROR_STOP=1", "-d", url, "-f", `${BEFORE}/database.sql`], {
    stdio: ["ignore", "ignore", "inherit"],
  });
  // Brought up to date by the owner, as on a machine; looked at as the administrator does.
  const owner = openDb(url);
  await migrateDb(owner.db);
  await owner.close();
  const all = cluster("url", "admin");
  ({ db, close } = openDb(all));
  pool = new Pool({ connectionString: all, max: 2 });
});
afterAll(async () => {
  await pool.end();
  await close();
  cluster("stop");
  rmSync(path.join(".data", CLUSTER), { recursive: true, force: true });
  rmSync(dir, { recursive: true, force: true });
});

const jobHere = async (): Promise<string> => (await listJobs(db))[0]!.id;
const only = async (kind: string, name?: string): Promise<Record<string, unknown>> => {
  const rows = await listRecords(db, await jobHere(), kind);
  const row = name === undefined ? rows[0] : rows.find((r) => r.name === name);
  if (row === undefined) throw new Error(`no ${kind} ${name}`);
  return row;
};
const HOLE = [
  [-39.9997, 44.0053],
  [-39.9994, 44.0053],
  [-39.9994, 44.0056],
  [-39.9997, 44.0056],
];

describe("a database of the version before", () => {
  test("opens whole", async () => {
    const jobId = await jobHere();
    expect(await only("site", "Shed")).toMatchObject({ mountAglM: 6.5, mastCostPerM: 95, notes: "as found", ticks: ["way up is safe"] });
    expect((await only("site", "Shed")).mountingPoints).toMatchObject([{ name: "Gable", behind: "timber" }]);
    expect((await listRecords(db, jobId, "site")).map((s) => s.name).sort()).toEqual(["Kiln", "Relay", "Shed"]);
    const [link] = await linksOf(db, jobId);
    expect(link).toMatchObject({
      label: "first",
      groundTold: { kind: "level" },
      design: { nearMountAglM: 7.5, permissions: [{ number: "K-7" }] },
    });
    expect(Object.values(link!.design.trimsM)).toEqual([7]);
    expect((await keptDesigns(db, link!.id)).map((d) => [d.name, d.nearMountAglM])).toEqual([["B", 6]]);
    expect(await only("obstacle", "House")).toMatchObject({ heightM: 8, holes: [] });
    expect(await only("feature", "Kelp Ridge")).toMatchObject({
      points: [
        [-40.002, 44.005],
        [-39.998, 44.0055],
      ],
    });
    expect(await only("brief")).toMatchObject({ customer: "Kelp Works Ltd", devices: [{ name: "Gate", count: 3 }], recorder: "near" });
    const photo = await only("photo");
    expect(photo).toMatchObject({ note: "towards the kiln", bearingDeg: 10, mime: "image/jpeg" });
    expect((await photoBytes(db, jobId, String(photo.id))).bytes).toHaveLength(6);
    expect((await basemapOf(db, jobId))?.name).toBe("Own map");
    expect((await getJob(db, jobId)).tideRangeM).toBe(3);
  });

  test("tells its history in the words of today", async () => {
    const { changes } = await asClient("client-before", async () => historyOf(db, await jobHere()));
    expect(changes.filter((c) => !c.mine).map((c) => [c.entity, c.action])).toEqual([["job", "create"]]);
    const told = (entity: string, action = "update") =>
      changes.filter((c) => c.entity === entity && c.action === action).map((c) => [c.name, c.fields]);
    expect(told("site")).toContainEqual(["Shed", [{ field: "mountAglM", from: 6, to: 6.5 }]]);
    expect(told("job")).toEqual([["Before", [{ field: "tideRangeM", from: 0, to: 3 }]]]);
    expect(told("brief")[0]![1]).toContainEqual({ field: "customer", from: "Kelp Works", to: "Kelp Works Ltd" });
    expect(told("obstacle")).toContainEqual([
      "House",
      [
        { field: "heightM", from: 7, to: 8 },
        { field: "outline", from: { count: 4 }, to: { count: 4 } },
        { field: "holes", from: { count: 1 }, to: { count: 0 } },
      ],
    ]);
    expect(told("photo")).toEqual([["photo", [{ field: "note", from: "to the kiln", to: "towards the kiln" }]]]);
  });

  test("every one of its edits can be taken back, to an empty job", async () => {
    const jobId = await jobHere();
    const undo = () => asClient("client-before", () => undoLast(db, jobId));
    expect((await undo()).step).toMatchObject({ entity: "obstacle", action: "delete", name: "Ash" });
    expect(await only("obstacle", "Ash")).toMatchObject({ species: "ash", heightM: 9 });
    await undo();
    expect(await only("obstacle", "House")).toMatchObject({ heightM: 7, holes: [HOLE] });
    await undo();
    expect(await only("site", "Shed")).toMatchObject({ mountAglM: 6 });
    await undo();
    expect(await only("site", "Gone")).toMatchObject({ mountAglM: 6 });
    await undo();
    expect((await getJob(db, jobId)).tideRangeM).toBe(0);
    await undo();
    expect(await only("brief")).toMatchObject({ customer: "Kelp Works", devices: [{ count: 2 }] });
    let steps = 0;
    while ((await undo()).step !== null) if (++steps > 40) throw new Error("undo does not end");
    for (const kind of ["site", "link", "obstacle", "feature", "photo"])
      expect([kind, await listRecords(db, jobId, kind)]).toEqual([kind, []]);
  });
});

test("a bundle of the version before opens whole, and goes out and in again the same", async () => {
  const taken = await takeBundle(db, pool, readFileSync(`${BEFORE}/job.zip`), true);
  expect(taken.fault).toBeNull();
  const jobId = taken.jobId!;
  const names = async (kind: string) => (await listRecords(db, jobId, kind)).map((r) => r.name).sort();
  expect(await names("site")).toEqual(["Kiln", "Relay", "Shed"]);
  expect(await names("obstacle")).toEqual(["House"]);
  expect((await listRecords(db, jobId, "design")).filter((d) => d.chosen === false)).toMatchObject([{ name: "B" }]);
  const [brief] = await listRecords(db, jobId, "brief");
  const kiln = (await listRecords(db, jobId, "site")).find((s) => s.name === "Kiln")!;
  expect(brief).toMatchObject({ customer: "Kelp Works Ltd", devices: [{ siteId: kiln.id, count: 3 }] });
  const out = await bundleBytes(db, await getJob(db, jobId));
  const again = await takeBundle(db, pool, out, true);
  expect(again.fault).toBeNull();
  expect((await listRecords(db, again.jobId!, "site")).length).toBe(3);
});
