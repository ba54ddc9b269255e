/* Logs for tests: entries as a phone writes them. */
import { type End, nextOrder, type RoofEntry, SAYS_NOTHING } from "../entries";
import type { Part, StepId } from "../steps";

const BLANK: Omit<RoofEntry, "id" | "end" | "act" | "phone" | "order"> = {
  at: "2026-12-03T10:00:00Z",
  aheadS: null,
  by: "Ada",
  ...SAYS_NOTHING,
};

type Written = Partial<RoofEntry> & Pick<RoofEntry, "end" | "act">;

/** A phone that writes behind all that it knows of. */
export const phoneOf = (phone: string, by = "Ada") => {
  const known: RoofEntry[] = [];
  let made = 0;
  const write = (e: Written): RoofEntry => {
    const entry: RoofEntry = { ...BLANK, by, id: `${phone}-${++made}`, phone, order: nextOrder(known), ...e };
    known.push(entry);
    return entry;
  };
  return {
    known,
    write,
    tick: (end: End, step: StepId, ...parts: Part[]) => parts.map((part) => write({ end, act: "tick", step, part })),
    hear: (entries: readonly RoofEntry[]) => {
      const ids = new Set(known.map((k) => k.id));
      for (const e of entries) if (!ids.has(e.id)) known.push(e);
    },
  };
};

/** What makes an end ready for its aim: up to the coarse aim, in an order that is allowed. */
export const untilPowered = (p: ReturnType<typeof phoneOf>, end: End): void => {
  p.tick(end, "risks", "read");
  p.tick(end, "mount", "bracket", "finger-tight");
  p.tick(end, "cable", "loop", "surge");
  p.tick(end, "load", "ports");
  p.tick(end, "bond", "lug", "protector", "mast", "qualified");
  p.tick(end, "power", "told", "on");
  p.tick(end, "coarse", "aimed");
};
