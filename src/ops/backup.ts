import {
  copyFileSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { open } from "node:fs/promises";
import path from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { Client } from "pg";
import { keyMark } from "../service/people/secret-key";
import { hashFile, type Manifest } from "./manifest";
import { OpsFault, pgEnv, run } from "./run";
import { seal } from "./seal-stream";
import { countRows } from "./tables";

/*
 * A backup is one file: a tar archive of what PostgreSQL's own pg_dump writes, the files that came in, and a list of what is there;
 * sealed where a passphrase is given. All of it is of one moment. The key of the installation is not in it: it has a file of its own.
 */

export interface BackupOf {
  /** Address for a role that sees all rows. */
  readonly url: string;
  readonly filesDir: string;
  readonly to: string;
  /** Null: the backup lies open, readable to its owner alone. */
  readonly passphrase: string | null;
}

/** @throws OpsFault when the role does not see every row: a backup of some is none. */
const checkRole = async (client: Client): Promise<void> => {
  const { rows } = await client.query<{ all: boolean }>(
    "SELECT rolsuper OR rolbypassrls AS all FROM pg_roles WHERE rolname = current_user",
  );
  if (rows[0]?.all !== true)
    throw new OpsFault("the role that the backup is made by does not see every row; give it the address of one that does");
};

/** Copies a file that came in whole; one that its import has used up meanwhile is no longer part of what is there. */
const takeFile = (from: string, to: string): boolean => {
  try {
    copyFileSync(from, to);
    return true;
  } catch (error) {
    if ((error as { code?: string }).code === "ENOENT") return false;
    throw error;
  }
};

const flush = async (file: string): Promise<void> => {
  const handle = await open(file, "r+");
  await handle.sync();
  await handle.close();
};

/** Makes a backup. Until it is whole it has another name. @returns what it says of itself. */
export const makeBackup = async (of: BackupOf): Promise<Manifest> => {
  if (existsSync(of.to)) throw new OpsFault(`${of.to} is there already`);
  if (!existsSync(path.dirname(of.to))) throw new OpsFault(`there is no folder ${path.dirname(of.to)}`);
  const part = `${of.to}.part`;
  const dir = `${of.to}.parts`;
  rmSync(dir, { recursive: true, force: true });
  mkdirSync(path.join(dir, "files"), { recursive: true, mode: 0o700 });
  const client = new Client({ connectionString: of.url });
  try {
    await client.connect();
    await checkRole(client);
    await client.query("BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY");
    const { rows: moment } = await client.query<{ id: string; now: Date }>("SELECT pg_export_snapshot() AS id, now() AS now");
    const dump = path.join(dir, "database.dump");
    await run("pg_dump", ["--format=custom", `--snapshot=${moment[0]!.id}`, "--lock-wait-timeout=60000", `--file=${dump}`], pgEnv(of.url));
    const files: Manifest["files"] = [];
    const { rows: whole } = await client.query<{ id: string }>(
      "SELECT id FROM upload WHERE deleted_at IS NULL AND received_bytes = size_bytes ORDER BY id",
    );
    for (const { id } of whole) {
      const copy = path.join(dir, "files", id);
      if (takeFile(path.join(of.filesDir, id), copy)) files.push({ id, bytes: statSync(copy).size, sha256: await hashFile(copy) });
    }
    const manifest: Manifest = {
      format: "dry-arc backup",
      version: 1,
      made: moment[0]!.now.toISOString(),
      rows: await countRows(client),
      database: { bytes: statSync(dump).size, sha256: await hashFile(dump) },
      files,
      key: keyMark(),
    };
    await client.query("COMMIT");
    writeFileSync(path.join(dir, "manifest.json"), JSON.stringify(manifest, null, 2));
    const plain = path.join(dir, "all.tar");
    await run("tar", ["--create", `--file=${plain}`, `--directory=${dir}`, "manifest.json", "database.dump", "files"]);
    const bytes = createReadStream(plain);
    const source = of.passphrase === null ? bytes : Readable.from(seal(bytes, of.passphrase), { objectMode: false });
    await pipeline(source, createWriteStream(part, { mode: 0o600 }));
    await flush(part);
    renameSync(part, of.to);
    return manifest;
  } finally {
    await client.end().catch(() => undefined);
    rmSync(dir, { recursive: true, force: true });
    rmSync(part, { force: true });
  }
};

/** Seals the key of the installation into a file of its own. It opens what is sealed in a backup: it belongs in another place. */
export const backUpKey = async (keyFile: string, to: string, passphrase: string): Promise<void> => {
  if (existsSync(to)) throw new OpsFault(`${to} is there already`);
  if (!existsSync(keyFile)) throw new OpsFault("this installation has no key yet: nothing was sealed");
  const part = `${to}.part`;
  await pipeline(
    Readable.from(seal(Readable.from([readFileSync(keyFile)]), passphrase), { objectMode: false }),
    createWriteStream(part, { mode: 0o600 }),
  );
  await flush(part);
  renameSync(part, to);
};
