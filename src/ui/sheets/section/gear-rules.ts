import type { DesignFields } from "@/contract";
import { channelFits, type Radio } from "@/core/radio";

/** Channel fields that fit a newly chosen radio: kept when they still fit, else the nearest width in its middle band. */
export const fitChannel = (design: DesignFields, radio: Radio): Partial<DesignFields> => {
  const widthMhz = radio.channelWidthsMhz.includes(design.widthMhz)
    ? design.widthMhz
    : radio.channelWidthsMhz.reduce((best, w) => (Math.abs(w - design.widthMhz) < Math.abs(best - design.widthMhz) ? w : best));
  const power = (now: number): number => Math.min(radio.modulations[0]?.maxTxPowerDbm ?? now, Math.max(radio.minTxPowerDbm, now));
  const powers = { nearPowerDbm: power(design.nearPowerDbm), farPowerDbm: power(design.farPowerDbm) };
  if (channelFits(radio.bandsMhz, design.centreMhz, widthMhz)) return { widthMhz, ...powers };
  const band = radio.bandsMhz[Math.floor(radio.bandsMhz.length / 2)]!;
  const middle = widthMhz === 2160 ? 60_480 : Math.round((band.low + band.high) / 20) * 10;
  return { widthMhz, centreMhz: Math.min(band.high - widthMhz / 2, Math.max(band.low + widthMhz / 2, middle)), ...powers };
};
