import { describe, expect, test } from "vitest";
import { mimeOf, withoutData } from "./photo-data";

/* Pictures put together by hand, after the formats' own descriptions. */
const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));
const segment = (marker: number, data: readonly number[]): number[] => [
  0xff,
  marker,
  (data.length + 2) >> 8,
  (data.length + 2) & 255,
  ...data,
];
/** An Exif segment, big-endian, with a direction and a place. */
const exif = (turn: number): number[] =>
  segment(0xe1, [
    ...ascii("Exif"),
    0,
    0,
    ...ascii("MM"),
    0,
    42,
    0,
    0,
    0,
    8,
    0,
    2,
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
    0x88,
    0x25,
    0,
    4,
    0,
    0,
    0,
    1,
    0,
    0,
    0,
    26,
    ...ascii("GPS 47.3 N 19.4 W"),
  ]);
const scan = [...segment(0xda, [1, 1, 0, 0, 63, 0]), 0x12, 0xff, 0x00, 0x34, 0xff, 0xd9];
const jpeg = (...parts: number[][]): Uint8Array => Uint8Array.from([0xff, 0xd8, ...parts.flat(), ...scan]);
const text = (b: Uint8Array | null): string => Buffer.from(b ?? []).toString("latin1");

describe("JPEG", () => {
  const jfif = segment(0xe0, [...ascii("JFIF"), 0, 1, 1, 0, 0, 1, 0, 1, 0, 0]);
  const profile = segment(0xe2, [...ascii("ICC_PROFILE"), 0, 1, 1, 9, 9]);
  const table = segment(0xdb, [0, 1, 2, 3]);
  test("place, camera, comment and what follows the picture go; what it is shown by stays", () => {
    const given = Uint8Array.from([
      ...jpeg(jfif, exif(1), segment(0xfe, ascii("by somebody")), profile, segment(0xe1, ascii("http://ns.adobe.com/xap/1.0/ GPS")), table),
      ...ascii("trailer GPS"),
    ]);
    const plain = withoutData(given, "image/jpeg")!;
    expect(Buffer.from(plain)).toEqual(Buffer.from(jpeg(jfif, profile, table)));
    expect(text(plain)).not.toMatch(/GPS|Exif|somebody/);
  });
  test("the direction it is to be shown in stays, and nothing else of its kind", () => {
    const plain = withoutData(jpeg(exif(6), table), "image/jpeg")!;
    expect(text(plain)).not.toMatch(/GPS/);
    expect(text(plain).match(/Exif/g)).toHaveLength(1);
    const at = text(plain).indexOf("MM");
    const v = new DataView(plain.buffer, plain.byteOffset + at);
    expect([v.getUint16(8), v.getUint16(10), v.getUint16(18)]).toEqual([1, 0x0112, 6]);
    // Taken out again it gives the same.
    expect(Buffer.from(withoutData(plain, "image/jpeg")!)).toEqual(Buffer.from(plain));
  });
  test("one that breaks off is none", () => {
    expect(withoutData(jpeg(jfif).subarray(0, 15), "image/jpeg")).toBeNull();
    expect(withoutData(Uint8Array.from([0xff, 0xd8, 0xff]), "image/jpeg")).toBeNull();
  });
});

test("WebP loses its Exif and XMP, and no longer says that they are there", () => {
  const chunk = (kind: string, data: readonly number[]): number[] => [
    ...ascii(kind),
    data.length,
    0,
    0,
    0,
    ...data,
    ...(data.length % 2 === 1 ? [0] : []),
  ];
  const body = [
    ...chunk("VP8X", [0x0c, 0, 0, 0, 0, 0, 0, 0, 0, 0]),
    ...chunk("VP8 ", [1, 2, 3]),
    ...chunk("EXIF", ascii("GPS")),
    ...chunk("XMP ", ascii("GPS!")),
  ];
  const given = Uint8Array.from([...ascii("RIFF"), body.length + 4, 0, 0, 0, ...ascii("WEBP"), ...body]);
  const plain = withoutData(given, "image/webp")!;
  expect(text(plain)).not.toContain("GPS");
  expect(plain[20]).toBe(0);
  expect(new DataView(plain.buffer).getUint32(4, true)).toBe(plain.length - 8);
  expect(mimeOf(plain)).toBe("image/webp");
});

test("a picture is what its bytes say, and text is none", () => {
  expect(mimeOf(Uint8Array.from(ascii("<svg xmlns")))).toBeNull();
  expect(mimeOf(jpeg())).toBe("image/jpeg");
});
