// Backup, restore, another key and another firm, from the command line.
//   tsx src/ops/main.ts backup --to=FILE [--passphrase-file=FILE] [--key-to=FILE]
//   tsx src/ops/main.ts restore --from=FILE [--passphrase-file=FILE] [--key-from=FILE]
//   tsx src/ops/main.ts reseal
//   tsx src/ops/main.ts firm --name=NAME --email=ADDRESS
// Addresses of the database by its roles come from the environment, as do the folders of files and keys.
import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { Client } from "pg";
import { z } from "zod";
import { emailSchema, nameSchema } from "../contract";
import { Refused } from "../data/clash";
import { openDb } from "../data/client";
import { filesDir } from "../data/files";
import { reseal } from "../service/people/reseal";
import { keyFile } from "../service/people/secret-key";
import { backUpKey, makeBackup } from "./backup";
import { openFirm } from "./firm";
import { restore, restoreKey } from "./restore";
import { OpsFault } from "./run";
import { SealFault } from "./seal-stream";

const LEAST_PASSPHRASE = 12;

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: {
    to: { type: "string" },
    from: { type: "string" },
    "passphrase-file": { type: "string" },
    "key-to": { type: "string" },
    "key-from": { type: "string" },
    name: { type: "string" },
    email: { type: "string" },
  },
});

const setting = (name: string): string => {
  const value = process.env[name];
  if (value === undefined || value === "") throw new OpsFault(`${name} is not set`);
  return value;
};
const given = (name: "to" | "from"): string => {
  const value = values[name];
  if (value === undefined) throw new OpsFault(`--${name}=FILE is missing`);
  return value;
};
const passphrase = (): string | null => {
  const file = values["passphrase-file"];
  if (file === undefined) return null;
  const words = readFileSync(file, "utf8").replace(/\r?\n$/, "");
  if (words.length < LEAST_PASSPHRASE) throw new OpsFault(`the passphrase in ${file} is shorter than ${LEAST_PASSPHRASE} letters`);
  return words;
};

const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;
const total = (rows: Readonly<Record<string, number>>): number => Object.values(rows).reduce((a, b) => a + b, 0);

/** Processes of the application that are connected. */
const running = async (): Promise<number> => {
  const client = new Client({ connectionString: setting("DATABASE_DOOR_URL") });
  await client.connect();
  try {
    const { rows } = await client.query<{ n: string }>(
      "SELECT count(*) AS n FROM pg_stat_activity WHERE usename IN ('dryarc_app', 'dryarc_door', 'dryarc_worker') AND pid <> pg_backend_pid()",
    );
    return Number(rows[0]!.n);
  } finally {
    await client.end();
  }
};

const COMMANDS: Readonly<Record<string, () => Promise<void>>> = {
  backup: async () => {
    const words = passphrase();
    const keyTo = values["key-to"];
    if (keyTo !== undefined && words === null) throw new OpsFault("a key leaves the house only sealed: give a --passphrase-file, too");
    const to = given("to");
    const { rows, files, database } = await makeBackup({
      url: setting("DATABASE_BACKUP_URL"),
      filesDir: filesDir(),
      to,
      passphrase: words,
    });
    console.log(
      `${to}: ${total(rows)} rows, ${megabytes(database.bytes)} of database, ${files.length} files; ${words === null ? "open: whoever has it reads all of it" : "sealed"}`,
    );
    if (keyTo === undefined) {
      console.log(
        `the key in ${keyFile()} is not in it; without it second factors do not open. --key-to=FILE seals it into a file of its own.`,
      );
      return;
    }
    await backUpKey(keyFile(), keyTo, words!);
    console.log(`${keyTo}: the key, sealed. Keep it in another place than the backup.`);
  },
  restore: async () => {
    const keyFrom = values["key-from"];
    // The key first: nothing is restored beside a key that is not its own.
    if (keyFrom !== undefined) await restoreKey(keyFrom, keyFile(), passphrase());
    const manifest = await restore({
      from: given("from"),
      passphrase: passphrase(),
      adminUrl: setting("DATABASE_ADMIN_URL"),
      ownerUrl: setting("DATABASE_OWNER_URL"),
      filesDir: filesDir(),
    });
    console.log(
      `restored to ${manifest.made}: ${total(manifest.rows)} rows, table by table as many as the backup says; ${manifest.files.length} files`,
    );
  },
  firm: async () => {
    const read = z.object({ name: nameSchema.shape.name, email: emailSchema }).safeParse({ name: values.name, email: values.email });
    if (!read.success) throw new OpsFault(`--${read.error.issues[0]!.path.join(".")}: ${read.error.issues[0]!.message}`);
    const { db, close } = openDb(setting("DATABASE_DOOR_URL"));
    try {
      const url = await openFirm(db, read.data, process.env.DRYARC_ORIGIN ?? "");
      console.log(`${read.data.name} is there. Its first owner opens this once, within seven days, at this server's address: ${url}`);
    } catch (error) {
      if (error instanceof Refused) throw new OpsFault(`${read.data.email} comes in here already: an address belongs to one firm`);
      throw error;
    } finally {
      await close();
    }
  },
  reseal: async () => {
    if ((await running()) > 0) throw new OpsFault("the application or a worker is running: they hold the old key. Stop them first.");
    const { db, close } = openDb(setting("DATABASE_DOOR_URL"));
    try {
      console.log(
        `${await reseal(db)} secrets sealed by a new key. Sessions ended; keep a backup of the key: earlier ones do not open what is sealed now.`,
      );
    } finally {
      await close();
    }
  },
};

const command = COMMANDS[positionals[0] ?? ""];
try {
  if (command === undefined || positionals.length > 1) throw new OpsFault(`use: ${Object.keys(COMMANDS).join(" | ")}`);
  await command();
} catch (error) {
  const told = error instanceof OpsFault || error instanceof SealFault || (error as { code?: string }).code === "ENOENT";
  console.error(`dry-arc: ${told ? (error as Error).message : String((error as Error).stack ?? error)}`);
  process.exitCode = 1;
}
