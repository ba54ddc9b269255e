import path from "node:path";
import { openSync } from "fontkit";

/*
 * Typefaces of paper: they ship with the program. The first has Latin only; Greek, arrows and signs come from the second, and what
 * neither has is written as a box, never as another letter.
 */

const FACES = {
  read: [
    ["@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff", "plain"],
    ["@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff", "bold"],
  ],
  signs: [
    ["dejavu-fonts-ttf/ttf/DejaVuSans.ttf", "plain"],
    ["dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf", "bold"],
  ],
} as const;

type Family = keyof typeof FACES;

const BOX = "\u25a1";
const fileOf = (name: string): string => path.join(process.cwd(), "node_modules", name);

/** Name of each face, "family-weight", and its file. */
export const FACE_FILES: readonly (readonly [string, string])[] = Object.entries(FACES).flatMap(([family, faces]) =>
  faces.map(([file, weight]) => [`${family}-${weight}`, fileOf(file)] as const),
);

type Knows = (codePoint: number) => boolean;
let known: Readonly<Record<Family, Knows>> | null = null;
const knowing = (family: Family): Knows => {
  const font = openSync(fileOf(FACES[family][0][0]));
  return (codePoint) => "hasGlyphForCodePoint" in font && font.hasGlyphForCodePoint(codePoint);
};

const familyOf = (letter: string): Family | null => {
  known ??= { read: knowing("read"), signs: knowing("signs") };
  const code = letter.codePointAt(0)!;
  return known.read(code) ? "read" : known.signs(code) ? "signs" : null;
};

/** A text as it can be printed: a letter that no typeface here has is a box. */
export const printable = (text: string): string => {
  let out = "";
  for (const letter of text.normalize("NFC")) out += letter === "\n" || familyOf(letter) !== null ? letter : BOX;
  return out;
};

/** A printable text in runs, each of one typeface. */
export const inFaces = (text: string): { readonly family: Family; readonly text: string }[] => {
  const runs: { family: Family; text: string }[] = [];
  for (const letter of text) {
    const family = familyOf(letter) ?? "signs";
    const last = runs.at(-1);
    if (last !== undefined && last.family === family) last.text += letter;
    else runs.push({ family, text: letter });
  }
  return runs;
};
