import { type ParsedPosition, parseLatLon } from "@/core/geo";
import { postJson } from "./client";

/** A position in a system's own figures: its code, easting, northing. */
const IN_SYSTEM = /^EPSG:?\s*(\d{4,6})[\s,;:]+(-?\d+(?:\.\d+)?)[\s,;]+(-?\d+(?:\.\d+)?)$/i;

/**
 * Reads a typed position in any of its forms; one in a national grid ("EPSG:27700 530000 180000") is asked of the
 * server, which has the list of all systems.
 */
export const readPosition = async (text: string): Promise<ParsedPosition> => {
  const m = IN_SYSTEM.exec(text.trim());
  if (m === null) return parseLatLon(text);
  return postJson<{ latDeg: number; lonDeg: number }>("/api/systems", { epsg: Number(m[1]), x: Number(m[2]), y: Number(m[3]) }).catch(
    (): ParsedPosition => ({ error: "form" }),
  );
};
