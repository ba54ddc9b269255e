/** A measured cut: angles rising from -180 to 180 degrees and levels below the peak (0 or less), dB. */
export interface Cut {
  readonly angleDeg: readonly number[];
  readonly relativeDb: readonly number[];
}

/** Both principal cuts of an antenna through its peak. */
export interface MeasuredCuts {
  readonly azimuth: Cut;
  readonly elevation: Cut;
}

/** Level of a cut at an angle, linear in dB between its points, held at its ends. @throws RangeError for an empty or unsorted cut. */
export const cutRelativeDb = (cut: Cut, offDeg: number): number => {
  const { angleDeg: a, relativeDb: g } = cut;
  if (a.length === 0 || a.length !== g.length)
    throw new RangeError(`a cut needs as many levels as angles, received ${a.length} and ${g.length}`);
  if (offDeg <= a[0]!) return g[0]!;
  for (let i = 1; i < a.length; i++) {
    if (a[i]! <= a[i - 1]!) throw new RangeError(`cut angles must rise; ${a[i]} follows ${a[i - 1]}`);
    if (offDeg <= a[i]!) return g[i - 1]! + ((g[i]! - g[i - 1]!) * (offDeg - a[i - 1]!)) / (a[i]! - a[i - 1]!);
  }
  return g[g.length - 1]!;
};

/** Deepest level of a cut: what the sum of two cuts never goes below (the back of the antenna). */
export const cutFloorDb = (cut: Cut): number => Math.min(...cut.relativeDb);
