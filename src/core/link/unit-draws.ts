/*
 * Standard normal and uniform numbers by seed and stream, made once and kept: the same draws serve every
 * design, and one input's numbers never move another's.
 */
import { normalRandom, seededRandom } from "../units";

/** Streams 0 and up belong to the bodies of a profile by their index. */
export const STREAM = { field: -1, common: -2, mount: -3, position: -4, air: -5, radio: -6 } as const;

/** Longer series are made anew each time. */
const MOST_KEPT = 2_000_000;
const kept = new Map<string, Float64Array>();

const series = (key: string, count: number, make: () => () => number): Float64Array => {
  const known = kept.get(key);
  if (known !== undefined && known.length >= count) return known;
  const next = make();
  const made = Float64Array.from({ length: count }, () => next());
  if (count <= MOST_KEPT) kept.set(key, made);
  return made;
};

const seedOf = (seed: number, stream: number): number => (Math.imul(seed, 0x9e3779b1) ^ Math.imul(stream + 64, 0x85ebca6b)) >>> 0;

export const unitNormals = (seed: number, stream: number, count: number): Float64Array =>
  series(`n${seed}:${stream}`, count, () => normalRandom(seededRandom(seedOf(seed, stream))));

export const unitUniforms = (seed: number, stream: number, count: number): Float64Array =>
  series(`u${seed}:${stream}`, count, () => seededRandom(seedOf(seed, stream)));

const mosts = new Map<string, number>();

/** The largest of the first normal numbers of a stream, either way. */
export const mostUnitNormal = (seed: number, stream: number, count: number): number => {
  const key = `${seed}:${stream}:${count}`;
  let most = mosts.get(key);
  if (most === undefined) {
    most = 0;
    const numbers = unitNormals(seed, stream, count);
    for (let i = 0; i < count; i++) most = Math.max(most, Math.abs(numbers[i]!));
    mosts.set(key, most);
  }
  return most;
};
