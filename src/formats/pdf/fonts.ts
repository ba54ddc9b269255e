import path from "node:path";
import { Font } from "@react-pdf/renderer";
import { openSync } from "fontkit";

/*
 * Typefaces of paper: they ship with the program. The first has Latin only; Greek, arrows and signs come from the second, and what
 * neither has is written as a box, never as another letter.
 */

const FACES = {
  read: [
    ["@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff", 400],
    ["@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff", 700],
  ],
  signs: [
    ["dejavu-fonts-ttf/ttf/DejaVuSans.ttf", 400],
    ["dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf", 700],
  ],
} as const;

const BOX = "\u25a1";
const fileOf = (name: string): string => path.join(process.cwd(), "node_modules", name);

/** Families in the order in which a letter is looked for. */
export const PAPER_FONTS: string[] = Object.keys(FACES);

let known: ((codePoint: number) => boolean) | null = null;

const register = (): ((codePoint: number) => boolean) => {
  for (const [family, faces] of Object.entries(FACES))
    Font.register({ family, fonts: faces.map(([file, fontWeight]) => ({ src: fileOf(file), fontWeight })) });
  // Words are not broken: a name or a figure in two halves reads as another.
  Font.registerHyphenationCallback((word) => [word]);
  const fonts = Object.values(FACES).map(([[file]]) => openSync(fileOf(file)));
  return (codePoint) => fonts.some((f) => "hasGlyphForCodePoint" in f && f.hasGlyphForCodePoint(codePoint));
};

/** A text as it can be printed: a letter that no typeface here has is a box. */
export const printable = (text: string): string => {
  known ??= register();
  let out = "";
  for (const letter of text.normalize("NFC")) out += letter === "\n" || known(letter.codePointAt(0)!) ? letter : BOX;
  return out;
};
