import { type FileHandle, open } from "node:fs/promises";
import { FileFault } from "../file-fault";

/** Bytes of one value of each TIFF type. */
const TYPE_BYTES: Readonly<Record<number, number>> = {
  1: 1,
  2: 1,
  3: 2,
  4: 4,
  5: 8,
  6: 1,
  7: 1,
  8: 2,
  9: 4,
  10: 8,
  11: 4,
  12: 8,
  13: 4,
  16: 8,
  17: 8,
  18: 8,
};
const MOST_ENTRIES = 4096;
/** A list of blocks of a very large file has some millions of numbers. */
const MOST_LIST_BYTES = 128_000_000;

const take = async (file: FileHandle, at: number, length: number, size: number): Promise<DataView> => {
  if (!(at >= 0 && at + length <= size)) throw new FileFault("its directory lies beyond the end of the file");
  const bytes = Buffer.alloc(length);
  await file.read(bytes, 0, length, at);
  return new DataView(bytes.buffer, bytes.byteOffset, length);
};

/** Where a block's bytes lie, block by block. */
export interface BlockLists {
  readonly offsets: readonly number[] | Float64Array;
  readonly counts: readonly number[] | Float64Array;
}

const STRIP_OFFSETS = 273;
const STRIP_COUNTS = 279;
const TILE_OFFSETS = 324;
const TILE_COUNTS = 325;

/**
 * Walks the first directory of a TIFF or BigTIFF by itself, before a reader trusts it: every list must lie within the
 * file and be of a size that fits memory.
 * @returns the lists of blocks, in the file's own byte order. @throws FileFault.
 */
export const checkTiff = async (path: string): Promise<BlockLists> => {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const head = await take(file, 0, 16, Math.max(16, size)).catch(() => null);
    if (head === null || size < 16) throw new FileFault("it is too short to be a TIFF");
    const little = head.getUint8(0) === 0x49;
    const kind = head.getUint16(2, little);
    if (kind !== 42 && kind !== 43) throw new FileFault("its mark is not that of a TIFF");
    const big = kind === 43;
    const whole = (v: DataView, at: number): number => (big ? Number(v.getBigUint64(at, little)) : v.getUint32(at, little));
    const first = big ? whole(head, 8) : head.getUint32(4, little);
    const countBytes = big ? 8 : 2;
    const entryBytes = big ? 20 : 12;
    const countView = await take(file, first, countBytes, size);
    const entries = big ? whole(countView, 0) : countView.getUint16(0, little);
    if (!(entries >= 1 && entries <= MOST_ENTRIES)) throw new FileFault(`a directory of ${entries} entries is not that of a picture`);
    const list = await take(file, first + countBytes, entries * entryBytes, size);
    const lists = new Map<number, Float64Array>();
    const numbers = (v: DataView, at: number, type: number, count: number): Float64Array => {
      const unit = TYPE_BYTES[type]!;
      return Float64Array.from({ length: count }, (_, k) =>
        unit === 2
          ? v.getUint16(at + k * 2, little)
          : unit === 4
            ? v.getUint32(at + k * 4, little)
            : unit === 8
              ? Number(v.getBigUint64(at + k * 8, little))
              : Number.NaN,
      );
    };
    for (let i = 0; i < entries; i++) {
      const at = i * entryBytes;
      const unit = TYPE_BYTES[list.getUint16(at + 2, little)];
      const count = whole(list, at + 4);
      if (unit === undefined) throw new FileFault("its directory has an entry of no known type");
      const bytes = unit * count;
      if (!(bytes <= MOST_LIST_BYTES)) throw new FileFault("an entry of its directory is larger than any picture needs");
      const inline = big ? 8 : 4;
      const valueAt = at + (big ? 12 : 8);
      if (bytes > inline && whole(list, valueAt) + bytes > size)
        throw new FileFault("an entry of its directory lies beyond the end of the file");
      const tag = list.getUint16(at, little);
      if (tag !== STRIP_OFFSETS && tag !== STRIP_COUNTS && tag !== TILE_OFFSETS && tag !== TILE_COUNTS) continue;
      const type = list.getUint16(at + 2, little);
      lists.set(
        tag,
        bytes <= inline
          ? numbers(list, valueAt, type, count)
          : numbers(await take(file, whole(list, valueAt), bytes, size), 0, type, count),
      );
    }
    const offsets = lists.get(TILE_OFFSETS) ?? lists.get(STRIP_OFFSETS);
    const counts = lists.get(TILE_COUNTS) ?? lists.get(STRIP_COUNTS);
    if (offsets === undefined || counts === undefined) throw new FileFault("its directory does not say where its heights lie");
    return { offsets, counts };
  } finally {
    await file.close();
  }
};
