import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { raiseSurface } from "../obstacles";
import { seededRandom } from "../units";
import { neededAmslAt, viewshed } from ".";

const R = (4 / 3) * 6_371_000;

/** Hills and blocks, from a seed. */
const scene = (seed: number, size: number) => {
  const random = seededRandom(seed);
  const surfaceAmslM = new Float32Array(size * size);
  const waves = Array.from({ length: 6 }, () => ({ u: random() * 0.2, v: random() * 0.2, p: random() * 6, a: random() * 6 }));
  for (let r = 0; r < size; r++)
    for (let c = 0; c < size; c++) surfaceAmslM[r * size + c] = waves.reduce((h, w) => h + w.a * Math.sin(w.u * c + w.v * r + w.p), 20);
  const bodies = Array.from({ length: 12 }, () => {
    const c = random() * size;
    const r = random() * size;
    const w = 2 + random() * 6;
    return { cols: [c, c + w, c + w, c], rows: [r, r, r + w, r + w], baseAmslM: null, heightM: 3 + random() * 12 };
  });
  raiseSurface(surfaceAmslM, size, size, bodies);
  return { surfaceAmslM, cols: size, rows: size, stepM: 5 };
};

describe("viewshed", () => {
  test("rays to the rim agree with a ray of its own to every cell in at least 98 % of cells", () => {
    for (const seed of [1, 2, 3, 4]) {
      const w = scene(seed, 120);
      const from = { col: 57.3, row: 61.8, amslM: w.surfaceAmslM[62 * 120 + 57]! + 8 };
      const quick = viewshed(w, from, R);
      let same = 0;
      for (let r = 0; r < 120; r++)
        for (let c = 0; c < 120; c++) {
          const at = w.surfaceAmslM[r * 120 + c]! + 2;
          if (at >= quick[r * 120 + c]! === at >= neededAmslAt(w, from, c, r, R)) same++;
        }
      expect(same / 120 ** 2, `seed ${seed}`).toBeGreaterThanOrEqual(0.98);
    }
  });

  test("behind a wall the needed height rises in proportion, and the earth's bulge is added", () => {
    const cols = 1001;
    const surfaceAmslM = new Float32Array(cols * 3);
    for (let r = 0; r < 3; r++) surfaceAmslM[r * cols + 100] = 15;
    const w = { surfaceAmslM, cols, rows: 3, stepM: 10 };
    // Similar triangles over the bent earth: eye 10 m, wall 15 m at 1 km, asked at 10 km.
    const bulge = (d: number): number => (d * d) / (2 * R);
    const expected = 10 + ((15 - bulge(1000) - 10) / 1000) * 10_000 + bulge(10_000);
    expect(neededAmslAt(w, { col: 0, row: 1, amslM: 10 }, 1000, 1, R)).toBeCloseTo(expected, 6);
    expect(viewshed(w, { col: 0, row: 1, amslM: 10 }, R)[cols + 1000]).toBeCloseTo(expected, 3);
  });

  test("over level ground the horizon is where sqrt(2 R h) puts it", () => {
    const cols = 1200;
    const w = { surfaceAmslM: new Float32Array(cols * 3), cols, rows: 3, stepM: 20 };
    const needed = viewshed(w, { col: 0, row: 1, amslM: 20 }, R);
    const horizonM = Math.sqrt(2 * R * 20);
    const first = Array.from({ length: cols - 5 }, (_, i) => i + 3).find((c) => needed[cols + c]! > 0.001)!;
    expect(Math.abs(first * 20 - horizonM)).toBeLessThan(300);
  });

  test("what lies behind unknown ground is unknown, and what lies before it is not", () => {
    const w = { surfaceAmslM: new Float32Array(300), cols: 100, rows: 3, stepM: 5 };
    for (let r = 0; r < 3; r++) w.surfaceAmslM[r * 100 + 50] = Number.NaN;
    const needed = viewshed(w, { col: 0, row: 1, amslM: 5 }, R);
    expect(needed[100 + 40]).toBeLessThan(5);
    expect(needed[100 + 80]).toBeNaN();
    expect(() => viewshed(w, { col: 200, row: 1, amslM: 5 }, R)).toThrow(RangeError);
  });

  test("seen one way is seen the other way", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.integer({ min: 0, max: 59 }), fc.integer({ min: 0, max: 59 }), (seed, c, r) => {
        const w = scene(seed, 60);
        if (Math.abs(c - 30) < 2 || Math.abs(r - 30) < 2) return;
        const eye = { col: 30, row: 30, amslM: w.surfaceAmslM[30 * 60 + 30]! + 6 };
        const other = { col: c, row: r, amslM: w.surfaceAmslM[r * 60 + c]! + 6 };
        const there = other.amslM - neededAmslAt(w, eye, c, r, R);
        const back = eye.amslM - neededAmslAt(w, other, 30, 30, R);
        // Near the limit the crossings of the two rays are the same, so the signs agree but for the bulge's rounding.
        if (Math.abs(there) > 0.01 && Math.abs(back) > 0.01) expect(there > 0).toBe(back > 0);
      }),
      { numRuns: 60, seed: 11 },
    );
  });
});

describe("raising a surface", () => {
  test("cells inside an outline, by the winding of its edges about each middle", () => {
    const random = seededRandom(5);
    for (let n = 0; n < 20; n++) {
      const turns = Array.from({ length: 7 }, (_, i) => ({ a: (i / 7) * 2 * Math.PI, d: 6 + random() * 12 }));
      const cols = turns.map((t) => 25 + t.d * Math.cos(t.a) + 0.013);
      const rows = turns.map((t) => 25 + t.d * Math.sin(t.a) + 0.017);
      const surface = new Float32Array(2500).fill(3);
      raiseSurface(surface, 50, 50, [{ cols, rows, baseAmslM: 2, heightM: 9 }]);
      for (let r = 0; r < 50; r++)
        for (let c = 0; c < 50; c++) {
          let angle = 0;
          for (let i = 0; i < 7; i++) {
            const j = (i + 1) % 7;
            const p = Math.atan2(rows[i]! - r, cols[i]! - c);
            const q = Math.atan2(rows[j]! - r, cols[j]! - c);
            angle += Math.atan2(Math.sin(q - p), Math.cos(q - p));
          }
          expect(surface[r * 50 + c]).toBe(Math.abs(angle) > 3 ? 11 : 3);
        }
    }
  });

  test("a mast thinner than a cell still stands", () => {
    const surface = new Float32Array(100);
    raiseSurface(surface, 10, 10, [{ cols: [4.2, 4.3, 4.3, 4.2], rows: [6.2, 6.2, 6.3, 6.3], baseAmslM: null, heightM: 20 }]);
    expect(surface[64]).toBe(20);
  });
});
