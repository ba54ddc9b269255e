import { describe, expect, test } from "vitest";
import { type LinkPlan, type PathProfile, preparePath, trimList, withTrims, worstPlaceOf } from "../link";
import { makeRay, rayZM, shareOfPoint } from "../obstacles";
import { body, box, end, plan, profile, radio, seeded } from "../testing/scene";
import { heightAnswers, heightFrontier, heightsThatMeet, missAt, withHeights } from ".";

/** A rough path with buildings, walls and trees on and beside it, seeded. */
const scene = (random: () => number): { plan: LinkPlan; profile: PathProfile } => {
  const pathM = 150 + 6000 * random() ** 2;
  const [a, b, c] = [random() * 6, random() * 9, random() * 40];
  const ground = (x: number): number => 10 + a * Math.sin((x / pathM) * 5 + c) + b * (x / pathM) * (1 - x / pathM);
  const bodies = Array.from({ length: 1 + Math.floor(random() * 5) }, (_, i) => {
    const at = pathM * (0.15 + 0.7 * random());
    const aside = (random() - 0.4) * 20;
    const kind = (["building", "wall", "row", "crown"] as const)[Math.floor(random() * 4)]!;
    return body({
      ...box(at - 1 - 8 * random(), at + 1 + 8 * random(), aside - 2 - 5 * random(), aside + 1 + 5 * random()),
      id: `b${i}`,
      name: `Body ${i}`,
      kind,
      heightM: 3 + 14 * random(),
      baseAmslM: ground(at),
      growthMPerYear: kind === "row" || kind === "crown" ? 0.5 * random() : 0,
    });
  });
  // A narrow aperture: the tube near the ends is then the policy's own.
  const small = radio({ antenna: { kind: "integrated", form: "panel", gainDbi: 8, azimuthBeamwidthDeg: 60 } });
  return { plan: plan(end("A", 8, { radio: small }), end("B", 8, { radio: small })), profile: profile(pathM, ground, bodies, 300) };
};

/** Whether 60 % of F1 is free, by trying points: ground, the outlines up to the ray, the tops along the axis. */
const bruteMet = (p: LinkPlan, q: PathProfile, nearAglM: number, farAglM: number, year: number): boolean => {
  const g = q.groundAmslM;
  const groundAt = (x: number): number => {
    const u = (x / q.pathM) * (g.length - 1);
    const i = Math.min(g.length - 2, Math.max(0, Math.floor(u)));
    return g[i]! + (g[i + 1]! - g[i]!) * (u - i);
  };
  const ray = makeRay({
    pathM: q.pathM,
    startM: 0,
    endM: q.pathM,
    nearAmslM: g[0]! + nearAglM,
    farAmslM: g[g.length - 1]! + farAglM,
    wavelengthM: 299_792_458 / (p.centreMhz * 1e6),
    kFactor: p.policy.kFactor,
  });
  const free = (x: number, y: number, zAmslM: number): boolean => {
    const z = zAmslM + (x * (q.pathM - x)) / (2 * ray.effectiveRadiusM);
    return y === 0 && z > rayZM(ray, x) ? false : shareOfPoint(ray, x, y, Math.min(z, y === 0 ? z : rayZM(ray, x))) >= 0.6;
  };
  for (let i = 1; i < g.length - 1; i++) if (!free(q.distanceM[i]!, 0, g[i]!)) return false;
  for (const b of q.bodies) {
    const crosses = Math.min(...b.yM) < 0 && Math.max(...b.yM) > 0;
    const follows = (b.kind === "row" || b.kind === "crown") && crosses;
    const topAt = (x: number): number => (follows ? groundAt(x) : b.baseAmslM) + b.heightM + b.growthMPerYear * (year - p.policy.year);
    for (let i = 0; i < 4; i++) {
      const j = (i + 1) % 4;
      for (let s = 0; s <= 300; s++) {
        const x = b.xM[i]! + ((b.xM[j]! - b.xM[i]!) * s) / 300;
        const y = b.yM[i]! + ((b.yM[j]! - b.yM[i]!) * s) / 300;
        if (y !== 0 && !free(x, y, topAt(x))) return false;
      }
    }
    if (!crosses) continue;
    for (let s = 0; s <= 300; s++) {
      const x = b.xM[0]! + ((b.xM[1]! - b.xM[0]!) * s) / 300;
      if (!free(x, 0, topAt(x))) return false;
    }
  }
  return true;
};

