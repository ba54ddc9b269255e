/* The drill: a backup of a used database, put into an empty cluster, compared row for row; one sealed secret opened there. */
import { execFileSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { symmetricDecrypt, symmetricEncrypt } from "better-auth/crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Db, openDb } from "../data/client";
import { firstOrganisation } from "../data/people";
import { sealing, twoFactor } from "../data/schema-people";
import { testDb } from "../data/testing/db";
import { reseal, settleKey } from "../service/people/reseal";
import { installationKey, keyFile, keyMark, markOf, nextKeyFile, readKey, signInSecret } from "../service/people/secret-key";
import { makePerson } from "../service/people/testing/firm";
import { backUpKey, makeBackup } from "./backup";
import type { Manifest } from "./manifest";
import { restore, restoreKey } from "./restore";

const INTO = "restored";
const PASS = "two ravens over the quarry";
const SECRET = "JBSWY3DPEHPK3PXP";
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-ops-"));
const at = (name: string): string => path.join(dir, name);
process.env.DRYARC_KEYS = at("keys");

const cluster = (command: string, role?: string): string =>
  execFileSync("node", ["bin/db.mjs", command, INTO, ...(role === undefined ? [] : [role])], { encoding: "utf8" }).trim();
const db = testDb();
const files = at("files");
const fileId = randomUUID();
let manifest: Manifest;
let there: { db: Db; close: () => Promise<void> };
const into = (from: string, passphrase: string | null = PASS) => ({
  from,
  passphrase,
  adminUrl: cluster("url", "admin"),
  ownerUrl: cluster("url", "owner"),
  filesDir: at("files-there"),
});

/** Every row of a table as text, in an order of its own. */
const rowsOf = async (of: Db, name: string): Promise<string> =>
  (
    await of.execute<{ all: string }>(
      sql`SELECT count(*) || ' ' || md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) AS all FROM ${sql.raw(name)} t`,
    )
  ).rows[0]!.all;

beforeAll(async () => {
  mkdirSync(files, { recursive: true });
  const firm = await firstOrganisation(db);
  const person = await makePerson(db, firm.id, "planner");
  const seal = (data: string) => symmetricEncrypt({ key: signInSecret(installationKey()), data });
  await db.insert(twoFactor).values({ id: randomUUID(), userId: person.userId, secret: await seal(SECRET), backupCodes: await seal("[]") });
  // A map that lies beneath a drawing, and a file that is still on its way.
  writeFileSync(path.join(files, fileId), "a map of the isles");
  await db.execute(
    sql`INSERT INTO upload (id, organisation_id, name, size_bytes, received_bytes) VALUES (${fileId}, ${firm.id}, 'map', 18, 18)`,
  );
  await db.execute(sql`INSERT INTO upload (organisation_id, name, size_bytes, received_bytes) VALUES (${firm.id}, 'under way', 99, 18)`);
  const url = process.env.DATABASE_BACKUP_URL!;
  manifest = await makeBackup({ url, filesDir: files, to: at("sealed"), passphrase: PASS });
  await backUpKey(keyFile(), at("key"), PASS);
  rmSync(path.join(".data", INTO), { recursive: true, force: true });
  cluster("start");
  there = openDb(cluster("url", "admin"));
});
afterAll(async () => {
  await there.close();
  cluster("stop");
  rmSync(path.join(".data", INTO), { recursive: true, force: true });
  rmSync(dir, { recursive: true, force: true });
});

describe("a backup", () => {
  test("counts every row that the administrator counts, and takes the files that are whole", async () => {
    for (const [name, n] of Object.entries(manifest.rows))
      expect((await db.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM ${sql.raw(name)}`)).rows[0]!.n, name).toBe(n);
    expect(Object.keys(manifest.rows).length).toBeGreaterThan(35);
    expect(manifest.files.map((f) => f.id)).toContain(fileId);
    expect(readFileSync(at("sealed")).includes("Pilot Station")).toBe(false);
    expect(existsSync(at("sealed.parts")) || existsSync(at("sealed.part"))).toBe(false);
  });

  test("is refused by a role that does not see every row, and over a file that is there", async () => {
    const as = (url: string, to: string) => makeBackup({ url, filesDir: files, to, passphrase: null });
    await expect(as(process.env.DATABASE_URL!, at("some"))).rejects.toThrow("does not see every row");
    expect(existsSync(at("some"))).toBe(false);
    await expect(as(process.env.DATABASE_BACKUP_URL!, at("sealed"))).rejects.toThrow("is there already");
  });

  test("that is sealed, cut off, changed or none at all goes nowhere", async () => {
    const whole = readFileSync(at("sealed"));
    const put = (name: string, bytes: Buffer | string): string => {
      writeFileSync(at(name), bytes);
      return at(name);
    };
    await expect(restore(into(at("sealed"), null))).rejects.toThrow("its passphrase is needed");
    await expect(restore(into(at("sealed"), "another passphrase"))).rejects.toThrow("the passphrase is not the one");
    await expect(restore(into(put("short", whole.subarray(0, whole.length - 40))))).rejects.toThrow("cut off or changed");
    await expect(restore(into(at("nowhere")))).rejects.toThrow("is not there");
    await expect(restore(into(put("none", "no backup at all")))).rejects.toThrow("it is no backup");
    // An open one in which a byte was changed.
    const open = await makeBackup({ url: process.env.DATABASE_BACKUP_URL!, filesDir: files, to: at("open"), passphrase: null });
    const bytes = readFileSync(at("open"));
    const middle = bytes.indexOf("PGDMP") + Math.floor(open.database.bytes / 2);
    bytes[middle] = bytes[middle]! ^ 1;
    await expect(restore(into(put("changed", bytes), null))).rejects.toThrow("database.dump inside it is damaged");
    expect(
      (await there.db.execute(sql`SELECT FROM pg_tables WHERE schemaname IN ('public', 'auth') AND tableowner = 'dryarc'`)).rowCount,
    ).toBe(0);
  });

  test("comes back whole: row for row, files and all, guarded as it was; and its key opens what is sealed", async () => {
    const began = performance.now();
    await restore(into(at("sealed")));
    console.log(`restored in ${((performance.now() - began) / 1000).toFixed(1)} s`);
    for (const name of Object.keys(manifest.rows)) {
      // Nobody works on the tests' database meanwhile but the tests.
      if (name.startsWith("drizzle.")) continue;
      expect(await rowsOf(there.db, name), name).toBe(await rowsOf(db, name));
    }
    expect(readFileSync(path.join(at("files-there"), fileId), "utf8")).toBe("a map of the isles");
    const app = openDb(cluster("url", "app"));
    try {
      expect((await app.db.execute(sql`SELECT FROM job`)).rowCount).toBe(0);
      await expect(app.db.execute(sql`SELECT FROM auth.session`)).rejects.toThrow();
    } finally {
      await app.close();
    }
    await restoreKey(at("key"), at("keys-there/sealing.key"), PASS);
    const [row] = (await there.db.execute<{ secret: string }>(sql`SELECT secret FROM auth.two_factor ORDER BY id`)).rows;
    expect(row).toBeDefined();
    const open = await Promise.all(
      (await there.db.execute<{ secret: string }>(sql`SELECT secret FROM auth.two_factor`)).rows.map((r) =>
        symmetricDecrypt({ key: signInSecret(readKey(at("keys-there/sealing.key"))), data: r.secret }).catch(() => ""),
      ),
    );
    expect(open).toContain(SECRET);
    await expect(restore(into(at("sealed")))).rejects.toThrow("the database is not empty");
    // Another key is not written over.
    writeFileSync(at("keys-there/sealing.key"), Buffer.alloc(32, 7).toString("base64url"));
    await expect(restoreKey(at("key"), at("keys-there/sealing.key"), PASS)).rejects.toThrow("is another key");
  });
});

describe("another key", () => {
  const secretThere = async (key: Buffer): Promise<string[]> =>
    Promise.all(
      (await there.db.execute<{ secret: string }>(sql`SELECT secret FROM auth.two_factor`)).rows.map((r) =>
        symmetricDecrypt({ key: signInSecret(key), data: r.secret }).catch(() => "closed"),
      ),
    );

  test("opens what the old one opened, and the old one opens nothing", async () => {
    // Other tests sealed by keys that are gone with them.
    await there.db.execute(sql`DELETE FROM auth.two_factor`);
    const seal = (data: string) => symmetricEncrypt({ key: signInSecret(installationKey()), data });
    const users = (await there.db.execute<{ id: string }>(sql`SELECT id FROM auth."user" LIMIT 1`)).rows;
    await there.db
      .insert(twoFactor)
      .values({ id: randomUUID(), userId: users[0]!.id, secret: await seal(SECRET), backupCodes: await seal("[]") });
    await there.db.execute(sql`DELETE FROM webhook`);
    await there.db.execute(sql`
      INSERT INTO webhook (organisation_id, name, url, secret) SELECT id, 'register', 'https://told.example/', ${await seal("whsec_of the isles")}
      FROM organisation ORDER BY created_at LIMIT 1`);
    await there.db.execute(sql`
      INSERT INTO webhook (organisation_id, name, url, secret, ended_at) SELECT id, 'ended', 'https://told.example/', '', now()
      FROM organisation ORDER BY created_at LIMIT 1`);
    const doors = openDb(cluster("url", "door"));
    try {
      const old = readKey(keyFile());
      expect(await reseal(doors.db)).toBe(3);
      const next = readKey(keyFile());
      expect(markOf(next)).not.toBe(markOf(old));
      expect([await secretThere(old), await secretThere(next)]).toEqual([["closed"], [SECRET]]);
      const [hook] = (await there.db.execute<{ secret: string }>(sql`SELECT secret FROM webhook WHERE ended_at IS NULL`)).rows;
      expect(await symmetricDecrypt({ key: signInSecret(next), data: hook!.secret })).toBe("whsec_of the isles");
      expect(existsSync(nextKeyFile())).toBe(false);
    } finally {
      await doors.close();
    }
  });

  test("broken off before the database had it, the old one counts; after, the new one does", async () => {
    const doors = openDb(cluster("url", "door"));
    try {
      const before = keyMark();
      const next = Buffer.alloc(32, 9);
      writeFileSync(nextKeyFile(), next.toString("base64url"));
      await settleKey(doors.db);
      expect([keyMark(), existsSync(nextKeyFile())]).toEqual([before, false]);
      writeFileSync(nextKeyFile(), next.toString("base64url"));
      await doors.db.insert(sealing).values({ mark: markOf(next) });
      await settleKey(doors.db);
      expect([keyMark(), existsSync(nextKeyFile())]).toEqual([markOf(next), false]);
    } finally {
      await doors.close();
    }
  });

  test("where one secret does not open, nothing is changed", async () => {
    // The key that was put in place above opens none of them.
    const doors = openDb(cluster("url", "door"));
    try {
      const [before, rows] = [keyMark(), await rowsOf(there.db, "auth.two_factor")];
      await expect(reseal(doors.db)).rejects.toThrow();
      expect([keyMark(), existsSync(nextKeyFile())]).toEqual([before, false]);
      expect(await rowsOf(there.db, "auth.two_factor")).toBe(rows);
    } finally {
      await doors.close();
    }
  });
});
