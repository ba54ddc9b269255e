/* How much room files and photos may take: of a job, of a person, of a firm. */
import { randomUUID } from "node:crypto";
import { beforeAll, expect, test, vi } from "vitest";
import { asAsker } from "../../data/actor";
import { testDb } from "../../data/testing/db";
import { createJob } from "../../data/testing/edits";
import { makeFirm, makePerson, type Person, signInOn } from "./testing/firm";
import { ask } from "./testing/routes";

// Read where the limits are declared, when they are first asked for.
vi.stubEnv("DRYARC_MOST_PHOTO_BYTES", "200");
vi.stubEnv("DRYARC_MOST_PERSON_BYTES", "5000000000");
vi.stubEnv("DRYARC_MOST_ALL_BYTES", "9000000000");
signInOn();
const db = testDb();
let one: Person;
let two: Person;
let jobs: string[];

beforeAll(async () => {
  const firm = await makeFirm(db, "Crowded isles");
  one = await makePerson(db, firm, "planner");
  two = await makePerson(db, firm, "planner");
  const newJob = (name: string) => asAsker(one.who, () => createJob(db, name, { centreLatDeg: 46.7, centreLonDeg: -31 }));
  jobs = [(await newJob("First")).id, (await newJob("Second")).id];
});

test("files on their way in are counted by person and by firm, whichever jobs they are for", async () => {
  const send = async (by: Person, jobId: string, sizeBytes: number): Promise<string> => {
    const answer = await ask("POST jobs/[jobId]/uploads", by.cookie, { params: { jobId }, body: { name: "a.tif", sizeBytes } });
    return answer.ok ? "begun" : ((await answer.json()) as { code: string }).code;
  };
  const sizes = 2_000_000_000;
  expect([await send(one, jobs[0]!, sizes), await send(one, jobs[1]!, sizes)]).toEqual(["begun", "begun"]);
  expect(await send(one, jobs[1]!, sizes)).toBe("quota-person");
  expect(await send(two, jobs[1]!, sizes)).toBe("begun");
  expect(await send(one, jobs[0]!, 1_000_000_000)).toBe("begun");
  expect(await send(two, jobs[0]!, 1_900_000_000)).toBe("begun");
  expect(await send(two, jobs[1]!, 1_000_000_000)).toBe("quota-all");
});

/** A picture of one point: 70 bytes. */
const PNG = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkqPz/HwAEAQH/7yMK/gAAAABJRU5ErkJggg==", "base64");

test("photos take so much room of a job and no more; one that is sent again takes none", async () => {
  const send = (jobId: string, id: string): Promise<Response> =>
    ask("POST jobs/[jobId]/photos", one.cookie, {
      params: { jobId },
      query: `?id=${id}&about=${encodeURIComponent(JSON.stringify({ siteId: null, fromWhere: "other", bearingDeg: null, takenOn: null, note: "" }))}`,
      bytes: PNG,
    });
  const ids = [randomUUID(), randomUUID()];
  for (const id of ids) {
    const answer = await send(jobs[0]!, id);
    expect(answer.status, await answer.clone().text()).toBe(200);
  }
  const over = await send(jobs[0]!, randomUUID());
  expect([over.status, ((await over.json()) as { code: string }).code]).toEqual([422, "quota-photos"]);
  expect((await send(jobs[0]!, ids[1]!)).status).toBe(200);
  expect((await send(jobs[1]!, randomUUID())).status).toBe(200);
});
