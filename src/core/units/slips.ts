/** A typed value that fits what is usual only after a usual slip of units is undone. */
export interface Slip {
  /** What was probably meant, in the unit of the field. */
  readonly meant: number;
  readonly kind:
    | "bits-for-bytes"
    | "bytes-for-bits"
    | "kilo-for-mega"
    | "mega-for-kilo"
    | "feet-for-metres"
    | "metres-for-feet"
    | "ten-times"
    | "a-tenth";
}

const RATE_SLIPS: readonly (readonly [Slip["kind"], number])[] = [
  ["kilo-for-mega", 1 / 1000],
  ["mega-for-kilo", 1000],
  ["bytes-for-bits", 8],
  ["bits-for-bytes", 1 / 8],
  ["ten-times", 1 / 10],
  ["a-tenth", 10],
];
const LENGTH_SLIPS: readonly (readonly [Slip["kind"], number])[] = [
  ["feet-for-metres", 0.3048],
  ["metres-for-feet", 1 / 0.3048],
  ["ten-times", 1 / 10],
  ["a-tenth", 10],
];

/**
 * A question worth asking about a typed value: it lies outside what is usual, and one slip of units brings it in.
 * @returns null when the value is usual, not positive, or no single slip explains it.
 */
export const likelySlip = (quantity: "rate" | "length", value: number, usual: { least: number; most: number }): Slip | null => {
  if (!(value > 0) || (value >= usual.least && value <= usual.most)) return null;
  for (const [kind, factor] of quantity === "rate" ? RATE_SLIPS : LENGTH_SLIPS) {
    const meant = value * factor;
    if (meant >= usual.least && meant <= usual.most) return { kind, meant };
  }
  return null;
};
