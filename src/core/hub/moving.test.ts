import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type MovingClient, movingOrder } from "./moving";

const client = (linkId: string, airShare: number, fields: Partial<MovingClient> = {}): MovingClient => ({
  linkId,
  sectorId: "s1",
  isServed: true,
  airShare,
  multiple: 2,
  ...fields,
});
/** As many as could be moved, by trying every set. */
const mostByTrying = (clients: readonly MovingClient[], mayUse: number): number => {
  let most = 0;
  for (let set = 0; set < 2 ** clients.length; set++) {
    const moved = clients.filter((_, i) => (set & (1 << i)) !== 0);
    const air = new Map<string, number>();
    for (const c of moved) air.set(c.sectorId, (air.get(c.sectorId) ?? 0) + c.airShare);
    if (moved.every((c) => c.isServed) && [...air.values()].every((a) => a <= mayUse + 1e-9)) most = Math.max(most, moved.length);
  }
  return most;
};

describe("clients moved to a new hub", () => {
  test("the surest goes first; one that is not served there, and one for whom the air is not enough, stay with the reason", () => {
    const plan = movingOrder(
      [client("a", 0.2, { multiple: 1.2 }), client("b", 0.1, { multiple: 4 }), client("c", 0.1, { isServed: false }), client("d", 0.6)],
      0.7,
    );
    expect(plan.steps.map((s) => s.linkId)).toEqual(["b", "a"]);
    expect(plan.steps[1]).toMatchObject({ servedDuring: 3, servedAfter: 4 });
    expect(plan.steps[1]!.airAfter).toBeCloseTo(0.3, 9);
    expect(plan.stay).toEqual([
      { linkId: "c", why: "not served" },
      { linkId: "d", why: "air over" },
    ]);
  });

  test("as many are moved as can be, against every set tried; each sector's air by itself; nobody twice, nobody lost", () => {
    const share = fc.double({ min: 0.01, max: 0.6, noNaN: true });
    const one = fc.record({
      airShare: share,
      sectorId: fc.constantFrom("s1", "s2"),
      isServed: fc.boolean(),
      multiple: fc.double({ min: 0.5, max: 9, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 9 }), (list) => {
        const clients = list.map((c, i) => ({ ...c, linkId: `l${i}` }));
        const plan = movingOrder(clients, 0.7);
        expect(plan.steps).toHaveLength(mostByTrying(clients, 0.7));
        expect([...plan.steps, ...plan.stay].map((s) => s.linkId).sort()).toEqual(clients.map((c) => c.linkId).sort());
        for (const s of plan.steps) expect(s.airAfter).toBeLessThanOrEqual(0.7 + 1e-9);
      }),
      { seed: 5 },
    );
  });
});
