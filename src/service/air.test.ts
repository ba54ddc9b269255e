/* The air of a job on a real PostgreSQL: what it makes of verdicts, ways that are kept, channels taken as one step. */
import { describe, expect, test } from "vitest";
import { POST } from "../app/api/jobs/[jobId]/take/route";
import { airVerdictOf, type HubDto, lossKey } from "../contract";
import { destination } from "../core/geo";
import { asClient } from "../data/actor";
import { listRadios } from "../data/hardware";
import { undoLast } from "../data/history";
import { getJob, type JobRow, linksOf } from "../data/jobs";
import { createLink } from "../data/links";
import { edit } from "../data/records";
import { testDb } from "../data/testing/db";
import { create, createJob, patch } from "../data/testing/edits";
import { airLosses } from "./air-losses";
import { verdictsOf } from "./verdicts";

const db = testDb();
const CLIENT = "client-channels";
const A = { latDeg: 41, lonDeg: -36 };

const radioOf = async (id: string): Promise<string> => (await listRadios(db)).find((r) => (r.sheet as { id: string }).id === id)!.id;

/** One mast with two links on one channel, over level ground that was told. */
const mast = async (more: { readonly centreMhz?: number; readonly needMbps?: number } = {}) => {
  const job = await createJob(db, "Mast", { centreLatDeg: A.latDeg, centreLonDeg: A.lonDeg });
  const hub = await create(db, job.id, "site", { name: "Mast", ...A, mountAglM: 20 });
  const radioId = await radioOf("kittiwake-panel");
  const links = [];
  for (const [i, bearing] of [60, 140].entries()) {
    const far = await create(db, job.id, "site", { name: `S${i}`, ...destination(A, bearing, 600), mountAglM: 10 });
    const link = await createLink(db, job.id, {
      nearSiteId: hub.id,
      farSiteId: far.id,
      label: "",
      design: {
        nearRadioId: radioId,
        farRadioId: radioId,
        nearMountAglM: 20,
        farMountAglM: 10,
        nearPowerDbm: 9,
        farPowerDbm: 9,
        centreMhz: i === 0 ? 5500 : (more.centreMhz ?? 5500),
        widthMhz: 20,
        needToFarMbps: more.needMbps ?? 25,
        needToNearMbps: more.needMbps ?? 25,
      },
    });
    await patch(db, "link", link.id, 1, { groundTold: { kind: "level", sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM: 5 }] } });
    links.push(link);
  }
  return { job, hub, links };
};
const verdicts = async (job: JobRow) => verdictsOf(db, await getJob(db, job.id));

describe("what the air makes of a job's links", () => {
  test("two on one channel of one mast are not clear, and say who it is; on channels apart they are", async () => {
    const same = await mast();
    for (const v of await verdicts(same.job)) {
      expect(v.alone).toBe("clear");
      expect(v.verdict).not.toBe("clear");
      expect(airVerdictOf(v.inAir!)!.code).toMatch(/^air-/);
      expect(v.trouble).toBe(airVerdictOf(v.inAir!)!.code);
      expect(v.inAir!.left[1]).toBeLessThan(1);
    }
    const apart = await mast({ centreMhz: 5745 });
    await edit(db, apart.job.id, (door) => door.patch("air", apart.job.id, 0, { isolations: { [apart.hub.id]: 90 } }));
    for (const v of await verdicts(apart.job)) expect(v).toMatchObject({ verdict: "clear", inAir: { verdict: "clear", trouble: null } });
  });

  test("what is left of the air is what the network has: a place that was wide enough is over", async () => {
    const { job } = await mast({ needMbps: 40 });
    const both = await verdicts(job);
    expect(both.some((v) => v.chain !== null || v.inAir!.verdict === "short")).toBe(true);
    // Left aside, the other has its channel to itself.
    const [first, second] = await linksOf(db, job.id);
    await edit(db, job.id, (door) => door.patch("air", job.id, 0, { aside: [second!.id] }));
    const after = await verdicts(job);
    expect(after.find((v) => v.linkId === first!.id)).toMatchObject({ verdict: "clear", inAir: { left: [1, 1] } });
    expect(after.find((v) => v.linkId === second!.id)!.inAir).toBeNull();
  });

  test("a scan older than a year, and a channel over two rows of the rules, are told; an own rule row counts in this job alone", async () => {
    const { job, hub } = await mast({ centreMhz: 5725 });
    const scan = await create(db, job.id, "scan", { siteId: hub.id, heardOn: "2025-01-10", rows: [{ centreMhz: 5805, levelDbm: -88 }] });
    await edit(db, job.id, (door) => door.patch("air", job.id, 0, { isolations: { [hub.id]: 90 } }));
    const [first, second] = await verdicts(job);
    expect(first!.inAir!.oldScanDays).toBeGreaterThan(365);
    expect(first!.trouble).toBe("air-old-scan");
    expect(second!.inAir!.acrossMhz).toBe(5725);
    await patch(db, "scan", scan.id, scan.version, { counts: false });
    expect((await verdicts(job))[0]!.inAir!.oldScanDays).toBeNull();
    const own = {
      id: "own-low",
      domain: "FCC-like" as const,
      lowMhz: 5470,
      highMhz: 5725,
      eirpMaxDbm: 20,
      source: "a letter of the regulator",
      asOf: "2026",
      replaces: "f-5470",
    };
    await patch(db, "job", job.id, (await getJob(db, job.id)).version, { ownRules: [own] as never });
    expect((await verdicts(job))[0]).toMatchObject({ verdict: "short", trouble: "over-rule" });
    const other = await mast({ centreMhz: 5745 });
    expect((await verdicts(other.job))[0]!.trouble).not.toBe("over-rule");
  });

  test("a row without a source or a limit is refused, with the field", async () => {
    const { job } = await mast();
    const version = (await getJob(db, job.id)).version;
    const row = { id: "own", domain: "FCC-like", lowMhz: 5800, highMhz: 5850, source: "", asOf: "2026", eirpMaxDbm: 20 };
    await expect(patch(db, "job", job.id, version, { ownRules: [row] as never })).rejects.toThrow(/source/);
    await expect(patch(db, "job", job.id, version, { ownRules: [{ ...row, source: "x", eirpMaxDbm: null }] as never })).rejects.toThrow(
      /limit/,
    );
    await expect(patch(db, "job", job.id, version, { ownRules: [{ ...row, source: "x", highMhz: 5700 }] as never })).rejects.toThrow(
      /upper edge/,
    );
  });
});

