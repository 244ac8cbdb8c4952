import { CP_AIR, dewPoint, humidityRatio, latentHeat, vapourPressure } from '#core/air'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { clearOutTime, moistureRemoval, steadyExcess } from '#core/need'
import type { Delivered, NeedEnv } from './model'
import { asks, CLEAR_SHARE, CO2_OUTDOORS, MIXING, moistureCase, type Ask } from './space-flow'

export const askNames = { changes: 'air changes', clearOut: 'clear-out time', moisture: 'moisture', co2: 'CO₂' }
export const askFormulas = {
  changes: 'Q = n · V',
  clearOut: 'Q = V·K/t · ln(1/share)',
  moisture: 'Q = ṁ_w · vol / (wᵢ − wₐ)',
  co2: 'Q = G / (Cᵢ − Cₐ)',
}
export const askSources = {
  changes: 'definition of the air change rate',
  clearOut: 'well-mixed dilution with a mixing factor',
  moisture: 'mass balance of water',
  co2: 'mass balance of the gas',
}
export const clearInputs = (job: Job) => [
  input('V', 'free air volume', job.volumeM3, 'volume'),
  input('K', 'mixing factor (1 perfect)', job.mixing ?? MIXING, 'number'),
  input('share', 'left of the first level', job.clearShare ?? CLEAR_SHARE, 'ratio'),
]
/** Inputs of a wish for fresh air. */
export const askInputs = (ask: Ask, job: Job, env: NeedEnv) => {
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

/**
 * Time to clear a space at a flow, with its working.
 * @param flow m3/s, 0 or more
 * @param low lower end
 * @param high upper end
 */
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

/** Each wish with its flow, where there are several. */
export function askFigures(job: Job, env: NeedEnv): Figure[] {
  const all = asks(job, env)
  const asked = (Object.keys(all) as Ask[]).filter((ask) => all[ask] !== null)
  if (asked.length < 2) return []
  return asked.map((ask) =>
    figure(`need.ask.${ask}`, `For the ${askNames[ask]}`, 'flow', all[ask], askFormulas[ask], askSources[ask], {
      inputs: askInputs(ask, job, env),
    }),
  )
}

/**
 * Air changes that a flow makes.
 * @param flow m3/s, 0 or more
 */
export const changesFigure = (volumeM3: number, flow: number, { low, high }: Delivered): Figure =>
  figure(
    'need.changesReached',
    'Air changes with the picked fan',
    'perHour',
    (flow * 3600) / volumeM3,
    'n = Q/V',
    'definition',
    {
      low: low && (low * 3600) / volumeM3,
      high: high && (high * 3600) / volumeM3,
      inputs: [input('Q', 'airflow', flow, 'flow'), input('V', 'free air volume', volumeM3, 'volume')],
    },
  )

/**
 * Water that a flow carries off; null where the moisture is not known.
 * @param flow m3/s, 0 or more
 */
export function waterOutFigure(job: Job, env: NeedEnv, flow: number): Figure | null {
  const state = moistureCase(job, env)
  return (
    state &&
    figure(
      'need.waterOut',
      'Water it carries off',
      'waterRate',
      moistureRemoval(flow, state),
      'ṁ_w = Q · (p − p_v)/(287.05·Tₐ) · (wᵢ − wₐ)',
      'mass balance of water',
      {
        basis: 'estimated',
        inputs: [
          input('Q', 'airflow', flow, 'flow'),
          input('p', 'air pressure', env.air.pressurePa, 'pressure'),
          input('p_v', 'vapour of the fresh air', vapourPressure(job.ambientC, job.humidity), 'pressure'),
          input('tₐ', 'fresh air', job.ambientC, 'temperature'),
          ...askInputs('moisture', job, env).filter((i) => i.symbol !== 'ṁ_w'),
        ],
        note: 'Below zero: the fresh air brings water in.',
      },
    )
  )
}

/**
 * Heat that a warmer inside takes at a flow; null where the inside is no warmer than the fresh air, or nobody said.
 * @param flow m3/s, 0 or more
 */
export function warmthFigure(job: Job, env: NeedEnv, flow: number, { low, high }: Delivered): Figure | null {
  const { insideC, ambientC, waterKgS } = job
  if (insideC === null || insideC <= ambientC) return null
  const perAir = env.air.density * CP_AIR * (insideC - ambientC)
  const evaporated = (waterKgS ?? 0) * latentHeat(insideC)
  const at = (q: number | null) => (q === null ? null : q * perAir + evaporated)
  return figure(
    'need.warmth',
    'Heat that keeps it that warm',
    'power',
    at(flow),
    'P = Q·ρ·cp·(tᵢ − tₐ) + ṁ_w·h',
    'heat balance, ASHRAE Fundamentals',
    {
      basis: 'estimated',
      low: at(low),
      high: at(high),
      inputs: [
        input('Q', 'airflow', flow, 'flow'),
        input('ρ', 'fresh air', env.air.density, 'density'),
        input('tᵢ', 'inside', insideC, 'temperature'),
        input('tₐ', 'fresh air', ambientC, 'temperature'),
        input('ṁ_w', 'water released', waterKgS ?? 0, 'waterRate'),
        input('h', 'heat of evaporation, kJ/kg', latentHeat(insideC) / 1000, 'number'),
      ],
      note: 'What a heater gives, or what is in there; walls come on top. Less air takes less.',
    },
  )
}

/**
 * Where the CO2 settles at a flow.
 * @param flow m3/s, 0 or more
 */
export function co2Figure(job: Job, releasedM3s: number, flow: number): Figure {
  const excess = steadyExcess(releasedM3s, flow)
  return figure(
    'need.co2Reached',
    'CO₂ settles at',
    'concentration',
    excess === null ? null : excess + (job.co2Fresh ?? CO2_OUTDOORS),
    'C = Cₐ + G/Q',
    'mass balance of the gas',
    {
      basis: 'estimated',
      inputs: [
        input('G', 'CO₂ released', releasedM3s, 'gasFlow'),
        input('Q', 'airflow', flow, 'flow'),
        input('Cₐ', 'fresh air', job.co2Fresh ?? CO2_OUTDOORS, 'concentration'),
      ],
    },
  )
}

/**
 * Dew point of the air inside.
 * @param insideRh 0..1
 */
export function dewPointFigure(job: Job, insideRh: number): Figure {
  const at = job.insideC ?? job.ambientC
  return figure(
    'need.dewPoint',
    'Dew point inside at that humidity',
    'temperature',
    dewPoint(at, insideRh),
    'Magnus inverse',
    'Magnus formula',
    {
      inputs: [input('t', 'inside', at, 'temperature'), input('RH', 'humidity inside', insideRh, 'ratio')],
    },
  )
}
