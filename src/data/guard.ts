import { type SQL, sql } from "drizzle-orm";
import { escapeLiteral, Pool, type PoolClient, type QueryResult } from "pg";
import { type Asker, askerNow } from "./actor";
import { named } from "./named-statements";

/*
 * Tells the database for whom a transaction works. Its rows are guarded there once more: what is not theirs is not there, whatever a
 * statement asks for. What is told ends with the transaction; who is told nothing is shown nothing.
 */

const told = new WeakMap<Asker, string>();

/** One statement that says who works; its values are escaped here, since a statement of several parts takes no parameters. */
const sayWho = (who: Asker): string => {
  const known = told.get(who);
  if (known !== undefined) return known;
  const values = {
    "dryarc.organisation": who.organisationId,
    "dryarc.person": who.personId ?? "",
    "dryarc.role": who.role,
    "dryarc.jobs": who.jobIds === null ? "*" : who.jobIds.join(","),
  };
  const text = `SELECT ${Object.entries(values)
    .map(([name, value]) => `set_config('${name}', ${escapeLiteral(value)}, true)`)
    .join(", ")}`;
  told.set(who, text);
  return text;
};

/** Begins a transaction of a connection on behalf of whoever works now. */
export const beginAs = async (client: PoolClient): Promise<void> => {
  const who = askerNow();
  await client.query(who === null ? "BEGIN" : `BEGIN; ${sayWho(who)}`);
};

/**
 * The rest of a transaction works for all jobs of the firm, whatever jobs whoever works was given: for what the program sees to
 * beside their edit, in what the jobs share.
 */
export const forAllJobs = async (tx: { readonly execute: (statement: SQL) => Promise<unknown> }): Promise<void> => {
  if (askerNow() !== null) await tx.execute(sql`SELECT set_config('dryarc.jobs', '*', true)`);
};

const isBegin = (query: unknown): boolean => {
  const text = typeof query === "string" ? query : (query as { readonly text?: unknown } | null)?.text;
  return typeof text === "string" && /^\s*begin\b/i.test(text);
};

/** A connection that is lost while it is held says so to whatever is asked of it next: nobody else needs to hear it. */
const heard = (): void => undefined;

/** A connection that says who works whenever a transaction begins on it, until it is given back. */
const saying = (client: PoolClient, who: Asker): PoolClient => {
  const query = client.query.bind(client) as (...given: unknown[]) => Promise<QueryResult>;
  const release = client.release.bind(client);
  client.on("error", heard);
  Object.assign(client, {
    query: async (...given: unknown[]) => {
      if (!isBegin(given[0])) return query(...named(given));
      const [answer] = sendsAhead(client)
        ? await allOf([query(...given), query(sayWho(who))])
        : await oneByOne([() => query(...given), () => query(sayWho(who))]);
      return answer!;
    },
    release: (error?: Error | boolean) => {
      Reflect.deleteProperty(client, "query");
      client.removeListener("error", heard);
      release(error);
    },
  });
  return client;
};

const sendsAhead = (client: PoolClient): boolean => (client as unknown as { readonly pipeline?: boolean }).pipeline === true;

const oneByOne = async (steps: readonly (() => Promise<QueryResult>)[]): Promise<QueryResult[]> => {
  const answers: QueryResult[] = [];
  for (const step of steps) answers.push(await step());
  return answers;
};

/** Waits for all, also when one fails: nothing of them may be under way when the connection goes to somebody else. */
const allOf = async (sent: readonly Promise<QueryResult>[]): Promise<QueryResult[]> => {
  await Promise.allSettled(sent);
  return Promise.all(sent);
};

/** A pool whose every statement runs in a transaction that says who works; what the program itself asks is sent as it is. */
export class GuardedPool extends Pool {
  // The pool that this one is made of calls back; all others wait for a promise.
  override connect(): Promise<PoolClient>;
  override connect(callback: Parameters<Pool["connect"]>[0]): void;
  override connect(callback?: Parameters<Pool["connect"]>[0]): Promise<PoolClient> | undefined {
    if (callback !== undefined) {
      super.connect(callback);
      return undefined;
    }
    // Read here: a connection that was waited for comes in the context of whoever gave it back.
    const who = askerNow();
    const client = super.connect() as unknown as Promise<PoolClient>;
    return who === null ? client : client.then((c) => saying(c, who));
  }

  // biome-ignore lint/suspicious/noExplicitAny: the forms that a query may have are the pool's own
  override query(...given: any[]): any {
    const who = askerNow();
    if (who === null) return (super.query as (...args: unknown[]) => unknown)(...named(given));
    return this.#guarded(who, given);
  }

  async #guarded(who: Asker, given: readonly unknown[]): Promise<QueryResult> {
    const client = (await (super.connect() as unknown)) as PoolClient;
    let broken: Error | undefined;
    client.on("error", heard);
    const send = client.query.bind(client) as (...args: unknown[]) => Promise<QueryResult>;
    const steps = [() => send(`BEGIN; ${sayWho(who)}`), () => send(...named(given)), () => send("COMMIT")];
    try {
      // Where the connection takes them in one go, none waits for the one before: what fails ends the transaction, and COMMIT undoes it.
      const [, answer] = sendsAhead(client) ? await allOf(steps.map((step) => step())) : await oneByOne(steps);
      return answer!;
    } catch (error) {
      await client.query("ROLLBACK").catch((lost: Error) => {
        broken = lost;
      });
      throw error;
    } finally {
      client.removeListener("error", heard);
      client.release(broken);
    }
  }
}
