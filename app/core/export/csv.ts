import Papa from "papaparse";

/**
 * How a cell begins that a spreadsheet would run as a formula: blanks before it are passed over, and the wide signs of
 * East Asian keyboards (Unicode, halfwidth and fullwidth forms) are taken for the plain ones.
 */
const FORMULA = /^[\s\u200b\ufeff]*[=+\-@\uff1d\uff0b\uff0d\uff20]|^[\t\r]/;

/** RFC 4180 text; cells that a spreadsheet would run as a formula are neutralised. */
export const toCsv = (rows: readonly Record<string, string | number>[]): string =>
  `${Papa.unparse([...rows], { newline: "\r\n", escapeFormulae: FORMULA })}\r\n`;
