import Papa from "papaparse";

/** A table as CSV (RFC 4180). Cells that a spreadsheet would run as a formula are written as text. */
export const csvText = (rows: readonly Record<string, unknown>[]): string => {
  const columns = [...new Set(rows.flatMap((r) => Object.keys(r)))];
  return `${Papa.unparse([...rows], { columns, newline: "\r\n", escapeFormulae: /^[=@\t\r]|^[+-](?![\d.])/ })}\r\n`;
};
