import PDFDocument from "pdfkit";
import { type Block, hatchStrokes, type Mark, type Page, type TextMark, textWidthPt } from "../../core/page";
import { FACE_FILES, inFaces, printable } from "./fonts";

/* Pages of marks as a PDF: vectors, marked by structure for who has it read aloud, black on white. */

const INK = "#000000";
const PAPER = "#ffffff";

type Doc = InstanceType<typeof PDFDocument>;

/** A line of words, each run in the typeface that has its letters. */
const drawText = (doc: Doc, t: TextMark): void => {
  const words = printable(t.text);
  const width = textWidthPt(words, t.sizePt, t.face);
  let x = t.anchor === "start" ? t.x : t.anchor === "middle" ? t.x - width / 2 : t.x - width;
  doc.fillColor(t.inverse === true ? PAPER : INK);
  for (const run of inFaces(words)) {
    doc.font(`${run.family}-${t.face}`).fontSize(t.sizePt);
    doc.text(run.text, x, t.y, { lineBreak: false, baseline: "alphabetic" });
    x += doc.widthOfString(run.text);
  }
};

const drawMark = (doc: Doc, mark: Mark): void => {
  if (mark.kind === "text") {
    drawText(doc, mark);
    return;
  }
  if (mark.kind === "hatch") {
    doc.save().path(mark.d).clip().lineWidth(0.35).strokeColor(INK);
    for (const [x1, y1, x2, y2] of hatchStrokes(mark)) doc.moveTo(x1, y1).lineTo(x2, y2);
    doc.stroke().restore();
    return;
  }
  doc.save();
  if (mark.dash !== undefined) doc.dash(mark.dash[0]!, { space: mark.dash[1] ?? mark.dash[0]! });
  if (mark.widthPt > 0) doc.lineWidth(mark.widthPt).lineJoin("round").strokeColor(INK);
  doc.path(mark.d);
  if (mark.fill !== null) doc.fillColor(mark.fill === "ink" ? INK : PAPER);
  if (mark.fill !== null && mark.widthPt > 0) doc.fillAndStroke();
  else if (mark.fill !== null) doc.fill();
  else doc.stroke();
  doc.restore();
};

const drawAll = (doc: Doc, marks: readonly Mark[]): void => {
  for (const mark of marks) drawMark(doc, mark);
};

type Struct = ReturnType<Doc["struct"]>;

const putBlock = (doc: Doc, page: Struct, block: Block): void => {
  if (block.role === "Artifact") {
    doc.markContent("Artifact", { type: "Layout" });
    drawAll(doc, block.marks);
    doc.endMarkedContent();
    return;
  }
  if (block.role === "Table") {
    // Its rules and boxes are no part of what is read.
    doc.markContent("Artifact", { type: "Layout" });
    drawAll(doc, block.marks);
    doc.endMarkedContent();
    const table = doc.struct("Table");
    page.add(table);
    (block.rows ?? []).forEach((row, i) => {
      const tr = doc.struct("TR");
      table.add(tr);
      for (const cell of row) {
        if (cell.length === 0) continue;
        tr.add(doc.struct(i === 0 ? "TH" : "TD", {}, () => drawAll(doc, cell)));
      }
      tr.end();
    });
    table.end();
    return;
  }
  const options = block.alt === undefined ? {} : { alt: printable(block.alt) };
  page.add(doc.struct(block.role, options, () => drawAll(doc, block.marks)));
};

export interface PdfAbout {
  readonly title: string;
  readonly language: "en";
}

/**
 * @param before called before each page is drawn, so that long work can be stopped; what it throws ends the work.
 * @returns the bytes of a tagged PDF with title and language.
 */
export const pagesPdf = (pages: readonly Page[], about: PdfAbout, before: (page: number) => void = () => undefined): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const doc = new PDFDocument({
      autoFirstPage: false,
      pdfVersion: "1.7",
      tagged: true,
      lang: about.language,
      displayTitle: true,
      margin: 0,
      info: { Title: printable(about.title), Creator: "Dry Arc", Producer: "Dry Arc" },
    });
    const pieces: Buffer[] = [];
    doc.on("data", (piece: Buffer) => pieces.push(piece));
    doc.on("end", () => resolve(Buffer.concat(pieces)));
    doc.on("error", reject);
    try {
      for (const [name, file] of FACE_FILES) doc.registerFont(name, file);
      const whole = doc.struct("Document", { title: printable(about.title) });
      doc.addStructure(whole);
      pages.forEach((page, i) => {
        before(i);
        doc.addPage({ size: [page.widthPt, page.heightPt], margin: 0 });
        const part = doc.struct("Sect", { title: printable(page.name) });
        whole.add(part);
        for (const block of page.blocks) putBlock(doc, part, block);
        part.end();
      });
      whole.end();
      doc.end();
    } catch (error) {
      reject(error);
    }
  });
