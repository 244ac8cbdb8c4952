import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { demoFans } from '../../demo/fans'
import type { Fan } from '#core/document'
import { planJsonSchema } from '#shared/schemas/plan'
import { columns, detectColumn, detectColumns } from './columns'
import { fanId, readRow, sameFan } from './rows'
import {
  readJson,
  readTable,
  shelfJsonSchema,
  tableReader,
  writeCsv,
  writeJson,
  type PreviewRow,
} from './shelf-file'

const shelf = new Map(demoFans.map((f) => [f.id, f]))
const nobody = () => undefined
function read(text: string, known: (id: string) => Fan | undefined = nobody): PreviewRow[] {
  const table = readTable(text)
  if (typeof table === 'string') throw new Error(table)
  return tableReader(table, known)(0, table.rows.length)
}

describe('headings', () => {
  test.each([
    ['Airflow (CFM)', 'maxFlowM3s', 'CFM'],
    ['airflow cfm', 'maxFlowM3s', 'CFM'],
    ['Static pressure [mmH2O]', 'maxPressurePa', 'mmH₂O'],
    ['Static pressure, inH2O', 'maxPressurePa', 'inH₂O'],
    ['Size (mm)', 'frameM', 'mm'],
    ['Thickness (in)', 'thicknessM', 'in'],
    ['RPM', 'ratedRpm', 'rpm'],
    ['Noise level (dB(A))', 'noiseDbA', 'dB(A)'],
    ['Weight (g)', 'massKg', 'g'],
    ['Manufacturer', 'maker', undefined],
    ['Rated_Voltage', 'ratedV', undefined],
    ['current (mA)', 'ratedA', 'mA'],
  ] as const)('%s', (heading, key, unit) => {
    const found = detectColumn(heading)
    expect(found.column?.key).toBe(key)
    expect(found.unit?.symbol).toBe(unit)
  })
  test('an unknown one is left out, a second one of the same meaning too', () => {
    expect(detectColumn('colour of the box').column).toBeNull()
    expect(detectColumns(['airflow (CFM)', 'flow (m3/h)', 'model']).map((m) => m.column?.key ?? null)).toEqual([
      'maxFlowM3s',
      null,
      'model',
    ])
  })
})

describe('a table from elsewhere', () => {
  const text =
    'Manufacturer;Model;Size (mm);Depth (in);Voltage;Airflow (CFM);Static pressure ' +
    '(mmH2O);Noise;Current;Bearing;Pins\nTestmoor;Whin 80;80;0,984;12 V;47,1;4,08;30 dB;180 mA;dual ' +
    'ball;3\nTestmoor;Whin 92;92;25 mm;12;66 m3/h;;;0,2;hydro;4\n'
  test('mixed units, decimal comma, a cell that brings its own unit', () => {
    const [one, two] = read(text)
    expect(one).toMatchObject({ state: 'new', name: 'Testmoor Whin 80' })
    expect(one!.fan!.maxFlowM3s! * 3600).toBeCloseTo(80.02, 1)
    expect(one!.fan!.maxPressurePa).toBeCloseTo(40.01, 2)
    expect(one!.fan!.thicknessM).toBeCloseTo(0.025, 4)
    expect(one!.fan!).toMatchObject({ ratedA: 0.18, bearing: 'ball', wires: 3, noiseDbA: 30, ratedV: 12 })
    expect(two!.fan!.thicknessM).toBeCloseTo(0.025, 9)
    expect(two!.fan!.maxFlowM3s! * 3600).toBeCloseTo(66, 9)
    expect(two!.fan!).toMatchObject({ bearing: 'fluid', maxPressurePa: null, ratedA: 0.2 })
  })
  test('each wrong row says what is wrong in which column; the others stand', () => {
    const rows = read(
      'model,frame (mm),thickness (mm),voltage,airflow (CFM)\nGood,80,25,12,40\nBad,80,25,12,31 dB\n' +
        'Worse,eighty,25,,40\nGood,80,25,12,44\nFar,80,25,900,10\n',
    )
    expect(rows.map((r) => r.state)).toEqual(['new', 'wrong', 'wrong', 'twice', 'wrong'])
    expect(rows[1]!.issues[0]).toMatchObject({
      column: 'free delivery',
      message: expect.stringContaining('sound level'),
    })
    expect(rows[2]!.issues.map((i) => i.column)).toEqual(['frame', 'frame', 'rated voltage'])
    expect(rows[3]!.issues[0]!.message).toContain('row 1')
    expect(rows[4]!.issues[0]).toMatchObject({ column: 'rated voltage' })
  })
  test('a known fan keeps what the table does not speak of', () => {
    const fan = demoFans[0]!
    const [row] = read(`id,price\n${fan.id},99\n`, (id) => shelf.get(id))
    expect(row!.state).toBe('changed')
    expect(row!.fan).toEqual({ ...fan, price: 99 })
  })
  test('curves: pairs in any order, and what is none is said', () => {
    const rows = read(
      'model,frame (mm),thickness (mm),voltage,curve\nA,80,25,12,45:0 0:40 20:30\nB,80,25,12,many\nC,80,25,12,0:40 0:30\n',
    )
    expect(rows[0]!.fan!.points.map((p) => p.pressurePa)).toEqual([40, 30, 0])
    expect(rows[1]!.issues[0]!.message).toContain('flow:pressure')
    expect(rows[2]!.issues[0]!.message).toContain('larger than the one before')
  })
  test.each([
    ['', 'no table'],
    ['one heading\nx\n', 'no table'],
    ['model,frame\n', 'no rows'],
    ['model,frame\n"open,80\n', 'never closed'],
  ])('%j is no table', (bad, message) => {
    expect(readTable(bad)).toContain(message)
  })
  test('columns that no heading names are told', () => {
    const table = readTable('model,frame\nx,80\n')
    expect(
      typeof table === 'string'
        ? []
        : columns.map((c) => c.key).filter((key) => !table.mapping.some((m) => m.column?.key === key)),
    ).toContain('ratedV')
  })
  test('a hundred thousand rows are read', () => {
    const lines = Array.from({ length: 100_000 }, (_, i) => `Moor ${i},80,25,12,${30 + (i % 40)}`)
    const rows = read(`model,frame (mm),thickness (mm),voltage,airflow (CFM)\n${lines.join('\n')}\n`)
    expect(rows.filter((r) => r.state === 'new')).toHaveLength(100_000)
  }, 60_000)
})

