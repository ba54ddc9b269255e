import { type Block, line, PAPERS, type Page, type Paper, text, textWidthPt, wrapText } from "../core/page";
import { flowing } from "./frame";

/* A quote on paper: what is delivered where, the work, the sums, the terms. */

export interface QuoteSheet {
  readonly job: string;
  readonly place: string;
  /** What of the job it is of. */
  readonly of: string;
  readonly to: string;
  readonly day: string;
  readonly validUntil: string | null;
  readonly sections: readonly { readonly name: string; readonly rows: readonly { readonly quantity: string; readonly name: string }[] }[];
  readonly labour: readonly { readonly quantity: string; readonly name: string }[];
  readonly sums: readonly { readonly name: string; readonly amount: string; readonly isTotal: boolean }[];
  readonly terms: string;
  readonly notes: readonly string[];
}

const MARGIN_PT = 52;
const QUANTITY_PT = 76;
const SIZE_PT = 10;
const PITCH_PT = 14;

export const quotePages = (q: QuoteSheet, paper: Paper): Page[] => {
  const { widthPt, heightPt } = PAPERS[paper];
  const right = widthPt - MARGIN_PT;
  const flow = flowing(paper, { x: MARGIN_PT - 8, y: 44, width: widthPt - 2 * (MARGIN_PT - 8), height: heightPt - 96 });
  const artifact: Block = { role: "Artifact", marks: [] };
  const told = (heightPt: number, role: "H1" | "H2" | "P", words: string, sizePt: number, face: "plain" | "bold", keepPt = 0): void => {
    for (const row of wrapText(words, right - MARGIN_PT, sizePt, face))
      flow.put(heightPt, (y) => ({ role, marks: [text(MARGIN_PT, y + heightPt * 0.76, row, sizePt, { face })] }), keepPt);
  };
  told(30, "H1", "Quote", 24, "bold");
  told(17, "H2", q.of, 13, "bold");
  told(PITCH_PT, "P", q.place === "" ? q.job : `${q.job}, ${q.place}`, SIZE_PT, "plain");
  const facts = [...(q.to === "" ? [] : [["For", q.to]]), ["Date", q.day], ["Holds until", q.validUntil ?? "not said"]] as [
    string,
    string,
  ][];
  flow.put(44, (y) => {
    let x = MARGIN_PT;
    const marks = facts.flatMap(([name, value]) => {
      const at = x;
      x += Math.max(textWidthPt(name, 8.5), textWidthPt(value, SIZE_PT)) + 28;
      return [text(at, y + 20, name, 8.5), text(at, y + 32, value, SIZE_PT)];
    });
    return { role: "P", marks: [line(MARGIN_PT, y + 9, right, y + 9, 1), ...marks, line(MARGIN_PT, y + 39, right, y + 39, 1)] };
  });
  const rows = (name: string, list: QuoteSheet["labour"]): void => {
    flow.put(14, () => artifact);
    told(16, "H2", name, 11.5, "bold", 30);
    for (const r of list) {
      const lines = wrapText(r.name, right - MARGIN_PT - QUANTITY_PT, SIZE_PT);
      flow.put(lines.length * 13 + 2, (y) => ({
        role: "P",
        marks: [
          text(MARGIN_PT + QUANTITY_PT - 14, y + 10, r.quantity, SIZE_PT, { anchor: "end" }),
          ...lines.map((l, i) => text(MARGIN_PT + QUANTITY_PT, y + 10 + i * 13, l, SIZE_PT)),
        ],
      }));
    }
  };
  for (const s of q.sections) rows(s.name, s.rows);
  if (q.labour.length > 0) rows("Work", q.labour);
  const sumsPt = q.sums.length * 16 + 18;
  flow.put(16, () => artifact, sumsPt);
  for (const s of q.sums) {
    const face = s.isTotal ? "bold" : "plain";
    const sizePt = s.isTotal ? 12 : SIZE_PT;
    flow.put(s.isTotal ? 20 : 15, (y) => ({
      role: "P",
      marks: [
        ...(s.isTotal ? [line(right - 310, y + 2, right, y + 2, 1)] : []),
        text(right - 310, y + (s.isTotal ? 15 : 11), s.name, sizePt, { face }),
        text(right, y + (s.isTotal ? 15 : 11), s.amount, sizePt, { face, anchor: "end" }),
      ],
    }));
  }
  if (q.terms !== "") {
    flow.put(14, () => artifact);
    told(16, "H2", "Terms", 11.5, "bold", 14);
    told(PITCH_PT, "P", q.terms, SIZE_PT, "plain");
  }
  flow.put(12, () => artifact);
  for (const note of q.notes) told(12, "P", note, 8.5, "plain");
  return flow.pages.map((blocks, i) => ({
    name: `${i + 1} of ${flow.pages.length}`,
    widthPt,
    heightPt,
    blocks: [
      ...blocks,
      {
        role: "P",
        marks: [
          text(MARGIN_PT, heightPt - 30, `${q.job}, ${q.of}`, 8.5),
          text(right, heightPt - 30, `${i + 1} of ${flow.pages.length}`, 8.5, { anchor: "end" }),
        ],
      },
    ],
  }));
};
