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

/**
 * Walks the first directory of a TIFF or BigTIFF by itself, before a reader trusts it: every list must lie within the
 * file and be of a size that fits memory. @throws FileFault.
 */
export const checkTiff = async (path: string): Promise<void> => {
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
    for (let i = 0; i < entries; i++) {
      const at = i * entryBytes;
      const unit = TYPE_BYTES[list.getUint16(at + 2, little)];
      const count = whole(list, at + 4);
      if (unit === undefined) throw new FileFault("its directory has an entry of no known type");
      const bytes = unit * count;
      if (!(bytes <= MOST_LIST_BYTES)) throw new FileFault("an entry of its directory is larger than any picture needs");
      const inline = big ? 8 : 4;
      if (bytes > inline && whole(list, at + (big ? 12 : 8)) + bytes > size)
        throw new FileFault("an entry of its directory lies beyond the end of the file");
    }
  } finally {
    await file.close();
  }
};
