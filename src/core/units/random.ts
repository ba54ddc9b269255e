/* Random numbers from a seed, so that the same draws come again and a failing case can be repeated. */

/** mulberry32: uniform numbers from 0 (included) to 1 (excluded). */
export const seededRandom = (seed: number): (() => number) => {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = s;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
};

/** Standard normal numbers from uniform ones, Box and Muller, both of each pair used. */
export const normalRandom = (uniform: () => number): (() => number) => {
  let spare = Number.NaN;
  return () => {
    if (!Number.isNaN(spare)) {
      const value = spare;
      spare = Number.NaN;
      return value;
    }
    const size = Math.sqrt(-2 * Math.log(1 - uniform()));
    const angle = 2 * Math.PI * uniform();
    spare = size * Math.sin(angle);
    return size * Math.cos(angle);
  };
};
