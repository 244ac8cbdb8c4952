import { describe, expect, test } from 'vitest'
import {
  headingChannel,
  logCsv,
  logJson,
  LogReader,
  partEnd,
  rowsBegin,
  sniffLog,
  type LogTable,
  type ReadLog,
} from './log-file'

const table = (text: string) => sniffLog(text) as LogTable
function read(text: string, change: (t: LogTable) => void = () => {}, part = 1e9): ReadLog {
  const t = table(text)
  change(t)
  const reader = new LogReader(t)
  for (let at = rowsBegin(text, t.skip); at < text.length;) {
    const end = partEnd(text, at, part)
    reader.push(text.slice(at, end))
    at = end
  }
  return reader.finish()
}
const values = (r: ReadLog, name: string) => [...r.log.channels.find((c) => c.name === name)!.values]

describe('headings', () => {
  test.each<[string, string, string, number]>([
    ['sink_degC', 'sink', 'temperature', 1],
    ['Sink (°C)', 'Sink', 'temperature', 1],
    ['Supply [mV]', 'Supply', 'voltage', 1e-3],
    ['Temp 1', 'Temp 1', 'temperature', 1],
    ['Level (dB(A))', 'Level', 'level', 1],
    ['duct [m³/h]', 'duct', 'flow', 1 / 3600],
    ['Tach', 'Tach', 'rotation', 1],
    ['door', 'door', 'number', 1],
  ])('%s', (heading, name, quantity, factor) =>
    expect(headingChannel(heading)).toMatchObject({ name, quantity, factor }),
  )
})

describe('what a file is', () => {
  test('our own form', () => {
    expect(table('time_s,sink_degC,fan_rpm\n0,20,1500\n1,21,1501\n')).toMatchObject({
      delimiter: ',',
      decimalComma: false,
      skip: 1,
      time: 0,
      format: 's',
    })
  })
  test('a messy one: words above, semicolons, decimal commas, day first, a blank line', () => {
    const text =
      'Logger 7\r\nserial;0042\r\n\r\nDatum;Temp (°C);Volt [V];note\r\n13.05.2026 ' +
      '10:00:00;21,5;12,1;start\r\n13.05.2026 10:00:10;21,9;12,0;\r\n13.05.2026 10:00:20;22,4;;\r\n'
    const t = table(text)
    expect(t).toMatchObject({ delimiter: ';', decimalComma: true, skip: 4, time: 0, format: 'dmy' })
    expect(t.columns.map((c) => c.channel?.quantity ?? null)).toEqual([null, 'temperature', 'voltage', null])
    const r = read(text)
    expect([...r.log.times]).toEqual([0, 10, 20])
    expect(values(r, 'Temp')).toEqual([21.5, 21.9, 22.4])
    expect(values(r, 'Volt')).toEqual([12.1, 12, NaN])
    expect(r).toMatchObject({ startedAt: '2026-05-13T10:00:00.000Z', tally: { rows: 3, broken: 0, gaps: 1 } })
  })
  test.each<[string, string, object]>([
    ['tabs and no heading', '0\t20.5\n10\t21.5\n', { delimiter: '\t', time: null, format: 'rows' }],
    ['milliseconds', 'ms,t_degC\n0,20\n500,21\n', { format: 'ms' }],
    ['seconds since 1970', 'timestamp,a\n1780000000,20\n1780000010,21\n', { format: 'epoch-s' }],
    ['milliseconds since 1970', 'timestamp,a\n1780000000000,20\n1780000010000,21\n', { format: 'epoch-ms' }],
    ['ISO dates', 'time,a\n2026-05-13T10:00:00Z,20\n2026-05-13T10:00:01Z,21\n', { format: 'ymd' }],
    ['month first', 'time,a\n5/13/2026 10:00,20\n5/13/2026 10:01,21\n', { format: 'mdy' }],
    [
      'date and clock apart',
      'Date,Time,a\n2026-05-13,10:00:00,20\n2026-05-13,10:00:01,21\n',
      { format: 'ymd', time: 1, date: 0 },
    ],
    ['a clock', 'Time;a\n10:00:00;20\n10:00:01;21\n', { format: 'clock', time: 0 }],
  ])('%s', (_, text, expected) => expect(table(text)).toMatchObject(expected))
  test('nothing to be made of it', () => {
    expect(sniffLog('')).toBe('The file is empty.')
    expect(sniffLog('dear diary\ntoday it rained\n')).toContain('No rows of numbers')
  })
  test('two columns of one name are told apart', () => {
    expect(table('time_s,t_degC,t_degC\n0,1,2\n1,1,2\n').columns.map((c) => c.channel?.name ?? '')).toEqual([
      '',
      't',
      't 2',
    ])
  })
})

