import type { ArrayDrive, FanArray, FanModel } from '#core/system'
import { arrayLimits, lowestDuty } from '#core/system'
import { START_MARGIN } from './candidate'
import type { RankOptions } from './options'

/**
 * Voltages to try: from 1.2 times the start voltage to rated, rounded to what a meter can be set to.
 * @param levels how many, 1 or more
 */
export function driveLevels(model: FanModel, levels: number): number[] {
  const { ratedV } = model.fan
  const low = Math.min(ratedV, Math.max(model.minV, START_MARGIN * model.startV))
  const volts: number[] = []
  for (let i = 0; i < levels; i++) {
    const exact = low + ((ratedV - low) * i) / Math.max(1, levels - 1)
    const next = Math.min(ratedV, Math.ceil(exact * 10 - 1e-6) / 10)
    if (next !== volts.at(-1)) volts.push(next)
  }
  return volts
}

/** The drives that a group may be tried at, rising in speed; empty where the mode is not for these fans. */
export function driveChoices(fanArray: FanArray, options: RankOptions): ArrayDrive[] {
  const models = fanArray.groups.map((g) => g.model)
  const { model } = fanArray
  if (options.fixedV !== null) return [{ volts: options.fixedV, duty: null }]
  const { ratedV } = model.fan
  const { maxV, startV } = arrayLimits(fanArray)
  if (options.drive === 'rated') return [{ volts: Math.min(...models.map((m) => m.fan.ratedV)), duty: null }]
  if (options.drive === 'rails')
    return options.rails.filter((v) => v <= maxV && v >= startV).map((volts) => ({ volts, duty: null }))
  if (options.drive === 'pwm') {
    if (models.some((m) => m.fan.wires !== 4)) return []
    const low = Math.max(...models.map((m) => Math.max(lowestDuty(m).duty, m.fan.pwmStartDuty ?? 0)))
    return Array.from({ length: options.levels }, (_, i) => ({
      volts: ratedV,
      duty: Math.round(100 * (low + ((1 - low) * i) / Math.max(1, options.levels - 1))) / 100,
    }))
  }
  const others = models.filter((m) => m !== model)
  const suits = (v: number) => v <= maxV && others.every((m) => v >= START_MARGIN * m.startV)
  return driveLevels(model, options.levels)
    .filter((v) => !others.length || suits(v))
    .map((volts) => ({ volts, duty: null }))
}
