import { csvOf } from './csv'
import { readingValues, type Run } from '#core/document'

/** Runs as a table, one row for each reading, SI units named in the heads; repeats in one cell, semicolons between. */
const conditions = [
  'name',
  'kind',
  'changeNo',
  'takenAt',
  'who',
  'stage',
  'fanV',
  'voltageAt',
  'ambientC',
  'heatW',
  'soakS',
  'steady',
  'lid',
  'distanceM',
  'backgroundDbA',
  'instrument',
  'floorDbA',
  'notes',
] as const
const own = ['quantity', 'place', 'stage', 'source', 'method', 'points'] as const
const siUnit: Record<string, string> = {
  temperature: 'degC',
  level: 'dB(A)',
  flow: 'm3/s',
  pressure: 'Pa',
  rotation: 'rpm',
  voltage: 'V',
  current: 'A',
  power: 'W',
  duration: 's',
}
const cell = (value: unknown) => (value === null || value === undefined ? '' : String(value))

export const runsCsv = (runs: readonly Run[]): string =>
  csvOf(
    ['run', ...conditions, ...own.map((k) => `reading_${k}`), 'values', 'unit'],
    runs.flatMap((run) =>
      (run.readings.length ? run.readings : [null]).map((r) => [
        run.id,
        ...conditions.map((k) => cell(run[k])),
        ...own.map((k) => cell(r?.[k])),
        r ? readingValues(r).join(';') : '',
        r ? siUnit[r.quantity]! : '',
      ]),
    ),
  )
/** The same with everything, as a document that can be read again. */
export const runsJson = (job: string, runs: readonly Run[]): string =>
  JSON.stringify({ format: 'redpoll-runs', version: 1, job, runs }, null, 2)
