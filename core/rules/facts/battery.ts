import { batterySource } from '#core/document'
import type { FactSources, SiFacts } from './sources'

const wattHours = (joule: number | null | undefined) =>
  joule === null || joule === undefined ? null : joule / 3600

function sunFacts({ plan, runtime, power }: FactSources): SiFacts {
  const { sun } = plan
  const source = batterySource(plan)
  if (!sun) return {}
  return {
    'batt.autonomyDays': runtime.autonomyDays,
    'need.autonomyDays': sun.wishedDays,
    'load.dailyWh': wattHours(runtime.dailyJ),
    'solar.dailyWh': wattHours(runtime.worst?.harvestJ),
    'solar.voc': sun.panelVoc,
    'solar.regulated': sun.controller !== 'none' || power.feedV !== source?.nominalV,
  }
}

/** The battery and its sun. */
export function batteryFacts(sources: FactSources): SiFacts {
  const { plan, runtime } = sources
  const { battery } = plan
  if (!battery) return sunFacts(sources)
  const lithium = battery.chemistry === 'li-ion' || battery.chemistry === 'lifepo4'
  return {
    'batt.runtime': runtime.runtimeS,
    'need.runtime': battery.wishedS ?? undefined,
    'batt.loadMa': runtime.bankLoadA,
    'batt.autoOffMa': battery.autoOffA,
    'batt.energyBasis': battery.energyBasis,
    'batt.chemistry': battery.chemistry,
    'batt.protected': battery.protectedPack,
    'batt.dod': battery.depth ?? undefined,
    'batt.loadA': runtime.loadA,
    'batt.maxA': battery.maxA,
    // a pack that never gets cold is not charged in the cold
    'batt.chargedBelowZero': lithium
      ? (battery.chargedCold ?? (battery.coldC !== null && battery.coldC > 0 ? false : null))
      : undefined,
    'batt.energy': wattHours(runtime.energyJ),
    'batt.airTravel': battery.airTravel ?? undefined,
    ...sunFacts(sources),
  }
}
