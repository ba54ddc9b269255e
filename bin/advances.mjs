// Widths of letters of the face that paper is set in, for laying out pages where no font can be asked: written once into src/core/page/advances.json.
import { writeFileSync } from "node:fs";
import { openSync } from "fontkit";

const file = (weight) => `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`;
const signs = openSync("node_modules/dejavu-fonts-ttf/ttf/DejaVuSans.ttf");
const letters = [
  ...Array.from({ length: 0x17f - 0x20 }, (_, i) => 0x20 + i),
  ...[
    ..."\u2212\u2013\u2014\u2018\u2019\u201c\u201d\u2026\u2190\u2191\u2192\u2193\u2264\u2265\u03bb\u03a9\u03c0\u2248\u00d7\u20ac\u2022\u2713\u25a1",
  ].map((c) => c.codePointAt(0)),
];
const table = (weight) => {
  const font = openSync(file(weight));
  const out = {};
  for (const code of letters) {
    const of = font.hasGlyphForCodePoint(code) ? font : signs;
    out[String.fromCodePoint(code)] = Math.round((of.glyphForCodePoint(code).advanceWidth / of.unitsPerEm) * 1000);
  }
  return out;
};
writeFileSync(
  "src/core/page/advances.json",
  `${JSON.stringify({ source: "Atkinson Hyperlegible Next, advance widths in thousandths of the size; signs it lacks from DejaVu Sans", plain: table(400), bold: table(700) })}\n`,
);
