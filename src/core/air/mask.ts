/*
 * How much of a transmitter's power comes through a receiver on another channel: its spectral mask, as the standard allows it,
 * through the receiver's selectivity. IEEE 802.11-2020 clauses 17.3.9.3, 19.3.18.1 and 21.3.17.1 (0, -20, -28, -40 dBr), clause
 * 20.3.2 for 802.11ad. Beyond its last corner a mask stays where it is: a lower floor only where somebody states one. Other
 * standards are taken to have the same shape on their own width, and the receiver's selectivity is ours.
 */
import { needPositive } from "../units";

export interface Channel {
  readonly centreMhz: number;
  readonly widthMhz: number;
}

/** A corner of a mask: offset from the centre, and level against the middle. */
type Corner = readonly [number, number];

const AD_WIDTH_MHZ = 2160;
const AD_CORNERS: readonly Corner[] = [
  [940, 0],
  [1200, -17],
  [2700, -22],
  [3060, -30],
];

/** Corners of the transmit mask above its centre, falling; below it is the same. */
export const maskCorners = (standard: string, widthMhz: number): readonly Corner[] => {
  if (standard === "ad") return AD_CORNERS.map(([mhz, db]) => [(mhz * widthMhz) / AD_WIDTH_MHZ, db]);
  const edgeMhz = Math.min(1, widthMhz * 0.05);
  return [
    [widthMhz / 2 - edgeMhz, 0],
    [widthMhz / 2 + edgeMhz, -20],
    [widthMhz, -28],
    [widthMhz * 1.5, -40],
  ];
};

/** What a receiver lets through beside its channel (ours): the next channel on each side, and all beyond. */
export const ADJACENT_DB = -35;
export const BEYOND_DB = -50;

export const maskDb = (corners: readonly Corner[], offMhz: number): number => {
  const off = Math.abs(offMhz);
  let before: Corner = [0, 0];
  for (const corner of corners) {
    if (off <= corner[0]) {
      const span = corner[0] - before[0];
      return span === 0 ? corner[1] : before[1] + ((corner[1] - before[1]) * (off - before[0])) / span;
    }
    before = corner;
  }
  return before[1];
};

export const selectivityDb = (widthMhz: number, offMhz: number): number => {
  const off = Math.abs(offMhz);
  return off <= widthMhz / 2 ? 0 : off <= widthMhz * 1.5 ? ADJACENT_DB : BEYOND_DB;
};

/** Integral of 10^(dB/10) over a stretch on which the level runs straight from one end to the other. */
const straight = (spanMhz: number, fromDb: number, toDb: number): number => {
  const from = 10 ** (fromDb / 10);
  const bend = ((toDb - fromDb) * Math.LN10) / 10;
  return Math.abs(bend) < 1e-9 ? spanMhz * from : (spanMhz * from * Math.expm1(bend)) / bend;
};

/** Power of a mask through a selectivity, in the mask's own middle density times MHz; straight pieces, each in closed form. */
const through = (corners: readonly Corner[], atMhz: number, widthMhz: number | null): number => {
  const last = corners[corners.length - 1]![0];
  const cuts = corners.flatMap(([mhz]) => [atMhz - mhz, atMhz + mhz]);
  cuts.push(atMhz);
  let [low, high] = [atMhz - last, atMhz + last];
  if (widthMhz !== null) {
    cuts.push(-widthMhz * 1.5, -widthMhz / 2, widthMhz / 2, widthMhz * 1.5);
    low = Math.min(low, -widthMhz * 1.5);
    high = Math.max(high, widthMhz * 1.5);
  }
  const edges = [...new Set(cuts)].filter((c) => c >= low && c <= high).sort((a, b) => a - b);
  let sum = 0;
  for (let i = 0; i + 1 < edges.length; i++) {
    const [a, b] = [edges[i]!, edges[i + 1]!];
    const s = widthMhz === null ? 0 : selectivityDb(widthMhz, (a + b) / 2);
    sum += straight(b - a, maskDb(corners, a - atMhz) + s, maskDb(corners, b - atMhz) + s);
  }
  return sum;
};

const known = new Map<number, number>();
const MOST_KNOWN = 20_000;
/** Offsets and widths are told apart to this part of a MHz. */
const PARTS = 10;
const OFF_PLACES = 400_000;
const WIDTH_PLACES = 40_000;

/**
 * Part of the power of a transmitter that a receiver takes as its own channel's, dB, 0 or less.
 * @param standard of the transmitter. @throws RangeError for a width that is not above 0.
 */
export const overlapDb = (standard: string, from: Channel, into: Channel): number => {
  const off = Math.abs(from.centreMhz - into.centreMhz);
  const sizes = Math.round(from.widthMhz * PARTS) * WIDTH_PLACES + Math.round(into.widthMhz * PARTS);
  const key = (sizes * OFF_PLACES + Math.round(off * PARTS)) * 2 + (standard === "ad" ? 1 : 0);
  let found = known.get(key);
  if (found === undefined) {
    const corners = maskCorners(standard, needPositive("width, MHz", from.widthMhz));
    const whole = through(corners, 0, null);
    found = Math.min(0, 10 * Math.log10(through(corners, off, needPositive("width, MHz", into.widthMhz)) / whole));
    if (known.size > MOST_KNOWN) known.clear();
    known.set(key, found);
  }
  return found;
};

/** MHz that two channels have in common. */
export const commonMhz = (a: Channel, b: Channel): number =>
  Math.max(
    0,
    Math.min(a.centreMhz + a.widthMhz / 2, b.centreMhz + b.widthMhz / 2) -
      Math.max(a.centreMhz - a.widthMhz / 2, b.centreMhz - b.widthMhz / 2),
  );
