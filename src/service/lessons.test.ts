/* What other jobs taught, by their names; on a real PostgreSQL. */
import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { expect, test } from "vitest";
import { edit } from "../data/records";
import { job } from "../data/schema";
import { testDb } from "../data/testing/db";
import { create, createJob } from "../data/testing/edits";
import { lessonsBeside } from "./lessons";

const db = testDb();

test("lessons of other jobs with the names of where they were learnt; none of one's own, none of a job that is gone", async () => {
  const [asks, taught] = [await createJob(db, "Asks"), await createJob(db, "Taught")];
  const site = await create(db, taught.id, "site", { name: "Kiln", latDeg: 47.3, lonDeg: -19.4, mountAglM: 5 });
  const lesson = { id: randomUUID(), siteId: site.id, words: "seal the top", partId: "whelk-25", wall: null };
  await edit(db, taught.id, (door) => door.patch("kit", taught.id, 0, { lessons: [lesson] }));
  const found = async (jobId: string) => (await lessonsBeside(db, jobId)).filter((l) => l.id === lesson.id);
  expect(await found(asks.id)).toEqual([{ ...lesson, jobId: taught.id, jobName: "Taught", siteName: "Kiln" }]);
  expect(await found(taught.id)).toEqual([]);
  await db.update(job).set({ deletedAt: new Date() }).where(eq(job.id, taught.id));
  expect(await found(asks.id)).toEqual([]);
});
