import { Refused } from "@/data/clash";

/*
 * Edits of one job are made one after another: the database sees to that by a lock of the job. Here they wait for their turn before
 * they take a connection; otherwise a few people who edit one job would hold all of them, and everybody else would wait, too.
 */

/** So many edits of one job wait at most. */
const MOST_WAITING = 200;

interface Line {
  last: Promise<unknown>;
  waiting: number;
}
const lines = new Map<string, Line>();

/** Makes an edit when those of the same key that came before are made, whatever became of them. @throws Refused when too many wait. */
export const inTurn = async <T>(key: string, work: () => Promise<T>): Promise<T> => {
  const line = lines.get(key) ?? { last: Promise.resolve(), waiting: 0 };
  if (line.waiting >= MOST_WAITING) throw new Refused("busy", "edit");
  lines.set(key, line);
  line.waiting++;
  const mine = line.last.then(work, work);
  line.last = mine.catch(() => undefined);
  try {
    return await mine;
  } finally {
    line.waiting--;
    if (line.waiting === 0) lines.delete(key);
  }
};

/** Which edits wait for one another: those of one job; those of no job do not wait. */
export const turnOf = (pathname: string): string | null => /^\/api\/jobs\/([^/]+)\//.exec(`${pathname}/`)?.[1]?.toLowerCase() ?? null;
