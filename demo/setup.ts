// Migrates the database named by DATABASE_URL and writes the demo job once.
//   tsx demo/setup.ts [--fresh] [--counts] [--nobody-yet]
import path from "node:path";
import { fileURLToPath } from "node:url";
import { sql } from "drizzle-orm";
import { openDb } from "../src/data/client";
import { refreshShipped } from "../src/data/hardware";
import { migrateDb } from "../src/data/migrate";
import { nobodyYet } from "../src/data/people";
import { generateDemo } from "./generate";
import { demoHardware, isSeeded, seedDemo } from "./seed";
import { writeDemoFiles } from "./write-files";

const url = process.env.DATABASE_URL;
if (url === undefined) {
  console.error("dry-arc: DATABASE_URL is not set.");
  process.exit(1);
}
const { db, close } = openDb(url);
if (process.argv.includes("--nobody-yet")) {
  // Ends well while nobody can sign in: the start command then shows how the first comes in.
  const nobody = await nobodyYet(db);
  await close();
  process.exit(nobody ? 0 : 1);
}
if (process.argv.includes("--counts")) {
  const r = await db
    .execute<{ jobs: number; links: number }>(
      sql`SELECT (SELECT count(*)::int FROM job WHERE deleted_at IS NULL) AS jobs, (SELECT count(*)::int FROM link WHERE deleted_at IS NULL) AS links`,
    )
    .catch(() => ({ rows: [{ jobs: 0, links: 0 }] }));
  console.log(`${r.rows[0]?.jobs ?? 0} jobs with ${r.rows[0]?.links ?? 0} links`);
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
  if (await isSeeded(db)) {
    // A database of an earlier version: sheets that ship now and did not then, and what they say now.
    const catalogue = demoHardware();
    const written = await refreshShipped(db, catalogue as Parameters<typeof refreshShipped>[1]);
    if (written > 0) console.log(`${written} data sheets brought up to date`);
  } else {
    const started = performance.now();
    const demo = generateDemo();
    await seedDemo(db, demo);
    const dir = path.join(path.dirname(fileURLToPath(import.meta.url)), "files");
    writeDemoFiles(demo, dir);
    console.log(`demo job written in ${((performance.now() - started) / 1000).toFixed(1)} s; open files in demo/files`);
  }
}
await close();
