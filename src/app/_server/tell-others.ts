import { isUnreachable, openDb } from "@/data/client";
import { dropOldDue } from "@/data/hooks";
import { logFault } from "@/data/log";
import { tellOne } from "@/service/people/webhooks";
import { doors } from "./db";

const ROUND_MS = 2000;
const OLD_MS = 3_600_000;

const POOL = 2;

const globals = globalThis as unknown as { dryArcTells?: true };

/** From now on, addresses of other programs are called whenever something is due to them. Several processes may do so. */
export const tellOthers = (): void => {
  if (globals.dryArcTells === true) return;
  globals.dryArcTells = true;
  // A pool of its own: what runs when the process begins is bundled apart, and the pages' pool does not know on whose behalf it asks.
  const { db } = openDb(process.env.DATABASE_URL ?? "", POOL);
  let swept = 0;
  const round = async (): Promise<void> => {
    try {
      if (Date.now() - swept > OLD_MS) {
        await dropOldDue(doors());
        swept = Date.now();
      }
      while (await tellOne(doors(), db));
    } catch (error) {
      // A database that is away is waited for.
      if (!isUnreachable(error)) logFault("webhooks", error);
    }
    setTimeout(() => void round(), ROUND_MS).unref();
  };
  void round();
};
