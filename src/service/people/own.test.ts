/* What is whose: numbers of edits, steps that are taken back, news of a job. */
import { randomUUID } from "node:crypto";
import { afterEach, beforeAll, expect, test, vi } from "vitest";
import { asAsker } from "../../data/actor";
import { testDb } from "../../data/testing/db";
import { createJob } from "../../data/testing/edits";
import { makeFirm, makePerson, type Person, signInOn } from "./testing/firm";
import { ask } from "./testing/routes";

signInOn();
const db = testDb();
let anna: Person;
let bren: Person;
let jobId: string;
const open: ReadableStreamDefaultReader<Uint8Array>[] = [];

beforeAll(async () => {
  const firm = await makeFirm(db, "Two of the isles");
  anna = await makePerson(db, firm, "planner", { name: "Anna Skerry" });
  bren = await makePerson(db, firm, "planner", { name: "Bren Holm" });
  jobId = (await asAsker(anna.who, () => createJob(db, "Whose", { centreLatDeg: 46.6, centreLonDeg: -31 }))).id;
});
afterEach(async () => {
  for (const r of open.splice(0)) await r.cancel();
});

const siteAt = (lonDeg: number): object => ({ name: `At ${lonDeg}`, latDeg: 46.6, lonDeg, mountAglM: 6 });
const make = (p: Person, body: object, headers: Readonly<Record<string, string>> = {}): Promise<Response> =>
  ask("POST jobs/[jobId]/[records]", p.cookie, { params: { jobId, records: "sites" }, body, headers });
const sites = async (): Promise<{ id: string; name: string }[]> =>
  (await (await ask("GET jobs/[jobId]/[records]", anna.cookie, { params: { jobId, records: "sites" } })).json()) as {
    id: string;
    name: string;
  }[];

test("a number of an edit belongs to who made it: sent again it is answered as before, sent by another it is another edit", async () => {
  const headers = { "x-edit": randomUUID() };
  const before = (await sites()).length;
  const first = (await (await make(anna, siteAt(-31.001), headers)).json()) as { id: string };
  const again = (await (await make(anna, siteAt(-31.001), headers)).json()) as { id: string };
  expect(again.id).toBe(first.id);
  const other = (await (await make(bren, siteAt(-31.002), headers)).json()) as { id: string };
  expect(other.id).not.toBe(first.id);
  expect(await sites()).toHaveLength(before + 2);
});

test("what was made in one name is not taken in another's", async () => {
  const before = (await sites()).length;
  const answer = await make(bren, siteAt(-31.003), { "x-person": anna.userId });
  expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([409, "other-person"]);
  expect(await sites()).toHaveLength(before);
  expect((await make(anna, siteAt(-31.003), { "x-person": anna.userId })).status).toBe(200);
});

test("a step is taken back by who made it, whatever browser another says to be; the history names them", async () => {
  const client = { "x-client": "client-of-anna" };
  const made = (await (await make(anna, siteAt(-31.004), client)).json()) as { id: string };
  const undo = (p: Person): Promise<Response> =>
    ask("POST jobs/[jobId]/undo", p.cookie, { params: { jobId }, body: { redo: false }, headers: client });
  expect(await (await undo(bren)).json()).toMatchObject({ step: null });
  expect((await sites()).map((s) => s.id)).toContain(made.id);
  const book = await (await ask("GET jobs/[jobId]/history", bren.cookie, { params: { jobId } })).text();
  expect(book).toContain("Anna Skerry");
  expect(book).not.toContain("client-of-anna");
  await undo(anna);
  expect((await sites()).map((s) => s.id)).not.toContain(made.id);
});

test("an id that another firm's row has is taken, and nothing of that row is told", async () => {
  const stranger = await makePerson(db, await makeFirm(db, "Ids of others"), "planner");
  const theirs = (await asAsker(stranger.who, () => createJob(db, "Theirs", { centreLatDeg: 46.6, centreLonDeg: -31 }))).id;
  const id = randomUUID();
  const made = await ask("POST jobs/[jobId]/[records]", stranger.cookie, {
    params: { jobId: theirs, records: "sites" },
    body: { ...siteAt(-31.2), id, notes: "a secret of theirs" },
  });
  expect(made.status).toBe(200);
  const answer = await make(anna, { ...siteAt(-31.3), id });
  expect(answer.status).toBe(409);
  expect(await answer.text()).not.toContain("secret");
});

