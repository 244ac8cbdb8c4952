import Papa from 'papaparse'
import { z } from 'zod'
import { curveProblem, type CurvePoint } from '#core/control'

/**
 * Control curves as files: CSV of its points, JSON of all that a controller needs, and a C header that a microcontroller
 * compiles. Temperatures in degC, duties 0..1, seconds; dot decimal. Keys that are not known are kept.
 */

const share = z.number().min(0).max(1)
const perSecond = z.number().gt(0).max(100)
const fileSchema = z
  .looseObject({
    kind: z.literal('fan-curve', { error: 'It is no fan curve: its kind is not “fan-curve”.' }),
    version: z.literal(1, { error: 'Its version is not 1: this program does not know how to read it.' }),
    sensor: z.string().max(80).default(''),
    unit: z.literal('degC', { error: 'Its unit is not degC.' }),
    points: z.array(z.tuple([z.number(), z.number()])),
    hysteresisK: z.number().min(0, 'A hysteresis is not below 0.').max(50).default(0),
    filterTauS: z.number().min(0).max(3600).default(0),
    minDuty: share,
    startDuty: share,
    dutyCap: share.default(1),
    fanStop: z.boolean().default(false),
    kick: z.object({ duty: share, seconds: z.number().min(0).max(10) }).default({ duty: 1, seconds: 0 }),
    rampUpPerS: perSecond,
    rampDownPerS: perSecond,
    pwmHz: z.number().gt(0).max(1e6).nullable().default(null),
    onSensorFault: z.enum(['full', 'cap', 'off']).default('full'),
    tachAlarm: z
      .object({ fraction: share, holdS: z.number().min(0).max(600) })
      .nullable()
      .default(null),
  })
  .superRefine((c, context) => {
    const message = curveProblem(pointsOf(c.points))
    const refuse = (path: string, text: string) =>
      context.addIssue({ code: 'custom', path: [path], message: text })
    if (message) refuse('points', message)
    if (c.startDuty < c.minDuty) refuse('startDuty', 'What starts the fan is not below what keeps it turning.')
    if (c.dutyCap < c.minDuty) refuse('dutyCap', 'The cap is not below what keeps the fan turning.')
  })
export type CurveFile = z.infer<typeof fileSchema>

const pointsOf = (pairs: readonly (readonly [number, number])[]): CurvePoint[] =>
  pairs.map(([temperatureC, duty]) => ({ temperatureC, duty }))

const HEADINGS = ['temp_degC', 'duty'] as const
/** The points of a curve as CSV. */
export const curveCsv = (points: readonly CurvePoint[]): string =>
  `${Papa.unparse({ fields: [...HEADINGS], data: points.map((p) => [p.temperatureC, p.duty]) }, { newline: '\n' })}\n`

export type Read<T> = { ok: true; value: T } | { ok: false; message: string; line?: number }
/** Reads the points of a curve from CSV; the line is told where one is wrong. */
export function readCurveCsv(text: string): Read<CurvePoint[]> {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim(),
  })
  if (!HEADINGS.every((h) => meta.fields?.includes(h)))
    return { ok: false, message: `A curve has the headings ${HEADINGS.join(' and ')}.` }
  const points: CurvePoint[] = []
  for (const [i, row] of data.entries()) {
    const [temperatureC, duty] = HEADINGS.map((h) => (row[h]?.trim() ? Number(row[h]) : NaN))
    const line = i + 2
    if (!Number.isFinite(temperatureC) || !Number.isFinite(duty))
      return { ok: false, message: `Line ${line}: two plain numbers with a dot are wanted.`, line }
    points.push({ temperatureC: temperatureC!, duty: duty! })
    const problem = points.length > 1 ? curveProblem(points) : ''
    if (problem) return { ok: false, message: `Line ${line}: ${problem}`, line }
  }
  const problem = curveProblem(points)
  return problem ? { ok: false, message: problem } : { ok: true, value: points }
}

/** A curve with all that a controller needs as JSON; keys that came with it are written again. */
export const curveJson = (file: CurveFile): string => `${JSON.stringify(file, null, 2)}\n`
/** Reads such a file. */
export function readCurveJson(text: string): Read<CurveFile> {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return { ok: false, message: 'This is no JSON.' }
  }
  const read = fileSchema.safeParse(raw)
  if (read.success) return { ok: true, value: read.data }
  const [issue] = read.error.issues
  const at = issue!.path.join('.')
  return { ok: false, message: at ? `${at}: ${issue!.message}` : issue!.message }
}

/** A number as C reads it as a float. */
const float = (x: number) => `${Number.isInteger(x) ? x.toFixed(1) : String(x)}f`
/** Text that cannot end a comment or leave its line. */
const comment = (text: string) =>
  text
    .replaceAll(/[\r\n]+/g, ' ')
    .replaceAll('*/', '* /')
    .slice(0, 120)
