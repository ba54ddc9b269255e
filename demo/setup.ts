// Migrates the database named by DATABASE_OWNER_URL and writes the demo job once. Which firms there are it reads by DATABASE_DOOR_URL.
//   tsx demo/setup.ts [--fresh] [--no-demo] [--counts] [--nobody-yet]
import path from "node:path";
import { fileURLToPath } from "node:url";
import { sql } from "drizzle-orm";
import { asAsker, programFor } from "../src/data/actor";
import { openDb } from "../src/data/client";
import { refreshShipped } from "../src/data/hardware";
import { migrateDb } from "../src/data/migrate";
import { nobodyYet, organisationsOf } from "../src/data/people";
import { NO_FIRM } from "../src/data/schema-shared";
import { settleKey } from "../src/service/people/reseal";
import { generateDemo } from "./generate";
import { demoHardware, isSeeded, seedDemo } from "./seed";
import { writeDemoFiles } from "./write-files";

const named = (name: string): string => {
  const url = process.env[name];
  if (url !== undefined && url !== "") return url;
  console.error(`dry-arc: ${name} is not set.`);
  process.exit(1);
};
const { db, close } = openDb(named("DATABASE_OWNER_URL"));
const doors = openDb(named("DATABASE_DOOR_URL"));
const end = async (): Promise<void> => {
  await close();
  await doors.close();
};
/** Firms, the first one first; none before the first migration. */
const firms = async (): Promise<string[]> => (await organisationsOf(doors.db).catch(() => [])).map((o) => o.id);

if (process.argv.includes("--nobody-yet")) {
  // Ends well while nobody can sign in: the start command then shows how the first comes in.
  const nobody = await nobodyYet(doors.db);
  await end();
  process.exit(nobody ? 0 : 1);
}
if (process.argv.includes("--counts")) {
  let [jobs, links] = [0, 0];
  for (const firm of await firms()) {
    const r = await asAsker(programFor(firm), () =>
      db.execute<{ jobs: number; links: number }>(
        sql`SELECT (SELECT count(*)::int FROM job WHERE deleted_at IS NULL) AS jobs, (SELECT count(*)::int FROM link WHERE deleted_at IS NULL) AS links`,
      ),
    );
    jobs += r.rows[0]!.jobs;
    links += r.rows[0]!.links;
  }
  console.log(`${jobs} jobs with ${links} links`);
} else {
  if (process.argv.includes("--fresh")) {
    await db.execute(sql`DROP SCHEMA IF EXISTS drizzle CASCADE`);
    await db.execute(sql`DROP SCHEMA IF EXISTS pgboss CASCADE`);
    await db.execute(sql`DROP SCHEMA IF EXISTS auth CASCADE`);
    // Everything of ours: what an extension brought belongs to somebody else.
    await db.execute(sql`DO $$ DECLARE name text; BEGIN
      FOR name IN SELECT format('%I', tablename) FROM pg_tables WHERE schemaname = 'public' AND tableowner = current_user LOOP
        EXECUTE 'DROP TABLE IF EXISTS ' || name || ' CASCADE';
      END LOOP;
      FOR name IN SELECT p.oid::regprocedure::text FROM pg_proc p JOIN pg_roles r ON r.oid = p.proowner
        WHERE p.pronamespace = 'public'::regnamespace AND r.rolname = current_user LOOP
        EXECUTE 'DROP FUNCTION IF EXISTS ' || name || ' CASCADE';
      END LOOP;
    END $$`);
  }
  await migrateDb(db);
  await settleKey(doors.db);
  const [first, ...others] = await firms();
  if (first === undefined) throw new Error("the database has no firm");
  const asFirst = <T>(work: () => Promise<T>): Promise<T> => asAsker(programFor(first), work);
  if (process.argv.includes("--no-demo") || (await asFirst(() => isSeeded(db)))) {
    // A database of an earlier version: sheets that ship now and did not then, and what they say now, also where a firm counts them.
    const catalogue = demoHardware() as Parameters<typeof refreshShipped>[1];
    let written = await asAsker(programFor(NO_FIRM), () => refreshShipped(db, catalogue));
    for (const firm of [first, ...others]) written += await asAsker(programFor(firm), () => refreshShipped(db, catalogue, false));
    if (written > 0) console.log(`${written} data sheets brought up to date`);
  } else {
    const started = performance.now();
    const demo = generateDemo();
    await asFirst(() => seedDemo(db, demo));
    const dir = path.join(path.dirname(fileURLToPath(import.meta.url)), "files");
    writeDemoFiles(demo, dir);
    console.log(`demo job written in ${((performance.now() - started) / 1000).toFixed(1)} s; open files in demo/files`);
  }
}
await end();
