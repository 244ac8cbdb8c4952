import { describe, expect, test } from 'vitest'
import { preferenceSets } from '#core/units'
import { parseReadingLine, type LineContext, type Spoken } from './reading-line'

const parts = (text: string, context: LineContext = {}): Spoken[] => {
  const read = parseReadingLine(text, context)
  if (!read.ok) throw new Error(read.message)
  return read.parts
}
const refused = (text: string, context: LineContext = {}) => {
  const read = parseReadingLine(text, context)
  return read.ok ? '' : read.message
}
const reading = { kind: 'reading', place: '', stage: '', source: '' }

describe('a reading as it is said', () => {
  test('values with their unit, where, in which stage', () => {
    expect(parts('31.8 31.3 dB(A) chair, working')).toEqual([
      { ...reading, quantity: 'level', values: [31.8, 31.3], place: 'chair', stage: 'working' },
    ])
  })
  test.each([
    ['fan off 24.1 C', 'temperature', [24.1], '', 'fan off'],
    ['box 35 °C', 'temperature', [35], 'box', ''],
    ['31,8, 31,3 dB at chair, Idle', 'level', [31.8, 31.3], 'chair', 'idle'],
    ['0.089A fan', 'current', [0.089], 'fan', ''],
    ['1240 rpm', 'rotation', [1240], '', ''],
    ['outlet grille 49.8 m3/h', 'flow', [49.8 / 3600], 'outlet grille', ''],
    ['probe 2 40.5 °C, after lunch', 'temperature', [40.5], 'probe 2', 'after lunch'],
    ['3.2 mmH2O before the fan', 'pressure', [3.2 * 9.80665], 'before the fan', ''],
    ['-0.5 Pa', 'pressure', [-0.5], '', ''],
    ['2 h', 'duration', [7200], '', ''],
  ] as const)('%s', (text, quantity, values, place, stage) => {
    const [part] = parts(text)
    expect(part).toMatchObject({ kind: 'reading', quantity, place, stage })
    for (const [i, v] of values.entries()) expect((part as { values: number[] }).values[i]).toBeCloseTo(v, 9)
  })
  test('one source alone, as it was spelt before', () => {
    expect(parts('37.5 dB(A), only rear fan', { sources: ['Rear fan'] })[0]).toMatchObject({
      source: 'Rear fan',
    })
    expect(parts('29.4 dB(A) transformer alone')[0]).toMatchObject({ source: 'transformer' })
  })
  test('several in a line; without a unit it is of the kind of the one before', () => {
    const list = parts('31.8 dB(A) chair; 24 C inside; 24.4 outlet', { placeOf: () => 'usual' })
    expect(list.map((p) => (p as { quantity: string }).quantity)).toEqual([
      'level',
      'temperature',
      'temperature',
    ])
    expect(parts('1250', { last: 'rotation', placeOf: (q) => `at the ${q}` })).toEqual([
      { ...reading, quantity: 'rotation', values: [1250], place: 'at the rotation' },
    ])
  })
  test('conditions of the run are no readings', () => {
    expect(parts('ambient 21.5 C; background 26 dB(A); fan off 26 dB; soaked 40 min')).toEqual([
      { kind: 'condition', key: 'ambientC', value: 21.5 },
      { kind: 'condition', key: 'backgroundDbA', value: 26 },
      { kind: 'condition', key: 'backgroundDbA', value: 26 },
      { kind: 'condition', key: 'soakS', value: 2400 },
    ])
  })
  test('a number without a unit is in the person’s own', () => {
    const [part] = parts('77', { last: 'temperature', units: preferenceSets.imperial })
    expect((part as { values: number[] }).values[0]).toBeCloseTo(25, 9)
  })
  test('words that look like a unit or a source stay words', () => {
    expect(parts('31.8 in working', { last: 'level' })[0]).toMatchObject({
      quantity: 'level',
      stage: 'working',
    })
    expect(parts('38 C without lid')[0]).toMatchObject({ place: 'without lid', source: '' })
    expect(parts('0.3 m before the nozzle')[0]).toMatchObject({ quantity: 'distance' })
  })
  test('what cannot be read says what is wanted', () => {
    expect(refused('chair')).toContain('no value')
    expect(refused('')).toContain('Write a value')
    expect(refused('31.8 chair')).toContain('no unit')
    expect(refused('300 dB(A) chair')).toContain('Sound level')
    expect(refused('1,200 rpm')).toContain('may mean')
  })
})
