/* Each draw's clearance, looked for with bounds, against the same looked for at every body. */
import { describe, expect, test } from "vitest";
import { f1RadiusM, rayBulgeM } from "../obstacles";
import { sceneOf } from "../testing/random-scene";
import { clearOfSectionM } from "./body-sections";
import { drawnBodies } from "./chance";
import { conditionsOf } from "./conditions";
import { clearanceDraw } from "./draw-clearance";
import { drawSource } from "./draws";
import { rayOf } from "./path-state";
import { preparePath } from "./prepare";

const SCENES = 60;
const DRAWS = 40;

const onlyHeights = ({ plan, profile }: ReturnType<typeof sceneOf>) => {
  const still = { mountSigmaM: 0.001, positionSigmaM: 0.001 };
  return {
    plan: { ...plan, near: { ...plan.near, ...still }, far: { ...plan.far, ...still } },
    profile: {
      ...profile,
      datasets: profile.datasets.map((d) => ({ ...d, sigmaM: 0.001 })),
      bodies: profile.bodies.map((b) => ({ ...b, heightSigmaM: 2 })),
    },
  };
};

describe("the clearance of a draw", () => {
  test("is the least over all bodies and the ground, whichever are looked at", () => {
    let [decidedByBody, decidedByGround] = [0, 0];
    for (let seed = 1; seed <= SCENES; seed++) {
      const scene = sceneOf(seed, seed % 6 === 5 ? 60 : seed % 6, seed % 3 === 0 ? 12 : 4, seed % 2 === 0 ? 0.3 : 1.5);
      // Every fourth: all that moves are the bodies' own heights, so that it shows when one of them is left out.
      const { plan, profile } = seed % 4 === 1 ? onlyHeights(scene) : scene;
      const path = preparePath(plan, profile);
      const conditions = conditionsOf(plan, path, (k) => rayOf({ ...plan, policy: { ...plan.policy, kFactor: k } }, path).ray);
      const bodies = drawnBodies(plan, path, conditions);
      const source = drawSource(plan, profile, bodies.heights, DRAWS, seed);
      const { field, next } = source;
      const fast = clearanceDraw(profile, bodies.parts, source, true, bodies.groundReachM);
      /** Room over each ground point as the draw moves it, looked at one by one. */
      const overGround = (up: (xM: number) => number): number[] =>
        conditions.flatMap(({ ray, share }) =>
          Array.from(profile.distanceM).flatMap((x, i) => {
            const f1M = f1RadiusM(ray, x);
            if (f1M <= 0) return [];
            const rayM =
              ray.startZM +
              up(ray.startM) +
              ((ray.endZM + up(ray.endM) - ray.startZM - up(ray.startM)) * (x - ray.startM)) / (ray.endM - ray.startM);
            return [rayM - profile.groundAmslM[i]! - rayBulgeM(ray, x) - field.at(x) - share * f1M];
          }),
        );
      // So many points within reach that the search takes one of each few: nothing to hold it against exactly.
      if (overGround(() => 0).filter((m) => m < bodies.groundReachM).length > 200) continue;
      for (let n = 0; n < DRAWS; n++) {
        const draw = next();
        for (const surveyAlone of [false, true]) {
          const up = surveyAlone ? draw.groundUpM : draw.rayUpM;
          const plain = bodies.parts.flatMap(({ condition, sections }) =>
            sections.map((s, i) => {
              const aside = surveyAlone ? 0 : draw.asideOfM(s.body.carries, s.atM);
              const room = clearOfSectionM(s, up(s.atM) - field.at(s.atM) - draw.errorM(i), aside);
              return (room > 0 ? room * s.boundShare : room) - condition.share * s.f1M;
            }),
          );
          const ground = Math.min(...overGround(up));
          const least = Math.min(ground, ...plain);
          if (least < ground) decidedByBody++;
          else decidedByGround++;
          // Beyond the reach of the errors the search is content with one point of the ground.
          if (least < bodies.groundReachM / 2) expect(fast(draw, surveyAlone).spareM).toBeCloseTo(least, 9);
          else expect(fast(draw, surveyAlone).spareM).toBeGreaterThan(least - 1e-9);
          // Asked only whether there is less than so much, about the middle of what the draws come to.
          for (const decideM of [-0.001, 2, -3]) {
            if (Math.abs(least - decideM) > 1e-6 && decideM < bodies.groundReachM / 2)
              expect(fast(draw, surveyAlone, decideM).spareM < decideM).toBe(least < decideM);
          }
        }
      }
    }
    expect(decidedByBody).toBeGreaterThan(500);
    expect(decidedByGround).toBeGreaterThan(200);
  });
});
