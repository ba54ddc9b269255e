import { randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { makeFirm } from "../service/people/testing/firm";
import { type Asker, asAsker, programFor } from "./actor";
import { openDb } from "./client";
import { firstOrganisation } from "./people";
import { makeJob } from "./records";
import { NO_FIRM } from "./schema-shared";
import { testDb } from "./testing/db";

/*
 * The second lock. What is asked here is asked without any of the checks that the code makes: by SQL, in the roles that the
 * application, the door and the worker have.
 */

const all = testDb();
const open = (name: "DATABASE_URL" | "DATABASE_DOOR_URL" | "DATABASE_WORKER_URL", most?: number) => {
  const made = openDb(process.env[name]!, most, name !== "DATABASE_WORKER_URL");
  afterAll(made.close);
  return made.db;
};
const app = open("DATABASE_URL");
const door = open("DATABASE_DOOR_URL");
const worker = open("DATABASE_WORKER_URL");

interface Table extends Record<string, unknown> {
  readonly schema: string;
  readonly name: string;
  readonly enabled: boolean;
  readonly forced: boolean;
  readonly policies: number;
}
const tables = async (): Promise<Table[]> =>
  (
    await all.execute<Table>(sql`
      SELECT n.nspname AS schema, c.relname AS name, c.relrowsecurity AS enabled, c.relforcerowsecurity AS forced,
        (SELECT count(*)::int FROM pg_policy p WHERE p.polrelid = c.oid) AS policies
      FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE c.relkind IN ('r', 'p') AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND n.nspname NOT LIKE 'pg\\_%'
        AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype = 'e')
      ORDER BY 1, 2`)
  ).rows;
const named = (t: Table) => sql.raw(`"${t.schema}"."${t.name}"`);
const count = async (db: typeof app, t: Table): Promise<number> =>
  (await db.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM ${named(t)}`)).rows[0]!.n;
const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => "allowed",
    (error: Error) => String((error.cause as Error | undefined)?.message ?? error.message),
  );

let home: string;
let firm: string;
let demoJob: string;
let otherJob: string;
let siteId: string;
let inTables: readonly Table[];
beforeAll(async () => {
  home = (await firstOrganisation(all)).id;
  firm = await makeFirm(all, "Another firm");
  inTables = (await tables()).filter((t) => t.schema === "public");
  const job = { name: "Guarded", visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 };
  otherJob = (await asAsker(programFor(home), () => makeJob(all, job as never))).id;
  const found = await all.execute<{ id: string; site: string }>(sql`
    SELECT j.id, s.id AS site FROM job j JOIN site s ON s.job_id = j.id JOIN obstacle o ON o.job_id = j.id
    WHERE j.organisation_id = ${home} AND j.deleted_at IS NULL AND s.deleted_at IS NULL ORDER BY j.number LIMIT 1`);
  demoJob = found.rows[0]!.id;
  siteId = found.rows[0]!.site;
});
const as = (more: Partial<Asker>): Asker => ({ ...programFor(home), personId: randomUUID(), ...more });

test("every table of ours is guarded, its owner held as well: no list of exceptions", async () => {
  const there = await tables();
  expect(there.length).toBeGreaterThan(30);
  expect(there.filter((t) => !t.enabled || !t.forced || t.policies === 0)).toEqual([]);
});

test("a backup is made by a role that reads every row and writes none", async () => {
  const backup = openDb(process.env.DATABASE_BACKUP_URL!);
  try {
    for (const t of await tables()) expect(await count(backup.db, t), t.name).toBe(await count(all, t));
    expect(await refusal(backup.db.execute(sql`UPDATE site SET name = name`))).toMatch(/permission denied/);
  } finally {
    await backup.close();
  }
});

test("no role of a process owns anything, inherits anything, or goes round the guard", async () => {
  const roles = ["dryarc_app", "dryarc_door", "dryarc_worker"];
  const r = await all.execute<{ name: string; bad: boolean; owns: number; member: number }>(sql`
    SELECT rolname AS name, rolsuper OR rolbypassrls OR rolcreaterole OR rolcreatedb AS bad,
      (SELECT count(*)::int FROM pg_class c WHERE c.relowner = o.oid) AS owns,
      (SELECT count(*)::int FROM pg_auth_members m WHERE m.member = o.oid) AS member
    FROM pg_roles o WHERE rolname = ANY(${sql.param(roles)}::text[]) ORDER BY 1`);
  expect(r.rows).toEqual(roles.map((name) => ({ name, bad: false, owns: 0, member: 0 })));
});

describe("a query that forgets to ask whose a row is", () => {
  test("finds nothing where nobody said who works", async () => {
    for (const t of inTables) {
      if (t.name === "member" || t.name === "member_job") continue;
      const seen = await count(app, t);
      // Whether a worker lives is nobody's secret.
      if (t.name !== "beat") expect(seen, t.name).toBe(0);
    }
  });

  test("finds nothing of another firm, but what ships; and all of its own", async () => {
    const [mine, foreign] = [programFor(home), programFor(firm)];
    for (const t of inTables) {
      if (["member", "member_job", "beat"].includes(t.name)) continue;
      const seen = await asAsker(foreign, () => count(app, t));
      const shipped = ["radio", "antenna", "part"].includes(t.name)
        ? (await all.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM ${named(t)} WHERE organisation_id = ${NO_FIRM}`)).rows[0]!.n
        : 0;
      expect(seen, t.name).toBe(t.name === "organisation" ? 1 : shipped);
    }
    for (const name of ["job", "site", "obstacle", "link", "design", "record", "terrain_tile", "link_verdict"]) {
      const t = inTables.find((one) => one.name === name)!;
      expect(await asAsker(mine, () => count(app, t)), name).toBeGreaterThan(0);
    }
  });

  test("finds nothing of a job that was not given", async () => {
    const limited = as({ jobIds: [otherJob] });
    const rows = await asAsker(limited, () => app.execute<{ id: string }>(sql`SELECT id FROM job`));
    expect(rows.rows).toEqual([{ id: otherJob }]);
    for (const name of ["site", "obstacle", "feature", "link", "design", "record", "brief", "photo", "link_verdict"]) {
      const t = inTables.find((one) => one.name === name)!;
      expect(await asAsker(limited, () => count(app, t)), name).toBe(0);
      expect(await asAsker(as({ jobIds: [] }), () => count(app, t)), name).toBe(0);
    }
  });

  test("changes, takes and makes nothing of another firm", async () => {
    const foreign = programFor(firm);
    const changed = await asAsker(foreign, () => app.execute(sql`UPDATE site SET name = 'taken over' WHERE id = ${siteId}`));
    expect(changed.rowCount).toBe(0);
    const taken = await asAsker(foreign, () => app.execute(sql`DELETE FROM obstacle WHERE job_id = ${demoJob}`));
    expect(taken.rowCount).toBe(0);
    const put = (organisation: string, who: Asker) =>
      refusal(
        asAsker(who, () =>
          app.execute(sql`INSERT INTO job (organisation_id, number, name, visit_on, centre_lat_deg, centre_lon_deg)
            VALUES (${organisation}, 999001, 'planted', '2026-12-03', 46, -25)`),
        ),
      );
    expect(await put(home, foreign)).toMatch(/row-level security/);
    const within = (who: Asker) =>
      refusal(
        asAsker(who, () =>
          app.execute(sql`INSERT INTO site (job_id, name, lat_deg, lon_deg, mount_agl_m) VALUES (${demoJob}, 'planted', 46.1, -25, 3)`),
        ),
      );
    expect(await within(foreign)).toMatch(/row-level security/);
    // A row cannot be given to another firm either.
    const given = asAsker(programFor(home), () => app.execute(sql`UPDATE job SET organisation_id = ${firm} WHERE id = ${otherJob}`));
    expect(await refusal(given)).toMatch(/row-level security/);
  });

  test("writes only what the role may, kind by kind", async () => {
    const rename = (who: Asker) => asAsker(who, () => app.execute(sql`UPDATE link SET label = label WHERE job_id = ${demoJob}`));
    const ticks = (who: Asker) => asAsker(who, () => app.execute(sql`UPDATE site SET notes = notes WHERE id = ${siteId}`));
    expect((await rename(as({ role: "planner" }))).rowCount).toBeGreaterThan(0);
    expect((await rename(as({ role: "installer" }))).rowCount).toBe(0);
    expect((await ticks(as({ role: "installer" }))).rowCount).toBe(1);
    for (const role of ["viewer", "customer"] as const) {
      expect((await ticks(as({ role }))).rowCount).toBe(0);
      expect((await asAsker(as({ role }), () => app.execute(sql`UPDATE job SET name = name`))).rowCount).toBe(0);
      expect((await asAsker(as({ role }), () => app.execute(sql`UPDATE record SET doc = doc`))).rowCount).toBe(0);
    }
    expect((await asAsker({ ...as({}), role: "nobody" as never }, () => app.execute(sql`SELECT FROM record`))).rowCount).toBe(0);
  });

  test("nor does a sheet that ships, or ground of another firm, change by a firm's hand", async () => {
    const mine = programFor(home);
    expect((await asAsker(mine, () => app.execute(sql`UPDATE radio SET name = name WHERE organisation_id = ${NO_FIRM}`))).rowCount).toBe(0);
    expect((await asAsker(programFor(firm), () => app.execute(sql`UPDATE terrain_dataset SET sigma_m = 0`))).rowCount).toBe(0);
    const cut = asAsker(programFor(firm), () => app.execute(sql`DELETE FROM terrain_tile`));
    expect((await cut).rowCount).toBe(0);
  });
});

