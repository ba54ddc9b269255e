/*
 * How an angle was taken, and how well: the error of a single one enters the fit. Ours: a millimetre on a
 * scale round the pole, a tenth of a turn of a screw, a needle read beside steel, an eye over a landmark.
 */
export const ANGLE_WAYS = ["scale", "screw", "level", "compass", "phone", "eye"] as const;
export type AngleWay = (typeof ANGLE_WAYS)[number];

export interface PoleAndScrew {
  /** Diameter of the pole that the scale is laid round; null: not known. */
  readonly poleMm: number | null;
  /** Degrees a turn of the adjusting screw; null: no screw, or not said. */
  readonly screwDegPerTurn: number | null;
}

const SCALE_READ_MM = 1;
const SCREW_READ_TURNS = 0.1;
const USUAL_POLE_MM = 50;
const USUAL_SCREW_DEG = 1;
const SIGMA_DEG = { level: 0.3, compass: 3, phone: 6, eye: 4 };
/** Narrower than this no hand finds the peak on a pole: the screw does. */
export const SCREW_BELOW_DEG = 3;

/** Length of a degree on a scale round a pole: pi d / 360. @throws RangeError for a diameter that is not above 0. */
export const scaleMmPerDeg = (poleMm: number): number => {
  if (!(poleMm > 0)) throw new RangeError(`a pole of ${poleMm} mm`);
  return (Math.PI * poleMm) / 360;
};

/** One sigma of one angle, degrees. */
export const angleSigmaDeg = (way: AngleWay, { poleMm, screwDegPerTurn }: PoleAndScrew): number => {
  if (way === "scale") return SCALE_READ_MM / scaleMmPerDeg(poleMm ?? USUAL_POLE_MM);
  if (way === "screw") return SCREW_READ_TURNS * (screwDegPerTurn ?? USUAL_SCREW_DEG);
  return SIGMA_DEG[way];
};

/** True where the beam is too narrow for a hand on the pole. */
export const needsScrew = (beamwidthDeg: number, way: AngleWay): boolean => beamwidthDeg < SCREW_BELOW_DEG && way !== "screw";
