import Papa from 'papaparse'
import { expect, test } from 'vitest'
import { demoJobs } from '../../demo/jobs'
import { runSchema } from '#core/document'
import { runsCsv, runsJson } from './runs-table'

const { runs, job } = demoJobs()[0]!

test('one row for each reading, repeats in one cell, a run without readings once', () => {
  const { data, meta } = Papa.parse<Record<string, string>>(
    runsCsv([...runs, { ...runs[0]!, id: 'bare', readings: [] }]),
    { header: true },
  )
  expect(meta.fields).toContain('reading_quantity')
  expect(data).toHaveLength(runs.flatMap((r) => r.readings).length + 1)
  expect(data[0]).toMatchObject({
    name: runs[0]!.name,
    reading_quantity: 'level',
    values: '49.2;49.6;48.9',
    unit: 'dB(A)',
    kind: 'baseline',
  })
  expect(data.at(-1)).toMatchObject({ run: 'bare', values: '', unit: '' })
})
test('the JSON form holds all and is read again by the schema', () => {
  const back = JSON.parse(runsJson(job.name, runs)) as { runs: unknown[] }
  expect(back.runs.map((r) => runSchema.parse(r))).toEqual(runs)
})
