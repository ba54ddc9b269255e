/* How wide words are, and where a line of them breaks. Widths come from the face itself (advances.json); a letter that is not there is as wide as an em. */
import advances from "./advances.json";
import type { Face } from "./mark";

const TABLES: Readonly<Record<Face, Readonly<Record<string, number>>>> = { plain: advances.plain, bold: advances.bold };
const UNKNOWN = 1000;

export const textWidthPt = (words: string, sizePt: number, face: Face = "plain"): number => {
  const table = TABLES[face];
  let sum = 0;
  for (const letter of words) sum += table[letter] ?? UNKNOWN;
  return (sum * sizePt) / 1000;
};

/** Lines of a text no wider than given; a word wider than that is cut, never pushed out of the page. */
export const wrapText = (words: string, widthPt: number, sizePt: number, face: Face = "plain"): string[] => {
  const lines: string[] = [];
  for (const paragraph of words.split("\n")) {
    let now = "";
    for (const word of paragraph.split(" ")) {
      const joined = now === "" ? word : `${now} ${word}`;
      if (textWidthPt(joined, sizePt, face) <= widthPt) {
        now = joined;
        continue;
      }
      if (now !== "") lines.push(now);
      now = word;
      while (textWidthPt(now, sizePt, face) > widthPt && now.length > 1) {
        let fits = now.length - 1;
        while (fits > 1 && textWidthPt(now.slice(0, fits), sizePt, face) > widthPt) fits--;
        lines.push(now.slice(0, fits));
        now = now.slice(fits);
      }
    }
    lines.push(now);
  }
  return lines;
};

/** The text, or as much of it as fits with an ellipsis. */
export const cutText = (words: string, widthPt: number, sizePt: number, face: Face = "plain"): string => {
  if (textWidthPt(words, sizePt, face) <= widthPt) return words;
  let fits = words.length - 1;
  while (fits > 0 && textWidthPt(`${words.slice(0, fits).trimEnd()}\u2026`, sizePt, face) > widthPt) fits--;
  return `${words.slice(0, fits).trimEnd()}\u2026`;
};