test.each([
  ['shelf', shelfJsonSchema],
  ['plan', planJsonSchema],
])('the published JSON Schema of %s files is that of the file', (name, schema) => {
  expect(JSON.parse(readFileSync(`docs/${name}.schema.json`, 'utf8'))).toEqual(
    JSON.parse(JSON.stringify(schema())),
  )
})

describe('out and in again', () => {
  test('the whole demo shelf as CSV changes nothing', () => {
    const rows = read(writeCsv(demoFans), (id) => shelf.get(id))
    expect(new Set(rows.map((r) => r.state))).toEqual(new Set(['same']))
    expect(rows).toHaveLength(demoFans.length)
  })
  test('as JSON as well', () => {
    const rows = readJson(writeJson(demoFans), (id) => shelf.get(id))
    expect(typeof rows === 'string' ? rows : new Set(rows.map((r) => r.state))).toEqual(new Set(['same']))
  })
  test('any number comes back to the same fan', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-4, max: 0.5, noNaN: true }),
        fc.double({ min: 0.2, max: 4000, noNaN: true }),
        (flow, pressure) => {
          const fan = {
            ...demoFans[0]!,
            maxFlowM3s: flow,
            maxPressurePa: pressure,
            points: [
              { flowM3s: 0, pressurePa: pressure },
              { flowM3s: flow, pressurePa: 0 },
            ],
          }
          const [row] = read(writeCsv([fan]), () => fan)
          expect(row!.state).toBe('same')
        },
      ),
    )
  })
  test('a changed number is a change', () => {
    const fan = demoFans[3]!
    expect(sameFan(fan, { ...fan, ratedV: fan.ratedV + 0.001 })).toBe(false)
    expect(sameFan(fan, { ...fan, notes: 'x' })).toBe(false)
  })
  test.each([
    ['{', 'not JSON'],
    ['{"format":"other"}', 'says "format"'],
    ['[]', 'says "format"'],
  ])('%s is no shelf file', (bad, message) => {
    expect(readJson(bad, nobody)).toContain(message)
  })
  test('a broken fan in a good file is told with its place', () => {
    const text = writeJson([{ ...demoFans[0]!, ratedV: -3 }, demoFans[1]!])
    const rows = readJson(text, (id) => shelf.get(id)) as PreviewRow[]
    expect(rows.map((r) => r.state)).toEqual(['wrong', 'same'])
    expect(rows[0]!.issues[0]!.column).toBe('ratedV')
  })
  test('the same maker and model have the same id, whatever their letters', () => {
    expect(fanId('Testmoor', 'Whin 80 / 12 V')).toBe(fanId('testmoor', 'WHIN-80 12v'.replace('12v', '12 V')))
    expect(fanId('Ünter', '')).toBe('fan-u-nter')
    expect(readRow(['x'], [{ column: null, unit: null }], nobody).ok).toBe(false)
  })
})

test('a sheet of thousands of columns is refused at once', () => {
  const line = (cell: (i: number) => string) => Array.from({ length: 5000 }, (_, i) => cell(i)).join(';')
  const text = `${line((i) => `h${i}`)}\n${line(() => '1')}\n`
  expect(readTable(text)).toMatch(/^This table has 5000 columns: at most 300 are read/)
})
