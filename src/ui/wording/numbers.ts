import { FEET_PER_METRE, MILES_PER_KM } from "@/core/units";

export type Units = "metric" | "imperial";

const MINUS = "\u2212";
const SPACE = "\u00a0";

/** A typed figure, with a comma or a point and any minus sign; null when it is none. */
export const readNumber = (text: string): number | null => {
  const clean = text.trim().replace(MINUS, "-").replace(",", ".");
  const number = Number(clean);
  return clean === "" || !Number.isFinite(number) ? null : number;
};

/** A figure with a true minus sign; never "-0". */
export const figure = (value: number, digits = 0): string => {
  if (!Number.isFinite(value)) return value === Number.POSITIVE_INFINITY ? "over any limit" : "unknown";
  const text = value.toFixed(digits);
  return Number(text) === 0 ? text.replace("-", "") : text.replace("-", MINUS);
};

export const signed = (value: number, digits = 0): string => {
  const text = figure(value, digits);
  return text.startsWith(MINUS) || Number(value.toFixed(digits)) === 0 ? text : `+${text}`;
};

export const lengthUnit = (units: Units): string => (units === "metric" ? "m" : "ft");
export const lengthIn = (units: Units, m: number): number => (units === "metric" ? m : m * FEET_PER_METRE);
export const metresFrom = (units: Units, value: number): number => (units === "metric" ? value : value / FEET_PER_METRE);

/** A height or short length: 1.8 m, 5.9 ft. */
export const lengthText = (units: Units, m: number, digits = 1): string =>
  `${figure(lengthIn(units, m), digits)}${SPACE}${lengthUnit(units)}`;

const thousands = (text: string): string => text.replace(/(\d)(\d{3})$/, "$1,$2");

/** A path length: metres below 10 km, then km; feet below a mile, then miles. */
export const distanceText = (units: Units, m: number): string => {
  if (units === "imperial") {
    const miles = (m / 1000) * MILES_PER_KM;
    return miles < 1 ? `${figure(m * FEET_PER_METRE)}${SPACE}ft` : `${figure(miles, 2)}${SPACE}mi`;
  }
  if (m >= 10_000) return `${figure(m / 1000, 2)}${SPACE}km`;
  return m >= 1000 ? `${thousands(figure(m))}${SPACE}m` : `${figure(m, 1)}${SPACE}m`;
};

/** A place along a path, to the metre or foot. */
export const alongText = (units: Units, m: number): string =>
  units === "imperial"
    ? m > 3000
      ? `${figure((m / 1000) * MILES_PER_KM, 2)}${SPACE}mi`
      : `${figure(m * FEET_PER_METRE)}${SPACE}ft`
    : m >= 10_000
      ? `${figure(m / 1000, 1)}${SPACE}km`
      : `${thousands(figure(m))}${SPACE}m`;

export const dbmText = (dbm: number, digits = 0): string => `${figure(dbm, digits)}${SPACE}dBm`;
export const dbText = (db: number, digits = 1): string => `${figure(db, digits)}${SPACE}dB`;
export const bearingText = (deg: number): string => `${((Math.round(deg * 10) / 10) % 360).toFixed(1).padStart(5, "0")}°`;
export const angleText = (deg: number): string => `${signed(deg, 1)}°`;
export const ghzText = (mhz: number): string => `${(mhz / 1000).toFixed(3)}${SPACE}GHz`;
export const mbpsText = (mbps: number): string => `${figure(mbps)}${SPACE}Mbps`;
/** Probabilities are whole per cents. */
export const chanceText = (share: number): string => {
  const percent = Math.round(share * 100);
  return percent <= 0 ? "fewer than 1 case in 100" : percent >= 100 ? "more than 99 cases in 100" : `about ${percent} cases in 100`;
};
/** Unambiguous decimal degrees, 6 digits: about 0.1 m. */
export const latLonText = (p: { latDeg: number; lonDeg: number }): string =>
  `${Math.abs(p.latDeg).toFixed(6)}° ${p.latDeg < 0 ? "S" : "N"}, ${Math.abs(p.lonDeg).toFixed(6)}° ${p.lonDeg < 0 ? "W" : "E"}`;

/** A figure beside the one it is held against: with a decimal as soon as both would read alike. */
export const decisive = (value: number, against: number): string => {
  for (const digits of [0, 1, 2]) if (figure(value, digits) !== figure(against, digits)) return figure(value, digits);
  return value < against ? `just under ${figure(against)}` : figure(value);
};

/** A share of the year or of cases, per cent, as precise as it was typed. */
export const shareText = (percent: number): string => `${String(Number(percent.toFixed(4)))}${SPACE}%`;

/** A wait: seconds below two minutes, then minutes. */
export const waitText = (s: number): string => (s < 120 ? (s === 60 ? "a minute" : `${figure(s)} seconds`) : `${figure(s / 60)} minutes`);

/** Three significant figures, for a unit that was converted: never "0.01" for 5 in another. */
export const significant = (value: number): string => {
  if (value === 0 || !Number.isFinite(value)) return figure(value);
  const digits = Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value))));
  const text = figure(value, Math.min(12, digits));
  return text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
};