describe('what is wrong in a file', () => {
  const rows = (lines: string[]) => read(`time_s,t_degC,n_rpm\n${lines.join('\n')}\n`)
  test('torn rows are counted and shown with their line, empty cells are gaps', () => {
    const r = rows(['0,20,1500', '1,2', '2,x#!,1500', 'oops,22,1500', '4,,1500', '5,nan,'])
    expect(r.tally).toMatchObject({ rows: 3, broken: 3, gaps: 3 })
    expect(r.tally.brokenSample.map((b) => b.line)).toEqual([3, 4, 5])
  })
  test('a clock that jumps back goes on; equal times and whole repeats are counted', () => {
    const r = rows(['100,20,1', '101,20,2', '50,20,3', '51,20,4', '51,20,5', '51,20,5'])
    expect([...r.log.times]).toEqual([0, 1, 1, 2, 2])
    expect(r.tally).toMatchObject({ clockJumps: 1, sameTime: 1, repeated: 1 })
  })
  test('midnight is no jump', () => {
    const r = read('Time,a\n23:59:59,1\n00:00:01,2\n')
    expect([...r.log.times]).toEqual([0, 2])
    expect(r.tally.clockJumps).toBe(0)
  })
  test('sentinels and what cannot be are gaps; 85 is one only at the start', () => {
    const r = rows(['0,85,1500', '1,85,70000', '2,-127,1500'])
    expect(values(r, 't')).toEqual([NaN, 85, NaN])
    expect(values(r, 'n')).toEqual([1500, NaN, 1500])
  })
})

test('read in parts it is the same as at once', () => {
  const text = `time_s,t_degC\n${Array.from({ length: 500 }, (_, i) => `${i},${20 + i / 100}`).join('\n')}\n`
  expect(read(text, undefined, 100).log).toEqual(read(text).log)
  expect(read(text).log.times).toHaveLength(500)
})
test('without times, rows stand at even steps; a column may be left out', () => {
  const r = read('a_degC,b_degC\n20,30\n21,31\n', (t) => {
    t.step = 5
    t.columns[1]!.channel = null
  })
  expect([...r.log.times]).toEqual([0, 5])
  expect(r.log.channels.map((c) => c.name)).toEqual(['a'])
})
test('what is written is read again, as CSV and as JSON', () => {
  const { log } = read('time_s,sink top_degC,duct_m3h\n0,20.25,40\n1.5,,41\n')
  const back = read([...logCsv(log, '2026-05-13T10:00:00.000Z')].join(''))
  expect(back.log.channels.map((c) => [c.name, c.quantity])).toEqual([
    ['sink top', 'temperature'],
    ['duct', 'flow'],
  ])
  expect([...back.log.times]).toEqual([0, 1.5])
  expect(values(back, 'sink top')).toEqual([20.25, NaN])
  expect(values(back, 'duct')[1]!).toBeCloseTo(41 / 3600, 10)
  const json = JSON.parse([...logJson(log, 'A', '2026-05-13T10:00:00.000Z')].join('')) as {
    rows: unknown[]
    channels: unknown[]
  }
  expect(json.rows).toEqual([
    [0, 20.25, expect.closeTo(40 / 3600, 9)],
    [1.5, null, expect.closeTo(41 / 3600, 9)],
  ])
})

test('a channel’s name tears no column and is no formula, and comes back', () => {
  const names = ['=HYPERLINK("x")', 'top, left', 'a "b"', '＝1+1', 'two\nlines']
  const times = Float64Array.of(0, 1)
  const channels = names.map((name) => ({
    name,
    quantity: 'temperature' as const,
    values: Float64Array.of(20, 21),
  }))
  const text = [...logCsv({ times, channels }, '2026-05-13T10:00:00.000Z')].join('')
  const head = text.split('\n')[1]!
  expect(head).toContain(`"'=HYPERLINK(""x"")_degC"`)
  expect(head).toContain("'＝1+1_degC")
  const back = read(text)
  expect(back.log.channels.map((c) => c.name)).toEqual([...names.slice(0, 4), 'two lines'])
  expect([...back.log.times]).toEqual([0, 1])
})

test('a table of thousands of columns is refused at once', () => {
  const line = (cell: (i: number) => string) => Array.from({ length: 5000 }, (_, i) => cell(i)).join(',')
  const text = `${line((i) => `c${i} (V)`)}\n${line((i) => String(i))}\n${line((i) => String(i + 1))}\n`
  expect(sniffLog(text)).toMatch(/^This table has 5000 columns: at most 200 are read/)
})
