/*
 * Which remotes of a sector cannot hear each other even in the open, with their antennas on the hub: between them nothing is known,
 * so that free space is the best there can be (ours). Preamble detection by width: IEEE 802.11-2020 clause 17.3.10.6 and its
 * doublings, -82 dBm at 20 MHz and 3 dB more for each doubling.
 */
import { freeSpaceLossDb } from "../propagation";
import { needPositive } from "../units";
import { offBy } from "./beam";

export interface HearingRemote {
  readonly linkId: string;
  /** From the hub. */
  readonly bearingDeg: number;
  readonly distanceM: number;
  readonly powerDbm: number;
  readonly gainDbi: number;
  /** Level of its antenna below the peak, off its axis in azimuth; the axis is on the hub. */
  readonly relativeDb: (azimuthOffDeg: number) => number;
}

export const preambleDbm = (widthMhz: number): number => -82 + 3 * Math.log2(needPositive("width, MHz", widthMhz) / 20);

interface Spot {
  readonly x: number;
  readonly y: number;
}
const spotOf = ({ bearingDeg, distanceM }: HearingRemote): Spot => {
  const a = (bearingDeg * Math.PI) / 180;
  return { x: distanceM * Math.sin(a), y: distanceM * Math.cos(a) };
};
const bearing = (from: Spot, to: Spot): number => (Math.atan2(to.x - from.x, to.y - from.y) * 180) / Math.PI;

/** Level of one remote's burst at another in the open, dBm. Two on one spot hear each other. */
export const levelBetween = (a: HearingRemote, b: HearingRemote, centreMhz: number): number => {
  const [pa, pb] = [spotOf(a), spotOf(b)];
  const d = Math.hypot(pa.x - pb.x, pa.y - pb.y);
  if (d < 1) return Number.POSITIVE_INFINITY;
  const hub = { x: 0, y: 0 };
  const offA = offBy(bearing(pa, hub), bearing(pa, pb));
  const offB = offBy(bearing(pb, hub), bearing(pb, pa));
  return a.powerDbm + a.gainDbi + a.relativeDb(offA) + b.gainDbi + b.relativeDb(offB) - freeSpaceLossDb(centreMhz / 1000, d);
};

/** Pairs of remotes of which at least one cannot hear the other, of all pairs. */
export const deafPairs = (
  remotes: readonly HearingRemote[],
  centreMhz: number,
  widthMhz: number,
): { readonly deaf: readonly (readonly [string, string])[]; readonly of: number } => {
  const least = preambleDbm(widthMhz);
  const deaf: [string, string][] = [];
  let of = 0;
  for (let i = 0; i < remotes.length; i++)
    for (let k = i + 1; k < remotes.length; k++) {
      const [a, b] = [remotes[i]!, remotes[k]!];
      of += 1;
      if (Math.min(levelBetween(a, b, centreMhz), levelBetween(b, a, centreMhz)) < least) deaf.push([a.linkId, b.linkId]);
    }
  return { deaf, of };
};
