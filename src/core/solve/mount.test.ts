import { describe, expect, test } from "vitest";
import type { TriedRemote } from "../hub";
import { body, box, CLIMATE, end, POLICY, plan, profile } from "../testing/scene";
import { byMount, heightsBetween, mountOutcome } from "./mount";

/** A remote over level ground with a wall midway. */
const remote = (name: string, wallM: number | null, hubIsNear = true): TriedRemote => {
  const wall =
    wallM === null ? [] : [body({ ...box(245, 255, -30, 30), id: "w", name: "wall", heightM: wallM, heightSigmaM: 0.1, baseSigmaM: 0.1 })];
  const ends = [end("Mast", 8), end(name, 8)] as const;
  return {
    linkId: name,
    name,
    hubIsNear,
    profile: profile(500, () => 0, wall),
    plan: plan(ends[0], ends[1], { centreMhz: 5500, widthMhz: 40, needToFarMbps: 5, needToNearMbps: 5, policy: POLICY, climate: CLIMATE }),
  };
};

describe("a hub's mount between two heights", () => {
  test("heights go from low to high, a dozen at most, one where there is no room", () => {
    expect(heightsBetween(2, 5)).toEqual([2, 3, 4, 5]);
    expect(heightsBetween(0, 100)).toHaveLength(12);
    expect(heightsBetween(6, 6)).toEqual([6]);
    expect(heightsBetween(9, 4)).toEqual([4]);
  });

  test("the lowest height that serves all of them is taken: 60 % of the zone over the wall by geometry", () => {
    const found = mountOutcome([remote("open", null), remote("walled", 9)], 4, 24);
    expect(found).toMatchObject({ served: 2, cleared: 2, seen: 2, of: 2, lost: [] });
    // Midway the ray must be 9 m and 0.6 F1 (2.61 m): the mast at least 2 x 10.57 - 8 = 13.1 m, and some for the errors.
    expect(found.aglM).toBeGreaterThan(13.1);
    expect(found.aglM).toBeLessThan(17);
  });

  test("below the wall's shadow one is neither seen nor cleared, and is named when its need is not kept", () => {
    const found = mountOutcome([remote("open", null), remote("walled", 30)], 4, 8);
    expect(found).toMatchObject({ served: 1, cleared: 1, seen: 1, lost: ["walled"] });
  });

  test("from either end of the links the same mast", () => {
    const turned = (name: string, wallM: number | null): TriedRemote => {
      const r = remote(name, wallM, false);
      return { ...r, plan: { ...r.plan, near: r.plan.far, far: r.plan.near } };
    };
    const [a, b] = [mountOutcome([remote("x", 9)], 4, 24), mountOutcome([turned("x", 9)], 4, 24)];
    expect([b.aglM, b.served, b.cleared]).toEqual([a.aglM, a.served, a.cleared]);
  });

  test("more served comes before more cleared, before more seen, before lower; heights under 0 are refused", () => {
    const of = (served: number, cleared: number, seen: number, aglM: number) => ({ served, cleared, seen, aglM, of: 3, lost: [] });
    const rows = [of(1, 3, 3, 2), of(2, 1, 1, 9), of(2, 2, 1, 9), of(2, 2, 2, 9), of(2, 2, 2, 4)];
    expect([...rows].sort(byMount)).toEqual([rows[4], rows[3], rows[2], rows[1], rows[0]]);
    expect(() => mountOutcome([], -1, 4)).toThrow(RangeError);
  });
});
