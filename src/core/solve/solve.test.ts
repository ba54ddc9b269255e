import { describe, expect, test } from "vitest";
import { effectiveRadiusM } from "../geo";
import { evaluateLink, pathStateOf, preparePath, rayOf, reflectedAt, reflectorOf, withTrims } from "../link";
import { makeRay, shareOfPoint } from "../obstacles";
import { body, box, end, POLICY, plan, profile, seeded } from "../testing/scene";
import {
  heightsWithoutNull,
  levelOverHeight,
  levelOverTide,
  outlook,
  placeOutcome,
  policyOutcomes,
  readAt,
  relaySpots,
  tableDistances,
} from ".";

const poplars = body({
  ...box(288, 292, -18, 18),
  id: "poplars",
  name: "Poplars",
  kind: "row",
  heightM: 6.4,
  baseAmslM: 5,
  growthMPerYear: 0.6,
  heightSigmaM: 0.2,
  crownBaseM: 2,
});
const street = profile(430, (x) => (x < 200 ? 3.5 : x < 350 ? 5 : 6), [poplars]);
const rope = plan(end("A", 11), end("B", 7.5));

describe("the years ahead", () => {
  test("each year equals a plan made in that year; clear until the last that is met, measured again before it is doubtful", () => {
    const path = preparePath(rope, street);
    const view = outlook(rope, path, 10);
    expect(view.years).toHaveLength(11);
    for (const y of view.years) {
      const grown = { ...street, bodies: [{ ...poplars, heightM: 6.4 + 0.6 * (y.year - 2026) }] };
      const then = evaluateLink({ ...rope, policy: { ...POLICY, year: y.year, horizonYears: 0 } }, grown).clearance;
      expect(y.worst!.missM).toBeCloseTo(then.worst!.missM, 9);
      expect(y.chance).toBeCloseTo(then.probability!, 9);
      expect(y.met).toBe(y.worst!.missM <= 0.0005);
    }
    const lost = view.years.find((y) => !y.met)!.year;
    expect(view.clearUntilYear).toBe(lost - 1);
    expect(view.holds).toBe(false);
    const doubtful = view.years.find((y) => y.chance! < 0.9)!.year;
    expect(view.surveyAgainYear).toBe(Math.max(2026, doubtful - 1));
    const bare = outlook(
      rope,
      preparePath(
        rope,
        profile(430, () => 3),
      ),
      4,
    );
    expect([bare.holds, bare.clearUntilYear, bare.surveyAgainYear]).toEqual([true, 2030, null]);
  });

  test("a tree cut to nothing is gone and does not grow again", () => {
    const path = preparePath(rope, street);
    const cut = { ...rope, trims: { poplars: 0 } };
    const gone = outlook(cut, withTrims(path, cut), 10);
    expect(gone.holds).toBe(true);
    expect(gone.years[10]!.worst!.missM).toBeCloseTo(gone.years[0]!.worst!.missM, 9);
    expect(evaluateLink(cut, street).service.toFar!.terms.find((t) => t.id === "vegetation")!.valueDb).toBeCloseTo(0, 9);
  });
});

test("every school's outcome is that of the plan made by it", () => {
  const path = preparePath(rope, street);
  const outcomes = policyOutcomes(rope, path);
  expect(outcomes.filter((o) => o.inForce).map((o) => o.change)).toEqual([{ clearance: "sixty" }, { trees: "strict" }, { leaf: "in" }]);
  for (const o of outcomes) {
    const r = evaluateLink({ ...rope, policy: { ...POLICY, ...o.change } }, street);
    expect(o.clearanceVerdict).toBe(r.clearance.verdict);
    expect(o.worst?.missM).toBeCloseTo(r.clearance.worst!.missM, 9);
    expect(o.levelDbm).toBeCloseTo(Math.min(r.service.toFar!.levelDbm, r.service.toNear!.levelDbm), 9);
  }
  const lacks = (c: string): number => outcomes.find((o) => o.change.clearance === c)!.worst!.missM;
  expect(lacks("line")).toBeLessThan(lacks("sixty"));
  expect(lacks("sixty")).toBeLessThan(lacks("whole"));
});

