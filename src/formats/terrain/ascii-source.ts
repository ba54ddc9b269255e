import { createReadStream } from "node:fs";
import { type FileHandle, open, rm, stat } from "node:fs/promises";
import { FileFault } from "../file-fault";
import { writeAll } from "../write-all";
import { type GridFrame, heightOf, type TerrainSource } from "./source";

const HEAD_KEYS = /^(ncols|nrows|xllcorner|yllcorner|xllcenter|yllcenter|cellsize|dx|dy|nodata_value)$/i;
const MOST_CELLS = 400_000_000;
/** Values are gathered in blocks before they go to the side file. */
const BLOCK_VALUES = 1 << 16;

interface Head extends GridFrame {
  readonly noData: number;
}

const headOf = (found: ReadonlyMap<string, number>): Head => {
  const need = (key: string): number => {
    const value = found.get(key);
    if (value === undefined || !Number.isFinite(value)) throw new FileFault(`its head has no ${key}`);
    return value;
  };
  const cols = need("ncols");
  const rows = need("nrows");
  if (!(Number.isInteger(cols) && Number.isInteger(rows) && cols >= 2 && rows >= 2 && cols * rows <= MOST_CELLS)) {
    throw new FileFault(`a grid of ${cols} by ${rows} cells cannot be taken in`);
  }
  const stepX = found.get("cellsize") ?? need("dx");
  const stepY = found.get("cellsize") ?? need("dy");
  if (!(stepX > 0 && stepY > 0)) throw new FileFault("its cell size must be above 0");
  // A corner is half a cell outside the middle of the first cell.
  const west = found.get("xllcenter") ?? need("xllcorner") + stepX / 2;
  const south = found.get("yllcenter") ?? need("yllcorner") + stepY / 2;
  return {
    cols,
    rows,
    originX: west,
    originY: south + (rows - 1) * stepY,
    stepX,
    stepY: -stepY,
    noData: found.get("nodata_value") ?? -9999,
  };
};

/** A value and the space behind it take two letters at the least. */
const refuseTooShort = (head: Head, sizeBytes: number): void => {
  const cells = head.cols * head.rows;
  if (sizeBytes + 1 < 2 * cells) throw new FileFault(`its head says ${cells} values, and its ${sizeBytes} bytes cannot hold as many`);
};

/** The head alone, from the first stretch of the file: for a look before anything is taken in. @throws FileFault. */
export const asciiGridHead = async (path: string): Promise<Head> => {
  const file = await open(path);
  try {
    const bytes = Buffer.alloc(4096);
    const { bytesRead } = await file.read(bytes, 0, bytes.length, 0);
    const tokens = bytes.toString("latin1", 0, bytesRead).trim().split(/\s+/);
    const found = new Map<string, number>();
    for (let i = 0; i + 1 < tokens.length && HEAD_KEYS.test(tokens[i]!); i += 2)
      found.set(tokens[i]!.toLowerCase(), Number(tokens[i + 1]!.replace(",", ".")));
    if (found.size === 0) throw new FileFault("it does not begin with the head of an ASCII grid (ncols, nrows, ...)");
    const head = headOf(found);
    refuseTooShort(head, (await file.stat()).size);
    return head;
  } finally {
    await file.close();
  }
};

/**
 * Opens an ESRI ASCII grid. Text cannot be read in windows, so it is read through once into a side file of plain
 * 32-bit floats, which is removed when the source is closed.
 */
export const openAsciiGrid = async (path: string): Promise<TerrainSource> => {
  const side = `${path}.f32`;
  let out: FileHandle | null = null;
  const found = new Map<string, number>();
  let head: Head | null = null;
  let key: string | null = null;
  let count = 0;
  let size = 0;
  let block = new Float32Array(BLOCK_VALUES);
  let filled = 0;
  let rest = "";
  const flush = async (): Promise<void> => {
    if (filled > 0) await writeAll(out!, Buffer.from(block.buffer, 0, filled * 4));
    block = new Float32Array(BLOCK_VALUES);
    filled = 0;
  };
  const take = (token: string): void => {
    if (head === null) {
      if (key !== null) {
        found.set(key, Number(token.replace(",", ".")));
        key = null;
        return;
      }
      if (HEAD_KEYS.test(token)) {
        key = token.toLowerCase();
        return;
      }
      if (found.size === 0) throw new FileFault("it does not begin with the head of an ASCII grid (ncols, nrows, ...)");
      head = headOf(found);
      refuseTooShort(head, size);
    }
    const value = Number(token.includes(",") ? token.replace(",", ".") : token);
    if (Number.isNaN(value) && !/^nan$/i.test(token)) throw new FileFault(`value ${count + 1} ("${token.slice(0, 20)}") is not a number`);
    if (count >= head.cols * head.rows) throw new FileFault(`it holds more than the ${head.cols * head.rows} values its head says`);
    block[filled++] = heightOf(value, head.noData);
    count++;
  };
  try {
    size = await stat(path).then((st) => st.size);
    out = await open(side, "w");
    for await (const chunk of createReadStream(path, { encoding: "latin1", highWaterMark: 1 << 18 })) {
      const parts = (rest + (chunk as string)).split(/\s+/);
      rest = parts.pop() ?? "";
      if (rest.length > 200) throw new FileFault("it is not text with numbers");
      for (const token of parts) {
        if (token === "") continue;
        take(token);
        if (filled === BLOCK_VALUES) await flush();
      }
    }
    if (rest !== "") take(rest);
    await flush();
    const done = head as Head | null;
    if (done === null) throw new FileFault("it has no values");
    if (count < done.cols * done.rows) throw new FileFault(`it ends after ${count} of ${done.cols * done.rows} values`);
    await out.close();
    const file = await open(side);
    return {
      format: "ASCII grid",
      ...done,
      epsg: null,
      verticalUnit: null,
      read: async (left, top, right, bottom) => {
        const width = right - left;
        const heights = new Float32Array(width * (bottom - top));
        const bytes = Buffer.from(heights.buffer);
        for (let r = top; r < bottom; r++) {
          await file.read(bytes, (r - top) * width * 4, width * 4, (r * done.cols + left) * 4);
        }
        return heights;
      },
      close: async () => {
        await file.close();
        await rm(side, { force: true });
      },
    };
  } catch (error) {
    await out?.close().catch(() => undefined);
    await rm(side, { force: true });
    throw error instanceof FileFault
      ? error
      : new FileFault(`it cannot be read as an ASCII grid: ${error instanceof Error ? error.message : ""}`);
  }
};
