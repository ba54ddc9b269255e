import { inflateSync } from "node:zlib";
import { addDecoder, BaseDecoder } from "geotiff";
import Lerc from "lerc";
import { ZSTDDecoder } from "zstddec";

/*
 * Decoders that stop at the size a block can have: a spoilt or wicked file cannot make them fill the memory.
 * LZW as TIFF 6.0, section 13, has it.
 */

/** Kinds of packing read: none, LZW, deflate in both numbers, runs, LERC, Zstandard. */
export const PACKINGS: readonly number[] = [1, 5, 8, 32_946, 32_773, 34_887, 50_000];

interface Parameters {
  readonly tileWidth: number;
  readonly tileHeight: number;
  readonly bitsPerSample: number | ArrayLike<number>;
  readonly planarConfiguration: number;
  /** Version and packing beneath LERC. */
  readonly LercParameters?: ArrayLike<number>;
}

/** Bytes of one unpacked block, with a little room. */
const mostBytes = (p: Parameters): number => {
  const bits = typeof p.bitsPerSample === "number" ? [p.bitsPerSample] : Array.from(p.bitsPerSample);
  const all = p.planarConfiguration === 2 ? Math.max(...bits) : bits.reduce((a, b) => a + b, 0);
  return Math.ceil((p.tileWidth * p.tileHeight * all) / 8) + 64;
};

const CLEAR = 256;
const END = 257;
const FIRST_FREE = 258;
const MOST_CODES = 4096;

/** Unpacks LZW up to a size. @throws RangeError on a code that cannot stand where it does. */
export const unpackLzw = (packed: Uint8Array, limitBytes: number): Uint8Array => {
  const out = new Uint8Array(limitBytes);
  // Each code is its predecessor and one byte more; length and first byte are kept so that it is written backwards.
  const prefix = new Uint16Array(MOST_CODES);
  const last = new Uint8Array(MOST_CODES);
  const length = new Uint16Array(MOST_CODES);
  for (let c = 0; c < 256; c++) {
    last[c] = c;
    length[c] = 1;
  }
  let size = 0;
  let next = FIRST_FREE;
  let width = 9;
  let previous = -1;
  let bits = 0;
  let held = 0;
  let at = 0;
  const write = (code: number): number => {
    const n = length[code]!;
    if (size + n > limitBytes) return -1;
    let c = code;
    for (let i = n - 1; i >= 0; i--) {
      out[size + i] = last[c]!;
      c = prefix[c]!;
    }
    size += n;
    return out[size - n]!;
  };
  for (;;) {
    while (bits < width) {
      if (at >= packed.length) return out.subarray(0, size);
      held = ((held << 8) | packed[at++]!) & 0xffffff;
      bits += 8;
    }
    const code = (held >> (bits - width)) & ((1 << width) - 1);
    bits -= width;
    if (code === END) return out.subarray(0, size);
    if (code === CLEAR) {
      next = FIRST_FREE;
      width = 9;
      previous = -1;
      continue;
    }
    if (previous < 0) {
      if (code > 255) throw new RangeError("LZW: a block does not begin with a plain byte");
      if (write(code) < 0) return out;
      previous = code;
      continue;
    }
    if (code > next || next >= MOST_CODES) throw new RangeError("LZW: a code stands before it was made");
    let firstByte: number;
    if (code < next) firstByte = write(code);
    else {
      // The code just being made: its text is the one before and that one's first byte.
      firstByte = write(previous);
      if (firstByte >= 0 && size < limitBytes) out[size++] = firstByte;
    }
    if (firstByte < 0) return out.subarray(0, size);
    prefix[next] = previous;
    last[next] = firstByte;
    length[next] = length[previous]! + 1;
    next++;
    if (next + 1 >= 1 << width && width < 12) width++;
    previous = code;
  }
};

const bufferOf = (bytes: Uint8Array): ArrayBuffer =>
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;

class BoundedLzw extends BaseDecoder {
  override decodeBlock(buffer: ArrayBufferLike): ArrayBufferLike {
    return bufferOf(unpackLzw(new Uint8Array(buffer), mostBytes(this.parameters as Parameters)));
  }
}

class BoundedDeflate extends BaseDecoder {
  override decodeBlock(buffer: ArrayBufferLike): ArrayBufferLike {
    return bufferOf(inflateSync(new Uint8Array(buffer), { maxOutputLength: mostBytes(this.parameters as Parameters) }));
  }
}