test("a house between two ends counts between them, and is looked at again when it goes", async () => {
  const { job } = await mast({ centreMhz: 5745 });
  const before = (await airLosses(db, await getJob(db, job.id))).losses;
  const sites = (await verdicts(job)).map((v) => v.farName);
  expect(sites).toEqual(["S0", "S1"]);
  const [a, b] = Object.keys(before);
  expect(a === undefined ? "" : lossKey(...(a.split("~") as [string, string]))).toBe(a ?? "");
  expect(b === undefined || before[b]! >= 0).toBe(true);
  const ends = [destination(A, 60, 600), destination(A, 140, 600)];
  const middle = { latDeg: (ends[0]!.latDeg + ends[1]!.latDeg) / 2, lonDeg: (ends[0]!.lonDeg + ends[1]!.lonDeg) / 2 };
  await create(db, job.id, "obstacle", {
    name: "Shed",
    kind: "building",
    outline: [45, 135, 225, 315].map((d) => {
      const { latDeg, lonDeg } = destination(middle, d, 40);
      return [lonDeg, latDeg];
    }),
    heightM: 60,
    baseAmslM: 5,
    surveyedOn: "2026-01-01",
  } as never);
  const after = (await airLosses(db, await getJob(db, job.id))).losses;
  for (const [key, db_] of Object.entries(after)) expect(db_, key).toBeGreaterThanOrEqual((before[key] ?? 0) - 1e-9);
});

test("channels of sectors and of links are taken as one step, and undone as one", async () => {
  const { job, hub, links } = await mast();
  const radioId = await radioOf("kittiwake-panel");
  const made = (await create(db, job.id, "hub", {
    siteId: hub.id,
    mountAglM: 20,
    sectors: [{ id: "a", radioId, azimuthDeg: 60, tiltDeg: 0, centreMhz: 5500, widthMhz: 20, powerDbm: 12 }],
    remotes: [{ linkId: links[0]!.id, sectorId: "a" }],
  })) as HubDto;
  const second = (await linksOf(db, job.id)).find((l) => l.id === links[1]!.id)!;
  const ask = (body: unknown): Promise<Response> =>
    POST(
      new Request(`http://127.0.0.1:4610/api/jobs/${job.id}/take`, {
        method: "POST",
        headers: { "content-type": "application/json", host: "127.0.0.1:4610", "x-client": CLIENT },
        body: JSON.stringify(body),
      }),
      { params: Promise.resolve({ jobId: job.id }) },
    );
  const sectors = made.sectors.map((s) => ({ ...s, centreMhz: 5785 }));
  const answer = await ask({
    designs: [{ id: second.design.id, version: second.design.version, fields: { centreMhz: 5180 } }],
    hubs: [{ id: made.id, version: made.version, fields: { sectors } }],
  });
  expect(answer.status).toBe(200);
  const centres = async () => new Map((await linksOf(db, job.id)).map((l) => [l.id, l.design.centreMhz]));
  expect((await centres()).get(links[0]!.id)).toBe(5785);
  expect((await centres()).get(links[1]!.id)).toBe(5180);
  // One that has moved on meanwhile: none of it is made.
  const stale = await ask({
    designs: [{ id: second.design.id, version: second.design.version, fields: { centreMhz: 5240 } }],
    hubs: [{ id: made.id, version: made.version + 1, fields: { sectors: made.sectors } }],
  });
  expect(stale.status).toBe(409);
  expect((await centres()).get(links[0]!.id)).toBe(5785);
  expect((await ask({ designs: [], hubs: [] })).status).toBe(400);
  await asClient(CLIENT, () => undoLast(db, job.id));
  expect([...(await centres()).values()]).toEqual([5500, 5500]);
});
