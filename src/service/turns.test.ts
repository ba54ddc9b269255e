import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import { POST } from "../app/api/jobs/[jobId]/photos/route";
import { testDb } from "../data/testing/db";
import { createJob } from "../data/testing/edits";
import { ask } from "./people/testing/routes";

const db = testDb();

test("a photo that trickles in from a phone holds up nobody else's edit of the job, and is refused when it breaks off", async () => {
  const job = await createJob(db, "Slow phone");
  let body!: ReadableStream<Uint8Array>;
  let feed!: ReadableStreamDefaultController<Uint8Array>;
  // It is read up to where it hangs: whatever is held while a body comes is held by now.
  const hangs = new Promise<void>((resolve) => {
    let asked = 0;
    const pull = (controller: ReadableStreamDefaultController<Uint8Array>): void => {
      feed = controller;
      if (asked++ === 0) controller.enqueue(Uint8Array.from([0xff, 0xd8, 0xff]));
      else resolve();
    };
    body = new ReadableStream<Uint8Array>({ pull }, { highWaterMark: 0 });
  });
  const about = encodeURIComponent(
    JSON.stringify({ siteId: null, fromWhere: "ground", bearingDeg: null, takenOn: "2026-12-03", note: "" }),
  );
  const photo = POST(
    new Request(`http://localhost:4610/api/jobs/${job.id}/photos?about=${about}`, {
      method: "POST",
      headers: { host: "localhost:4610", "x-edit": randomUUID() },
      body,
      duplex: "half",
    } as RequestInit),
    { params: Promise.resolve({ jobId: job.id }) },
  );
  await hangs;
  const edited = await ask("PATCH jobs/[jobId]", null, {
    params: { jobId: job.id },
    body: { version: 1, name: "Slow phone, renamed" },
    headers: { "x-edit": randomUUID() },
  });
  expect([edited.status, ((await edited.json()) as { name: string }).name]).toEqual([200, "Slow phone, renamed"]);
  feed.error(new Error("no coverage"));
  const refused = await photo;
  expect([refused.status, await refused.json()]).toEqual([400, { code: "bad-body", message: "broke off" }]);
});
