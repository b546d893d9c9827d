import Papa from 'papaparse'

/** Text that a spreadsheet would take for a formula is written with an apostrophe before it (OWASP, "CSV Injection"). */
const harmless = (value: string): string =>
  /^[\t\r\n]|^\s*[=+\-@＝＋－＠]/u.test(value) ? `'${value}` : value

/** A table as CSV (RFC 4180: commas, CRLF, quotes where needed), with a byte order mark so that spreadsheets read it as UTF-8. */
export const writeCsv = (header: readonly string[], rows: readonly (readonly string[])[]): string =>
  `\uFEFF${Papa.unparse({ fields: [...header], data: rows.map(row => row.map(harmless)) }, { newline: '\r\n' })}\r\n`
