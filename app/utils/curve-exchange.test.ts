import { expect, test } from 'vitest'
import { newControlOf } from '#core/document'
import { curveJson, readCurveJson } from '#shared/exchange/curve-file'
import { fromCurveFile, toCurveFile } from './curve-exchange'

const control = {
  ...newControlOf('c', 'curve', ['main']),
  points: [
    { temperatureC: 35, duty: 0.3 },
    { temperatureC: 52.5, duty: 1 },
  ],
  minDuty: 0.25,
  startDuty: 0.3,
  capDuty: 0.9,
  kickS: 0.5,
  hysteresisK: 4,
  onFault: 'cap' as const,
  tachAlarm: true,
  alarmHoldS: 8,
}
test('a control written as a file and read again is the same', () => {
  const file = toCurveFile(control, 'heatsink', { min: 0.2, start: 0.25 }, 25_000)
  const read = readCurveJson(curveJson(file))
  expect(read.ok).toBe(true)
  if (!read.ok) return
  const back = fromCurveFile(read.value)
  for (const key of [
    'points',
    'minDuty',
    'startDuty',
    'capDuty',
    'kickS',
    'hysteresisK',
    'onFault',
    'tachAlarm',
    'alarmHoldS',
  ] as const)
    expect(back[key], key).toEqual(control[key])
})
test('what nobody said is written as it is stepped', () => {
  const bare = { ...newControlOf('c', 'curve', ['main']), points: control.points }
  const file = toCurveFile(bare, '', { min: 0.3, start: 0.35 }, null)
  expect(file).toMatchObject({
    minDuty: 0.3,
    startDuty: 0.35,
    dutyCap: 1,
    onSensorFault: 'full',
    tachAlarm: null,
  })
})
