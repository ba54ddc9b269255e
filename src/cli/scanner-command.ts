/* A simulated scanner: it hears made-up networks, the same for the same seed, and speaks the text of `iw`. */
import { seededRandom } from "../core/units";
import { type HeardNetwork, iwScanText, iwSurveyText } from "../formats";

const BANDS: Readonly<Record<string, readonly number[]>> = {
  "2.4": [2412, 2437, 2462],
  "5": [5180, 5200, 5220, 5240, 5260, 5300, 5500, 5540, 5580, 5620, 5660, 5745, 5765, 5785, 5805],
  "6": [5955, 5975, 6055, 6115, 6215, 6295],
};
export const SCANNED_BANDS = Object.keys(BANDS);
const PLACES = ["Loft", "Kiosk", "Workshop", "Reading room", "Chandlery", "Back office", "Gallery", "Galley", "Slipway", "Studio"];
/** Level at a channel that nobody uses. */
const QUIET_DBM = -95;

const networkOf = (n: number, primaryMhz: number, u: () => number): HeardNetwork => {
  const widths = primaryMhz < 3000 ? ([20] as const) : ([20, 40, 80] as const);
  const widthMhz = widths[Math.floor(u() * widths.length)]!;
  // Wide channels lie on the raster of the standard: their first 20 MHz are the lowest of them here.
  const block = widthMhz / 20;
  const first = primaryMhz < 5490 ? 5180 : primaryMhz < 5740 ? 5500 : primaryMhz < 5925 ? 5745 : 5955;
  const start = primaryMhz < 3000 ? primaryMhz : first + Math.floor((primaryMhz - first) / (20 * block)) * 20 * block;
  return {
    address: `02:00:5e:10:${(n >> 8).toString(16).padStart(2, "0")}:${(n & 255).toString(16).padStart(2, "0")}`,
    name: `${PLACES[Math.floor(u() * PLACES.length)]} ${1 + Math.floor(u() * 9)}`,
    primaryMhz: start,
    centreMhz: widthMhz === 20 ? start : start + widthMhz / 2 - 10,
    widthMhz,
    levelDbm: -45 - Math.floor(u() * 48),
    busyShare: u() < 0.7 ? Math.round(u() * 0.7 * 255) / 255 : null,
  };
};

/** @param what "scan" or "survey". @param count how many networks are about. */
export const scannerText = (what: "scan" | "survey", band: string, count: number, seed: number): string => {
  const u = seededRandom(seed);
  const channels = BANDS[band] ?? BANDS["5"]!;
  const heard = Array.from({ length: count }, (_, i) => networkOf(i, channels[Math.floor(u() * channels.length)]!, u));
  if (what === "scan") return iwScanText("wlan0", heard);
  return iwSurveyText(
    "wlan0",
    channels.map((mhz) => {
      const here = heard.filter((h) => Math.abs(h.centreMhz - mhz) < h.widthMhz / 2 + 10);
      const busy = Math.min(
        0.95,
        here.reduce((sum, h) => sum + (h.busyShare ?? 0.2), 0),
      );
      return { mhz, noiseDbm: QUIET_DBM + Math.floor(u() * 3), activeMs: 1000, busyMs: Math.round(1000 * busy) };
    }),
  );
};
