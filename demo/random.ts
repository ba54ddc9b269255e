import { seededRandom } from "../src/core/units";

/** Seeded generator: the demo is the same on every machine. */
export const randomOf = seededRandom;

const hash = (x: number, y: number, seed: number): number => {
  let h = Math.imul(x, 374_761_393) ^ Math.imul(y, 668_265_263) ^ Math.imul(seed, 2_147_483_647);
  h = Math.imul(h ^ (h >>> 13), 1_274_126_177);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_296;
};

/** Smooth value noise from -1 to 1, one octave, unit wavelength. */
export const noise = (x: number, y: number, seed: number): number => {
  const xi = Math.floor(x);
  const yi = Math.floor(y);
  const fx = x - xi;
  const fy = y - yi;
  const sx = fx * fx * (3 - 2 * fx);
  const sy = fy * fy * (3 - 2 * fy);
  const top = hash(xi, yi, seed) * (1 - sx) + hash(xi + 1, yi, seed) * sx;
  const bottom = hash(xi, yi + 1, seed) * (1 - sx) + hash(xi + 1, yi + 1, seed) * sx;
  return 2 * (top * (1 - sy) + bottom * sy) - 1;
};
