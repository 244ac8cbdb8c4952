import { windowOf } from '#core/supply'
import type { FactSources, SiFacts } from './sources'

const wattHours = (joule: number | null | undefined) =>
  joule === null || joule === undefined ? null : joule / 3600

/** The battery and its sun. */
export function batteryFacts({ plan, runtime, power }: FactSources): SiFacts {
  const { battery, sun, source } = plan
  const packHigh = source?.kind === 'pack' ? { 'batt.vFull': windowOf(plan)?.highV } : {}
  if (!battery) return packHigh
  return {
    ...packHigh,
    'batt.runtime': runtime.runtimeS,
    'need.runtime': battery.wishedS,
    'batt.loadMa': runtime.bankLoadA,
    'batt.autoOffMa': battery.autoOffA,
    'batt.energyBasis': battery.energyBasis,
    'batt.chemistry': battery.chemistry,
    'batt.protected': battery.protectedPack,
    'batt.dod': battery.depth,
    'batt.loadA': runtime.loadA,
    'batt.maxA': battery.maxA,
    'batt.chargedBelowZero': battery.chargedCold,
    'batt.energy': wattHours(runtime.energyJ),
    'batt.airTravel': battery.airTravel,
    'batt.autonomyDays': sun ? runtime.autonomyDays : null,
    'need.autonomyDays': sun?.wishedDays,
    'load.dailyWh': sun ? wattHours(runtime.dailyJ) : null,
    'solar.dailyWh': wattHours(runtime.worst?.harvestJ),
    'solar.voc': sun?.panelVoc,
    'solar.regulated': sun ? sun.controller !== 'none' || power.feedV !== source?.nominalV : null,
  }
}
