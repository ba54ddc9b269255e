/* What a picture says beside what it shows: place, time, camera. It is taken out; the picture itself stays as it is. */

export type PhotoMime = "image/jpeg" | "image/png" | "image/webp";

const text = (b: Uint8Array, from: number, to: number): string => String.fromCharCode(...b.subarray(from, to));

/** What the bytes are, whatever the sender calls them. */
export const mimeOf = (b: Uint8Array): PhotoMime | null => {
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return "image/jpeg";
  if (b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47) return "image/png";
  return text(b, 0, 4) === "RIFF" && text(b, 8, 12) === "WEBP" ? "image/webp" : null;
};

const joined = (parts: readonly Uint8Array[]): Uint8Array => {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
};

/** Application segments of a JPEG that are needed to show it: JFIF, the colour profile, Adobe's colour transform. */
const isShown = (marker: number, segment: Uint8Array): boolean => {
  if (marker < 0xe0 || marker > 0xef) return marker !== 0xfe;
  if (marker === 0xe0 || marker === 0xee) return true;
  return marker === 0xe2 && text(segment, 4, 15) === "ICC_PROFILE";
};

/** Which way up a JPEG is to be shown, out of its Exif segment; 1 where it does not say. */
const turnOf = (segment: Uint8Array): number => {
  if (text(segment, 4, 8) !== "Exif") return 1;
  const v = new DataView(segment.buffer, segment.byteOffset + 10, segment.byteLength - 10);
  if (v.byteLength < 14) return 1;
  const little = v.getUint16(0) === 0x4949;
  const at = v.getUint32(4, little);
  if (at + 2 > v.byteLength) return 1;
  const n = v.getUint16(at, little);
  for (let i = 0; i < n && at + 2 + (i + 1) * 12 <= v.byteLength; i++)
    if (v.getUint16(at + 2 + i * 12, little) === 0x0112) return v.getUint16(at + 2 + i * 12 + 8, little);
  return 1;
};

/** An Exif segment that says which way up, and nothing else. */
const turnSegment = (turn: number): Uint8Array =>
  Uint8Array.from([
    0xff,
    0xe1,
    0,
    34,
    0x45,
    0x78,
    0x69,
    0x66,
    0,
    0,
    0x4d,
    0x4d,
    0,
    42,
    0,
    0,
    0,
    8,
    0,
    1,
    0x01,
    0x12,
    0,
    3,
    0,
    0,
    0,
    1,
    0,
    turn,
    0,
    0,
    0,
    0,
    0,
    0,
  ]);

const jpegWithout = (b: Uint8Array): Uint8Array | null => {
  const parts: Uint8Array[] = [b.subarray(0, 2)];
  let turn = 1;
  let at = 2;
  for (;;) {
    while (b[at] === 0xff && b[at + 1] === 0xff) at++;
    if (at + 4 > b.length || b[at] !== 0xff) return null;
    const marker = b[at + 1]!;
    if (marker === 0xda) break;
    const length = (b[at + 2]! << 8) | b[at + 3]!;
    if (length < 2 || at + 2 + length > b.length) return null;
    const segment = b.subarray(at, at + 2 + length);
    if (marker === 0xe1) turn = turnOf(segment);
    if (isShown(marker, segment)) parts.push(segment);
    at += 2 + length;
  }
  if (turn >= 2 && turn <= 8) parts.splice(1, 0, turnSegment(turn));
  // What follows the end of the picture belongs to nobody's view either.
  let end = b.length;
  for (let i = at; i + 1 < b.length; i++)
    if (b[i] === 0xff && b[i + 1] === 0xd9) {
      end = i + 2;
      break;
    }
  parts.push(b.subarray(at, end));
  return joined(parts);
};

/** Chunks of a PNG that are needed to show it. */
const PNG_SHOWN = new Set(["IHDR", "PLTE", "IDAT", "IEND", "tRNS", "gAMA", "cHRM", "sRGB", "iCCP", "sBIT", "bKGD", "pHYs"]);

const pngWithout = (b: Uint8Array): Uint8Array | null => {
  const parts: Uint8Array[] = [b.subarray(0, 8)];
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  for (let at = 8; at + 12 <= b.length; ) {
    const length = v.getUint32(at);
    if (at + 12 + length > b.length) return null;
    const kind = text(b, at + 4, at + 8);
    if (PNG_SHOWN.has(kind)) parts.push(b.subarray(at, at + 12 + length));
    if (kind === "IEND") return joined(parts);
    at += 12 + length;
  }
  return null;
};

const webpWithout = (b: Uint8Array): Uint8Array | null => {
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  const parts: Uint8Array[] = [];
  for (let at = 12; at + 8 <= b.length; ) {
    const length = v.getUint32(at + 4, true);
    const next = at + 8 + length + (length % 2);
    if (at + 8 + length > b.length) return null;
    const kind = text(b, at, at + 4);
    if (kind === "VP8X") {
      const head = Uint8Array.from(b.subarray(at, Math.min(next, b.length)));
      // Flags: what is taken out is no longer said to be there (Exif 8, XMP 4).
      head[8] = head[8]! & ~0x0c;
      parts.push(head);
    } else if (kind !== "EXIF" && kind !== "XMP ") parts.push(b.subarray(at, Math.min(next, b.length)));
    at = next;
  }
  const body = joined(parts);
  const head = Uint8Array.from(b.subarray(0, 12));
  new DataView(head.buffer).setUint32(4, body.length + 4, true);
  return parts.length === 0 ? null : joined([head, body]);
};

/** The picture alone, without what it says of place, time and camera; null when it is not put together as one. */
export const withoutData = (bytes: Uint8Array, mime: PhotoMime): Uint8Array | null =>
  mime === "image/jpeg" ? jpegWithout(bytes) : mime === "image/png" ? pngWithout(bytes) : webpWithout(bytes);
