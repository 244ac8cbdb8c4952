import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, test } from 'vitest'
import { newFan } from '#core/document'
import { csvOf, plainCell } from './csv'
import { readTable, writeCsv } from './shelf-file'
import { readStock, writeStock } from './stock-table'

/** What a spreadsheet would run leaves as text, and comes back as it was. */

const read = (text: string) => Papa.parse<string[]>(text).data.slice(1)
const starters = [
  '=1+1',
  '+cmd',
  '-2+3',
  '@SUM(A1)',
  '\t=1',
  "'=1",
  "''=1",
  '＝1+1',
  '＋1',
  '－a',
  '＠a',
  ' =1',
  '  @a',
  '\n=1',
  "' =1",
]

describe('cells', () => {
  test.each(starters)('%j is written as text and read back', (cell) => {
    const written = read(csvOf(['a'], [[cell]]))[0]![0]!
    expect(written.startsWith("'")).toBe(true)
    expect(plainCell(written)).toBe(cell)
  })
  test.each(['-', '+', '-5', '+3.2', '1e-3', '-1,5', 'plain', "it's", '', '5 - 3'])(
    '%j stays as it is',
    (cell) => {
      expect(read(`${csvOf(['a', 'b'], [[cell, 'x']])}`)[0]![0]).toBe(cell)
    },
  )
  test('any text comes back', () => {
    const text = fc.string({ unit: fc.constantFrom(...'=+-@\'", ;ab1\t\n＝＋') })
    fc.assert(
      fc.property(fc.array(text, { minLength: 2, maxLength: 4 }), (cells) => {
        const [row] = read(
          csvOf(
            cells.map((_, i) => `f${i}`),
            [cells],
          ),
        )
        expect(row!.map(plainCell)).toEqual(cells)
      }),
      { seed: 3 },
    )
  })
})

test('a shelf and a drawer with names like formulas come back with them', () => {
  const fan = { ...newFan('f'), maker: '=HYPERLINK("x")', model: '+Whin 80' }
  const table = readTable(writeCsv([fan]))
  if (typeof table === 'string') throw new Error(table)
  expect(table.rows[0]).toEqual(expect.arrayContaining(['=HYPERLINK("x")', '+Whin 80']))
  const part = {
    id: 'p',
    kind: 'saw' as const,
    name: '@Saw',
    volts: null,
    amps: null,
    price: null,
    owned: true,
    notes: '-1+2',
    sizeMm: null,
  }
  const text = writeStock([part as never])
  expect(text).toContain("'@Saw")
  const rows = readStock(text)
  if (typeof rows === 'string') throw new Error(rows)
  expect(rows[0]!.part).toMatchObject({ name: '@Saw', notes: '-1+2' })
})
