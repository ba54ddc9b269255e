import { lookup } from "node:dns";
import http from "node:http";
import https from "node:https";
import type { LookupFunction } from "node:net";
import { BlockList, isIP } from "node:net";
import { Refused } from "../data/clash";
import type { TileBytes } from "./pmtiles";

/* Tiles of a map server that the user named. The server fetches them, so it must not be led to what only it can reach. */

const MOST_TILE_BYTES = 3_000_000;
const TILE_TIMEOUT_MS = 8000;

/** Addresses that lead to this machine or into the network it stands in (RFC 6890 and its registry). */
const inside = new BlockList();
for (const [net, bits] of [
  ["0.0.0.0", 8],
  ["10.0.0.0", 8],
  ["100.64.0.0", 10],
  ["127.0.0.0", 8],
  ["169.254.0.0", 16],
  ["172.16.0.0", 12],
  ["192.0.0.0", 24],
  ["192.168.0.0", 16],
  ["198.18.0.0", 15],
  ["224.0.0.0", 3],
] as const)
  inside.addSubnet(net, bits, "ipv4");
for (const [net, bits] of [
  ["::", 127],
  ["64:ff9b::", 96],
  ["fc00::", 7],
  ["fe80::", 10],
  ["ff00::", 8],
] as const)
  inside.addSubnet(net, bits, "ipv6");

const isInside = (address: string): boolean => {
  const family = isIP(address);
  if (family === 4) return inside.check(address, "ipv4");
  // An IPv4 address written as IPv6 leads to the same place.
  const mapped = /^::(?:ffff:)?(\d+\.\d+\.\d+\.\d+)$/i.exec(address);
  if (mapped !== null) return inside.check(mapped[1]!, "ipv4");
  const hex = /^::ffff:([0-9a-f]{1,4}):([0-9a-f]{1,4})$/i.exec(address);
  if (hex !== null) {
    const [hi, lo] = [Number.parseInt(hex[1]!, 16), Number.parseInt(hex[2]!, 16)];
    return inside.check(`${hi >> 8}.${hi & 255}.${lo >> 8}.${lo & 255}`, "ipv4");
  }
  return family !== 6 || inside.check(address, "ipv6");
};

/** Hosts within the network that the operator allows, as host or host:port. */
const allowed = (url: URL): boolean => {
  const hosts = (process.env.DRYARC_MAP_HOSTS ?? "").split(",").filter((h) => h !== "");
  return hosts.includes(url.hostname) || hosts.includes(url.host);
};

/** Looks a name up and refuses it where it leads inside: the address that was looked at is the one that is connected to. */
const outsideOnly: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error !== null) return callback(error, "", 0);
    const bad = addresses.find((a) => isInside(a.address));
    const first = addresses[0];
    if (bad !== undefined || first === undefined) return callback(Object.assign(new Error("inside"), { code: "EINSIDE" }), "", 0);
    if (options.all === true) return callback(null, addresses);
    callback(null, first.address, first.family);
  });
};

/**
 * One tile of a map server; null where it has none.
 * @throws Refused when the address leads inside, cannot be reached, or answers with anything but a picture of a fair size.
 */
export const fetchTile = (address: string, at: { readonly z: number; readonly x: number; readonly y: number }): Promise<TileBytes | null> =>
  new Promise((resolve, reject) => {
    const url = new URL(address.replaceAll("{z}", String(at.z)).replaceAll("{x}", String(at.x)).replaceAll("{y}", String(at.y)));
    const free = allowed(url);
    const host = url.hostname.replace(/^\[|\]$/g, "");
    if (!free && (isIP(host) !== 0 ? isInside(host) : /(^|\.)localhost\.?$/i.test(host)))
      return reject(new Refused("map-inside", "address"));
    const client = url.protocol === "https:" ? https : http;
    const request = client.get(
      url,
      {
        headers: { accept: "image/*" },
        signal: AbortSignal.timeout(TILE_TIMEOUT_MS),
        agent: false,
        ...(free ? {} : { lookup: outsideOnly }),
      },
      (response) => {
        const status = response.statusCode ?? 0;
        const refuse = (): void => {
          request.destroy();
          reject(new Refused("map-no-tiles", "address", { status }));
        };
        if (status === 404 || status === 204) {
          request.destroy();
          return resolve(null);
        }
        const type = (response.headers["content-type"] ?? "").split(";")[0]!.trim();
        // Only pictures pass, and a redirect, which could lead anywhere, is not followed.
        if (status !== 200 || !/^image\/(png|jpeg|webp|avif)$/.test(type)) return refuse();
        const pieces: Buffer[] = [];
        let bytes = 0;
        response.on("data", (piece: Buffer) => {
          bytes += piece.length;
          if (bytes > MOST_TILE_BYTES) refuse();
          else pieces.push(piece);
        });
        response.on("end", () => resolve({ bytes: new Uint8Array(Buffer.concat(pieces)), type }));
        response.on("error", () => reject(new Refused("map-unreachable", "address")));
      },
    );
    request.on("error", (error: Error & { code?: string }) =>
      reject(new Refused(error.code === "EINSIDE" ? "map-inside" : "map-unreachable", "address")),
    );
  });
