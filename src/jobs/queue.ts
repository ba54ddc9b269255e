import PgBoss from "pg-boss";

export const IMPORT_QUEUE = "import";
/** An import that takes longer than this has hung. */
const EXPIRE_SECONDS = 2 * 3600;
const RETRIES = 3;

export interface ImportWork {
  readonly importId: string;
}

const globals = globalThis as unknown as { dryArcBoss?: Promise<PgBoss> };

/** A queue on the application's database. @param works true in the process that does the work. */
export const openQueue = async (url: string, works: boolean): Promise<PgBoss> => {
  const boss = new PgBoss({ connectionString: url, max: 3, supervise: works, schedule: false });
  // A database that goes away is met again by the next statement; the sweep takes up what was left.
  boss.on("error", () => undefined);
  await boss.start();
  await boss.createQueue(IMPORT_QUEUE);
  return boss;
};

/** Puts an import into the queue, from the process that answers the browser. */
export const sendImport = async (url: string, importId: string): Promise<void> => {
  globals.dryArcBoss ??= openQueue(url, false).catch((error: unknown) => {
    delete globals.dryArcBoss;
    throw error;
  });
  const boss = await globals.dryArcBoss;
  await boss.send(IMPORT_QUEUE, { importId } satisfies ImportWork, { retryLimit: RETRIES, expireInSeconds: EXPIRE_SECONDS });
};
