/* The jump test: what a scene's obstruction does when its first body or a mount moves by 1 % of F1. */
import { type LinkPlan, type PathProfile, pathStateOf, preparePath } from "../link";
import { sceneOf, type TurnedBox, turned } from "./random-scene";

const LAMBDA_M = 0.299792458 / 5.5;

/** All that stands in the way, dB. */
export const obstructionDb = (p: LinkPlan, q: PathProfile): number =>
  pathStateOf(p, preparePath(p, q)).obstruction.reduce((s, t) => s + t.valueDb, 0);

/** The largest step on 12 steps each of offset, place, height, width, turn and mount, dB, with where it is. */
export const largestJump = (seed: number, bodies: number, roughM: number): { readonly db: number; readonly where: string } => {
  // A turn is measured at the corner that goes farthest.
  const scene = sceneOf(seed, bodies, roughM);
  const first = scene.bodies[0]!;
  const stepM = 0.01 * Math.sqrt((LAMBDA_M * scene.pathM) / 4);
  const plain = { ...scene.plan, policy: { ...scene.plan.policy, trees: "through" as const } };
  const at = (change: Partial<TurnedBox>, upM: number): number => {
    const moved = scene.bodies.map((b, i) => ({
      ...turned(i === 0 ? { ...b, ...change } : b, `b${i}`),
      baseAmslM: scene.profile.bodies[i]!.baseAmslM,
    }));
    return obstructionDb({ ...plain, near: { ...plain.near, mountAglM: plain.near.mountAglM + upM } }, { ...scene.profile, bodies: moved });
  };
  const perTurnDeg = ((stepM / (Math.hypot(first.lengthM, first.thickM) / 2)) * 180) / Math.PI;
  const ways: readonly [string, (k: number) => number][] = [
    ["offset", (k) => at({ offsetM: first.offsetM + k * stepM }, 0)],
    ["along", (k) => at({ atM: first.atM + k * stepM }, 0)],
    ["height", (k) => at({ heightM: first.heightM + k * stepM }, 0)],
    ["width", (k) => at({ lengthM: first.lengthM + k * stepM }, 0)],
    ["turn", (k) => at({ turnDeg: first.turnDeg + k * perTurnDeg }, 0)],
    ["mount", (k) => at({}, k * stepM)],
  ];
  let largest = { db: 0, where: "" };
  for (const [name, of] of ways) {
    let before = of(0);
    let slope = of(1) - before;
    for (let k = 1; k <= 12; k++) {
      const now = of(k);
      const step = now - before;
      // One body alone: by itself. Several behind one another lose together by steeper slopes: a jump is what the step before did not have.
      const db = Math.abs(bodies === 1 ? step : step - slope);
      if (db > largest.db) largest = { db, where: `seed ${seed}, ${bodies} bodies, ${name}, step ${k}: ${before} to ${now}` };
      slope = step;
      before = now;
    }
  }
  return largest;
};
