import { cumulativeStdNormalProbability } from 'simple-statistics'
import { ofLesserStage, ofNight, samePlace, wantedRange, type Target } from '#core/document'
import { Z95 } from '#core/numeric'
import { goalNeeds } from '#core/requirement'
import { gainsOf, riseFigure } from '#core/selection'
import { arrayCost, arrayMass, elementFlows, freeAreaOf, pressureSteps } from '#core/system'
import type { FactSources } from './facts/sources'

/** Every target against what the plan predicts, before anything is built. */

/** Places that are not inside. */
const ROOM = /room|intake|ambient|outside|outdoors/i
/** Places where the current of everything is read, not that of the fans. */
const SOURCE = /source|supply|rail|plug|adapter|battery|pack|all/i

/** What is predicted, and between what it lies 95 times in 100; null where the plan tells no range. */
export interface Predicted {
  value: number | null
  low: number | null
  high: number | null
}
const exactly = (value: number | null): Predicted => ({ value, low: value, high: value })
/** A number whose doubt the plan does not tell. */
const about = (value: number | null): Predicted => ({ value, low: null, high: null })
const scaled = ({ value, low, high }: Predicted, by: (x: number) => number): Predicted => {
  const of = (x: number | null) => (x === null ? null : by(x))
  return { value: of(value), low: of(low), high: of(high) }
}

/** A figure of the goal's own, by the last part of its key. */
const extraOf = ({ plan: { job }, needEnv, operation: { delivered } }: FactSources, ...keys: string[]) =>
  delivered.flow === null
    ? null
    : (goalNeeds[job.goal].extras(job, needEnv, delivered).find((f) => keys.includes(f.key)) ?? null)

/**
 * Temperature that the plan predicts: of the part where the job cools a part, else of the air inside. Whatever makes heat
 * in there is no cooler than its air.
 */
function temperatureOf(sources: FactSources, { place }: Target): Predicted | null {
  const { job } = sources.plan
  const { delivered } = sources.operation
  const balanced = job.goal === 'cool' || job.goal === 'part' || job.goal === 'quieten'
  // a box that is cooled actively, or is cooled by water, follows no heat balance of its air; nor does the room
  if (delivered.flow === null || !balanced || job.activeCooling || ROOM.test(place)) return null
  const told = extraOf(sources, job.goal === 'part' ? 'need.part' : 'need.inside')
  if (told) return told
  return scaled(riseFigure(sources.context, delivered), (x) => job.ambientC + x)
}

/** Pressure of the chamber that a target names, or of the only one, against the room; else what the fans work against. */
function pressureOf(sources: FactSources, { place }: Target): Predicted | null {
  const { plan, system, operation } = sources
  const { candidate } = operation
  if (!candidate || candidate.flow === null) return null
  const steps = pressureSteps(system.path, candidate.flow, gainsOf(plan, system, operation))
  const chambers = system.path.main.flatMap(({ element }, i) =>
    element.kind === 'chamber' ? [{ name: element.name, gauge: steps[i]!.gaugePa }] : [],
  )
  const named = chambers.find((c) => samePlace(c.name, place))
  if (named) return about(named.gauge)
  if (/inside|box|chamber|enclosure|against the room/i.test(place))
    return chambers.length === 1 ? about(chambers[0]!.gauge) : null
  return about(candidate.pressure)
}

/** Air speed: at the source of a fume, or in the element that the target names. */
function airSpeedOf(sources: FactSources, { place }: Target): Predicted | null {
  const { plan, system, operation } = sources
  const named = plan.path.find((e) => samePlace(e.name, place))
  const area = named && freeAreaOf(named)
  const flow = operation.candidate?.flow
  if (named && area && flow) {
    const through = elementFlows(system.path, flow).get(named.id)
    return through === undefined ? null : about(through / area)
  }
  return extraOf(sources, 'need.captureReached', 'need.jetSpeed')
}

function rotationOf({ system, operation: { candidate } }: FactSources): Predicted | null {
  const rated = system.fanArray?.model.fan.ratedRpm
  return candidate && rated ? about(rated * candidate.speed) : null
}

/**
 * Equivalent level of the usual night as its controls make it, dB(A), 0 where the fans stand; null where none was planned.
 */
export function nightLevel({ plan, day }: FactSources): number | null {
  return day && plan.controls.length ? Math.max(0, day.usual.nightDbA) : null
}

/**
 * What the plan predicts of a target's number; null where it predicts nothing of the kind, or not in the target's stage.
 */
export function predictTarget(sources: FactSources, target: Target): Predicted | null {
  const { plan, runtime, operation, system, power } = sources
  const { candidate, delivered } = operation
  if (ofNight(target)) return target.kind === 'level' ? about(nightLevel(sources)) : null
  if (ofLesserStage(target)) return null
  switch (target.kind) {
    case 'temperature':
      return temperatureOf(sources, target)
    case 'rise': {
      const warm = temperatureOf(sources, target)
      return warm && scaled(warm, (x) => x - plan.job.ambientC)
    }
    case 'level':
      if (sources.machineDbA !== null) return about(sources.machineDbA)
      return candidate?.level ?? null
    case 'flow':
      return { value: delivered.flow, low: delivered.low, high: delivered.high }
    case 'airchanges': {
      const { volumeM3 } = plan.job
      return volumeM3 === null
        ? null
        : scaled(
            { value: delivered.flow, low: delivered.low, high: delivered.high },
            (q) => (q * 3600) / volumeM3,
          )
    }
    case 'airspeed':
      return airSpeedOf(sources, target)
    case 'distance':
      return extraOf(sources, 'need.nozzleReach', 'need.jetReach')
    case 'pressure':
      return pressureOf(sources, target)
    case 'time':
      return extraOf(sources, 'need.clearTime', 'need.pullDown', 'need.roomClear')
    case 'evaporation':
      return extraOf(sources, `need.water.${plan.job.lid}`)
    case 'rotation':
      return rotationOf(sources)
    case 'runtime':
      return runtime.runtimeS === null ? null : exactly(runtime.runtimeS)
    case 'money':
      return system.fanArray && exactly(arrayCost(system.fanArray))
    case 'thickness':
      return candidate && exactly(candidate.thicknessM)
    case 'weight':
      return system.fanArray && exactly(arrayMass(system.fanArray))
    case 'current':
      return about(
        SOURCE.test(target.place) ? power.loadWorstA : (power.fanRunA ?? candidate?.currentA ?? null),
      )
    case 'power':
      return SOURCE.test(target.place) ? null : candidate && about(candidate.powerW)
    case 'humidity':
    case 'other':
      return null
  }
}

/** Share of the cases that lie below a limit, by the two halves of the range. */
function shareBelow(limit: number, value: number, low: number, high: number): number {
  const half = limit < value ? value - low : high - value
  return half > 0 ? cumulativeStdNormalProbability(((limit - value) / half) * Z95) : limit >= value ? 1 : 0
}

/**
 * Chance that a target is met, 0..1; null where the prediction has no range.
 * Reference: normal distribution of two halves whose 2.5 and 97.5 % are the ends of the range
 */
export function chanceOf(target: Target, { value, low, high }: Predicted): number | null {
  if (value === null || low === null || high === null) return null
  const { low: least, high: most } = wantedRange(target)
  const under = most === null ? 1 : shareBelow(most, value, low, high)
  // what is exactly the limit is at least it
  const short = least === null ? 0 : low === high && value >= least ? 0 : shareBelow(least, value, low, high)
  return Math.max(0, under - short)
}
