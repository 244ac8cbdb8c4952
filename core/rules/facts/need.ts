import { dewPoint, humidityRatio } from '#core/air'
import { clearOutTime } from '#core/need'
import { passiveFigure, CLEAR_SHARE, evaporationOf, MIXING, speedReached } from '#core/requirement'
import type { Job } from '#core/document'
import type { FactSources, SiFacts } from './sources'

const M3_TO_L = 1000

/** Jobs whose need comes from a heat: the rules of heat speak of them and not of those that change air. */
const isHeatJob = ({ goal }: Job) => goal === 'cool' || goal === 'part'

/** What a job of heat asks for. */
function heatFacts({ plan: { job }, requirement: { insideMaxC } }: FactSources): SiFacts {
  if (!isHeatJob(job)) return {}
  const target = job.goal === 'cool' ? insideMaxC : job.partMaxC
  return {
    'need.targetTemp': target,
    'need.ambientMax': job.ambientMaxC,
    'need.activeCooling': job.activeCooling,
    'need.activeCoolingTold': job.activeCooling !== null,
    'need.heatBasis': job.heatW === null ? null : job.heatBasis,
    'air.hotPartInPath': job.hotPartInPath,
  }
}

/** What a job that carries fumes off, or clears a space, asks for and gets. */
function clearingFacts({ plan: { job }, requirement, operation: { delivered } }: FactSources): SiFacts {
  const { flow } = delivered
  const captures = job.goal === 'fume' && job.fumeWay !== 'enclosure'
  const clears = (job.goal === 'fume' || job.goal === 'ventilate') && job.clearS !== null
  return {
    ...(captures
      ? {
          'need.captureSpeed': job.captureSpeedMs,
          'air.captureSpeed': requirement.missing ? null : speedReached(job, flow),
        }
      : {}),
    ...(clears
      ? {
          'need.clearMin': job.clearS,
          'air.clearMin':
            job.volumeM3 !== null && flow
              ? clearOutTime(job.volumeM3, flow, job.mixing ?? MIXING, 1, job.clearShare ?? CLEAR_SHARE)
              : null,
        }
      : {}),
  }
}

function waterFacts({ plan: { job }, requirement, operation: { delivered } }: FactSources): SiFacts {
  if (job.goal !== 'chill') return {}
  const water = evaporationOf(job, delivered.flow ?? requirement.wanted)
  return {
    'water.evapPerDay': water?.perDay ?? null,
    'water.daysUnattended': job.daysUnattended,
    'water.reserve': job.reserveM3 === null ? null : job.reserveM3 * M3_TO_L,
  }
}

/** Moisture: only of jobs that speak of it. */
function moistureFacts({ plan: { job }, system }: FactSources): SiFacts {
  const dries = job.goal === 'ventilate' && (job.waterKgS !== null || job.insideRhMax !== null)
  if (!dries && job.surfaceC === null) return {}
  const { pressurePa } = system.air
  const inside = job.insideC ?? job.ambientC
  return {
    'air.surfaceTemp': job.surfaceC,
    'air.dewPoint':
      job.insideRhMax === null ? dewPoint(job.ambientC, job.humidity) : dewPoint(inside, job.insideRhMax),
    ...(dries
      ? {
          'air.outdoorHumidity': gramsPerKg(job.ambientC, job.humidity, pressurePa),
          'air.indoorHumidity':
            job.insideRhMax === null ? null : gramsPerKg(inside, job.insideRhMax, pressurePa),
        }
      : {}),
  }
}

/** What a box gets rid of without any fan, beside what is made in it. */
function passiveFacts({ plan: { job }, needEnv, requirement, system }: FactSources): SiFacts {
  if (job.goal !== 'cool' || job.heatW === null) return {}
  const { value } = passiveFigure(job, needEnv.air, system.path, requirement.insideMaxC)
  return value === null ? {} : { 'need.passive': value, 'need.heat': job.heatW }
}

/** What is asked for, and what the air does for it. */
export function needFacts(sources: FactSources): SiFacts {
  const { plan, requirement, operation } = sources
  const { job } = plan
  const { wanted } = requirement
  const { candidate, delivered } = operation
  return {
    'need.kind': job.goal,
    'need.goalStated': plan.targets.length > 0 || requirement.insideMaxC !== null || job.partMaxC !== null,
    'need.flow': wanted,
    'need.oversize': candidate && delivered.flow && wanted ? delivered.flow / wanted : undefined,
    'need.ambientTemp': job.ambientC,
    'need.mustNotFail': job.mustNotFail,
    ...passiveFacts(sources),
    ...heatFacts(sources),
    ...clearingFacts(sources),
    ...waterFacts(sources),
    ...moistureFacts(sources),
  }
}

function gramsPerKg(temperature: number, humidity: number, pressure: number): number | null {
  const w = humidityRatio(temperature, humidity, pressure)
  return w === null ? null : 1000 * w
}
