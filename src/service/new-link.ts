import type { HardwareDto } from "../contract";
import { inverse, type LatLon } from "../core/geo";
import type { DesignInput } from "../data/links";

const SHORT_LINK_M = 600;

/**
 * A design to start from: a pair of the catalogue that reaches the distance, at the radio's lowest
 * sensible power. Prefers 5 GHz above a few hundred metres, 60 GHz below where a pair reaches.
 */
export const firstDesign = (
  hardware: HardwareDto,
  near: LatLon & { mountAglM: number },
  far: LatLon & { mountAglM: number },
): DesignInput | null => {
  const { distanceM } = inverse(near, far);
  const pairs = hardware.radios
    .filter((r) => r.antenna.kind === "integrated" && r.roles.includes("near/far") && r.maxLinkKm * 1000 >= distanceM * 1.3)
    .sort((a, b) => Number(a.bandKey !== "5") - Number(b.bandKey !== "5") || a.maxLinkKm - b.maxLinkKm || a.id.localeCompare(b.id));
  const radio = pairs.find((r) => distanceM > SHORT_LINK_M || r.maxLinkKm <= 30) ?? pairs[0] ?? hardware.radios[0];
  if (radio === undefined) return null;
  const widthMhz = radio.channelWidthsMhz.includes(40) ? 40 : radio.channelWidthsMhz[0]!;
  const band = radio.bandsMhz[radio.bandsMhz.length > 2 ? 1 : 0]!;
  const centreMhz = Math.min(band.high - widthMhz / 2, Math.max(band.low + widthMhz / 2, Math.round((band.low + band.high) / 2 / 10) * 10));
  const powerDbm = Math.min(radio.modulations[0]!.maxTxPowerDbm, Math.max(radio.minTxPowerDbm, 11));
  return {
    nearMountAglM: near.mountAglM,
    farMountAglM: far.mountAglM,
    nearRadioId: radio.id,
    farRadioId: radio.id,
    nearAntennaId: null,
    farAntennaId: null,
    nearPowerDbm: powerDbm,
    farPowerDbm: powerDbm,
    centreMhz,
    widthMhz,
    needToFarMbps: null,
    needToNearMbps: null,
  };
};
