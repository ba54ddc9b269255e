import { sql } from "drizzle-orm";
import type { HereDto, OpenSheet } from "../contract";
import type { Db } from "./client";

/* Who has which sheet of a job open, told from process to process: nothing of it is kept. */

/** Channel on which lines of news say that they are open, and again every so often; and that they are closed. */
export const HERE_CHANNEL = "dryarc_here";

/** One open sheet of one person. */
export interface Line {
  readonly line: string;
  readonly jobId: string;
  readonly personId: string;
  readonly name: string;
  readonly sheet: OpenSheet;
}
export interface LineNews extends Line {
  readonly open: boolean;
}

/** A process that said nothing of a line for so long is gone, and its lines with it. */
export const LINE_LASTS_MS = 50_000;

/** Asks every process for the lines it has open: of one that began to listen later than they were told. */
export const ASK_LINES = "who is here";
export const askLines = (db: Pick<Db, "execute">): Promise<unknown> => db.execute(sql`SELECT pg_notify(${HERE_CHANNEL}, ${ASK_LINES})`);

export const tellLine = (db: Pick<Db, "execute">, line: Line, open: boolean): Promise<unknown> =>
  db.execute(sql`SELECT pg_notify(${HERE_CHANNEL}, ${JSON.stringify({ ...line, open } satisfies LineNews)})`);

/** The lines that are open, as they are told. */
export const linesHere = (now: () => number = Date.now) => {
  const open = new Map<string, Line & { readonly heardAt: number }>();
  const fresh = (): (Line & { readonly heardAt: number })[] => {
    const since = now() - LINE_LASTS_MS;
    for (const [key, line] of open) if (line.heardAt < since) open.delete(key);
    return [...open.values()];
  };
  return {
    /** @returns false when a line only says again that it is open: nobody is shown anything else for it. */
    hear: (news: LineNews): boolean => {
      if (!news.open) return open.delete(news.line);
      const before = open.get(news.line);
      open.set(news.line, { ...news, heardAt: now() });
      return before === undefined || before.sheet !== news.sheet || before.heardAt < now() - LINE_LASTS_MS;
    },
    /** Others than a person who have a job open: each once, on the sheet they opened last. */
    othersAt: (jobId: string, personId: string): HereDto[] => {
      const last = new Map<string, Line>();
      for (const line of fresh()) if (line.jobId === jobId && line.personId !== personId) last.set(line.personId, line);
      return [...last.values()].map(({ name, sheet }) => ({ name, sheet })).sort((a, b) => (a.name < b.name ? -1 : 1));
    },
  };
};
