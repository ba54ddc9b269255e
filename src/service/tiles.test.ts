import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { hostname, tmpdir } from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { FileFault } from "../formats";
import { checkPmtiles, tileOfFile } from "./pmtiles";
import { fetchTile } from "./tiles";

/* A map server of the test's own, and a PMTiles archive written byte by byte after the format's version 3. */
const dir = mkdtempSync(path.join(tmpdir(), "dry-arc-tiles-"));
const PNG = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
let server: Server;
let address: string;
let sent = 0;

beforeAll(async () => {
  process.env.DRYARC_FILES = dir;
  process.env.DRYARC_MAP_HOSTS = "127.0.0.1";
  mkdirSync(dir, { recursive: true });
  server = createServer((request, response) => {
    if (request.url === "/3/4/2.png") response.writeHead(200, { "content-type": "image/png" }).end(PNG);
    else if (request.url?.startsWith("/1/") === true) response.writeHead(302, { location: "http://127.0.0.1:1/secret" }).end();
    else if (request.url?.startsWith("/2/") === true) response.writeHead(200, { "content-type": "text/html" }).end("<p>secret</p>");
    else if (request.url?.startsWith("/5/") === true) {
      // A tile without an end.
      response.writeHead(200, { "content-type": "image/png" });
      const more = (): void => {
        while (!response.destroyed && response.write(Buffer.alloc(65_536))) sent += 65_536;
      };
      response.on("drain", more);
      more();
    } else response.writeHead(404).end();
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/{z}/{x}/{y}.png`;
});
afterAll(() => {
  server.close();
  rmSync(dir, { recursive: true, force: true });
});

describe("a map of one's own", () => {
  test("tiles come through; a missing one is none; pages and redirects do not pass", async () => {
    const tile = await fetchTile(address, { z: 3, x: 4, y: 2 });
    expect(tile).toEqual({ bytes: new Uint8Array(PNG), type: "image/png" });
    expect(await fetchTile(address, { z: 9, x: 0, y: 0 })).toBeNull();
    await expect(fetchTile(address, { z: 1, x: 0, y: 0 })).rejects.toMatchObject({ code: "map-no-tiles" });
    await expect(fetchTile(address, { z: 2, x: 0, y: 0 })).rejects.toMatchObject({ code: "map-no-tiles" });
    await expect(fetchTile("http://127.0.0.1:1/{z}/{x}/{y}", { z: 2, x: 0, y: 0 })).rejects.toMatchObject({
      code: "map-unreachable",
    });
  });

  test("an endless tile is cut off where no tile is so large", async () => {
    await expect(fetchTile(address, { z: 5, x: 0, y: 0 })).rejects.toMatchObject({ code: "map-no-tiles" });
    expect(sent).toBeLessThan(30_000_000);
  });

  test.each([
    "http://127.0.0.1:1/{z}/{x}/{y}.png",
    "http://127.1:1/{z}/{x}/{y}.png",
    "http://2130706433/{z}/{x}/{y}.png",
    "http://localhost:1/{z}/{x}/{y}.png",
    "http://maps.localhost/{z}/{x}/{y}.png",
    "http://[::1]:1/{z}/{x}/{y}.png",
    "http://[::ffff:127.0.0.1]:1/{z}/{x}/{y}.png",
    "http://[fe80::1]/{z}/{x}/{y}.png",
    "http://10.1.2.3/{z}/{x}/{y}.png",
    "http://172.31.0.1/{z}/{x}/{y}.png",
    "http://192.168.1.1/{z}/{x}/{y}.png",
    "http://169.254.169.254/{z}/{x}/{y}.png",
    "http://0.0.0.0:1/{z}/{x}/{y}.png",
  ])("%s leads inside and is not fetched", async (inside) => {
    const allowed = process.env.DRYARC_MAP_HOSTS;
    process.env.DRYARC_MAP_HOSTS = "";
    try {
      await expect(fetchTile(inside, { z: 3, x: 4, y: 2 })).rejects.toMatchObject({ code: "map-inside" });
    } finally {
      process.env.DRYARC_MAP_HOSTS = allowed;
    }
  });

  test("a name that leads inside is found out when it is looked up", async () => {
    const allowed = process.env.DRYARC_MAP_HOSTS;
    process.env.DRYARC_MAP_HOSTS = "";
    try {
      // This machine's own name, which its hosts file gives an address of its own.
      const answer = fetchTile(`http://${hostname()}:1/{z}/{x}/{y}.png`, { z: 3, x: 4, y: 2 });
      await expect(answer).rejects.toMatchObject({ code: expect.stringMatching(/^map-(inside|unreachable)$/) });
    } finally {
      process.env.DRYARC_MAP_HOSTS = allowed;
    }
  });

  test("a PMTiles archive gives its picture; one of vectors and one that is none are refused in words", async () => {
    const archive = (type: number): Buffer => {
      const head = Buffer.alloc(127);
      head.write("PMTiles", 0, "latin1");
      head.writeUInt8(3, 7);
      // One entry: tile 0 (z 0), run length 1, its length, offset 0 (written as 1).
      const varint = (n: number): number[] => (n < 128 ? [n] : [(n & 127) | 128, ...varint(n >> 7)]);
      const root = Buffer.from([1, 0, 1, ...varint(PNG.length), 1]);
      const metadata = Buffer.from("{}");
      const spans = [127, root.length, 127 + root.length, metadata.length, 0, 0, 127 + root.length + metadata.length, PNG.length, 1, 1, 1];
      for (const [i, n] of spans.entries()) head.writeBigUInt64LE(BigInt(n), 8 + 8 * i);
      head.writeUInt8(1, 96);
      head.writeUInt8(1, 97);
      head.writeUInt8(1, 98);
      head.writeUInt8(type, 99);
      return Buffer.concat([head, root, metadata, PNG]);
    };
    const put = (id: string, bytes: Buffer): string => {
      writeFileSync(path.join(dir, id), bytes);
      return id;
    };
    const raster = put("raster", archive(2));
    await checkPmtiles(raster);
    expect(await tileOfFile(raster, { z: 0, x: 0, y: 0 })).toEqual({
      bytes: new Uint8Array(PNG),
      type: "image/png",
    });
    expect(await tileOfFile(raster, { z: 1, x: 1, y: 0 })).toBeNull();
    await expect(checkPmtiles(put("vector", archive(1)))).rejects.toThrow(/its tiles are vectors/);
    await expect(checkPmtiles(put("none", Buffer.from("hello, this is no archive of tiles at all")))).rejects.toBeInstanceOf(FileFault);
  });
});