const zstd = new ZSTDDecoder();

/** Unpacks Zstandard into a room of the size a block can have; more is an error, whatever the frame says of itself. */
const unpackZstd = (packed: Uint8Array, limitBytes: number): Uint8Array => {
  const out = zstd.decode(packed, limitBytes);
  if (out.length === 0 || out.length > limitBytes) throw new RangeError("Zstandard: a block is spoilt, or larger than it can be");
  return out;
};

class BoundedZstd extends BaseDecoder {
  override decodeBlock(buffer: ArrayBufferLike): ArrayBufferLike {
    return bufferOf(unpackZstd(new Uint8Array(buffer), mostBytes(this.parameters as Parameters)));
  }
}

/** Values to a cell: a grid of heights has one. */
const MOST_DEPTH = 16;
/** Packing beneath LERC, by its number in the file. */
const LERC_DEFLATE = 1;
const LERC_ZSTD = 2;

/**
 * What the head of a LERC blob says of its size. Lerc2: "Lerc2 ", version, a checksum from version 3, rows, columns, depth
 * from version 4, valid cells, micro block, bytes in all.
 */
const refuseWideLerc = (bytes: Uint8Array, p: Parameters): void => {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const mark = String.fromCharCode(...bytes.subarray(0, 6));
  if (mark !== "Lerc2 " || bytes.length < 60) throw new RangeError("LERC: a block does not begin as one");
  const version = view.getInt32(6, true);
  const at = version >= 3 ? 14 : 10;
  const rows = view.getInt32(at, true);
  const cols = view.getInt32(at + 4, true);
  const depth = version >= 4 ? view.getInt32(at + 8, true) : 1;
  const blob = view.getInt32(at + (version >= 4 ? 20 : 16), true);
  if (!(version >= 1 && version <= 6)) throw new RangeError(`LERC: version ${version} is not read`);
  if (!(rows > 0 && rows <= p.tileHeight && cols > 0 && cols <= p.tileWidth && depth > 0 && depth <= MOST_DEPTH))
    throw new RangeError("LERC: a block says to be larger than it can be");
  if (!(blob > 0 && blob <= bytes.length)) throw new RangeError("LERC: a block is shorter than it says");
};

class BoundedLerc extends BaseDecoder {
  override decodeBlock(buffer: ArrayBufferLike): ArrayBufferLike {
    const p = this.parameters as Parameters;
    const beneath = p.LercParameters?.[1] ?? 0;
    const given = new Uint8Array(buffer);
    const bytes =
      beneath === LERC_DEFLATE
        ? new Uint8Array(inflateSync(given, { maxOutputLength: mostBytes(p) + given.length + 1024 }))
        : beneath === LERC_ZSTD
          ? unpackZstd(given, mostBytes(p) + 1024)
          : given;
    refuseWideLerc(bytes, p);
    const { pixels } = Lerc.decode(bufferOf(bytes), { returnPixelInterleavedDims: p.planarConfiguration === 1 });
    return pixels[0]!.buffer;
  }
}

/** What a block of LERC needs told of the file it stands in. */
const lercParameters = async (dir: { hasTag: (name: never) => boolean; loadValue: (name: never) => Promise<unknown> }): Promise<never> => {
  const tag = (name: string): Promise<unknown> => dir.loadValue(name as never);
  const tiled = !dir.hasTag("StripOffsets" as never);
  return {
    tileWidth: await tag(tiled ? "TileWidth" : "ImageWidth"),
    tileHeight: tiled ? await tag("TileLength") : ((await tag("RowsPerStrip")) ?? (await tag("ImageLength"))),
    planarConfiguration: (await tag("PlanarConfiguration")) ?? 1,
    bitsPerSample: await tag("BitsPerSample"),
    predictor: (await tag("Predictor")) ?? 1,
    LercParameters: await tag("LercParameters"),
  } as never;
};

let registered = false;
/** Puts these in place of the reader's own; once is enough. */
export const boundDecoders = (): void => {
  if (registered) return;
  registered = true;
  addDecoder(5, () => Promise.resolve(BoundedLzw));
  addDecoder([8, 32_946], () => Promise.resolve(BoundedDeflate));
  addDecoder(50_000, () => zstd.init().then(() => BoundedZstd));
  addDecoder(34_887, () => zstd.init().then(() => BoundedLerc), lercParameters);
};
