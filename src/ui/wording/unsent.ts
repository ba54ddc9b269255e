const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** How much waits, or was brought in: "3 entries and 1 photo". */
export const unsentWords = (edits: number, photos: number): string =>
  [
    ...(edits > 0 || photos === 0 ? [count(edits, "entry", "entries")] : []),
    ...(photos > 0 ? [count(photos, "photo", "photos")] : []),
  ].join(" and ");
