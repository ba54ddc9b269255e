import { Refused } from "../data/clash";
import { callOut, OutFault } from "./outgoing";
import type { TileBytes } from "./pmtiles";

/* Tiles of a map server that the user named, fetched by the server so that the browser speaks to nobody else. */

const MOST_TILE_BYTES = 3_000_000;
const TILE_TIME_MS = 8000;

/** Hosts within the network that the operator allows, as host or host:port. */
const allowed = (): string[] => (process.env.DRYARC_MAP_HOSTS ?? "").split(",").filter((h) => h !== "");

/**
 * One tile of a map server; null where it has none.
 * @throws Refused when the address leads inside, cannot be reached, or answers with anything but a picture of a fair size.
 */
export const fetchTile = async (
  address: string,
  at: { readonly z: number; readonly x: number; readonly y: number },
): Promise<TileBytes | null> => {
  const url = new URL(address.replaceAll("{z}", String(at.z)).replaceAll("{x}", String(at.x)).replaceAll("{y}", String(at.y)));
  const answer = await callOut(
    url,
    { outside: true, hosts: allowed() },
    { headers: { accept: "image/*" }, mostBytes: MOST_TILE_BYTES, timeMs: TILE_TIME_MS },
  ).catch((error: unknown) => {
    if (!(error instanceof OutFault)) throw error;
    if (error.why === "not-allowed") throw new Refused("map-inside", "address");
    throw new Refused(error.why === "unreachable" || error.why === "too-slow" ? "map-unreachable" : "map-no-tiles", "address");
  });
  const { status, type, bytes } = answer;
  if (status === 404 || status === 204) return null;
  // Only pictures pass.
  if (status !== 200 || !/^image\/(png|jpeg|webp|avif)$/.test(type)) throw new Refused("map-no-tiles", "address", { status });
  return { bytes, type };
};
