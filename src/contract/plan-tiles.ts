/* The grid of tiles of the plan: squares of the job's own plane coordinates, counted from their origin, x east and y south. */

export const PLAN_TILE_PX = 512;
/** Metres to a pixel at each step of zoom; coarser views draw no obstacles. */
export const PLAN_RESOLUTIONS_M = [16, 8, 4, 2, 1] as const;

/** The square of a tile in plane coordinates. @param z index of its resolution. */
export const planTileBox = (z: number, x: number, y: number): { readonly west: number; readonly south: number; readonly sideM: number } => {
  const sideM = PLAN_TILE_PX * PLAN_RESOLUTIONS_M[z]!;
  return { west: x * sideM, south: -(y + 1) * sideM, sideM };
};
