import { describe, expect, test } from 'vitest'
import {
  curveCsv,
  curveHeader,
  curveJson,
  readCurveCsv,
  readCurveHeader,
  readCurveJson,
  type CurveFile,
} from './curve-file'

// invented, in the form of the handbook (control 8)
const text = `{"kind":"fan-curve","version":1,"sensor":"heatsink","unit":"degC",
 "points":[[30,0.25],[50,0.60],[65,1.00]],
 "hysteresisK":3,"filterTauS":5,"minDuty":0.25,"startDuty":0.30,"dutyCap":1.0,"fanStop":false,
 "kick":{"duty":1.0,"seconds":0.5},"rampUpPerS":0.2,"rampDownPerS":0.05,
 "pwmHz":25000,"onSensorFault":"full","tachAlarm":{"fraction":0.7,"holdS":5},"note":"kept"}`
const read = (t: string) => readCurveJson(t)
function good(): CurveFile {
  const r = read(text)
  if (!r.ok) throw new Error(r.message)
  return r.value
}
const with_ = (change: object) => read(JSON.stringify({ ...(JSON.parse(text) as object), ...change }))

describe('JSON', () => {
  test('out and in again changes nothing, keys that are not known included', () => {
    expect(read(curveJson(good()))).toEqual({ ok: true, value: good() })
    expect(good()).toMatchObject({
      note: 'kept',
      points: [
        [30, 0.25],
        [50, 0.6],
        [65, 1],
      ],
    })
  })
  test.each([
    [
      'falls',
      {
        points: [
          [30, 0.5],
          [50, 0.4],
        ],
      },
      'points: The duty never falls',
    ],
    ['start below least', { startDuty: 0.2 }, 'startDuty:'],
    ['cap below least', { dutyCap: 0.2 }, 'dutyCap:'],
    ['hysteresis below 0', { hysteresisK: -1 }, 'hysteresisK: A hysteresis'],
    ['another kind', { kind: 'mixer' }, 'no fan curve'],
    ['a later version', { version: 2 }, 'version is not 1'],
    ['another unit', { unit: 'degF' }, 'unit is not degC'],
  ])('%s is refused with its place', (_, change, message) => {
    const r = with_(change)
    expect(r.ok ? '' : r.message).toContain(message)
  })
  test('no JSON is said', () => expect(read('30,0.25')).toEqual({ ok: false, message: 'This is no JSON.' }))
})

describe('CSV', () => {
  const points = good().points.map(([temperatureC, duty]) => ({ temperatureC, duty }))
  test('has the handbook’s heading, and comes back as it was', () => {
    expect(curveCsv(points)).toBe('temp_degC,duty\n30,0.25\n50,0.6\n65,1\n')
    expect(readCurveCsv(curveCsv(points))).toEqual({ ok: true, value: points })
    expect(readCurveCsv(`\uFEFF${curveCsv(points)}`).ok).toBe(true)
  })
  test('a wrong line is named', () => {
    expect(readCurveCsv('temp_degC,duty\n30,0.25\n50,x\n')).toMatchObject({ ok: false, line: 3 })
    expect(readCurveCsv('temp_degC,duty\n30,0.25\n50,0.2\n')).toMatchObject({ ok: false, line: 3 })
    expect(readCurveCsv('temp,pwm\n30,0.25\n')).toMatchObject({ ok: false })
    expect(readCurveCsv('temp_degC,duty\n30,0.25\n')).toMatchObject({ ok: false })
  })
})

describe('a C header', () => {
  test('has the tables and constants, and nothing that ends its comment', () => {
    const header = curveHeader(good(), 'Amplifier */ int x;\n#define BAD')
    expect(header).toContain('static const float FAN_TEMP_C[FAN_POINTS] = { 30.0f, 50.0f, 65.0f };')
    expect(header).toContain('static const float FAN_DUTY[FAN_POINTS] = { 0.25f, 0.6f, 1.0f };')
    expect(header).toContain('#define FAN_PWM_HZ 25000.0f')
    expect(header).not.toMatch(/^#define BAD/m)
    expect(header.match(/\*\//g)).toHaveLength(header.match(/\/\*/g)!.length)
  })
  test('what is not told is left out', () => {
    const header = curveHeader({ ...good(), pwmHz: null, tachAlarm: null }, 'x')
    expect(header).not.toContain('PWM_HZ')
    expect(header).not.toContain('ALARM')
  })
})

test('the C header is read back unchanged, with an alarm and without', () => {
  for (const more of [{}, { tachAlarm: null, pwmHz: null, onSensorFault: 'off' as const, sensor: '' }]) {
    const written = readCurveJson(
      JSON.stringify({
        kind: 'fan-curve',
        version: 1,
        sensor: 'heat sink, fin 3',
        unit: 'degC',
        points: [
          [30, 0.25],
          [42.5, 0.61],
          [65, 1],
        ],
        hysteresisK: 2.5,
        filterTauS: 5,
        minDuty: 0.25,
        startDuty: 0.3,
        dutyCap: 0.9,
        fanStop: true,
        kick: { duty: 1, seconds: 0.5 },
        rampUpPerS: 0.2,
        rampDownPerS: 0.05,
        pwmHz: 25000,
        onSensorFault: 'cap',
        tachAlarm: { fraction: 0.7, holdS: 5 },
        ...more,
      }),
    )
    if (!written.ok) throw new Error(written.message)
    expect(readCurveHeader(curveHeader(written.value, 'Box */ of'))).toEqual(written)
  }
  expect(readCurveHeader('#define LED 13').ok).toBe(false)
})
