import { describe, expect, test } from "vitest";
import type { HubMountDto, HubMountsQuestion } from "../contract";
import { hubMountsSchema } from "../contract";
import { destination } from "../core/geo";
import { listRadios } from "../data/hardware";
import { createLink } from "../data/links";
import { testDb } from "../data/testing/db";
import { create, createJob, patch } from "../data/testing/edits";
import { hubMounts } from "./hub-mounts";

const db = testDb();
const A = { latDeg: 41, lonDeg: -31 };

/** A mast with two remotes over level ground; a wall stands between its own spot and one of them. */
const scene = async () => {
  const job = await createJob(db, "Mounts", { centreLatDeg: A.latDeg, centreLonDeg: A.lonDeg });
  const mast = await create(db, job.id, "site", {
    name: "Mast",
    ...A,
    mountAglM: 8,
    mountMaxAglM: 20,
    mountingPoints: [{ id: "east", name: "East leg", aglM: 8, maxAglM: 12, behind: "", eastM: 90, northM: 0 }],
  });
  const at = [destination(A, 0, 600), destination(A, 90, 500)];
  const remotes = [];
  for (const [i, place] of at.entries()) remotes.push(await create(db, job.id, "site", { name: `R${i}`, ...place, mountAglM: 8 }));
  const wall = destination(A, 0, 300);
  await create(db, job.id, "obstacle", {
    name: "Wall",
    kind: "building",
    outline: [270, 90]
      .flatMap((side) => {
        const end = destination(wall, side, 30);
        return [destination(end, 0, 5), destination(end, 180, 5)].map((p): [number, number] => [p.lonDeg, p.latDeg]);
      })
      .filter((_, i) => i < 4)
      .map((_, i, all) => all[[0, 1, 3, 2][i]!]!),
    baseAmslM: 10,
    heightM: 11,
    surveyedOn: "2026-01-01",
  });
  const radioId = (await listRadios(db)).find((r) => (r.sheet as { id: string }).id === "kittiwake-panel")!.id;
  const links = [];
  for (const r of remotes)
    links.push(
      await createLink(db, job.id, {
        nearSiteId: mast.id,
        farSiteId: r.id,
        label: "",
        design: {
          nearRadioId: radioId,
          farRadioId: radioId,
          nearMountAglM: 8,
          farMountAglM: 8,
          nearPowerDbm: 8,
          farPowerDbm: 8,
          centreMhz: 5500,
          widthMhz: 20,
          needToFarMbps: 5,
          needToNearMbps: 5,
        },
      }),
    );
  for (const l of links)
    await patch(db, "link", l.id, 1, { groundTold: { kind: "level", sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM: 10 }] } });
  const sector = { id: "s1", radioId, azimuthDeg: 45, tiltDeg: 0, centreMhz: 5500, widthMhz: 20, powerDbm: 8 };
  const hub = await create(db, job.id, "hub", {
    siteId: mast.id,
    mountAglM: 8,
    sectors: [sector],
    remotes: links.map((l) => ({ linkId: l.id, sectorId: "s1" })),
  });
  return { job, mast, hub };
};
const told = async (jobId: string, hubId: string, q: HubMountsQuestion) => {
  const rows: HubMountDto[] = [];
  const progress: number[] = [];
  for await (const part of hubMounts(db, jobId, hubId, q)) {
    if (part.kind === "row") rows.push(part.row);
    if (part.kind === "progress") progress.push(part.done / part.total);
  }
  return { rows, progress };
};

describe("a hub from other spots", () => {
  test("each spot at its best height: above the wall both are cleared, beside it already lower; a leg's own limit is kept", async () => {
    const { job, hub } = await scene();
    const { rows, progress } = await told(job.id, hub.id, { along: "points", lowestM: 2, highestM: 20 });
    expect(progress.at(-1)).toBe(1);
    const [own, east] = rows;
    expect(own).toMatchObject({ name: "The site's own mount", cleared: 2, seen: 2, of: 2, mountId: null });
    // The wall is 11 m high midway to a remote of 8 m: the bare line needs 14 m, 60 % of the zone (1.7 m) 17.4.
    expect(own!.aglM).toBeGreaterThan(17.4);
    expect(east).toMatchObject({ name: "East leg", cleared: 2, of: 2, mountId: "east" });
    expect(east!.aglM).toBeLessThan(own!.aglM);
    const low = await told(job.id, hub.id, { along: "points", lowestM: 2, highestM: 6 });
    expect(low.rows[0]).toMatchObject({ cleared: 1, seen: 1 });
    expect(low.rows[0]!.aglM).toBeLessThanOrEqual(6);
  });

  test("other sites of the job are looked at, its own remotes are not; nothing of the hub is changed", async () => {
    const { job, hub, mast } = await scene();
    const hill = await create(db, job.id, "site", { name: "Hill", ...destination(A, 45, 400), mountAglM: 9, mountMaxAglM: 9 });
    const { rows } = await told(job.id, hub.id, { along: "sites", lowestM: 2, highestM: 20 });
    expect(new Set(rows.map((r) => r.siteId))).toEqual(new Set([mast.id, hill.id]));
    expect(rows.find((r) => r.siteId === hill.id)!.aglM).toBeLessThanOrEqual(9);
    // A site that was moved onto a remote's is another spot the next time.
    await patch(db, "site", hill.id, 1, destination(A, 200, 700));
    const again = await told(job.id, hub.id, { along: "sites", lowestM: 2, highestM: 20 });
    expect(again.rows.find((r) => r.siteId === hill.id)!.northM).toBeLessThan(0);
  });

  test("heights the wrong way round are named at the door", () => {
    const bad = hubMountsSchema.safeParse({ along: "points", lowestM: 9, highestM: 3 });
    expect(bad.error!.issues[0]).toMatchObject({ path: ["highestM"], message: "the highest mount must not be below the lowest" });
  });
});
