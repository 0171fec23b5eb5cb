import Papa from "papaparse";

/** RFC 4180 text; cells that a spreadsheet would run as a formula are neutralised. */
export const toCsv = (rows: readonly Record<string, string | number>[]): string =>
  `${Papa.unparse([...rows], { newline: "\r\n", escapeFormulae: true })}\r\n`;
