import { dewPoint, humidityRatio } from '#core/air'
import { clearOutTime } from '#core/need'
import { CLEAR_SHARE, evaporationOf, MIXING, speedReached } from '#core/requirement'
import type { FactSources, SiFacts } from './sources'

const M3_TO_L = 1000

/** What is asked for, and what the air does for it. */
export function needFacts({ plan, requirement, operation, system }: FactSources): SiFacts {
  const { job } = plan
  const { wanted: needFlow, insideMaxC } = requirement
  const { candidate, delivered } = operation
  const { pressurePa } = system.air
  const usefulFlow = delivered.flow
  const hot = job.goal === 'cool' || job.goal === 'part'
  const clearing =
    (job.goal === 'fume' || job.goal === 'ventilate') && job.clearS !== null && job.volumeM3 !== null
  const water = job.goal === 'chill' ? evaporationOf(job, usefulFlow ?? needFlow) : null
  return {
    'need.kind': job.goal,
    'need.goalStated': plan.targets.length > 0 || insideMaxC !== null || job.partMaxC !== null,
    'need.flow': needFlow,
    'need.comparedWith': candidate?.flow ? 'operating-point' : null,
    'need.targetTemp': job.goal === 'cool' ? insideMaxC : job.goal === 'part' ? job.partMaxC : null,
    'need.ambientTemp': job.ambientC,
    'need.ambientMax': job.ambientMaxC,
    'need.activeCooling': hot ? (job.activeCooling ?? false) : job.activeCooling,
    'need.heatBasis': hot && job.heatW !== null ? job.heatBasis : null,
    'need.altitude': job.altitudeM,
    'need.densityCorrected': true,
    'need.mustNotFail': job.mustNotFail,
    'need.captureSpeed': job.goal === 'fume' && job.fumeWay !== 'enclosure' ? job.captureSpeedMs : null,
    'air.captureSpeed': job.goal === 'fume' ? speedReached(job, usefulFlow) : null,
    'need.clearMin': clearing ? job.clearS : null,
    'air.clearMin':
      clearing && usefulFlow
        ? clearOutTime(job.volumeM3!, usefulFlow, job.mixing ?? MIXING, 1, job.clearShare ?? CLEAR_SHARE)
        : null,
    'water.evapPerDay': water?.perDay,
    'water.daysUnattended': job.daysUnattended,
    'water.reserve': job.reserveM3 === null ? null : job.reserveM3 * M3_TO_L,
    'air.surfaceTemp': job.surfaceC,
    'air.dewPoint':
      job.insideRhMax === null
        ? dewPoint(job.ambientC, job.humidity)
        : dewPoint(job.insideC ?? job.ambientC, job.insideRhMax),
    'air.outdoorHumidity': job.insideRhMax === null ? null : gramsPerKg(job.ambientC, job.humidity, pressurePa),
    'air.indoorHumidity':
      job.insideRhMax === null ? null : gramsPerKg(job.insideC ?? job.ambientC, job.insideRhMax, pressurePa),
  }
}

function gramsPerKg(temperature: number, humidity: number, pressure: number): number | null {
  const w = humidityRatio(temperature, humidity, pressure)
  return w === null ? null : 1000 * w
}
