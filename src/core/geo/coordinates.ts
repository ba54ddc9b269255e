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

/**
 * Reads "47.3, -19.4", "47.3 N 19.4 W" or "47°18'00\"N 19°24'00\"W".
 * @returns degrees, or the reason in a word: "form" (not two angles), "latitude" or "longitude" (out of range).
 */
export const parseLatLon = (
  text: string,
): { latDeg: number; lonDeg: number } | { error: "form" | "latitude" | "longitude"; receivedDeg?: number } => {
  const trimmed = text.trim();
  const first = readPart(trimmed, 0);
  if (first === null) return { error: "form" };
  const gap = /[\s,;]+/y;
  gap.lastIndex = first.end;
  gap.exec(trimmed);
  const second = readPart(trimmed, Math.max(first.end, gap.lastIndex));
  if (second === null || second.end !== trimmed.length) return { error: "form" };
  const swapped = first.letter === "E" || first.letter === "W";
  const [lat, lon] = swapped ? [second, first] : [first, second];
  if (Math.abs(lat.valueDeg) > LATITUDE_LIMIT_DEG) return { error: "latitude", receivedDeg: lat.valueDeg };
  if (Math.abs(lon.valueDeg) > LONGITUDE_LIMIT_DEG) return { error: "longitude", receivedDeg: lon.valueDeg };
  return { latDeg: lat.valueDeg, lonDeg: lon.valueDeg };
};
