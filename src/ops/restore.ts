import {
  closeSync,
  copyFileSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import path from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { Client } from "pg";
import { openDb } from "../data/client";
import { migrateDb } from "../data/migrate";
import { hashFile, type Manifest, manifestSchema } from "./manifest";
import { OpsFault, pgEnv, run } from "./run";
import { SEALED, SealFault, unseal } from "./seal-stream";
import { countRows } from "./tables";

export interface RestoreInto {
  readonly from: string;
  readonly passphrase: string | null;
  /** Address for an administrator of the database server; the database must hold nothing of ours. */
  readonly adminUrl: string;
  /** Address for the owner of the schema, who brings it to this version. */
  readonly ownerUrl: string;
  readonly filesDir: string;
}

const isSealed = (file: string): boolean => {
  const start = Buffer.alloc(SEALED.length);
  const fd = openSync(file, "r");
  readSync(fd, start, 0, start.length, 0);
  closeSync(fd);
  return start.toString("latin1") === SEALED;
};

/** @throws OpsFault where a sealed file is wanted open without its passphrase, or does not open. */
const opened = async (file: string, passphrase: string | null, to: string): Promise<void> => {
  if (!existsSync(file)) throw new OpsFault(`${file} is not there`);
  if (!isSealed(file)) return pipeline(createReadStream(file), createWriteStream(to, { mode: 0o600 }));
  if (passphrase === null) throw new OpsFault(`${path.basename(file)} is sealed: its passphrase is needed`);
  try {
    await pipeline(
      Readable.from(unseal(createReadStream(file), passphrase), { objectMode: false }),
      createWriteStream(to, { mode: 0o600 }),
    );
  } catch (error) {
    throw error instanceof SealFault ? new OpsFault(error.message) : error;
  }
};

const readManifest = (file: string): Manifest => {
  try {
    return manifestSchema.parse(JSON.parse(readFileSync(file, "utf8")));
  } catch {
    throw new OpsFault("it is no backup of Dry Arc, or of another version of it");
  }
};

/** Looks a backup through before anything is written. @throws OpsFault */
const check = async (dir: string): Promise<Manifest> => {
  const manifest = readManifest(path.join(dir, "manifest.json"));
  const same = async (name: string, sha256: string): Promise<void> => {
    const file = path.join(dir, name);
    if (!existsSync(file) || (await hashFile(file)) !== sha256) throw new OpsFault(`${name} inside it is damaged or missing`);
  };
  await same("database.dump", manifest.database.sha256);
  for (const f of manifest.files) await same(path.join("files", f.id), f.sha256);
  return manifest;
};

const withClient = async <T>(url: string, work: (client: Client) => Promise<T>): Promise<T> => {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
};

const differing = (a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>): string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((name) => a[name] !== b[name]);

/**
 * Puts a backup into an empty database: all of it, or nothing. It is held row count for row count against what it says of itself,
 * then brought to the schema of this version.
 * @throws OpsFault
 */
export const restore = async (into: RestoreInto): Promise<Manifest> => {
  const dir = `${into.from}.open`;
  rmSync(dir, { recursive: true, force: true });
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  try {
    const there = await withClient(into.adminUrl, countRows);
    if (Object.keys(there).length > 0) throw new OpsFault("the database is not empty: a backup goes into an empty one alone");
    const tar = path.join(dir, "all.tar");
    await opened(into.from, into.passphrase, tar);
    await run("tar", [
      "--extract",
      `--file=${tar}`,
      `--directory=${dir}`,
      "--no-same-owner",
      "manifest.json",
      "database.dump",
      "files",
    ]).catch(() => {
      throw new OpsFault("it is no backup of Dry Arc, or it is damaged");
    });
    const manifest = await check(dir);
    await run(
      "pg_restore",
      ["--exit-on-error", "--single-transaction", "--dbname", new URL(into.adminUrl).pathname.slice(1), path.join(dir, "database.dump")],
      pgEnv(into.adminUrl),
    );
    const wrong = differing(manifest.rows, await withClient(into.adminUrl, countRows));
    if (wrong.length > 0) throw new OpsFault(`rows of ${wrong.join(", ")} are not as many as the backup says`);
    mkdirSync(into.filesDir, { recursive: true, mode: 0o700 });
    for (const { id } of manifest.files) copyFileSync(path.join(dir, "files", id), path.join(into.filesDir, id));
    const owner = openDb(into.ownerUrl);
    try {
      await migrateDb(owner.db);
    } finally {
      await owner.close();
    }
    return manifest;
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
};

/** Puts the key of an installation back. @throws OpsFault where another is there. */
export const restoreKey = async (from: string, keyFile: string, passphrase: string | null): Promise<void> => {
  const part = `${keyFile}.part`;
  mkdirSync(path.dirname(keyFile), { recursive: true, mode: 0o700 });
  try {
    await opened(from, passphrase, part);
    const key = readFileSync(part, "utf8").trim();
    if (Buffer.from(key, "base64url").length !== 32) throw new OpsFault(`${path.basename(from)} holds no key`);
    if (existsSync(keyFile)) {
      if (readFileSync(keyFile, "utf8").trim() === key) return;
      throw new OpsFault(`${keyFile} is another key: what it seals would be lost; move it away first`);
    }
    writeFileSync(keyFile, key, { mode: 0o600, flag: "wx" });
  } finally {
    rmSync(part, { force: true });
  }
};
