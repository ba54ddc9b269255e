import { inflateSync } from "node:zlib";
import { addDecoder, BaseDecoder } from "geotiff";

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

let registered = false;
/** Puts these in place of the reader's own; once is enough. */
export const boundDecoders = (): void => {
  if (registered) return;
  registered = true;
  addDecoder(5, () => Promise.resolve(BoundedLzw));
  addDecoder([8, 32_946], () => Promise.resolve(BoundedDeflate));
};
