import { sql } from "drizzle-orm";
import { describe, expect, test } from "vitest";
import { type FieldsOf, lonLats, type RowOf } from "../contract";
import { circleAbout, destination, type LatLon } from "../core/geo";
import { listRadios } from "../data/hardware";
import { getJob, type JobRow, linksOf, sitesOf } from "../data/jobs";
import { createLink } from "../data/links";
import { edit, getRecord, listRecords } from "../data/records";
import { testDb } from "../data/testing/db";
import { create, createJob, patch } from "../data/testing/edits";
import { claimStale, keepJudgement } from "../data/verdict-store";
import { keptVerdicts, verdictsOf } from "./verdicts";

const db = testDb();

const A = { latDeg: 42, lonDeg: -32 };

const yard = async (): Promise<{ job: JobRow; sites: RowOf<"site">[]; radioId: string }> => {
  const job = await createJob(db, "Yard", { centreLatDeg: A.latDeg, centreLonDeg: A.lonDeg });
  const sites: RowOf<"site">[] = [];
  for (const [i, at] of [A, destination(A, 60, 300), destination(A, 120, 400)].entries())
    sites.push(await create(db, job.id, "site", { name: `S${i}`, ...at, mountAglM: 10, mountMaxAglM: null }));
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
    await patch(db, "link", link.id, 1, { groundTold: { kind: "level", sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM: 5 }] } });
  }
  // Its two radios on one mast are parted well: the air is another test's.
  await edit(db, job.id, (door) => door.patch("air", job.id, 0, { isolations: { [sites[0]!.id]: 130 } }));
  return { job, sites, radioId };
};
const verdicts = async (job: JobRow) => verdictsOf(db, await getJob(db, job.id));

