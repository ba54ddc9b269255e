import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { evaluatePrepared, preparePath, rayOf } from "@/core/link";
import { sceneOf } from "@/core/testing/random-scene";
import { captionField, crosses, textBox } from "./caption-field";
import { zonesBeside } from "./ghost-zones";
import { sectionCaptions } from "./section-captions";
import { sectionScale } from "./section-scale";

describe("the placing rule", () => {
  test("a straight piece crosses a box exactly when some point of it lies inside, by trying a thousand", () => {
    const n = fc.integer({ min: 0, max: 100 });
    fc.assert(
      fc.property(n, n, n, n, fc.tuple(n, n), fc.tuple(n, n), (a, b, c, d, [x0, x1], [y0, y1]) => {
        const box = { x0: Math.min(x0, x1), x1: Math.max(x0, x1) + 3, y0: Math.min(y0, y1), y1: Math.max(y0, y1) + 3 };
        let inside = false;
        for (let i = 0; i <= 1000; i++) {
          const [x, y] = [a + ((c - a) * i) / 1000, b + ((d - b) * i) / 1000];
          inside ||= x > box.x0 + 0.11 && x < box.x1 - 0.11 && y > box.y0 + 0.11 && y < box.y1 - 0.11;
        }
        if (inside) expect(crosses(box, a, b, c, d)).toBe(true);
        const outside = { x0: box.x0 - 0.2, x1: box.x1 + 0.2, y0: box.y0 - 0.2, y1: box.y1 + 0.2 };
        if (!crosses(outside, a, b, c, d)) expect(inside).toBe(false);
      }),
      { numRuns: 300, seed: 11 },
    );
  });

  test("a place to be avoided is taken only when no other is free", () => {
    const field = captionField(300, 60);
    const at = (x: number) => ({ box: textBox("twelve chars", x, 30, 12, "start"), x });
    field.avoid(at(20).box);
    expect(field.place([at(20), at(200)])?.x).toBe(200);
    expect(field.place([at(20), at(200)])?.x).toBe(20);
    expect(field.place([at(20), at(200)])).toBeNull();
  });

  test("the first free place is taken, the next caption goes elsewhere, and one without room is left out", () => {
    const field = captionField(300, 60);
    field.line([
      [0, 20],
      [300, 20],
    ]);
    const at = (y: number) => ({ box: textBox("twelve chars", 20, y, 12, "start"), y });
    expect(field.place([at(22), at(50)])?.y).toBe(50);
    expect(field.place([at(50), at(18)])).toBeNull();
    expect(field.place([at(50), { box: textBox("far", 200, 50, 12, "start"), y: 50 }])).not.toBeNull();
  });
});

test("on 60 scenes at four widths and three heights no caption lies on ray, zone, ground or another caption; the worst is nearly always told", () => {
  let told = 0;
  let all = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const s = sceneOf(seed, 1 + (seed % 3), 2);
    const path = preparePath(s.plan, s.profile);
    const result = evaluatePrepared(s.plan, path);
    const { ray } = rayOf(s.plan, path);
    for (const width of [560, 760, 932, 1250]) {
      for (const height of [180, 296, 460]) {
        const scale = sectionScale(path, s.plan, ray, width, height);
        const props = {
          path,
          plan: s.plan,
          result,
          ray,
          scale,
          units: "metric",
          clearsFrom: { nearAglM: null, farAglM: null },
          settled: { nearAglM: s.plan.near.mountAglM, farAglM: s.plan.far.mountAglM },
          ghost: null,
          zones: zonesBeside(ray, [
            { name: "Kelp Dish, 60 GHz", wavelengthM: 0.005 },
            { name: "Wrack Panel, 2.4 GHz", wavelengthM: 0.125 },
          ]),
          onBegin: () => undefined,
          onEnd: () => undefined,
          onMount: () => undefined,
        } as const;
        const c = sectionCaptions(props);
        all++;
        if (c.worst !== null) told++;
        const boxes = [...(c.worst === null ? [] : [c.worst.box]), ...(c.zone === null ? [] : [c.zone.box]), ...c.zones.map((z) => z.box)];
        for (const box of boxes) {
          const straight = [scale.x(ray.startM), scale.y(ray.startZM), scale.x(ray.endM), scale.y(ray.endZM)] as const;
          expect(crosses(box, ...straight), `seed ${seed}, ${width} x ${height}`).toBe(false);
          expect(box.x0 >= 0 && box.x1 <= width && box.y0 >= 0 && box.y1 <= height).toBe(true);
        }
      }
    }
  }
  expect(told / all).toBeGreaterThan(0.9);
});
