import fc from "fast-check";
import { openSync } from "fontkit";
import { expect, test } from "vitest";
import { cutText, hatch, hatchStrokes, PT_PER_MM, textWidthPt, wrapText } from ".";

const FILES = { plain: "400", bold: "700" } as const;
const words = fc.array(fc.stringMatching(/^[A-Za-z0-9.,:°−%]{1,14}$/), { minLength: 1, maxLength: 40 });

test.each(["plain", "bold"] as const)("widths of the %s face are those that the font itself lays out, kerning aside", (face) => {
  const font = openSync(
    `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${FILES[face]}-normal.woff`,
  );
  if (!("layout" in font)) throw new Error("a collection");
  for (const said of ["Harbour Office to Rope Walk", "−58 to −51 dBm, 430.1 m", "Größe: 0.436 mm/°"]) {
    const run = font.layout(said, { kern: false });
    expect(textWidthPt(said, 10, face)).toBeCloseTo((run.advanceWidth / font.unitsPerEm) * 10, 1);
  }
});

test("no line is wider than asked, and no letter is lost", () => {
  fc.assert(
    fc.property(words, fc.double({ min: 20, max: 300, noNaN: true }), (list, width) => {
      const said = list.join(" ");
      const lines = wrapText(said, width, 9);
      for (const l of lines) expect(l.length === 1 || textWidthPt(l, 9) <= width).toBe(true);
      expect(lines.join("").replace(/ /g, "")).toBe(said.replace(/ /g, ""));
    }),
  );
});

test("a text that is cut fits, says that it was, and is left alone where it fits", () => {
  fc.assert(
    fc.property(words, fc.double({ min: 15, max: 400, noNaN: true }), (list, width) => {
      const said = list.join(" ");
      const cut = cutText(said, width, 9, "bold");
      expect(textWidthPt(cut, 9, "bold")).toBeLessThanOrEqual(width + 1e-9);
      if (cut !== said) expect(cut.endsWith("\u2026")).toBe(true);
    }),
  );
});

test.each([45, -45])("strokes of a hatch at %d degrees reach every corner of their box, evenly", (angleDeg) => {
  const mark = hatch(
    [
      [10, 20],
      [70, 20],
      [70, 50],
      [10, 50],
    ],
    3,
    angleDeg,
  );
  const strokes = hatchStrokes(mark);
  // Distance of a corner from the nearest stroke: never more than a gap.
  const away = ([x, y]: readonly [number, number]): number =>
    Math.min(...strokes.map(([x1, y1, x2, y2]) => Math.abs((x2 - x1) * (y1 - y) - (x1 - x) * (y2 - y1)) / Math.hypot(x2 - x1, y2 - y1)));
  for (const corner of [
    [10, 20],
    [70, 20],
    [70, 50],
    [10, 50],
    [40, 35],
  ] as const)
    expect(away(corner)).toBeLessThanOrEqual(3);
  const [a, b] = [strokes[0]!, strokes[1]!];
  expect(Math.abs(b[1] - a[1]) * Math.cos((angleDeg * Math.PI) / 180)).toBeCloseTo(3, 6);
});

test("an inch is 72 points", () => expect(25.4 * PT_PER_MM).toBeCloseTo(72, 9));