describe("verdicts of a job", () => {
  test("one slipped coordinate is that link's own fault and hides no other", async () => {
    const { job, sites } = await yard();
    expect((await verdicts(job)).map((v) => v.verdict)).toEqual(["clear", "clear"]);
    // The W was left out: 5,200 km away.
    await patch(db, "site", sites[2]!.id, 1, { lonDeg: -sites[2]!.lonDeg });
    const [first, second] = await verdicts(job);
    expect(first!.verdict).toBe("clear");
    expect(second).toMatchObject({ verdict: "unknown", trouble: "too-far", levelDbm: null });
    expect(second!.pathM).toBeGreaterThan(5e6);
  });

  test("a changed data sheet, and a changed dataset, change the verdict though no edit of the job was made", async () => {
    const { job, radioId } = await yard();
    const before = await verdicts(job);
    expect(before[0]!.verdict).toBe("clear");
    expect(await verdicts(job)).toEqual(before);
    const { sheet } = (await listRadios(db)).find((r) => r.id === radioId)!;
    const worse = JSON.parse(JSON.stringify(sheet)) as { modulations: { sensitivityDbm: Record<string, number> }[] };
    for (const m of worse.modulations) for (const w of Object.keys(m.sensitivityDbm)) m.sensitivityDbm[w]! += 45;
    try {
      await db.execute(
        sql`UPDATE radio SET sheet = ${JSON.stringify(worse)}::jsonb WHERE id = ${radioId} AND organisation_id = own_organisation()`,
      );
      expect((await verdicts(job)).map((v) => [v.verdict, v.trouble])).toEqual([
        ["short", "too-weak"],
        ["short", "too-weak"],
      ]);
    } finally {
      await db.execute(
        sql`UPDATE radio SET sheet = ${JSON.stringify(sheet)}::jsonb WHERE id = ${radioId} AND organisation_id = own_organisation()`,
      );
    }
    expect((await verdicts(job))[0]!.verdict).toBe("clear");
  });

  test("words about a site leave what the job's figures rest on as it was; a height, and words beside it, do not", async () => {
    const { job, sites } = await yard();
    const revision = async (): Promise<number> => (await getJob(db, job.id)).revision;
    const write = async (fields: Partial<FieldsOf<"site">>): Promise<void> => {
      const { version } = await getRecord(db, job.id, "site", sites[0]!.id);
      await edit(db, job.id, (door) => door.patch("site", sites[0]!.id, version, fields));
    };
    const before = await revision();
    await write({ notes: "Rust at the foot of the ladder", ticks: ["power point seen"] });
    expect(await revision()).toBe(before);
    await write({ notes: "Mended", mountAglM: 12.5 });
    expect(await revision()).toBe(before + 1);
  });

  test("an edit makes stale what rests on it, and nothing else", async () => {
    const { job, sites } = await yard();
    await verdicts(job);
    const stale = async (): Promise<boolean[]> => (await keptVerdicts(db, [job.id])).get(job.id)!.map((v) => !v.fresh);
    const staleBy = async (edit: () => Promise<unknown>): Promise<boolean[]> => {
      await verdicts(job);
      expect(await stale()).toEqual([false, false]);
      await edit();
      return stale();
    };
    const wall = (at: LatLon) => ({
      name: "",
      kind: "wall" as const,
      outline: lonLats(circleAbout(at, 4)),
      baseAmslM: 0,
      heightM: 3,
      crownBaseM: 0,
      freeBelowM: 0,
      growthMPerYear: 0,
      heightSigmaM: 0.3,
      species: null,
      leaf: null,
      source: "drawn",
      heightSource: "typed",
      surveyedOn: "2026-01-01",
    });
    const version = async (i: number): Promise<number> => (await sitesOf(db, job.id)).find((s) => s.id === sites[i]!.id)!.version;
    expect(await staleBy(async () => patch(db, "site", sites[1]!.id, await version(1), { notes: "the key is at the office" }))).toEqual([
      false,
      false,
    ]);
    expect(await staleBy(async () => patch(db, "site", sites[1]!.id, await version(1), { mountAglM: 11 }))).toEqual([true, false]);
    expect(await staleBy(async () => patch(db, "site", sites[0]!.id, await version(0), { mountAglM: 11 }))).toEqual([true, true]);
    expect(await staleBy(() => create(db, job.id, "obstacle", wall(destination(A, 60, 150))))).toEqual([true, true]);
    expect(await staleBy(() => create(db, job.id, "obstacle", wall(destination(A, 200, 9000))))).toEqual([false, false]);
    expect(await staleBy(async () => patch(db, "job", job.id, (await getJob(db, job.id)).version, { name: "Yard, renamed" }))).toEqual([
      false,
      false,
    ]);
    expect(await staleBy(async () => patch(db, "job", job.id, (await getJob(db, job.id)).version, { kFactor: 1.2 }))).toEqual([true, true]);
    expect(await staleBy(() => edit(db, job.id, (door) => door.patch("brief", job.id, 0, { customer: "Kelp Works" })))).toEqual([
      false,
      false,
    ]);
    const [first] = await linksOf(db, job.id);
    expect(await staleBy(() => patch(db, "design", first!.design.id, first!.design.version, { nearPowerDbm: 9 }))).toEqual([true, false]);
  });

  test("a verdict worked out before an edit does not count for what came after it", async () => {
    const { job, sites } = await yard();
    const mine = await claimStale(db, 10_000);
    const [first] = await linksOf(db, job.id);
    const held = mine.find((s) => s.linkId === first!.id)!;
    await patch(db, "site", sites[1]!.id, 1, { mountAglM: 30 });
    await keepJudgement(db, held, { verdict: "clear" }, "old");
    expect((await keptVerdicts(db, [job.id])).get(job.id)!.find((v) => v.linkId === first!.id)!.fresh).toBe(false);
    expect((await verdicts(job)).every((v) => v.fresh)).toBe(true);
  });

  test("a link that holds by itself is short where its air is over, not clear behind a feed that is, and itself again when that is mended", async () => {
    const { job, sites } = await yard();
    const told = async () =>
      (await verdicts(job)).map((v) => ({ verdict: v.verdict, alone: v.alone, chain: v.chain?.code ?? null, trouble: v.trouble }));
    const clear = { verdict: "clear", alone: "clear", chain: null };
    for (const row of await told()) expect(row).toMatchObject(clear);
    const one = (kind: "brief" | "network", version: number, fields: object) =>
      edit(db, job.id, (door) => door.patch(kind, job.id, version, fields as never));
    const ask = async (downMbps: number, feedMbps: number | null): Promise<void> => {
      const [row] = await listRecords(db, job.id, "brief");
      await one("brief", row!.version, {
        devices: [{ id: "d", siteId: sites[1]!.id, kind: "internet", count: 1, downMbps, upMbps: 1 }],
        feed: { name: "line", downMbps: feedMbps, upMbps: feedMbps },
      });
    };
    await ask(400, 1000);
    const [over, other] = await told();
    expect(over).toMatchObject({ verdict: "short", alone: "clear", chain: "air-over", trouble: "air-over" });
    expect(other).toMatchObject(clear);
    await ask(20, 10);
    // Whatever hangs at its end: the feed is in the chain of both.
    for (const row of await told()) expect(row).toMatchObject({ verdict: "tight", alone: "clear", chain: "feed-over" });
    // A port at its own end, recorded for the network of the job.
    await ask(20, 1000);
    await one("network", 0, { ports: { [sites[1]!.id]: { switchMbps: 10, injectorMbps: null } } });
    expect((await told())[0]).toMatchObject({ verdict: "short", chain: "port-over" });
    await one("network", (await listRecords(db, job.id, "network"))[0]!.version, { ports: {} });
    expect((await told())[0]).toMatchObject(clear);
  });
});
