import { dewPoint, humidityRatio } from '#core/air'
import {
  airChangesFlow,
  airflowForClearOut,
  airflowForExcess,
  airflowForMoisture,
  clearOutTime,
  moistureRemoval,
  steadyExcess,
  type MoistureCase,
} from '#core/need'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { largest, type GoalNeed, type NeedEnv } from './model'

/** Mixing factor of a usual room and what is left when a space counts as clear. Common practice, no source. */
export const MIXING = 3
export const CLEAR_SHARE = 0.05
/** CO2 outdoors where nobody measured it, volume ratio. From memory: about 420 ppm. */
export const CO2_OUTDOORS = 420e-6

const moistureCase = (job: Job, { air }: NeedEnv): MoistureCase | null =>
  job.insideRhMax === null
    ? null
    : {
        insideC: job.insideC ?? job.ambientC,
        insideRh: job.insideRhMax,
        outsideC: job.ambientC,
        outsideRh: job.humidity,
        pressurePa: air.pressurePa,
      }

/** Every way to ask for fresh air, each with its flow; those without inputs are null. */
function asks(job: Job, env: NeedEnv) {
  const state = moistureCase(job, env)
  return {
    changes: job.volumeM3 && job.airChangesPerH ? airChangesFlow(job.volumeM3, job.airChangesPerH) : null,
    clearOut:
      job.volumeM3 && job.clearS
        ? airflowForClearOut(job.volumeM3, job.clearS, job.mixing ?? MIXING, job.clearShare ?? CLEAR_SHARE)
        : null,
    moisture: state && job.waterKgS ? airflowForMoisture(job.waterKgS, state) : null,
    co2:
      job.co2M3s && job.co2Max ? airflowForExcess(job.co2M3s, job.co2Max, job.co2Fresh ?? CO2_OUTDOORS) : null,
  }
}
const askNames = { changes: 'air changes', clearOut: 'clear-out time', moisture: 'moisture', co2: 'CO₂' }
const formulas = {
  changes: 'Q = n · V',
  clearOut: 'Q = V·K/t · ln(1/share)',
  moisture: 'Q = ṁ_w · vol / (wᵢ − wₐ)',
  co2: 'Q = G / (Cᵢ − Cₐ)',
}
const sources = {
  changes: 'definition of the air change rate',
  clearOut: 'well-mixed dilution with a mixing factor',
  moisture: 'mass balance of water',
  co2: 'mass balance of the gas',
}
type Ask = keyof ReturnType<typeof asks>

function rulingAsk(job: Job, env: NeedEnv): Ask {
  const all = asks(job, env)
  const flow = largest(Object.values(all))
  return (Object.keys(all) as Ask[]).find((k) => all[k] !== null && all[k] === flow) ?? 'changes'
}

const clearInputs = (job: Job) => [
  input('V', 'free air volume', job.volumeM3, 'volume'),
  input('K', 'mixing factor (1 perfect)', job.mixing ?? MIXING, 'number'),
  input('share', 'left of the first level', job.clearShare ?? CLEAR_SHARE, 'ratio'),
]
const inputsOf = (ask: Ask, job: Job, env: NeedEnv) => {
  const air = env.air.pressurePa
  if (ask === 'clearOut') return [...clearInputs(job), input('t', 'wanted', job.clearS, 'duration')]
  if (ask === 'moisture') {
    return [
      input('ṁ_w', 'water released', job.waterKgS, 'waterRate'),
      input(
        'wᵢ',
        'humidity ratio inside, g/kg',
        grams(humidityRatio(job.insideC ?? job.ambientC, job.insideRhMax ?? 0, air)),
        'number',
      ),
      input(
        'wₐ',
        'humidity ratio of the fresh air, g/kg',
        grams(humidityRatio(job.ambientC, job.humidity, air)),
        'number',
      ),
    ]
  }
  if (ask === 'co2')
    return [
      input('G', 'CO₂ released', job.co2M3s, 'gasFlow'),
      input('Cᵢ', 'inside at most', job.co2Max, 'concentration'),
      input('Cₐ', 'fresh air', job.co2Fresh ?? CO2_OUTDOORS, 'concentration'),
    ]
  return [
    input('n', 'air changes per hour', job.airChangesPerH, 'perHour'),
    input('V', 'free air volume', job.volumeM3, 'volume'),
  ]
}
const grams = (w: number | null) => (w === null ? null : w * 1000)

