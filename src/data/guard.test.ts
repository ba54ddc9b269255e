import { randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { makeFirm } from "../service/people/testing/firm";
import { asAsker, programFor } from "./actor";
import { type Db, openDb } from "./client";
import { firstOrganisation } from "./people";
import { makeJob } from "./records";
import { testDb } from "./testing/db";

/* Pools that say who works: with each statement by itself, and with several sent before the first is answered. */

const all = testDb();
const JOB = { name: "Of a firm", visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 };

let home: string;
let other: string;
beforeAll(async () => {
  home = (await firstOrganisation(all)).id;
  other = await makeFirm(all, "A firm beside");
  for (const firm of [home, other]) await asAsker(programFor(firm), () => makeJob(all, JOB as never));
});

const firmNow = async (db: Db): Promise<string | null> =>
  (await db.execute<{ firm: string | null }>(sql`SELECT current_setting('dryarc.organisation', true) AS firm`)).rows[0]!.firm;
/** Firms whose jobs are seen: a statement that is the same for everybody, and so has one plan. */
const firmsSeen = async (db: Db): Promise<string[]> =>
  (await db.execute<{ id: string }>(sql`SELECT DISTINCT organisation_id AS id FROM job WHERE id <> ${randomUUID()}`)).rows.map((r) => r.id);
const faultOf = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => "none",
    (error: Error) => (error.cause as Error).message,
  );

describe.each([
  ["one by one", false],
  ["ahead of their answers", true],
])("statements that are sent %s", (_how, ahead) => {
  const { db, close } = openDb(process.env.DATABASE_URL!, 1, ahead);
  afterAll(close);

  test("one connection works for one firm after another, by one plan, and for nobody in between", async () => {
    for (let i = 0; i < 8; i++)
      for (const firm of [home, other]) {
        expect(await asAsker(programFor(firm), () => firmsSeen(db))).toEqual([firm]);
        expect([await firmNow(db), await firmsSeen(db)]).toEqual(["", []]);
      }
    const plans = await db.execute<{ n: number }>(
      sql`SELECT count(*)::int AS n FROM pg_prepared_statements WHERE statement LIKE 'SELECT DISTINCT organisation_id%'`,
    );
    expect(plans.rows[0]!.n).toBe(1);
  });

  test("a statement that fails says why, undoes itself, and leaves the connection to the next", async () => {
    const id = randomUUID();
    const number = sql`(SELECT max(number) FROM job)`;
    const twice = asAsker(programFor(other), () =>
      db.execute(sql`INSERT INTO made_edit (id) VALUES (${id}), ((SELECT 'no id' || ${number} || ${id})::uuid)`),
    );
    expect(await faultOf(twice)).toMatch(/invalid input syntax for type uuid/);
    const there = await all.execute(sql`SELECT FROM made_edit WHERE id = ${id}`);
    expect(there.rows).toHaveLength(0);
    expect(await asAsker(programFor(home), () => firmsSeen(db))).toEqual([home]);
  });

  test("one that writes is kept when it is answered", async () => {
    const id = randomUUID();
    await asAsker(programFor(other), () => db.execute(sql`INSERT INTO made_edit (id) VALUES (${id})`));
    expect((await all.execute(sql`SELECT FROM made_edit WHERE id = ${id}`)).rows).toHaveLength(1);
  });

  test("a transaction is of whoever began it, and one that fails half way leaves nothing", async () => {
    const id = randomUUID();
    const work = asAsker(programFor(other), () =>
      db.transaction(async (tx) => {
        expect(await firmsSeen(tx as unknown as Db)).toEqual([other]);
        await tx.execute(sql`INSERT INTO made_edit (id) VALUES (${id})`);
        await tx.execute(sql`SELECT 1 / ${0}::int`);
      }),
    );
    expect(await faultOf(work)).toBe("division by zero");
    expect((await all.execute(sql`SELECT FROM made_edit WHERE id = ${id}`)).rows).toHaveLength(0);
    expect(await firmNow(db)).toBe("");
  });
});

test("many who ask at once over few connections each see their own", async () => {
  const { db, close } = openDb(process.env.DATABASE_URL!, 3, true);
  const firms = Array.from({ length: 120 }, (_, i) => (i % 2 === 0 ? home : other));
  const seen = await Promise.all(
    firms.map((firm, i) =>
      asAsker(programFor(firm), () =>
        i % 3 === 0 ? db.transaction((tx) => firmsSeen(tx as unknown as Db)) : i % 7 === 0 ? firmNow(db).then((f) => [f]) : firmsSeen(db),
      ),
    ),
  );
  expect(seen).toEqual(firms.map((firm) => [firm]));
  await close();
});
