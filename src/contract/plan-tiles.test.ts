/* The grid of tiles of the plan: every point lies in one square, squares meet edge to edge, four of a step make one of the next. */
import fc from "fast-check";
import { expect, test } from "vitest";
import { PLAN_RESOLUTIONS_M, PLAN_TILE_PX, planTileBox } from "./plan-tiles";

const z = fc.integer({ min: 0, max: PLAN_RESOLUTIONS_M.length - 1 });
const index = fc.integer({ min: -1000, max: 1000 });
const metres = fc.integer({ min: -5e8, max: 5e8 }).map((cm) => cm / 100);

test("a point lies in the square that its place counts to", () => {
  fc.assert(
    fc.property(z, metres, metres, (step, east, north) => {
      const side = PLAN_TILE_PX * PLAN_RESOLUTIONS_M[step]!;
      const box = planTileBox(step, Math.floor(east / side), Math.ceil(-north / side) - 1);
      expect(east).toBeGreaterThanOrEqual(box.west);
      expect(east).toBeLessThan(box.west + box.sideM);
      expect(north).toBeGreaterThanOrEqual(box.south);
      expect(north).toBeLessThan(box.south + box.sideM);
    }),
  );
});

test("neighbours meet, x to the east and y to the south", () => {
  fc.assert(
    fc.property(z, index, index, (step, x, y) => {
      const box = planTileBox(step, x, y);
      expect(planTileBox(step, x + 1, y).west - box.west).toBe(box.sideM);
      expect(box.south - planTileBox(step, x, y + 1).south).toBe(box.sideM);
    }),
  );
});

test("each step is half the one before, and its first four squares are one of that", () => {
  for (let step = 1; step < PLAN_RESOLUTIONS_M.length; step++) {
    expect(PLAN_RESOLUTIONS_M[step]! * 2).toBe(PLAN_RESOLUTIONS_M[step - 1]);
    const whole = planTileBox(step - 1, 3, -5);
    const quarter = planTileBox(step, 6, -10);
    expect([quarter.west, quarter.south + quarter.sideM]).toEqual([whole.west, whole.south + whole.sideM]);
  }
});
