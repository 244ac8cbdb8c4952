import { USUAL, type usualLimits } from '#core/day'
import type { Control } from '#core/document'
import type { CurveFile } from '#shared/exchange/curve-file'

/** A control as the file of its curve, and back. */

/** @param limits what keeps turning and starts where the control does not say it, 0..1 */
export function toCurveFile(
  c: Control,
  sensor: string,
  limits: ReturnType<typeof usualLimits>,
  pwmHz: number | null,
): CurveFile {
  const minDuty = c.minDuty ?? limits.min
  return {
    kind: 'fan-curve',
    version: 1,
    sensor,
    unit: 'degC',
    points: c.points.map((p): [number, number] => [p.temperatureC, p.duty]),
    hysteresisK: c.hysteresisK ?? USUAL.hysteresisK,
    filterTauS: c.filterTauS ?? USUAL.filterTauS,
    minDuty,
    startDuty: Math.max(minDuty, c.startDuty ?? limits.start),
    dutyCap: c.capDuty ?? 1,
    fanStop: c.fanStop ?? false,
    kick: { duty: c.kickDuty ?? 1, seconds: c.kickS ?? 0 },
    rampUpPerS: c.rampUpPerS ?? USUAL.rampUpPerS,
    rampDownPerS: c.rampDownPerS ?? USUAL.rampDownPerS,
    pwmHz,
    onSensorFault: c.onFault === 'cap' || c.onFault === 'off' ? c.onFault : 'full',
    tachAlarm: c.tachAlarm ? { fraction: c.alarmShare ?? 0.7, holdS: c.alarmHoldS ?? 5 } : null,
  }
}

/** What a file says, as it goes into a control. */
export const fromCurveFile = (file: CurveFile): Partial<Control> => ({
  points: file.points.map(([temperatureC, duty]) => ({ temperatureC, duty })),
  hysteresisK: file.hysteresisK,
  filterTauS: file.filterTauS,
  minDuty: file.minDuty,
  startDuty: file.startDuty,
  capDuty: file.dutyCap,
  fanStop: file.fanStop,
  kickDuty: file.kick.duty,
  kickS: file.kick.seconds,
  rampUpPerS: file.rampUpPerS,
  rampDownPerS: file.rampDownPerS,
  pwmHz: file.pwmHz,
  onFault: file.onSensorFault,
  tachAlarm: file.tachAlarm !== null,
  ...(file.tachAlarm ? { alarmShare: file.tachAlarm.fraction, alarmHoldS: file.tachAlarm.holdS } : {}),
})
