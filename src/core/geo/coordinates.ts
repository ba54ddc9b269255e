import { planeProjection } from "./projection";

export const LATITUDE_LIMIT_DEG = 90;
export const LONGITUDE_LIMIT_DEG = 180;

const PART = /(-?\d+(?:[.,]\d+)?)\s*(?:°|d)?\s*(?:(\d+(?:\.\d+)?)\s*['′m]\s*)?(?:(\d+(?:\.\d+)?)\s*["″s]?\s*)?([NSEWnsew])?/y;

const readPart = (text: string, start: number): { valueDeg: number; end: number; letter: string } | null => {
  PART.lastIndex = start;
  const m = PART.exec(text);
  if (m === null || m[1] === undefined) return null;
  const whole = Number(m[1].replace(",", "."));
  const sizeDeg = Math.abs(whole) + Number(m[2] ?? 0) / 60 + Number(m[3] ?? 0) / 3600;
  const letter = (m[4] ?? "").toUpperCase();
  const negative = whole < 0 || Object.is(whole, -0) || letter === "S" || letter === "W";
  return { valueDeg: negative ? -sizeDeg : sizeDeg, end: PART.lastIndex, letter };
};

export type ParsedPosition = { latDeg: number; lonDeg: number } | { error: "form" | "latitude" | "longitude"; receivedDeg?: number };

const within = (latDeg: number, lonDeg: number): ParsedPosition => {
  if (Math.abs(latDeg) > LATITUDE_LIMIT_DEG) return { error: "latitude", receivedDeg: latDeg };
  if (Math.abs(lonDeg) > LONGITUDE_LIMIT_DEG) return { error: "longitude", receivedDeg: lonDeg };
  return { latDeg, lonDeg };
};

/** Degrees, minutes and seconds apart by spaces or colons: minutes and seconds stay below 60. */
const ANGLE = "(\\d+(?:\\.\\d+)?)(?:[\\s:]+(\\d+(?:\\.\\d+)?))?(?:[\\s:]+(\\d+(?:\\.\\d+)?))?";
const LETTER_FIRST = new RegExp(`^([NS])\\s*${ANGLE}[\\s,;]+([EW])\\s*${ANGLE}$`, "i");
const LETTER_LAST = new RegExp(`^${ANGLE}\\s*([NS])[\\s,;]+${ANGLE}\\s*([EW])$`, "i");
const COLONS = /^(-?)(\d+):(\d+(?:\.\d+)?)(?::(\d+(?:\.\d+)?))?[\s,;]+(-?)(\d+):(\d+(?:\.\d+)?)(?::(\d+(?:\.\d+)?))?$/;

const angleOf = (deg: string | undefined, min: string | undefined, sec: string | undefined, negative: boolean): number => {
  const [m, s] = [Number(min ?? 0), Number(sec ?? 0)];
  if (m >= 60 || s >= 60) return Number.NaN;
  return (Number(deg) + m / 60 + s / 3600) * (negative ? -1 : 1);
};

const spaced = (text: string): ParsedPosition | null => {
  const colons = COLONS.exec(text);
  const first = LETTER_FIRST.exec(text);
  const last = LETTER_LAST.exec(text);
  let lat: number;
  let lon: number;
  if (colons !== null)
    [lat, lon] = [angleOf(colons[2], colons[3], colons[4], colons[1] === "-"), angleOf(colons[6], colons[7], colons[8], colons[5] === "-")];
  else if (first !== null)
    [lat, lon] = [angleOf(first[2], first[3], first[4], /s/i.test(first[1]!)), angleOf(first[6], first[7], first[8], /w/i.test(first[5]!))];
  else if (last !== null)
    [lat, lon] = [angleOf(last[1], last[2], last[3], /s/i.test(last[4]!)), angleOf(last[5], last[6], last[7], /w/i.test(last[8]!))];
  else return null;
  return Number.isNaN(lat) || Number.isNaN(lon) ? { error: "form" } : within(lat, lon);
};

/**
 * A UTM zone with its hemisphere or latitude band, easting and northing in metres: "26N 615000 5244000", "26T 615000 5244000".
 * The letter S alone could be a band of the north or the southern half, so the half is spelled: "26 south".
 */
const UTM = /^(\d{1,2})\s*(north|south|[C-HJ-NP-RT-X])\s+(\d{6,7}(?:\.\d+)?)\s*(?:m?E)?[\s,;]+(\d{1,8}(?:\.\d+)?)\s*(?:m?N)?$/i;

const utm = (text: string): ParsedPosition | null => {
  const m = UTM.exec(text);
  if (m === null) return /^\d{1,2}\s*S\s+\d{6}/i.test(text) ? { error: "form" } : null;
  const zone = Number(m[1]);
  const half = m[2]!.toLowerCase();
  const south = half === "south" || (half.length === 1 && half < "n");
  if (zone < 1 || zone > 60) return { error: "form" };
  const p = planeProjection(`EPSG:32${south ? 7 : 6}${String(zone).padStart(2, "0")}`).inverse(Number(m[3]), Number(m[4]));
  return Number.isFinite(p.latDeg) && Number.isFinite(p.lonDeg) ? within(p.latDeg, p.lonDeg) : { error: "form" };
};

/**
 * Reads "47.3, -19.4", "47.3 N 19.4 W", "47°18'00\"N 19°24'00\"W", "N 47 17 44 W 19 24 0", "47:17:44, -19:24:00" or a UTM
 * zone with easting and northing.
 * @returns degrees, or the reason in a word: "form" (not two angles), "latitude" or "longitude" (out of range).
 */
export const parseLatLon = (text: string): ParsedPosition => {
  const trimmed = text.trim();
  const other = utm(trimmed) ?? spaced(trimmed);
  if (other !== null) return other;
  const first = readPart(trimmed, 0);
  if (first === null) return { error: "form" };
  const gap = /[\s,;]+/y;
  gap.lastIndex = first.end;
  gap.exec(trimmed);
  const second = readPart(trimmed, Math.max(first.end, gap.lastIndex));
  if (second === null || second.end !== trimmed.length) return { error: "form" };
  const swapped = first.letter === "E" || first.letter === "W";
  const [lat, lon] = swapped ? [second, first] : [first, second];
  return within(lat.valueDeg, lon.valueDeg);
};
