/* Several designs changed at once: all of them or none, one step of the history; on a real PostgreSQL, through the route. */
import { expect, test } from "vitest";
import { POST } from "../app/api/jobs/[jobId]/take/route";
import { asClient } from "./actor";
import { listRadios } from "./hardware";
import { undoLast } from "./history";
import { linksOf } from "./jobs";
import { createLink } from "./links";
import { testDb } from "./testing/db";
import { create, createJob, patch, plainDesign } from "./testing/edits";

const db = testDb();
const CLIENT = "client-taking";

const threeLinks = async () => {
  const job = await createJob(db, "Taking", { centreLatDeg: 44, centreLonDeg: -34 });
  const sites = [];
  for (const i of [0, 1, 2, 3])
    sites.push(await create(db, job.id, "site", { name: `S${i}`, latDeg: 44 + i / 100, lonDeg: -34, mountAglM: 6 }));
  const [radio, other] = await listRadios(db);
  const design = plainDesign(radio!.id);
  for (const i of [1, 2, 3]) await createLink(db, job.id, { nearSiteId: sites[0]!.id, farSiteId: sites[i]!.id, label: "", design });
  return { job, radio: radio!.id, other: other!.id };
};

const take = (jobId: string, designs: unknown): Promise<Response> =>
  POST(
    new Request(`http://127.0.0.1:4610/api/jobs/${jobId}/take`, {
      method: "POST",
      headers: { "content-type": "application/json", host: "127.0.0.1:4610", "x-client": CLIENT },
      body: JSON.stringify({ designs }),
    }),
    { params: Promise.resolve({ jobId }) },
  );

const radiosOf = async (jobId: string): Promise<string[]> => (await linksOf(db, jobId)).map((l) => l.design.nearRadioId);

test("all of them or none, and one undo takes all of them back", async () => {
  const { job, radio, other } = await threeLinks();
  const asked = async (fields: object = { nearRadioId: other }) =>
    (await linksOf(db, job.id)).map((l) => ({ id: l.design.id, version: l.design.version, fields }));
  const stale = await asked();
  const last = (await linksOf(db, job.id))[2]!.design;
  await patch(db, "design", last.id, last.version, { nearMountAglM: 9 });
  // Somebody changed the third meanwhile: the first two stay as they were, too.
  const refused = await take(job.id, stale);
  expect(refused.status).toBe(409);
  expect(await radiosOf(job.id)).toEqual([radio, radio, radio]);
  const wrong = await take(job.id, await asked({ nearRadioId: other, colour: "red" }));
  expect(wrong.status).toBe(400);
  expect(await radiosOf(job.id)).toEqual([radio, radio, radio]);

  expect((await take(job.id, await asked())).status).toBe(200);
  expect(await radiosOf(job.id)).toEqual([other, other, other]);
  await asClient(CLIENT, () => undoLast(db, job.id));
  expect(await radiosOf(job.id)).toEqual([radio, radio, radio]);
  expect((await linksOf(db, job.id))[2]!.design.nearMountAglM).toBe(9);
});

test("a design of another job is not there", async () => {
  const [one, two] = [await threeLinks(), await threeLinks()];
  const foreign = (await linksOf(db, two.job.id))[0]!.design;
  const answer = await take(one.job.id, [{ id: foreign.id, version: foreign.version, fields: { nearRadioId: one.other } }]);
  expect(answer.status).toBe(404);
  expect(await radiosOf(two.job.id)).toEqual([two.radio, two.radio, two.radio]);
});
