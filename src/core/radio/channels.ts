/*
 * Where the channels of a radio lie. IEEE 802.11-2020 Annex E (global operating classes): 20 MHz channels in blocks,
 * wider ones are aligned runs of them; narrower ones divide them (ours). 802.11ad: Annex E, channels 1 to 6 of 2160 MHz.
 * Anything else steps through its band by its own width (ours).
 */
import { channelFits, type FrequencyRange } from "./hardware";

export const BAND_KEYS = ["2.4", "5", "6", "24", "60", "80"] as const;
export type BandKey = (typeof BAND_KEYS)[number];

const BANDS_TO_MHZ: readonly (readonly [number, BandKey])[] = [
  [3000, "2.4"],
  [5925, "5"],
  [12_000, "6"],
  [40_000, "24"],
  [71_000, "60"],
];

/** The band that a frequency is spoken of as. */
export const bandKeyOf = (mhz: number): BandKey => BANDS_TO_MHZ.find(([topMhz]) => mhz < topMhz)?.[1] ?? "80";

/** Blocks of 20 MHz channels: lower edge, upper edge. */
const BLOCKS_MHZ: readonly (readonly [number, number])[] = [
  [5170, 5330],
  [5490, 5730],
  [5735, 5895],
  [5945, 7125],
];
/** Centres at 2.4 GHz step by 5 MHz from channel 1. */
const LOW_FIRST_MHZ = 2412;
const LOW_LAST_MHZ = 2472;
const LOW_STEP_MHZ = 5;
const AD_FIRST_MHZ = 58_320;
const AD_STEP_MHZ = 2160;
const AD_CHANNELS = 6;

const OFDM = ["n", "ac", "ax", "be"];

const ofdmCentres = (bands: readonly FrequencyRange[], widthMhz: number): number[] => {
  const out: number[] = [];
  for (let mhz = LOW_FIRST_MHZ; mhz <= LOW_LAST_MHZ; mhz += LOW_STEP_MHZ) out.push(mhz);
  for (const [low, high] of BLOCKS_MHZ) for (let mhz = low; mhz + widthMhz <= high; mhz += widthMhz) out.push(mhz + widthMhz / 2);
  return out.filter((mhz) => channelFits(bands, mhz, widthMhz));
};

const byOwnWidth = (bands: readonly FrequencyRange[], widthMhz: number): number[] =>
  bands.flatMap(({ low, high }) => {
    const count = Math.floor((high - low) / widthMhz + 1e-9);
    return Array.from({ length: count }, (_, i) => low + (i + 0.5) * widthMhz);
  });

/** Centres of the channels of one width within some bands, rising. Bands that the plan of channels leaves out are stepped through by the width. */
export const channelCentresMhz = (bands: readonly FrequencyRange[], standard: string, widthMhz: number): number[] => {
  const planned =
    standard === "ad"
      ? Array.from({ length: AD_CHANNELS }, (_, i) => AD_FIRST_MHZ + i * AD_STEP_MHZ).filter((mhz) => channelFits(bands, mhz, widthMhz))
      : OFDM.includes(standard)
        ? ofdmCentres(bands, widthMhz)
        : [];
  const centres = planned.length > 0 ? planned : byOwnWidth(bands, widthMhz);
  return [...new Set(centres)].sort((a, b) => a - b);
};
