import type { PathFrame, PlaneProjection } from "../geo";

/** Longest stretch carried by one cubic; the cubic then stays within 1 mm of the geodesic (tested). */
const CHUNK_M = 4000;

/**
 * Positions along a path in a grid's coordinates, by a cubic through four exact points a chunk:
 * one projection for kilometres instead of one for each sample.
 */
export interface PathPositions {
  readonly chunkM: number;
  readonly perChunkM: number;
  readonly chunks: number;
  /** Eight numbers a chunk: x as a0..a3, y as b0..b3 in powers of u = 0..1 along the chunk. */
  readonly coefficients: Float64Array;
}

const cubicThrough = (p0: number, p1: number, p2: number, p3: number, out: Float64Array, at: number): void => {
  out[at] = p0;
  out[at + 1] = -5.5 * p0 + 9 * p1 - 4.5 * p2 + p3;
  out[at + 2] = 9 * p0 - 22.5 * p1 + 18 * p2 - 4.5 * p3;
  out[at + 3] = -4.5 * p0 + 13.5 * p1 - 13.5 * p2 + 4.5 * p3;
};

export const pathPositions = (frame: Pick<PathFrame, "lengthM" | "at">, projection: PlaneProjection): PathPositions => {
  const chunks = Math.max(1, Math.ceil(frame.lengthM / CHUNK_M));
  const chunkM = frame.lengthM / chunks;
  const coefficients = new Float64Array(8 * chunks);
  const exact = (distanceM: number): [number, number] => projection.forward(frame.at(distanceM));
  let start = exact(0);
  for (let c = 0; c < chunks; c++) {
    const p1 = exact((c + 1 / 3) * chunkM);
    const p2 = exact((c + 2 / 3) * chunkM);
    const end = exact((c + 1) * chunkM);
    cubicThrough(start[0], p1[0], p2[0], end[0], coefficients, 8 * c);
    cubicThrough(start[1], p1[1], p2[1], end[1], coefficients, 8 * c + 4);
    start = end;
  }
  return { chunkM, perChunkM: 1 / chunkM, chunks, coefficients };
};

/** Position at a distance, written as two numbers into out. */
export const positionAt = (positions: PathPositions, distanceM: number, out: Float64Array): void => {
  const k = positions.coefficients;
  const along = distanceM * positions.perChunkM;
  let chunk = along | 0;
  if (chunk >= positions.chunks) chunk = positions.chunks - 1;
  else if (along < 0) chunk = 0;
  const u = along - chunk;
  const i = 8 * chunk;
  out[0] = ((k[i + 3]! * u + k[i + 2]!) * u + k[i + 1]!) * u + k[i]!;
  out[1] = ((k[i + 7]! * u + k[i + 6]!) * u + k[i + 5]!) * u + k[i + 4]!;
};