describe("who works is said anew in each transaction", () => {
  const one = open("DATABASE_URL", 1);
  const seen = () => one.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM job`).then((r) => r.rows[0]!.n);

  test("and is forgotten with it, on the same connection", async () => {
    expect(await asAsker(programFor(home), seen)).toBeGreaterThan(1);
    expect(await seen()).toBe(0);
    await asAsker(programFor(home), () => one.transaction((tx) => tx.execute(sql`SELECT 1`)));
    expect(await seen()).toBe(0);
    const broken = asAsker(programFor(home), () => one.execute(sql`SELECT * FROM no_such_table`));
    await expect(broken).rejects.toThrow();
    expect(await seen()).toBe(0);
  });

  test("each of many who wait for one connection is shown their own", async () => {
    const asked = Array.from({ length: 20 }, (_, i) =>
      i % 2 === 0
        ? asAsker(programFor(home), seen).then((n) => n > 1)
        : asAsker(programFor(firm), () => one.transaction((tx) => tx.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM job`))).then(
            (r) => r.rows[0]!.n === 0,
          ),
    );
    expect(await Promise.all(asked)).toEqual(asked.map(() => true));
  });

  test("a firm's name that is none is refused, never read as another statement", async () => {
    const planted = { ...programFor(home), organisationId: `${home}', true); SET ROLE dryarc; --` };
    expect(await refusal(asAsker(planted, seen))).toMatch(/invalid input syntax for type uuid/);
    expect(await asAsker(programFor(home), seen)).toBeGreaterThan(1);
  });
});