test("level over tide and heights is the two-ray level at each; stretches without a null hold no height that has one", () => {
  const sea = profile(3100, (x) => (x < 40 || x > 3060 ? 3.5 : 0), [], 800);
  const p = plan(end("A", 11), end("B", 11));
  const path = preparePath(p, sea);
  const tide = levelOverTide(p, path, 31)!;
  const state = pathStateOf(p, path);
  const reflector = reflectorOf(p, state)!;
  for (const l of tide.levels) expect(l.relativeDb).toBe(reflectedAt(p, state, reflector, { tideM: l.tideM }).relativeDb);
  const levels = levelOverHeight(p, path, "far", 3, 20, 120);
  const good = heightsWithoutNull(levels);
  expect(good.length).toBeGreaterThan(1);
  for (const l of levels) {
    const within = good.some((g) => l.aglM >= g.fromM && l.aglM <= g.toM);
    expect(within).toBe((l.worstDb ?? 0) > -3);
  }
  expect(
    levelOverTide(
      p,
      preparePath(
        p,
        profile(3100, (x) => 20 + 5 * Math.sin(x / 90)),
      ),
      5,
    ),
  ).toBeNull();
});

test("read at a place: the body's top or the ground, the room to the ray, its share and what stands beside", () => {
  const wall = body({ ...box(200, 210, 3, 9), id: "w", name: "Wall", kind: "wall", heightM: 30 });
  const line = body({ ...box(340, 344, -40, 40), id: "l", name: "Line", kind: "line", heightM: 30, freeBelowM: 25, baseAmslM: 5 });
  const q = { ...street, bodies: [poplars, wall, line] };
  const path = preparePath(rope, q);
  const { ray } = rayOf(rope, path);
  const at = readAt(rope, path, ray, 290);
  expect(at.top).toMatchObject({ name: "Poplars" });
  expect(at.top!.amslM).toBeCloseTo(11.4, 6);
  expect(at.clearM!).toBeCloseTo(at.rayAmslM - 11.4, 6);
  expect(at.share!).toBeCloseTo(shareOfPoint(ray, 290, 0, 11.4 + (290 * 140) / (2 * ray.effectiveRadiusM)), 6);
  expect(readAt(rope, path, ray, 290, 2030).top!.amslM).toBeCloseTo(13.8, 6);
  expect(readAt(rope, path, ray, 205)).toMatchObject({ top: null, beside: { name: "Wall", acrossM: 3 } });
  // Beneath the line the air is free.
  expect(readAt(rope, path, ray, 342).top).toBeNull();
  const hole = preparePath(
    rope,
    profile(430, (x) => (x > 100 && x < 200 ? Number.NaN : 4)),
  );
  expect(readAt(rope, hole, ray, 150)).toMatchObject({ groundAmslM: null, clearM: null, share: null });
  expect(tableDistances(path, 291.2)).toEqual(expect.arrayContaining([0, 290, 291.2, 430]));
});

test("another spot is judged as the link from there would be", () => {
  const p = placeOutcome(rope, street, "far", 12);
  const there = evaluateLink({ ...rope, far: { ...rope.far, mountAglM: 12 } }, street);
  expect(p.missM).toBeCloseTo(there.clearance.worst!.missM, 9);
  expect(p.verdict).toBe(there.clearance.verdict);
  const raised = evaluateLink({ ...rope, far: { ...rope.far, mountAglM: 12 + p.raiseM! } }, street);
  expect(raised.clearance.worstAtHorizon!.missM).toBeLessThanOrEqual(0.0005);
});

