import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { destination } from "../core/geo";
import { type Db, openDb } from "../data/client";
import { listRadios } from "../data/hardware";
import { createJob, getJob, type JobRow } from "../data/jobs";
import { createLink, setGroundTold } from "../data/links";
import { createSite, updateSite } from "../data/sites";
import { verdictsOf } from "./verdicts";

const url = process.env.DATABASE_URL;
if (url === undefined) throw new Error("DATABASE_URL is not set; run npm test");
let db: Db;
let close: () => Promise<void>;
beforeAll(() => {
  ({ db, close } = openDb(url));
});
afterAll(() => close());

const A = { latDeg: 42, lonDeg: -32 };

const yard = async (): Promise<{ job: JobRow; sites: Awaited<ReturnType<typeof createSite>>[]; radioId: string }> => {
  const job = await createJob(db, {
    name: "Yard",
    place: "",
    visitOn: "2026-12-03",
    centreLatDeg: A.latDeg,
    centreLonDeg: A.lonDeg,
    ruleDomain: "FCC-like",
    rainRate001MmH: 28,
  });
  const sites = [];
  for (const [i, at] of [A, destination(A, 60, 300), destination(A, 120, 400)].entries())
    sites.push(await createSite(db, job.id, { name: `S${i}`, ...at, mountAglM: 10, mountMaxAglM: null }));
  const radioId = (await listRadios(db)).find((r) => (r.sheet as { id: string }).id === "kittiwake-panel")!.id;
  const design = {
    nearRadioId: radioId,
    farRadioId: radioId,
    nearMountAglM: 10,
    farMountAglM: 10,
    nearPowerDbm: 8,
    farPowerDbm: 8,
    centreMhz: 5500,
    widthMhz: 20,
    needToFarMbps: 5,
    needToNearMbps: 5,
  };
  for (const far of [1, 2]) {
    const link = await createLink(db, job.id, { nearSiteId: sites[0]!.id, farSiteId: sites[far]!.id, label: "", design });
    await setGroundTold(db, link.id, 1, { kind: "level", sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM: 5 }] });
  }
  return { job, sites, radioId };
};
const verdicts = async (job: JobRow) => verdictsOf(db, await getJob(db, job.id));

describe("verdicts of a job", () => {
  test("one slipped coordinate is that link's own fault and hides no other", async () => {
    const { job, sites } = await yard();
    expect((await verdicts(job)).map((v) => v.verdict)).toEqual(["clear", "clear"]);
    // The W was left out: 5,200 km away.
    await updateSite(db, sites[2]!.id, 1, { lonDeg: -sites[2]!.lonDeg });
    const [first, second] = await verdicts(job);
    expect(first!.verdict).toBe("clear");
    expect(second).toMatchObject({ verdict: "unknown", trouble: "too-far", levelDbm: null });
    expect(second!.pathM).toBeGreaterThan(5e6);
  });

  test("a changed data sheet, and a changed dataset, change the verdict though no edit of the job was made", async () => {
    const { job, radioId } = await yard();
    const before = await verdicts(job);
    expect(before[0]!.verdict).toBe("clear");
    expect(await verdicts(job)).toBe(before);
    const { sheet } = (await listRadios(db)).find((r) => r.id === radioId)!;
    const worse = JSON.parse(JSON.stringify(sheet)) as { modulations: { sensitivityDbm: Record<string, number> }[] };
    for (const m of worse.modulations) for (const w of Object.keys(m.sensitivityDbm)) m.sensitivityDbm[w]! += 45;
    try {
      await db.execute(sql`UPDATE radio SET sheet = ${JSON.stringify(worse)}::jsonb WHERE id = ${radioId}`);
      expect((await verdicts(job)).map((v) => [v.verdict, v.trouble])).toEqual([
        ["short", "too-weak"],
        ["short", "too-weak"],
      ]);
    } finally {
      await db.execute(sql`UPDATE radio SET sheet = ${JSON.stringify(sheet)}::jsonb WHERE id = ${radioId}`);
    }
    expect((await verdicts(job))[0]!.verdict).toBe("clear");
    // A touched dataset is a new key: the job is read again, the same judgement comes out.
    await db.execute(sql`UPDATE terrain_dataset SET updated_at = now() WHERE id = (SELECT id FROM terrain_dataset LIMIT 1)`);
    const again = await verdicts(job);
    expect(again).not.toBe(before);
    expect(again.map((v) => v.verdict)).toEqual(before.map((v) => v.verdict));
  });
});
