/* Each draw's clearance, looked for with bounds, against the same looked for at every body. */
import { describe, expect, test } from "vitest";
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

describe("the clearance of a draw", () => {
  test("is the least over all bodies and the ground, whichever are looked at", () => {
    let decidedByBody = 0;
    for (let seed = 1; seed <= SCENES; seed++) {
      const { plan, profile } = sceneOf(seed, 3 + (seed % 9), 2, seed % 2 === 0 ? 0.3 : 2);
      const path = preparePath(plan, profile);
      const conditions = conditionsOf(plan, path, (k) => rayOf({ ...plan, policy: { ...plan.policy, kFactor: k } }, path).ray);
      const bodies = drawnBodies(plan, path, conditions);
      const { field, next } = drawSource(plan, profile, bodies.heights, DRAWS, seed);
      const fast = clearanceDraw(profile, bodies.parts, field, true, bodies.groundReachM);
      const ground = clearanceDraw(
        profile,
        bodies.parts.map((p) => ({ ...p, sections: [] })),
        field,
        true,
        bodies.groundReachM,
      );
      for (let n = 0; n < DRAWS; n++) {
        const draw = next();
        for (const surveyAlone of [false, true]) {
          const up = surveyAlone ? draw.groundUpM : draw.rayUpM;
          const plain = bodies.parts.flatMap(({ condition, sections }) =>
            sections.map((s, i) => {
              const aside = surveyAlone ? 0 : draw.asideOfM(s.body.carries, s.atM);
              const room = clearOfSectionM(s, up(s.atM) - field.at(s.atM) - draw.errorM[i]!, aside);
              return (room > 0 ? room * s.boundShare : room) - condition.share * s.f1M;
            }),
          );
          const least = Math.min(ground(draw, surveyAlone).spareM, ...plain);
          if (least < ground(draw, surveyAlone).spareM) decidedByBody++;
          expect(fast(draw, surveyAlone).spareM).toBeCloseTo(least, 9);
        }
      }
    }
    expect(decidedByBody).toBeGreaterThan(SCENES * 10);
  });
});
