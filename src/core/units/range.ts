/* Guards at the core's own door: a programmer's mistake is a RangeError that names what and how much. */

/** @throws RangeError unless the value is a finite number above 0. */
export const needPositive = (what: string, value: number): number => {
  if (!(value > 0 && value < Number.POSITIVE_INFINITY)) throw new RangeError(`${what} is ${value}; it must be above 0`);
  return value;
};

/** @throws RangeError unless the value is a finite number at or above a bound. */
export const needAtLeast = (what: string, value: number, least: number): number => {
  if (!(value >= least && value < Number.POSITIVE_INFINITY)) throw new RangeError(`${what} is ${value}; it must be ${least} or above`);
  return value;
};

/** @throws RangeError unless the value lies between two bounds, both included. */
export const needInRange = (what: string, value: number, least: number, most: number): number => {
  if (!(value >= least && value <= most)) throw new RangeError(`${what} is ${value}; it must be between ${least} and ${most}`);
  return value;
};