/**
 * The curve as a C header: tables and constants only.
 * @param name what the curve is called, for its comment
 */
export function curveHeader(file: CurveFile, name: string): string {
  const constant = (key: string, value: string, words: string) => `#define FAN_${key} ${value} /* ${words} */`
  const list = (values: readonly number[]) => `{ ${values.map(float).join(', ')} }`
  const duties = { full: 1, cap: file.dutyCap, off: 0 } as const
  return [
    `/* Fan curve: ${comment(name)}. Temperatures in degC, duties 0 to 1, times in seconds. */`,
    `/* Sensor: ${comment(file.sensor)} */`,
    '#ifndef FAN_CURVE_H',
    '#define FAN_CURVE_H',
    '',
    constant(
      'POINTS',
      String(file.points.length),
      'points, temperatures rising; straight between, held outside',
    ),
    `static const float FAN_TEMP_C[FAN_POINTS] = ${list(file.points.map(([t]) => t))};`,
    `static const float FAN_DUTY[FAN_POINTS] = ${list(file.points.map(([, d]) => d))};`,
    '',
    constant('HYSTERESIS_K', float(file.hysteresisK), 'the curve is read at min(max(held, T), T + this)'),
    constant('FILTER_TAU_S', float(file.filterTauS), 'y += (1 - exp(-dt/tau)) * (x - y)'),
    constant('MIN_DUTY', float(file.minDuty), 'keeps it turning'),
    constant('START_DUTY', float(file.startDuty), 'starts it from rest'),
    constant('DUTY_CAP', float(file.dutyCap), 'never above, but for the kick'),
    constant('MAY_STOP', file.fanStop ? '1' : '0', 'stands still where less than the least is wanted'),
    constant('KICK_DUTY', float(file.kick.duty), 'on leaving 0'),
    constant('KICK_S', float(file.kick.seconds), 'so long'),
    constant('RAMP_UP_PER_S', float(file.rampUpPerS), 'fastest rise'),
    constant('RAMP_DOWN_PER_S', float(file.rampDownPerS), 'fastest fall'),
    constant('FAULT_DUTY', float(duties[file.onSensorFault]), 'while the sensor cannot be believed'),
    ...(file.pwmHz === null ? [] : [constant('PWM_HZ', float(file.pwmHz), 'on the PWM wire')]),
    ...(file.tachAlarm === null
      ? []
      : [
          constant('ALARM_FRACTION', float(file.tachAlarm.fraction), 'of the expected speed'),
          constant('ALARM_HOLD_S', float(file.tachAlarm.holdS), 'low for so long'),
        ]),
    '',
    '#endif',
    '',
  ].join('\n')
}

/** Reads a header that `curveHeader` wrote; what is no such header is refused by what it lacks. */
export function readCurveHeader(text: string): Read<CurveFile> {
  const constant = (key: string) => new RegExp(`#define FAN_${key} ([-+\\d.e]+)f?\\b`).exec(text)?.[1]
  const number = (key: string) => {
    const found = constant(key)
    return found === undefined ? undefined : Number(found)
  }
  const list = (name: string) =>
    (new RegExp(`${name}\\[FAN_POINTS\\] = \\{([^}]*)\\}`).exec(text)?.[1] ?? '')
      .split(',')
      .map((cell) => Number(cell.trim().replace(/f$/, '')))
  const temperatures = list('FAN_TEMP_C')
  const duties = list('FAN_DUTY')
  if (number('POINTS') === undefined || temperatures.length !== number('POINTS'))
    return { ok: false, message: 'This is no header of a fan curve, or its points are not whole.' }
  const fault = number('FAULT_DUTY')
  const cap = number('DUTY_CAP')
  const fraction = number('ALARM_FRACTION')
  return readCurveJson(
    JSON.stringify({
      kind: 'fan-curve',
      version: 1,
      sensor: /\/\* Sensor: (.*) \*\//.exec(text)?.[1] ?? '',
      unit: 'degC',
      points: temperatures.map((t, i) => [t, duties[i]]),
      hysteresisK: number('HYSTERESIS_K'),
      filterTauS: number('FILTER_TAU_S'),
      minDuty: number('MIN_DUTY'),
      startDuty: number('START_DUTY'),
      dutyCap: cap,
      fanStop: number('MAY_STOP') === 1,
      kick: { duty: number('KICK_DUTY'), seconds: number('KICK_S') },
      rampUpPerS: number('RAMP_UP_PER_S'),
      rampDownPerS: number('RAMP_DOWN_PER_S'),
      pwmHz: number('PWM_HZ') ?? null,
      onSensorFault: fault === 0 ? 'off' : fault === 1 || fault !== cap ? 'full' : 'cap',
      tachAlarm: fraction === undefined ? null : { fraction, holdS: number('ALARM_HOLD_S') },
    }),
  )
}
