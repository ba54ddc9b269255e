import { type FileHandle, open, stat } from "node:fs/promises";
import { FileFault } from "../file-fault";
import type { TerrainSource } from "./source";

const NO_DATA = -32_768;
/** Samples along an edge, by the size of the file: 3", 1" and half-width 1" tiles share the layout. */
const SHAPES: readonly { readonly cols: number; readonly rows: number }[] = [
  { cols: 1201, rows: 1201 },
  { cols: 3601, rows: 3601 },
  { cols: 1801, rows: 3601 },
];

/** South-west corner in a name such as N47W020. */
export const cornerOfName = (name: string): { latDeg: number; lonDeg: number } | null => {
  const m = /([NS])(\d{2})([EW])(\d{3})/i.exec(name);
  if (m === null) return null;
  const latDeg = Number(m[2]) * (m[1]!.toUpperCase() === "S" ? -1 : 1);
  const lonDeg = Number(m[4]) * (m[3]!.toUpperCase() === "W" ? -1 : 1);
  return Math.abs(latDeg) <= 90 && Math.abs(lonDeg) <= 180 ? { latDeg, lonDeg } : null;
};

/**
 * Opens an SRTM height tile: big-endian 16-bit metres, one degree square, registered on points, its edge rows shared
 * with its neighbours.
 * @param name the file's name, which alone says where it lies.
 */
export const openHgt = async (path: string, name: string): Promise<TerrainSource> => {
  const { size } = await stat(path);
  const shape = SHAPES.find((s) => s.cols * s.rows * 2 === size);
  if (shape === undefined) throw new FileFault(`its size of ${size} bytes is not that of an HGT tile (1201 or 3601 samples an edge)`);
  const corner = cornerOfName(name);
  if (corner === null) throw new FileFault("the name of an HGT tile says where it lies, like N47W020.hgt; rename the file", "corner");
  const file: FileHandle = await open(path);
  const { cols, rows } = shape;
  return {
    format: "HGT",
    cols,
    rows,
    originX: corner.lonDeg,
    originY: corner.latDeg + 1,
    stepX: 1 / (cols - 1),
    stepY: -1 / (rows - 1),
    epsg: 4326,
    verticalUnit: "m",
    noData: NO_DATA,
    read: async (left, top, right, bottom) => {
      const width = right - left;
      const out = new Float32Array(width * (bottom - top));
      const line = Buffer.alloc(width * 2);
      for (let r = top; r < bottom; r++) {
        const { bytesRead } = await file.read(line, 0, line.length, (r * cols + left) * 2);
        if (bytesRead < line.length) throw new FileFault("the file ends before its last row");
        for (let c = 0; c < width; c++) {
          const h = line.readInt16BE(c * 2);
          out[(r - top) * width + c] = h === NO_DATA ? Number.NaN : h;
        }
      }
      return out;
    },
    close: () => file.close(),
  };
};
