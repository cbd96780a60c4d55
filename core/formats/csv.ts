import Papa from 'papaparse'

/** What a spreadsheet would take for a formula: also behind blanks and ends of lines, and in wide letters. */
const FORMULA = /^\s*[=+\-@\t\r\n＝＋－＠]/u

/**
 * A table (RFC 4180), as spreadsheets open it: with a mark of its encoding before it, so that accents stay what they are,
 * and an apostrophe before whatever would be run as a formula. Numbers stay numbers.
 */
export const csvOf = (fields: readonly string[], data: readonly (readonly (string | number)[])[]): string =>
  `\uFEFF${Papa.unparse({ fields: [...fields], data: data.map((row) => [...row]) }, { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`
