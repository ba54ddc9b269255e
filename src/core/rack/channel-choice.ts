/*
 * Channels that are worth trying for two radios at one width: of every run of channels under the same rules the lowest,
 * which loses least in the air, and the one planned already. Within a run nothing else differs but what is heard, and
 * that is known of the planned channel alone.
 */
import { channelCentresMhz, channelFits, type Domain, type FrequencyRange, rowsOfDomain } from "../radio";
import type { UnitPair } from "./types";

const shared = (a: readonly FrequencyRange[], b: readonly FrequencyRange[]): FrequencyRange[] =>
  a.flatMap((x) =>
    b.flatMap((y) => {
      const [low, high] = [Math.max(x.low, y.low), Math.min(x.high, y.high)];
      return high > low ? [{ low, high }] : [];
    }),
  );

/** Bands that both units can use, antennas counted. */
const bandsOf = ({ near, far }: UnitPair): FrequencyRange[] =>
  [near.antenna, far.antenna].reduce<FrequencyRange[]>(
    (bands, antenna) => (antenna === null ? bands : shared(bands, antenna.bandsMhz)),
    shared(near.radio.bandsMhz, far.radio.bandsMhz),
  );

/** Which rows of the rules a channel touches: channels that touch the same ones are alike to them. */
const rowsTouched = (domain: Domain, centreMhz: number, widthMhz: number): string => {
  const [low, high] = [centreMhz - widthMhz / 2, centreMhz + widthMhz / 2];
  return rowsOfDomain[domain]
    .filter((r) => r.lowMhz < high && r.highMhz > low)
    .map((r) => r.id)
    .join(" ");
};

export type ChannelChooser = (pair: UnitPair, widthMhz: number) => readonly number[];

/** @param planned centre of the channel that is planned now. */
export const channelChooser = (domain: Domain, planned: { readonly centreMhz: number; readonly widthMhz: number }): ChannelChooser => {
  const known = new Map<string, readonly number[]>();
  return (pair, widthMhz) => {
    const { near, far } = pair;
    const key = `${near.radio.id}|${near.antenna?.id ?? ""}|${far.radio.id}|${far.antenna?.id ?? ""}|${widthMhz}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const bands = bandsOf(pair);
    const firsts = new Map<string, number>();
    for (const mhz of channelCentresMhz(bands, near.radio.standard, widthMhz)) {
      const rows = rowsTouched(domain, mhz, widthMhz);
      if (!firsts.has(rows)) firsts.set(rows, mhz);
    }
    const centres = [...firsts.values()];
    if (widthMhz === planned.widthMhz && !centres.includes(planned.centreMhz) && channelFits(bands, planned.centreMhz, widthMhz))
      centres.push(planned.centreMhz);
    centres.sort((a, b) => a - b);
    known.set(key, centres);
    return centres;
  };
};
