import Papa from "papaparse";

/** What a spreadsheet would run: a text that begins like a formula, whatever follows. */
const FORMULA = /^[=+\-@\t\r]/;

/** Figures stay figures; a text that begins like a formula gets an apostrophe before it, which a reader takes off again. */
const harmless = (value: unknown): unknown => (typeof value === "string" && FORMULA.test(value) ? `'${value}` : value);

/** Rows as CSV (RFC 4180), each ended by CR and LF; without the row of names. */
export const csvRows = (rows: readonly Record<string, unknown>[], columns: readonly string[]): string =>
  rows.length === 0
    ? ""
    : `${Papa.unparse(
        rows.map((r) => columns.map((c) => harmless(r[c] ?? ""))),
        { newline: "\r\n" },
      )}\r\n`;

/** A table as CSV with its row of names. */
export const csvText = (rows: readonly Record<string, unknown>[]): string => {
  const columns = [...new Set(rows.flatMap((r) => Object.keys(r)))];
  return `${Papa.unparse([columns.map(harmless)], { newline: "\r\n" })}\r\n${csvRows(rows, columns)}`;
};
