import { type Block, type Box, cutText, line, type Mark, PAPERS, type Page, type Paper, rect, text, wrapText } from "../core/page";

/* The frame that all pages of a pack stand in: a strip with job, link and page above, what it rests on and the caution below. */

export const MARGIN_PT = 30;
const STRIP_PT = 34;
const FOOT_PT = 26;

export const CAUTION =
  "An aid, not a permit: local codes, the regulator and qualified people decide about heights, mains, lightning, radio, roads and trees.";

export interface FrameSaid {
  readonly job: string;
  readonly link: string;
  readonly visit: string;
  readonly made: string;
}

/** Where the content of a page stands. */
export const contentBox = (paper: Paper): Box => {
  const { widthPt, heightPt } = PAPERS[paper];
  return {
    x: MARGIN_PT,
    y: MARGIN_PT + STRIP_PT,
    width: widthPt - 2 * MARGIN_PT,
    height: heightPt - 2 * MARGIN_PT - STRIP_PT - FOOT_PT,
  };
};

const cell = (x: number, y: number, width: number, label: string, value: string): Mark[] => [
  text(x + 6, y + 12, label, 7),
  text(x + 6, y + 25, cutText(value, width - 12, 9.5, "bold"), 9.5, { face: "bold" }),
];

/** A page with its strip and foot around its blocks. */
export const framed = (paper: Paper, said: FrameSaid, name: string, blocks: readonly Block[]): Page => {
  const { widthPt, heightPt } = PAPERS[paper];
  const box = contentBox(paper);
  const widths = [70, 150, 0, 78, 62];
  widths[2] = box.width - widths.reduce((s, w) => s + w, 0);
  const starts = widths.map((_, i) => box.x + widths.slice(0, i).reduce((s, w) => s + w, 0));
  const cells = (
    [
      ["Job", said.job],
      ["Link", said.link],
      ["Visit", said.visit],
      ["Page", name],
    ] as const
  ).map(([label, value], i) => cell(starts[i + 1]!, MARGIN_PT, widths[i + 1]!, label, value));
  const frame: Block = {
    role: "Artifact",
    marks: [
      rect({ x: MARGIN_PT, y: MARGIN_PT, width: box.width, height: heightPt - 2 * MARGIN_PT }, null, 1.2),
      line(box.x, box.y, box.x + box.width, box.y),
      ...starts.slice(1).map((x) => line(x, MARGIN_PT, x, box.y)),
      line(box.x, box.y + box.height, box.x + box.width, box.y + box.height),
      {
        kind: "path",
        d: `M${box.x + 8} ${MARGIN_PT + 14}C${box.x + 26} ${MARGIN_PT + 4} ${box.x + 44} ${MARGIN_PT + 4} ${box.x + 62} ${MARGIN_PT + 14}`,
        fill: null,
        widthPt: 1.2,
      },
      line(box.x + 8, MARGIN_PT + 16, box.x + 62, MARGIN_PT + 16, 0.8, [1, 1.4]),
      text(box.x + 8, MARGIN_PT + 28, "Dry Arc", 10, { face: "bold" }),
    ],
  };
  const y = box.y + box.height;
  return {
    name,
    widthPt,
    heightPt,
    blocks: [
      frame,
      { role: "P", marks: cells.flat() },
      ...blocks,
      { role: "P", marks: [text(box.x + 6, y + 11, said.made, 7.5), text(box.x + 6, y + 21, CAUTION, 7.5)] },
    ],
  };
};

/** A column of blocks that goes on over as many pages as it takes. */
export const flowing = (paper: Paper, within: Box = contentBox(paper)) => {
  const pages: Block[][] = [[]];
  let y = within.y + 6;
  const bottom = within.y + within.height - 4;
  const next = (): void => {
    pages.push([]);
    y = within.y + 6;
  };
  const put = (heightPt: number, make: (y: number) => Block, keepPt = 0): void => {
    if (y + heightPt + keepPt > bottom && y > within.y + 6) next();
    pages[pages.length - 1]!.push(make(y));
    y += heightPt;
  };
  const x = within.x + 8;
  const width = within.width - 16;
  const heading = (words: string, aside = ""): void => {
    put(
      20,
      (at) => ({
        role: "H2",
        marks: [
          ...(at > within.y + 10 ? [line(within.x, at + 1, within.x + within.width, at + 1)] : []),
          text(x, at + 14, words, 11, { face: "bold" }),
          ...(aside === "" ? [] : [text(within.x + within.width - 8, at + 14, aside, 8, { anchor: "end" })]),
        ],
      }),
      30,
    );
  };
  const words = (said: string, { indentPt = 0, lead = "", sizePt = 9, strong = false, besidePt = 0 } = {}): void => {
    const face = strong ? "bold" : "plain";
    const lines = wrapText(said, width - indentPt - besidePt, sizePt, face);
    const pitch = sizePt * 1.32;
    // What does not fit on one page is told line by line.
    lines.forEach((row, i) => {
      put(
        pitch,
        (at) => ({
          role: "P",
          marks: [
            ...(i === 0 && lead !== "" ? [text(x, at + sizePt, lead, sizePt, { face: "bold" })] : []),
            text(x + indentPt, at + sizePt, row, sizePt, { face }),
          ],
        }),
        i === 0 && lines.length > 1 ? pitch : 0,
      );
    });
    put(2.5, () => ({ role: "Artifact", marks: [] }));
  };
  const table = (heads: readonly string[], shares: readonly number[], rows: readonly (readonly string[])[], sizePt = 8): void => {
    const sum = shares.reduce((s, v) => s + v, 0);
    const widths = shares.map((v) => (v / sum) * width);
    const at = widths.map((_, i) => x + widths.slice(0, i).reduce((s, v) => s + v, 0));
    const cellsOf = (row: readonly string[], y0: number, face: "plain" | "bold"): Mark[][] =>
      row.map((c, i) =>
        wrapText(c, widths[i]! - 6, sizePt, face).map((l, k) => text(at[i]!, y0 + sizePt + 1 + k * sizePt * 1.25, l, sizePt, { face })),
      );
    const heightOf = (row: readonly string[]): number =>
      Math.max(...row.map((c, i) => wrapText(c, widths[i]! - 6, sizePt).length)) * sizePt * 1.25 + 4.5;
    const rowBlock =
      (row: readonly string[], face: "plain" | "bold") =>
      (y0: number): Block => ({
        role: "Table",
        rows: [cellsOf(row, y0, face)],
        marks: [line(x, y0 + heightOf(row), x + width, y0 + heightOf(row), face === "bold" ? 0.8 : 0.3)],
      });
    put(sizePt + 6, rowBlock(heads, "bold"), 20);
    for (const row of rows) put(heightOf(row), rowBlock(row, "plain"));
    put(5, () => ({ role: "Artifact", marks: [] }));
  };
  return { put, heading, words, table, next, pages, x, width, left: () => bottom - y };
};
