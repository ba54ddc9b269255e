import type { HereDto, OpenSheet } from "@/contract";
import type { Asker } from "@/data/actor";
import { ASK_LINES, askLines, HERE_CHANNEL, type Line, type LineNews, linesHere, tellLine } from "@/data/here";
import { openListener } from "@/data/listen";
import { logFault } from "@/data/log";
import { pool } from "./db";

type Lines = ReturnType<typeof linesHere>;
interface Held {
  readonly lines: Lines;
  /** Called when somebody came to a job or left it. */
  readonly told: Set<(jobId: string) => void>;
  /** Lines of this process: each says again that it is open. */
  readonly own: Set<() => void>;
}
const globals = globalThis as unknown as { dryArcHere?: Held };

/** A database that is away shows nobody meanwhile: that is no fault of whoever works. */
const quietly = (asked: Promise<unknown>): void => void asked.catch((error: unknown) => logFault("here", error));

const held = (): Held => {
  if (globals.dryArcHere !== undefined) return globals.dryArcHere;
  const here: Held = { lines: linesHere(), told: new Set(), own: new Set() };
  globals.dryArcHere = here;
  openListener(process.env.DATABASE_URL ?? "", [HERE_CHANNEL], {
    message: (_channel, payload) => {
      if (payload === ASK_LINES) {
        for (const again of [...here.own]) again();
        return;
      }
      let news: LineNews;
      try {
        news = JSON.parse(payload) as LineNews;
      } catch {
        return;
      }
      if (here.lines.hear(news)) for (const tell of [...here.told]) tell(news.jobId);
    },
    // What was told while nobody listened is told again, here and by every other process.
    back: () => quietly(askLines(pool())),
  });
  return here;
};

/** Whether somebody is shown to others, and others to them: people of the firm are; a customer or a link is not. */
const isShown = (who: Asker | null): who is Asker & { personId: string } =>
  who !== null && who.personId !== null && who.shareId === null && who.role !== "customer";

/**
 * Says that somebody has a sheet of a job open, and tells them who else has.
 * @param tell given the others, whenever they change. @returns what says again that it is open, and what ends it; null for whom nobody is shown.
 */
export const comeHere = (
  who: Asker | null,
  jobId: string,
  sheet: OpenSheet,
  tell: (others: readonly HereDto[]) => void,
): { readonly again: () => void; readonly leave: () => void } | null => {
  if (!isShown(who)) return null;
  const { lines, told, own } = held();
  const line: Line = { line: crypto.randomUUID(), jobId, personId: who.personId, name: who.name, sheet };
  let last = "[]";
  const look = (of: string): void => {
    if (of !== jobId) return;
    const others = lines.othersAt(jobId, line.personId);
    const text = JSON.stringify(others);
    if (text === last) return;
    last = text;
    tell(others);
  };
  const say = (open: boolean): void => quietly(tellLine(pool(), line, open));
  const again = (): void => {
    say(true);
    look(jobId);
  };
  told.add(look);
  own.add(again);
  again();
  return {
    again,
    leave: () => {
      told.delete(look);
      own.delete(again);
      say(false);
    },
  };
};