describe("pairs of heights", () => {
  test("the frontier equals brute force to 1 cm on 200 seeded profiles", () => {
    const random = seeded(5);
    let compared = 0;
    for (let n = 0; n < 200; n++) {
      const s = scene(random);
      const path = preparePath(s.plan, s.profile);
      const year = s.plan.policy.year + Math.floor(random() * 6);
      const nearAglM = 2 + 28 * random();
      const got = heightsThatMeet(s.plan, path, "far", nearAglM, 60, year);
      const met = (h: number): boolean => bruteMet(s.plan, s.profile, nearAglM, h, year);
      if (!met(60)) {
        expect(got, `scene ${n}`).toEqual([]);
        continue;
      }
      let low = 0;
      let high = 60;
      if (met(0)) high = 0;
      while (high - low > 0.001) {
        const mid = (low + high) / 2;
        if (met(mid)) high = mid;
        else low = mid;
      }
      compared++;
      expect(Math.abs(got[0]!.fromM - high), `scene ${n}: ${got[0]!.fromM} against ${high}`).toBeLessThan(0.01);
    }
    expect(compared).toBeGreaterThan(150);
  }, 60_000);

  test("a mount on the ground itself is not clear, though the foot of it has no zone", () => {
    const flat = plan(end("A", 20), end("B", 0));
    const path = preparePath(
      flat,
      profile(3932.062535679314, () => 4),
    );
    expect(missAt(flat, path, 20, 0, 2026)!).toBeGreaterThan(0.1);
  });

  test("a span's strip is what lies between passing beneath and above it; answers stay out of it", () => {
    const q = profile(800, () => 5, [
      body({ ...box(398, 402, -60, 60), id: "line", name: "Line", kind: "line", heightM: 17, freeBelowM: 13, baseAmslM: 5 }),
    ]);
    const p = plan(end("A", 15), end("B", 15));
    const path = preparePath(p, q);
    const { columns, spans } = heightFrontier(p, path, { nearM: 40, farM: 40 }, 2026, 41);
    expect(spans).toEqual(["Line"]);
    const at15 = columns.find((c) => Math.abs(c.nearAglM - 15) < 1e-6)!;
    const strip = at15.forbidden[0]!;
    for (const [h, met] of [
      [strip.fromM - 0.01, true],
      [strip.fromM + 0.01, false],
      [15, false],
      [strip.toM - 0.01, false],
      [strip.toM + 0.01, true],
    ] as const) {
      expect(missAt(p, path, 15, h, 2026)! <= 0.0005, `${h} m`).toBe(met);
    }
    for (const a of heightAnswers(p, path, { nearPerM: 10, farPerM: 20 }, 2026).answers) {
      expect(missAt(p, path, a.nearAglM, a.farAglM, 2026)!).toBeLessThanOrEqual(0.0005);
    }
  });

  test("the cheapest pair costs no more than any other pair within the limits", () => {
    const random = seeded(8);
    let asked = 0;
    for (let n = 0; n < 40; n++) {
      const s = scene(random);
      const p = { ...s.plan, near: { ...s.plan.near, mountMaxAglM: 24 }, far: { ...s.plan.far, mountMaxAglM: 20 } };
      const path = preparePath(p, s.profile);
      const costs = { nearPerM: 30 + 200 * random(), farPerM: 30 + 200 * random() };
      const { answers } = heightAnswers(p, path, costs, 2031);
      const cheapest = answers.find((a) => a.kind === "cheapest");
      let least = Number.POSITIVE_INFINITY;
      for (let near = 8; near <= 24; near += 0.25) {
        for (let far = 8; far <= 20; far += 0.25) {
          if ((missAt(p, path, near, far, 2031) ?? 1) <= 0.0005) {
            least = Math.min(least, (near - 8) * costs.nearPerM + (far - 8) * costs.farPerM);
            break;
          }
        }
      }
      if (cheapest === undefined) {
        expect(least, `scene ${n}`).toBe(Number.POSITIVE_INFINITY);
        continue;
      }
      asked++;
      // Both ends rounded up to a decimetre.
      expect(cheapest.cost!, `scene ${n}`).toBeLessThanOrEqual(least + 0.11 * (costs.nearPerM + costs.farPerM));
      expect(missAt(p, path, cheapest.nearAglM, cheapest.farAglM, 2031)!).toBeLessThanOrEqual(0.0005);
    }
    expect(asked).toBeGreaterThan(15);
  }, 60_000);

  test("no height is an answer with a reason: what still lacks at the top", () => {
    const hill = profile(5000, (x) => 200 * Math.exp(-(((x - 2500) / 700) ** 2)));
    const p = plan(end("A", 10), end("B", 10));
    const r = heightAnswers(p, preparePath(p, hill), { nearPerM: null, farPerM: null }, 2031);
    expect(r.answers).toEqual([]);
    expect(r.lacksAtTopM!).toBeGreaterThan(100);
    expect(r.topNearM).toBe(50);
  });
});

