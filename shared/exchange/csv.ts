import Papa from 'papaparse'

/**
 * Tables as CSV. A text that a spreadsheet would run as a formula gets an apostrophe before it, which reading takes off
 * again: a fan's name from a foreign file must not run in somebody's spreadsheet. OWASP, CSV injection (from memory).
 */

/**
 * What makes a formula of a text: a sign, also a full-width one and behind blanks, with something behind it; a tab or line
 * end first. A sign that stands alone is none: a pole is “+”.
 */
const BODY = String.raw`(?:\s*[=+\-@＝＋－＠]|[\t\r\n]).`
const FORMULA = new RegExp(`^'*${BODY}`, 's')
const GUARDED = new RegExp(`^'+${BODY}`, 's')
const NUMBER = /^[+-]?\d[\d.,]*(?:e[+-]?\d+)?$/i

const harmless = (cell: unknown): unknown =>
  typeof cell === 'string' && FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell
/** A cell as it was before it was made harmless. */
export const plainCell = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell)

/** @param newline between the rows; that of RFC 4180 unless told otherwise */
export const csvOf = (
  fields: readonly string[],
  rows: readonly (readonly unknown[])[],
  newline = '\r\n',
): string =>
  Papa.unparse(
    { fields: fields.map((f) => String(harmless(f))), data: rows.map((r) => r.map(harmless)) },
    { newline },
  )