describe("what lets people in", () => {
  test("is closed to the application and to the worker, table by table", async () => {
    const doors = (await tables()).filter((t) => t.schema === "auth" || t.name === "member" || t.name === "member_job");
    expect(doors.length).toBeGreaterThan(14);
    for (const t of doors) {
      expect(await refusal(asAsker(programFor(home), () => count(app, t))), t.name).toMatch(/permission denied/);
      expect(await refusal(asAsker(programFor(home), () => app.execute(sql`DELETE FROM ${named(t)}`))), t.name).toMatch(
        /permission denied/,
      );
    }
    expect(await refusal(worker.execute(sql`SELECT token FROM auth.session`))).toMatch(/permission denied/);
    expect(await refusal(worker.execute(sql`DELETE FROM auth.session WHERE expires_at < now()`))).toBe("allowed");
  });

  test("sees of jobs only which there are, and nothing that is in them", async () => {
    expect(await refusal(door.execute(sql`SELECT id, name, visit_on FROM job`))).toBe("allowed");
    expect(await refusal(door.execute(sql`SELECT centre_lat_deg FROM job`))).toMatch(/permission denied/);
    for (const name of ["site", "obstacle", "record", "change", "radio", "photo"])
      expect(await refusal(door.execute(sql`SELECT FROM ${sql.identifier(name)}`)), name).toMatch(/permission denied/);
  });

  test("keeps a book that is added to and never changed", async () => {
    expect(await refusal(door.execute(sql`UPDATE auth.audit SET what = 'nothing'`))).toMatch(/permission denied/);
    expect(await refusal(door.execute(sql`DELETE FROM auth.audit`))).toMatch(/permission denied/);
  });
});

test("the worker sees what waits for it in every firm, and what is in a job only when it works for that firm", async () => {
  expect((await worker.execute(sql`SELECT FROM link_verdict`)).rowCount).toBeGreaterThan(0);
  for (const name of ["job", "site", "obstacle", "record", "design", "terrain_tile"])
    expect((await worker.execute(sql`SELECT FROM ${sql.identifier(name)} LIMIT 1`)).rowCount, name).toBe(0);
  expect((await asAsker(programFor(home), () => worker.execute(sql`SELECT FROM obstacle LIMIT 1`))).rowCount).toBe(1);
});

test("the index over shapes answers beneath the guard", async () => {
  const plan = await asAsker(programFor(home), () =>
    app.execute<{ "QUERY PLAN": string }>(sql`
      EXPLAIN SELECT o.id FROM obstacle o WHERE o.job_id = ${demoJob} AND o.deleted_at IS NULL
        AND o.outline && ST_MakeEnvelope(-40, 44, -39.999, 44.001, 4326)`),
  );
  expect(plan.rows.map((r) => r["QUERY PLAN"]).join("\n")).toMatch(/obstacle_outline/);
});
