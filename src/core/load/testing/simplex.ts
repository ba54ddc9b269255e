/* A small linear programme for tests, by the simplex method with Bland's rule (R. G. Bland, Math. of Op. Research 2, 1977). */

const TINY = 1e-9;

/**
 * Greatest first variable with rows * x <= bounds and x >= 0.
 * @param bounds none below 0, so that all zeros is a place to begin.
 * @returns infinite where nothing holds it.
 */
export const greatest = (rows: readonly (readonly number[])[], bounds: readonly number[]): number => {
  const m = rows.length;
  const n = rows[0]?.length ?? 1;
  const width = n + m + 1;
  const table = rows.map((r, i) => {
    const t = new Float64Array(width);
    t.set(r);
    t[n + i] = 1;
    t[width - 1] = bounds[i]!;
    return t;
  });
  const goal = new Float64Array(width);
  goal[0] = -1;
  const basis = rows.map((_, i) => n + i);
  for (;;) {
    let enter = -1;
    for (let j = 0; j < width - 1 && enter < 0; j++) if (goal[j]! < -TINY) enter = j;
    if (enter < 0) return goal[width - 1]!;
    let leave = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i < m; i++) {
      const a = table[i]![enter]!;
      if (a <= TINY) continue;
      const ratio = table[i]![width - 1]! / a;
      if (ratio < least - TINY || (ratio <= least + TINY && leave >= 0 && basis[i]! < basis[leave]!)) {
        least = Math.min(least, ratio);
        leave = i;
      }
    }
    if (leave < 0) return Number.POSITIVE_INFINITY;
    const pivot = table[leave]!;
    const by = pivot[enter]!;
    for (let j = 0; j < width; j++) pivot[j] = pivot[j]! / by;
    const clear = (t: Float64Array): void => {
      const f = t[enter]!;
      if (f === 0) return;
      for (let j = 0; j < width; j++) t[j] = t[j]! - f * pivot[j]!;
    };
    for (let i = 0; i < m; i++) if (i !== leave) clear(table[i]!);
    clear(goal);
    basis[leave] = enter;
  }
};
