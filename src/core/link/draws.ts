/** One draw of everything that moves heights and the air; the sources' own random numbers are used in a fixed order. */
export interface Draw {
  /** Moves of both mounts, ground and typed height together, metres. */
  readonly nearMountM: number;
  readonly farMountM: number;
  readonly kFactor: number;
  /** 0 bare to 1 fullest leaf, and 0 to 1 of the tide. */
  readonly leafShare: number;
  readonly tideShare: number;
  readonly roughnessM: number;
  /** Height error of each body's section, metres. */
  readonly errorM: Float64Array;
  /** Move of the ray upwards and to the right at a distance. */
  readonly rayUpM: (xM: number) => number;
  readonly asideM: (xM: number) => number;
}

/** A value between least, median and most for a share 0 to 1: straight on either side of the median. */
export const between = (least: number, median: number, most: number, share: number): number =>
  share < 0.5 ? least + (median - least) * 2 * share : median + (most - median) * (2 * share - 1);
