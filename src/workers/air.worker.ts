import { expose } from "comlink";
import { assign, movesOf, unpackedField } from "@/core/air";
import type { AirWorker } from "./messages";

/** One message in so many is told: the page need not hear of each step. */
const TOLD_MS = 100;

expose({
  assign: async ({ field, units, others, heard, always, widths, radar, budgetMs }, told) => {
    const started = performance.now();
    let last = started;
    let late = false;
    const found = assign({
      job: { field: unpackedField(field), units, others, heard, always },
      widths,
      radar,
      goOn: () => {
        const now = performance.now();
        if (now - last > TOLD_MS) {
          last = now;
          void told((now - started) / budgetMs);
        }
        late ||= now - started > budgetMs;
        return !late;
      },
    });
    return found;
  },
  moves: ({ field, units, others, heard, always, widths, radar, budgetMs }, unitId) => {
    const until = performance.now() + budgetMs;
    return movesOf({ field: unpackedField(field), units, others, heard, always }, unitId, widths, radar, () => performance.now() < until);
  },
} satisfies AirWorker);
