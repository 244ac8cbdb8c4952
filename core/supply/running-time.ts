import {
  autonomyDays,
  BANK_EFFICIENCY,
  bankRuntime,
  batteryForAutonomy,
  cellVoltage,
  coldFactor,
  constantPowerRuntime,
  directRuntime,
  FLIGHT_LIMIT_J,
  keepAlivePower,
  keepAliveResistor,
  nearestPreferred,
  outputCharge,
  panelHarvest,
  panelNeeded,
  peukertRuntime,
  recoveryDays,
  seriesControllerEfficiency,
  SYSTEM_EFFICIENCY,
  usableDepth,
} from '#core/power'
import type { PlanDocument } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import type { PowerReport } from './power'

/** Exponent of a lead-acid battery over its rate, and the rate that capacities are stated at, s. From memory (AGM 1.05 to 1.15, flooded 1.2 to 1.3). */
const PEUKERT = 1.15
const RATE_S = 20 * 3600
/** Efficiency of discharging. Common practice, no source. */
const DISCHARGE = 0.95
/** Self-consumption of a converter counted where nothing was measured, W. */
const IDLE_W = 0
const DAY_S = 86400
const HOUR_S = 3600

export interface Month {
  month: number
  sunS: number
  harvestJ: number
  balanceJ: number
}

export interface RuntimeReport {
  /** energy in the cells, J */
  energyJ: number | null
  runtimeS: number | null
  wishedS: number | null
  /** battery's own current, A */
  loadA: number | null
  bankLoadA: number | null
  dailyJ: number | null
  /** charge that the wished time asks for, C, and the cells it is spread over */
  neededC: number | null
  keepAlive: { watts: number; ohm: number } | null
  underFlightLimit: boolean | null
  autonomyDays: number | null
  panelNeededW: number | null
  worst: Month | null
  months: Month[]
  recoveryDays: number | null
  figures: Figure[]
}

const nothing: RuntimeReport = {
  energyJ: null,
  runtimeS: null,
  wishedS: null,
  loadA: null,
  bankLoadA: null,
  dailyJ: null,
  neededC: null,
  keepAlive: null,
  underFlightLimit: null,
  autonomyDays: null,
  panelNeededW: null,
  worst: null,
  months: [],
  recoveryDays: null,
  figures: [],
}

/**
 * How long a battery lasts with what the feed really draws, how big it must be for the wished time, and whether the sun
 * keeps up. The share of the time on is typed or the job's hours a day.
 * Reference: handbook E4 to E10
 */
