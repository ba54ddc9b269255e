import { sql } from "drizzle-orm";
import { beforeAll, expect, test } from "vitest";
import { lonLats } from "../contract";
import { circleAbout, destination } from "../core/geo";
import { NotFound } from "../data/clash";
import { listRadios } from "../data/hardware";
import { getLink } from "../data/jobs";
import { createLink } from "../data/links";
import { getRecord } from "../data/records";
import { testDb } from "../data/testing/db";
import { bring, create, createJob, patch, plainDesign, take } from "../data/testing/edits";
import { endPositions, profileDto, profileOf } from "./profile";
import { keptProfile } from "./profile-kept";

const db = testDb();
const A = { latDeg: 42, lonDeg: -31 };
const B = destination(A, 80, 900);

const level = (heightAmslM: number) => ({ kind: "level" as const, sigmaM: 0.3, points: [{ distanceM: 0, heightAmslM }] });

let jobId: string;
let linkId: string;
let siteId: string;
let treeId: string;
beforeAll(async () => {
  const job = await createJob(db, "Kept", { centreLatDeg: A.latDeg, centreLonDeg: A.lonDeg });
  jobId = job.id;
  const near = await create(db, jobId, "site", { name: "A", ...A, mountAglM: 10, mountMaxAglM: null });
  const far = await create(db, jobId, "site", { name: "B", ...B, mountAglM: 10, mountMaxAglM: null });
  siteId = far.id;
  const radioId = (await listRadios(db))[0]!.id;
  linkId = (await createLink(db, jobId, { nearSiteId: near.id, farSiteId: far.id, label: "", design: plainDesign(radioId) })).id;
  await patch(db, "link", linkId, 1, { groundTold: level(0) });
  const outline = lonLats(circleAbout(destination(A, 80, 400), 8, 12));
  treeId = (await create(db, jobId, "obstacle", { name: "Ash", kind: "crown", outline, heightM: 12, surveyedOn: "2025-06-01" })).id;
});

const fresh = async () => {
  const { link, job, near, far } = await getLink(db, linkId, jobId);
  const ends = endPositions(link, near, far);
  return profileDto(await profileOf(db, job, link, near, far), job, ends.near, ends.far);
};
const kept = () => keptProfile(db, linkId, jobId);
const versionOf = async (kind: "site" | "obstacle" | "link" | "job", id: string): Promise<number> =>
  (await getRecord(db, jobId, kind, id)).version;

test("what it rests on changes it at once; all else leaves the one that was sampled", async () => {
  const first = await kept();
  expect(first).toEqual(await fresh());
  expect(first.bodies.map((b) => b.name)).toEqual(["Ash"]);
  await patch(db, "site", siteId, await versionOf("site", siteId), { notes: "Ask at the door" });
  await patch(db, "job", jobId, await versionOf("job", jobId), { name: "Kept, renamed" });
  expect(await kept()).toBe(first);

  const edits: [string, () => Promise<unknown>][] = [
    ["a tree's name", async () => patch(db, "obstacle", treeId, await versionOf("obstacle", treeId), { name: "Old ash" })],
    ["a tree's height", async () => patch(db, "obstacle", treeId, await versionOf("obstacle", treeId), { heightM: 15 })],
    ["a site's place", async () => patch(db, "site", siteId, await versionOf("site", siteId), destination(A, 80.2, 905))],
    ["the day of the visit", async () => patch(db, "job", jobId, await versionOf("job", jobId), { visitOn: "2029-05-01" })],
    [
      "ground that is told",
      async () =>
        patch(db, "link", linkId, await versionOf("link", linkId), {
          groundTold: level(5),
        }),
    ],
    ["a tree that is felled", async () => take(db, "obstacle", treeId, await versionOf("obstacle", treeId))],
  ];
  let last = first;
  for (const [what, make] of edits) {
    await make();
    const now = await kept();
    expect(now, what).toEqual(await fresh());
    expect(now, what).not.toEqual(last);
    last = now;
  }
});

test("a link that is away has none, nor has one of another job; one that could not be sampled is tried again", async () => {
  const version = await versionOf("link", linkId);
  await take(db, "link", linkId, version);
  await expect(kept()).rejects.toThrow(NotFound);
  await bring(db, "link", linkId, version + 1);
  expect(await kept()).toEqual(await fresh());
  const other = await createJob(db, "Beside");
  await expect(keptProfile(db, linkId, other.id)).rejects.toThrow(NotFound);

  // Broken beneath the program's feet, and mended the same way: the count stands all the while.
  await db.execute(sql`UPDATE link_verdict SET want = want + 1 WHERE link_id = ${linkId}`);
  await db.execute(sql`ALTER TABLE design DISABLE TRIGGER USER`);
  await db.execute(sql`UPDATE design SET chosen = false WHERE link_id = ${linkId}`);
  await expect(kept()).rejects.toThrow(NotFound);
  await db.execute(sql`UPDATE design SET chosen = true WHERE link_id = ${linkId}`);
  await db.execute(sql`ALTER TABLE design ENABLE TRIGGER USER`);
  expect(await kept()).toEqual(await fresh());
});