describe("a relay over the ground", () => {
  const stepM = 40;
  const [cols, rows] = [90, 60];
  const scene = (random: () => number) => {
    const hills = Array.from({ length: 7 }, () => ({
      c: random() * cols,
      r: random() * rows,
      h: 20 + 120 * random(),
      w: 4 + 9 * random(),
    }));
    const surfaceAmslM = Float32Array.from({ length: cols * rows }, (_, i) => {
      const [c, r] = [i % cols, Math.floor(i / cols)];
      return 2 + hills.reduce((sum, k) => sum + k.h * Math.exp(-((c - k.c) ** 2 + (r - k.r) ** 2) / (2 * k.w * k.w)), 0);
    });
    const place = (c: number, r: number) => ({ col: c, row: r, amslM: surfaceAmslM[r * cols + c]! + 8 });
    return {
      window: { surfaceAmslM, cols, rows, stepM },
      near: place(4, 5 + Math.floor(random() * 50)),
      far: place(85, 5 + Math.floor(random() * 50)),
      mostMastM: 12,
      wavelengthM: 0.0545,
      kFactor: 4 / 3,
      effectiveRadiusM: effectiveRadiusM(4 / 3),
      policyShare: 0.6,
    };
  };
  /** Whether both legs meet the policy at a mast, by trying points at a fifth of a cell. */
  const bruteServes = (q: ReturnType<typeof scene>, col: number, row: number, mastM: number): boolean => {
    const s = q.window.surfaceAmslM;
    const h = (x: number, y: number): number => {
      const c = Math.min(cols - 2, Math.floor(x));
      const r = Math.min(rows - 2, Math.floor(y));
      const [u, v] = [x - c, y - r];
      const at = r * cols + c;
      return (s[at]! * (1 - u) + s[at + 1]! * u) * (1 - v) + (s[at + cols]! * (1 - u) + s[at + cols + 1]! * u) * v;
    };
    return [q.near, q.far].every((e) => {
      const cells = Math.hypot(col - e.col, row - e.row);
      const pathM = cells * stepM;
      const ray = makeRay({
        pathM,
        startM: 0,
        endM: pathM,
        nearAmslM: e.amslM,
        farAmslM: h(col, row) + mastM,
        wavelengthM: q.wavelengthM,
        kFactor: q.kFactor,
      });
      const n = Math.ceil(cells);
      for (let i = 1; i < n; i++) {
        const t = i / n;
        const x = t * pathM;
        const z = h(e.col + (col - e.col) * t, e.row + (row - e.row) * t) + (x * (pathM - x)) / (2 * ray.effectiveRadiusM);
        const rayZ = ray.startZM + (ray.endZM - ray.startZM) * t;
        if (z > rayZ || shareOfPoint(ray, x, 0, z) < 0.6 - 0.02) return false;
      }
      return true;
    });
  };

  test("every spot serves both ends by brute force, a metre less of mast does not, and none is missed where some cell would do", () => {
    const random = seeded(21);
    let found = 0;
    for (let n = 0; n < 25; n++) {
      const q = scene(random);
      const { spots } = relaySpots(q);
      for (const s of spots) {
        found++;
        expect(bruteServes(q, s.col, s.row, s.mastM + 0.05), `scene ${n}`).toBe(true);
        if (s.mastM > 4) expect(bruteServes(q, s.col, s.row, s.mastM - 1), `scene ${n}`).toBe(false);
      }
      if (spots.length > 0) continue;
      for (let r = 0; r < rows; r += 2)
        for (let c = 0; c < cols; c += 2)
          if (
            q.window.surfaceAmslM[r * cols + c]! > 0.5 &&
            Math.min(Math.hypot(c - q.near.col, r - q.near.row), Math.hypot(c - q.far.col, r - q.far.row)) > 2
          )
            expect(bruteServes(q, c, r, 6), `scene ${n}, ${c}, ${r}`).toBe(false);
    }
    expect(found).toBeGreaterThan(40);
  });

  test("best first and apart; progress rises to 1; it can be stopped; no answer says the least mast", () => {
    const q = { ...scene(seeded(3)), mostMastM: 60 };
    const shares: number[] = [];
    const { spots } = relaySpots(q, (share) => shares.push(share));
    expect(spots.length).toBeGreaterThan(1);
    const score = (s: (typeof spots)[number]): number => s.mastM + Math.max(s.nearLegM, s.farLegM) / 1000;
    for (let i = 1; i < spots.length; i++) expect(score(spots[i]!)).toBeGreaterThanOrEqual(score(spots[i - 1]!));
    for (const a of spots)
      for (const b of spots) if (a !== b) expect(Math.hypot(a.col - b.col, a.row - b.row) * stepM).toBeGreaterThanOrEqual(100);
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(relaySpots(q, undefined, () => true).spots).toEqual([]);
    // A ridge all across, too steep to see over from either side with so short a mast.
    const ridge = Float32Array.from({ length: cols * rows }, (_, i) => (Math.abs((i % cols) - 45) < 6 ? 300 : 0.2));
    const none = relaySpots({
      ...q,
      window: { ...q.window, surfaceAmslM: ridge },
      near: { col: 4, row: 30, amslM: 5 },
      far: { col: 85, row: 30, amslM: 5 },
      mostMastM: 1,
    });
    expect(none.spots).toEqual([]);
    expect(none.leastMastM!).toBeGreaterThan(1);
  });
});