/** Time to clear a space at a flow, with its working. */
export function clearOutFigure(
  job: Job,
  flow: number | null,
  label: string,
  low: number | null = null,
  high: number | null = null,
): Figure {
  const at = (q: number | null) =>
    q && job.volumeM3
      ? clearOutTime(job.volumeM3, q, job.mixing ?? MIXING, 1, job.clearShare ?? CLEAR_SHARE)
      : null
  return figure(
    'need.clearTime',
    label,
    'duration',
    at(flow),
    't = V·K/Q · ln(1/share)',
    'well-mixed dilution with a mixing factor; the last of a smell takes longer',
    {
      basis: 'estimated',
      low: at(high),
      high: at(low),
      inputs: [...clearInputs(job), input('Q', 'fresh air', flow, 'flow')],
    },
  )
}

/** Ventilate a space: the strongest of what is asked rules. */
export const ventilate: GoalNeed = {
  uncertainties: ['volumeM3', 'airChangesPerH', 'mixing', 'waterKgS', 'co2M3s'],
  missing: (job, env) => {
    if (largest(Object.values(asks(job, env))) !== null) return null
    if (job.co2M3s && job.co2Max !== null) return 'a CO₂ limit above the fresh air’s'
    if (job.waterKgS && job.insideRhMax !== null) return 'fresh air that is drier than inside'
    return job.volumeM3 === null ? 'the volume' : 'the air changes, or another wish'
  },
  flow: (job, env) => largest(Object.values(asks(job, env))),
  working: (job, env) => {
    const ask = rulingAsk(job, env)
    const more = Object.values(asks(job, env)).filter((x) => x !== null).length > 1
    return {
      label: 'Airflow needed',
      formula: formulas[ask],
      source: sources[ask],
      basis: 'computed',
      note: more ? `The ${askNames[ask]} rules; the other wishes need less.` : '',
      inputs: inputsOf(ask, job, env),
    }
  },
  extras: (job, env, { flow, low, high }) => {
    const all = asks(job, env)
    const figures: Figure[] = []
    const several = Object.values(all).filter((x) => x !== null).length > 1
    if (several)
      for (const ask of Object.keys(all) as Ask[])
        if (all[ask] !== null)
          figures.push(
            figure(
              `need.ask.${ask}`,
              `For the ${askNames[ask]}`,
              'flow',
              all[ask],
              formulas[ask],
              sources[ask],
              { inputs: inputsOf(ask, job, env) },
            ),
          )
    if (flow && job.volumeM3) {
      figures.push(
        figure(
          'need.changesReached',
          'Air changes with the picked fan',
          'perHour',
          (flow * 3600) / job.volumeM3,
          'n = Q/V',
          'definition',
          {
            low: low && (low * 3600) / job.volumeM3,
            high: high && (high * 3600) / job.volumeM3,
            inputs: [
              input('Q', 'airflow', flow, 'flow'),
              input('V', 'free air volume', job.volumeM3, 'volume'),
            ],
          },
        ),
      )
      figures.push(clearOutFigure(job, flow, 'Clears after a dirty job in', low, high))
    }
    const state = moistureCase(job, env)
    if (state && flow)
      figures.push(
        figure(
          'need.waterOut',
          'Water it carries off',
          'waterRate',
          moistureRemoval(flow, state),
          'ṁ_w = ṁ_air · (wᵢ − wₐ)',
          'mass balance of water',
          {
            basis: 'estimated',
            inputs: inputsOf('moisture', job, env),
            note: 'Below zero: the fresh air brings water in.',
          },
        ),
      )
    if (job.co2M3s && flow) {
      const excess = steadyExcess(job.co2M3s, flow)
      figures.push(
        figure(
          'need.co2Reached',
          'CO₂ settles at',
          'concentration',
          excess === null ? null : excess + (job.co2Fresh ?? CO2_OUTDOORS),
          'C = Cₐ + G/Q',
          'mass balance of the gas',
          { basis: 'estimated', inputs: inputsOf('co2', job, env) },
        ),
      )
    }
    if (job.insideRhMax !== null) {
      const at = job.insideC ?? job.ambientC
      figures.push(
        figure(
          'need.dewPoint',
          'Dew point inside at that humidity',
          'temperature',
          dewPoint(at, job.insideRhMax),
          'Magnus inverse',
          'Magnus formula',
          {
            inputs: [
              input('t', 'inside', at, 'temperature'),
              input('RH', 'humidity inside', job.insideRhMax, 'ratio'),
            ],
          },
        ),
      )
    }
    return figures
  },
}