describe("the trim list", () => {
  test("after applying it the clearance equals the policy's to 1 cm, wherever trees alone stood in the way", () => {
    const random = seeded(11);
    let applied = 0;
    for (let n = 0; n < 200; n++) {
      const s = scene(random);
      const path = preparePath(s.plan, s.profile);
      const list = trimList(s.plan, path, 2031);
      if (list.rows.length === 0) continue;
      const cut = { ...s.plan, trims: list.trims };
      const worst = worstPlaceOf(cut, withTrims(path, cut), 2031)!;
      for (const row of list.rows) expect(row.toM, `scene ${n}`).toBeLessThan(row.nowM);
      if (!list.enough) {
        // What is left is no tree that a cut could mend.
        expect(worst.owner.kind === "ground" || !["row", "crown", "wood", "hedge"].includes(worst.owner.bodyKind)).toBe(true);
        continue;
      }
      expect(worst.missM).toBeLessThanOrEqual(0.0005);
      if (list.rows.every((r) => r.toM > 0)) {
        applied++;
        // A tree cut to the policy stands at the policy: past its side or over its top.
        const nearest = Math.max(
          ...list.rows.map((r) => {
            const higher = { ...cut, trims: { ...cut.trims, [r.bodyId]: r.toM + 0.012 } };
            return worstPlaceOf(higher, withTrims(path, higher), 2031)!.missM;
          }),
        );
        expect(nearest, `scene ${n}`).toBeGreaterThan(0);
      }
    }
    expect(applied).toBeGreaterThan(10);
  });

  test("each tree alone, with its growth, and a cut of more than a third means removal", () => {
    const trees = [0, 1].map((i) =>
      body({
        ...box(200 + 60 * i, 204 + 60 * i, -6, 6),
        id: `t${i}`,
        name: `Tree ${i}`,
        kind: "crown",
        heightM: 11 + 7 * i,
        growthMPerYear: 0.4,
      }),
    );
    const p = plan(end("A", 12), end("B", 12));
    const path = preparePath(
      p,
      profile(430, () => 0, trees),
    );
    const list = trimList(p, path, 2031);
    expect(list.rows.map((r) => [r.name, r.removal])).toEqual([
      ["Tree 1", true],
      ["Tree 0", false],
    ]);
    for (const r of list.rows) expect(r.toTodayM - r.toM).toBeCloseTo(2, 1);
    expect(list.enough).toBe(true);
    expect(missAt({ ...p, trims: list.trims }, withTrims(path, { ...p, trims: list.trims }), 12, 12, 2031)!).toBeLessThanOrEqual(0.0005);
    expect(withHeights(p, 3, 4).far.mountAglM).toBe(4);
  });
});
