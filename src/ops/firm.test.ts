import { randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeEach, expect, test } from "vitest";
import { openDb } from "../data/client";
import { testDb } from "../data/testing/db";
import { signInOn } from "../service/people/testing/firm";
import { ask, cookiesOf } from "../service/people/testing/routes";
import { openFirm } from "./firm";

signInOn();
const db = testDb();
const doors = openDb(process.env.DATABASE_DOOR_URL!);
afterAll(doors.close);
beforeEach(() => db.execute(sql`DELETE FROM auth.tries`));

test("another firm begins empty: its owner comes in by the link, finds what ships, and no job, person or sheet of any other", async () => {
  const email = `owner-${randomUUID().slice(0, 8)}@elsewhere.example`;
  const url = await openFirm(doors.db, { name: "Elsewhere Wireless", email }, "https://dryarc.local");
  const token = /^https:\/\/dryarc\.local\/join#([\w-]{22})$/.exec(url)![1]!;
  const joined = await ask("POST join", null, { body: { token, name: "Ossian Reed", password: "kelp over granite at noon" } });
  const cookie = cookiesOf(joined);
  const read = async (route: string) => (await (await ask(route, cookie)).json()) as never;
  expect(((await read("GET me")) as { person: object }).person).toMatchObject({
    role: "owner",
    organisation: "Elsewhere Wireless",
    allJobs: true,
  });
  expect(await read("GET jobs")).toEqual([]);
  expect(((await read("GET people")) as { people: { email: string }[] }).people.map((p) => p.email)).toEqual([email]);
  const { radios } = (await read("GET hardware")) as { radios: { stock?: number }[] };
  expect(radios.length).toBeGreaterThan(10);
  // What another firm counts of a shipped sheet is not told.
  expect(radios.filter((r) => r.stock !== undefined)).toEqual([]);
  const again = await ask("POST join", null, { body: { token, name: "Late", password: "kelp over granite at noon" } });
  expect(again.status).toBe(422);
  // An address belongs to one firm, and a firm that nobody could come into is not made.
  const firms = async () => (await db.execute(sql`SELECT FROM organisation`)).rowCount;
  const before = await firms();
  await expect(openFirm(doors.db, { name: "Twice", email }, "")).rejects.toMatchObject({ code: "name-taken" });
  expect(await firms()).toBe(before);
  const made = await ask("POST jobs", cookie, {
    body: { name: "First", visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 },
  });
  // Numbers of jobs are counted firm by firm.
  expect(await made.json()).toMatchObject({ number: 1 });
});
