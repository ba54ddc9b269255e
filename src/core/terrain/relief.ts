/** Sun of a plan drawing: from the north-west, 45 degrees up. */
const AZIMUTH_RAD = (315 * Math.PI) / 180;
const ZENITH_RAD = Math.PI / 4;
/** Slopes are drawn steeper than they are, so that gentle ground still reads (ours). */
const STEEPER = 2.5;

/**
 * Shade of each cell from 0 (away from the light) to 1 (facing it), by Horn's slope over 3 x 3 cells.
 * Cells at the rim or beside unknown ground are NaN.
 * @param heightsM row by row, north row first.
 */
export const reliefShade = (heightsM: Float32Array, cols: number, rows: number, cellM: number): Float32Array => {
  const out = new Float32Array(heightsM.length).fill(Number.NaN);
  const scale = STEEPER / (8 * cellM);
  const cosZ = Math.cos(ZENITH_RAD);
  const sinZ = Math.sin(ZENITH_RAD);
  // Light direction seen from above: east and north parts.
  const lightE = Math.sin(AZIMUTH_RAD) * sinZ;
  const lightN = Math.cos(AZIMUTH_RAD) * sinZ;
  for (let r = 1; r < rows - 1; r++) {
    for (let c = 1; c < cols - 1; c++) {
      const i = r * cols + c;
      const nw = heightsM[i - cols - 1]!;
      const n = heightsM[i - cols]!;
      const ne = heightsM[i - cols + 1]!;
      const w = heightsM[i - 1]!;
      const e = heightsM[i + 1]!;
      const sw = heightsM[i + cols - 1]!;
      const s = heightsM[i + cols]!;
      const se = heightsM[i + cols + 1]!;
      const dzE = (ne + 2 * e + se - nw - 2 * w - sw) * scale;
      const dzN = (nw + 2 * n + ne - sw - 2 * s - se) * scale;
      out[i] = (cosZ - dzE * lightE - dzN * lightN) / Math.sqrt(1 + dzE * dzE + dzN * dzN);
    }
  }
  return out;
};
