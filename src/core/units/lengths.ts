/** International foot, exact: 0.3048 m. */
export const FEET_PER_METRE = 1 / 0.3048;
/** International mile, exact: 1.609344 km. */
export const MILES_PER_KM = 1 / 1.609344;

export const metresFromFeet = (lengthFt: number): number => lengthFt / FEET_PER_METRE;