test("a refusal is written down with what was asked and by whom, without query or body; what is let through is not", async () => {
  const lines: string[] = [];
  const spy = vi.spyOn(console, "error").mockImplementation((line: string) => void lines.push(line));
  try {
    await ask("GET people", bren.cookie, { query: "?token=a-secret" });
    await ask("POST tokens", bren.cookie, { body: { name: "a-secret" } });
    await ask("GET jobs", bren.cookie, { headers: { "sec-fetch-site": "cross-site" } });
    await ask("GET jobs", bren.cookie);
  } finally {
    spy.mockRestore();
  }
  expect(lines.map((l) => l.replace(/^\S+ /, ""))).toEqual([
    `refused: GET /api/people: see-people, ${bren.userId}`,
    `refused: POST /api/tokens: edit-people, ${bren.userId}`,
    "refused: GET /api/jobs: cross-site, nobody known",
  ]);
});

const listen = async (p: Person, client: string): Promise<Response> => {
  const answer = await ask("GET jobs/[jobId]/events", p.cookie, { params: { jobId }, query: `?client=${client}` });
  if (answer.ok) open.push(answer.body!.getReader());
  return answer;
};
/** The next that a line tells. */
const told = async (reader: ReadableStreamDefaultReader<Uint8Array>, wanted: RegExp): Promise<string> => {
  let text = "";
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return text;
    text += new TextDecoder().decode(value);
    if (wanted.test(text)) return text;
  }
};

test("news tell whether it was one's own browser, and no browser's name", async () => {
  await listen(bren, "client-of-bren");
  await listen(anna, "client-of-anna");
  await told(open[0]!, /hello/);
  await told(open[1]!, /hello/);
  await make(anna, siteAt(-31.005), { "x-client": "client-of-anna" });
  const [atBren, atAnna] = [await told(open[0]!, /"site"/), await told(open[1]!, /"site"/)];
  expect(atBren).toContain('"own":false');
  expect(atAnna).toContain('"own":true');
  expect(atBren + atAnna).not.toContain("client-of");
});

test("people of the firm see who else has the job open and on which sheet; a customer sees and is seen by nobody", async () => {
  const at = async (p: Person, sheet: string) => {
    const answer = await ask("GET jobs/[jobId]/events", p.cookie, { params: { jobId }, query: `?client=client-${sheet}&sheet=${sheet}` });
    const reader = answer.body!.getReader();
    open.push(reader);
    return reader;
  };
  const customer = await makePerson(db, anna.who.organisationId, "customer", {
    jobIds: [jobId],
    sheets: ["section"],
    name: "Customer of the isles",
  });
  const ofAnna = await at(anna, "load");
  const ofCustomer = await at(customer, "section");
  const ofBren = await at(bren, "ground");
  expect(await told(ofBren, /event: here[\s\S]*\n\n/)).toContain('[{"name":"Anna Skerry","sheet":"load"}]');
  expect(await told(ofAnna, /event: here[\s\S]*\n\n/)).toContain('[{"name":"Bren Holm","sheet":"ground"}]');
  // On another sheet; then gone.
  const again = await at(bren, "air");
  expect(await told(ofAnna, /event: here[\s\S]*\n\n/)).toContain('"sheet":"air"');
  await ofBren.cancel();
  await again.cancel();
  expect(await told(ofAnna, /event: here\ndata: \[\]/)).toContain("data: []");
  // Whatever the customer's line was told meanwhile, no name was among it.
  await make(anna, siteAt(-31.006));
  const heard = await told(ofCustomer, /"site"/);
  expect(heard).not.toContain("Anna");
  expect(heard).not.toContain("event: here");
});

test("one person holds so many lines of news open, and no more; one that is let go makes room", async () => {
  let held = 0;
  while ((await listen(anna, "client-of-anna")).ok) held++;
  expect(held).toBe(40);
  expect((await listen(bren, "client-of-bren")).status).toBe(200);
  await open[0]!.cancel();
  expect((await listen(anna, "client-of-anna")).status).toBe(200);
});