export function runtimeOf(plan: PlanDocument, power: PowerReport): RuntimeReport {
  const { battery, sun, source, job } = plan
  const drawnA = power.loadRunA
  if (!battery || !source || source.nominalV === null) return nothing
  const share = battery.dutyShare ?? job.hoursPerDay / 24
  const cold = coldFactor(battery.chemistry, battery.coldC ?? job.ambientC)
  const depth = battery.depth ?? usableDepth[battery.chemistry]
  const cells = battery.cells ?? 1
  const bank = source.kind === 'power-bank'
  const cellV =
    battery.cellV ??
    (battery.chemistry === 'li-ion' || battery.chemistry === 'lifepo4'
      ? cellVoltage[battery.chemistry].nominal
      : bank
        ? 3.7
        : source.nominalV / cells)
  const packV = bank ? cellV : battery.chemistry === 'lead-acid' ? source.nominalV : cellV * cells
  const energyJ = battery.chargeCoulomb === null ? null : battery.chargeCoulomb * packV
  const usableJ = energyJ === null ? null : energyJ * depth * cold
  const loadW = drawnA === null ? null : drawnA * source.nominalV
  const idleW = battery.idleW ?? IDLE_W
  const onRuntime = energyJ === null || usableJ === null || !loadW || drawnA === null ? null : runtimeWhileOn()

  /** Time of running without pause, s. */
  function runtimeWhileOn(): number {
    if (bank) return bankRuntime(usableJ!, BANK_EFFICIENCY, loadW!, idleW)
    if (battery!.chemistry === 'lead-acid')
      return peukertRuntime(battery!.chargeCoulomb! * cold, RATE_S, PEUKERT, drawnA!) * depth
    const cell =
      battery!.chemistry === 'li-ion' || battery!.chemistry === 'lifepo4'
        ? cellVoltage[battery!.chemistry]
        : null
    if (!cell) return usableJ! / (loadW! + idleW)
    const [full, empty] = [cell.full * cells, cell.empty * cells]
    const charge = battery!.chargeCoulomb! * depth * cold
    if (plan.converter && (plan.converter.kind === 'buck' || plan.converter.kind === 'boost'))
      return constantPowerRuntime(charge, full, empty, loadW! + idleW)
    // straight: the current follows the voltage, a line through what it draws now
    const slope = (1.3 * drawnA!) / source!.nominalV!
    return directRuntime(charge, full, empty, drawnA! - slope * source!.nominalV!, slope)
  }
  const runtimeS = onRuntime === null ? null : onRuntime / Math.max(share, 1e-6)
  const dailyJ = loadW === null ? null : loadW * share * DAY_S + idleW * (1 - share) * DAY_S
  const neededC =
    battery.wishedS !== null && loadW
      ? ((loadW / (bank ? BANK_EFFICIENCY : 1) + idleW) * battery.wishedS * share) / (depth * cold * packV)
      : null
  const bankLoadA = bank ? drawnA : null
  const keepAlive =
    bankLoadA !== null && battery.autoOffA !== null && bankLoadA < battery.autoOffA
      ? {
          watts: keepAlivePower(source.nominalV, battery.autoOffA, bankLoadA),
          ohm: nearestPreferred(keepAliveResistor(source.nominalV, battery.autoOffA, bankLoadA)!, 'E12'),
        }
      : null

  const efficiency = !sun
    ? null
    : sun.controller === 'tracking'
      ? SYSTEM_EFFICIENCY
      : sun.controller === 'series'
        ? seriesControllerEfficiency(1.1 * source.nominalV, sun.panelVmp ?? 18)
        : 0.5
  const months =
    sun && sun.panelW !== null && efficiency !== null && dailyJ !== null
      ? sun.sunHours.map((h, i): Month => {
          const harvestJ = panelHarvest(sun.panelW!, h * HOUR_S, efficiency)
          return { month: i, sunS: h * HOUR_S, harvestJ, balanceJ: harvestJ - dailyJ }
        })
      : []
  const worst = months.toSorted((a, b) => a.harvestJ - b.harvestJ)[0] ?? null
  const days = usableJ !== null && dailyJ ? autonomyDays(energyJ!, depth * cold, DISCHARGE, dailyJ) : null
  const wantedDays = sun?.wishedDays ?? null

  const figures: Figure[] = [
    figure(
      'battery.energy',
      'Energy in the cells',
      'energy',
      energyJ,
      'E = Q · V_cell',
      'capacity is printed at cell voltage',
      {
        inputs: [
          input(
            'Q',
            'capacity, Ah',
            battery.chargeCoulomb === null ? null : battery.chargeCoulomb / HOUR_S,
            'number',
          ),
          input('V', bank ? 'cell' : 'pack', packV, 'voltage'),
        ],
        note: energyJ === null ? 'Type the capacity.' : '',
      },
    ),
    figure(
      'battery.runtime',
      'It lasts',
      'duration',
      runtimeS,
      bank
        ? 't = E·depth·cold / (P/η + P_idle) / duty'
        : battery.chemistry === 'lead-acid'
          ? 't = H·(C/(I·H))^k · depth / duty'
          : 'pack voltage falling with its charge (E8)',
      'handbook E5, E8, E9; depth, cold and efficiency are common practice',
      {
        basis: 'estimated',
        low: runtimeS === null ? null : 0.8 * runtimeS,
        high: runtimeS === null ? null : 1.15 * runtimeS,
        inputs: [
          input('P', 'drawn from it', loadW, 'power'),
          input('depth', 'usable share', depth, 'ratio'),
          input('cold', 'left at that temperature', cold, 'ratio'),
          input('duty', 'of the time on', share, 'ratio'),
          ...(bank ? [input('η', 'bank’s converter', BANK_EFFICIENCY, 'ratio')] : []),
        ],
      },
    ),
    ...(battery.wishedS === null
      ? []
      : [
          figure(
            'battery.needed',
            'Capacity for the wished time, Ah',
            'number',
            neededC === null ? null : neededC / HOUR_S,
            'Q = P·t·duty / (depth·cold·V)',
            'energy balance',
            {
              basis: 'estimated',
              inputs: [input('t', 'wished', battery.wishedS, 'duration'), input('P', 'drawn', loadW, 'power')],
            },
          ),
        ]),
    figure('battery.daily', 'Used a day', 'energy', dailyJ, 'E = P · duty · 24 h', 'definition', {
      basis: 'estimated',
      inputs: [input('P', 'drawn', loadW, 'power'), input('duty', 'of the time on', share, 'ratio')],
    }),
    ...(bank
      ? [
          figure(
            'battery.output',
            'Gives at its output, Ah',
            'number',
            energyJ === null ? null : outputCharge(energyJ, BANK_EFFICIENCY, source.nominalV) / HOUR_S,
            'Q_out = E·η / V_out',
            'handbook E6',
            {
              basis: 'estimated',
              inputs: [
                input('E', 'in the cells', energyJ, 'energy'),
                input('V_out', 'output', source.nominalV, 'voltage'),
              ],
            },
          ),
        ]
      : []),
    ...(sun
      ? [
          figure(
            'sun.autonomy',
            'Without sun it carries, days',
            'number',
            days === null ? null : Math.round(10 * days) / 10,
            'N = E·depth·η / E_day',
            'handbook E10',
            {
              basis: 'estimated',
              inputs: [
                input('E', 'battery', energyJ, 'energy'),
                input('E_day', 'used a day', dailyJ, 'energy'),
              ],
            },
          ),
          figure(
            'sun.panel',
            'Panel needed in the worst month',
            'power',
            dailyJ === null || efficiency === null || !(Math.min(...sun.sunHours) > 0)
              ? null
              : panelNeeded(dailyJ / DAY_S, DAY_S, Math.min(...sun.sunHours) * HOUR_S, efficiency),
            'W_p = E_day / (PSH·η)',
            'handbook E10',
            {
              basis: 'estimated',
              inputs: [
                input('PSH', 'peak-sun hours, worst month', Math.min(...sun.sunHours), 'number'),
                input('η', `${sun.controller} controller`, efficiency, 'ratio'),
              ],
            },
          ),
        ]
      : []),
    ...(wantedDays !== null && dailyJ !== null
      ? [
          figure(
            'sun.battery',
            'Battery for the wished days',
            'energy',
            batteryForAutonomy(wantedDays, dailyJ, depth * cold, DISCHARGE),
            'E = E_day·N / (depth·η)',
            'handbook E10',
            { basis: 'estimated', inputs: [input('N', 'days', wantedDays, 'number')] },
          ),
        ]
      : []),
  ]
  return {
    energyJ,
    runtimeS,
    wishedS: battery.wishedS,
    loadA: drawnA,
    bankLoadA,
    dailyJ,
    neededC,
    keepAlive,
    underFlightLimit: energyJ === null ? null : energyJ <= FLIGHT_LIMIT_J,
    autonomyDays: days,
    panelNeededW: figures.find((f) => f.key === 'sun.panel')?.value ?? null,
    worst,
    months,
    recoveryDays:
      worst && sun?.panelW && efficiency && dailyJ !== null && usableJ !== null
        ? recoveryDays(sun.panelW, worst.sunS, efficiency, dailyJ, usableJ)
        : null,
    figures,
  }
}
