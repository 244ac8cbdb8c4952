import {
  autonomyDays,
  BANK_EFFICIENCY,
  bankRuntime,
  cellVoltage,
  coldFactor,
  constantPowerRuntime,
  directRuntime,
  FLIGHT_LIMIT_J,
  keepAlivePower,
  keepAliveResistor,
  nearestPreferred,
  packVoltage,
  panelHarvest,
  panelNeeded,
  peukertRuntime,
  recoveryDays,
  seriesControllerEfficiency,
  SYSTEM_EFFICIENCY,
  usableDepth,
} from '#core/power'
import { DEFAULT_CURRENT_EXPONENT } from '#core/fan'
import { batterySource, type Battery, type Job, type StreamPlan, type Source, type Sun } from '#core/document'
import type { FeedReport } from './feed-tree'
import { loadsOf } from './power'

/** Exponent of a lead-acid battery over its rate, by its build. From memory: AGM 1.05 to 1.15, flooded 1.2 to 1.3. */
export const PEUKERT = { agm: 1.1, flooded: 1.25 } as const
/** Rate that capacities are stated at, s. */
export const RATE_S = 20 * 3600
/** Efficiency of discharging. Common practice, no source. */
export const DISCHARGE = 0.95
/** Self-consumption of a converter counted where nothing was measured, W. */
const IDLE_W = 0
/** Voltage of a power bank's cell that states none, V. Common practice, no source. */
const BANK_CELL_V = 3.7
const DAY_S = 86400
export const HOUR_S = 3600

export interface Month {
  month: number
  sunS: number
  harvestJ: number
  balanceJ: number
}

/** A pack as the sums take it. */
export interface Pack {
  /** a power bank, whose own converter stands between cells and output */
  bank: boolean
  /** pack voltage that the capacity belongs to, V */
  packV: number
  cells: number
  /** usable share, what the cold leaves of it, and share of the time on, 0..1 */
  depth: number
  cold: number
  share: number
  energyJ: number | null
  usableJ: number | null
  /** drawn from it, and by itself, W */
  loadW: number | null
  idleW: number
  /** most of that goes through converters that draw more the lower its voltage is */
  constantPower: boolean
}

/** How long a battery lasts and whether the sun keeps up, in numbers. */
export interface RunningTime {
  /** null without a battery */
  pack: Pack | null
  /** of the charge controller, 0..1 */
  controllerEfficiency: number | null
  /** energy in the cells, J */
  energyJ: number | null
  runtimeS: number | null
  wishedS: number | null
  /** battery's own current, A */
  loadA: number | null
  bankLoadA: number | null
  dailyJ: number | null
  /** charge that the wished time asks for, C, and the cells it is spread over */
  neededCoulomb: number | null
  keepAlive: { watts: number; ohm: number } | null
  underFlightLimit: boolean | null
  autonomyDays: number | null
  panelNeededW: number | null
  worst: Month | null
  months: Month[]
  recoveryDays: number | null
}

const nothing: RunningTime = {
  pack: null,
  controllerEfficiency: null,
  energyJ: null,
  runtimeS: null,
  wishedS: null,
  loadA: null,
  bankLoadA: null,
  dailyJ: null,
  neededCoulomb: null,
  keepAlive: null,
  underFlightLimit: null,
  autonomyDays: null,
  panelNeededW: null,
  worst: null,
  months: [],
  recoveryDays: null,
}

const isLithium = (chemistry: Battery['chemistry']): chemistry is 'li-ion' | 'lifepo4' =>
  chemistry === 'li-ion' || chemistry === 'lifepo4'

function packOf(
  battery: Battery,
  source: Source,
  nominalV: number,
  job: Job,
  drawnA: number | null,
  ofDay: number | null,
): Omit<Pack, 'constantPower'> {
  const cells = battery.cells ?? 1
  const bank = source.kind === 'power-bank'
  const usualV = bank
    ? BANK_CELL_V
    : isLithium(battery.chemistry)
      ? cellVoltage[battery.chemistry].nominal
      : nominalV / cells
  const cellV = battery.cellV ?? usualV
  const packV = bank ? cellV : battery.chemistry === 'lead-acid' ? nominalV : cellV * cells
  // a bank's printed capacity is what its own electronics let out
  const depth = battery.depth ?? (bank ? 1 : usableDepth[battery.chemistry])
  const cold = coldFactor(battery.chemistry, battery.coldC ?? job.ambientC)
  const energyJ = battery.chargeCoulomb === null ? null : battery.chargeCoulomb * packV
  return {
    bank,
    packV,
    cells,
    depth,
    cold,
    share: battery.dutyShare ?? ofDay ?? job.hoursPerDay / 24,
    energyJ,
    usableJ: energyJ === null ? null : energyJ * depth * cold,
    loadW: drawnA === null ? null : drawnA * nominalV,
    idleW: battery.idleW ?? IDLE_W,
  }
}

/** Whether most of what a source gives goes through step-down or step-up converters. */
function isSwitched({ feed: parts }: StreamPlan, { nodes }: FeedReport, source: Source): boolean {
  let through = 0
  const at = (id: string) => {
    for (const node of nodes.filter((n) => n.parentId === id)) {
      const kind = parts.find((p) => p.id === node.id)?.converterKind
      if (kind === 'buck' || kind === 'boost') through += node.powerW ?? 0
      else at(node.id)
    }
  }
  at(source.id)
  const root = nodes.find((n) => n.id === source.id)
  return through > ((root?.outA ?? 0) * (root?.outV ?? 0)) / 2
}

/** Time of running without pause, s; null where capacity or load is not known. */
function runtimeWhileOn(plan: StreamPlan, pack: Pack, nominalV: number, drawnA: number | null): number | null {
  const { battery } = plan
  const { usableJ, loadW, idleW, cells, depth, cold } = pack
  const charge = battery?.chargeCoulomb ?? null
  if (!battery || charge === null || usableJ === null || !loadW || drawnA === null) return null
  if (pack.bank) return bankRuntime(usableJ, BANK_EFFICIENCY, loadW, idleW)
  if (battery.chemistry === 'lead-acid')
    return peukertRuntime(charge * cold, RATE_S, PEUKERT[battery.leadKind], drawnA) * depth
  if (!isLithium(battery.chemistry)) return usableJ / (loadW + idleW)
  const [full, empty] = [
    packVoltage(battery.chemistry, cells, 'full'),
    packVoltage(battery.chemistry, cells, 'empty'),
  ]
  const usable = charge * depth * cold
  if (pack.constantPower) return constantPowerRuntime(usable, full, empty, loadW + idleW)
  const { a, b } = lineOfCurrent(drawnA, nominalV)
  return directRuntime(usable, full, empty, a, b)
}

/**
 * Straight line of a fan's current over its voltage through what it draws now, A and A/V: the slope of its power law.
 * @param drawnA at the nominal voltage, A
 */
export function lineOfCurrent(drawnA: number, nominalV: number): { a: number; b: number } {
  const b = (DEFAULT_CURRENT_EXPONENT * drawnA) / nominalV
  return { a: drawnA - b * nominalV, b }
}

/** What keeps a power bank from switching itself off; null where it does not. */
function keepAliveOf(battery: Battery, nominalV: number, bankLoadA: number | null): RunningTime['keepAlive'] {
  const { autoOffA } = battery
  if (bankLoadA === null || autoOffA === null || bankLoadA >= autoOffA) return null
  return {
    watts: keepAlivePower(nominalV, autoOffA, bankLoadA),
    ohm: nearestPreferred(keepAliveResistor(nominalV, autoOffA, bankLoadA)!, 'E12'),
  }
}

/** Efficiency of a charge controller: one that tracks, one in series, or none. Common practice, no source. */
function efficiencyOf(sun: Sun, nominalV: number): number {
  if (sun.controller === 'tracking') return SYSTEM_EFFICIENCY
  return sun.controller === 'series' ? seriesControllerEfficiency(1.1 * nominalV, sun.panelVmp ?? 18) : 0.5
}

/** The sun's part: harvest month by month, days without it, the panel that would do. */
function sunOf(
  { sun }: StreamPlan,
  { energyJ, usableJ, depth, cold }: Pack,
  dailyJ: number | null,
  efficiency: number | null,
) {
  const panelW = sun?.panelW ?? null
  const months =
    sun && panelW !== null && efficiency !== null && dailyJ !== null
      ? sun.sunHours.map((h, month): Month => {
          const harvestJ = panelHarvest(panelW, h * HOUR_S, efficiency)
          return { month, sunS: h * HOUR_S, harvestJ, balanceJ: harvestJ - dailyJ }
        })
      : []
  const worst = months.toSorted((a, b) => a.harvestJ - b.harvestJ)[0] ?? null
  const least = sun ? Math.min(...sun.sunHours) : 0
  return {
    months,
    worst,
    autonomyDays:
      usableJ !== null && energyJ !== null && dailyJ
        ? autonomyDays(energyJ, depth * cold, DISCHARGE, dailyJ)
        : null,
    panelNeededW:
      dailyJ === null || efficiency === null || !(least > 0)
        ? null
        : panelNeeded(dailyJ / DAY_S, DAY_S, least * HOUR_S, efficiency),
    recoveryDays:
      worst && panelW && efficiency && dailyJ !== null && usableJ !== null
        ? recoveryDays(panelW, worst.sunS, efficiency, dailyJ, usableJ)
        : null,
  }
}

/**
 * How long a battery lasts with what the feed really draws, how big it must be for the wished time, and whether the sun
 * keeps up. The share of the time on is typed, or that of the
 * planned day, or the job's hours a day.
 * @param ofDay share of the full load that a planned day draws in the mean, 0..1; null: no day was planned
 * Reference: docs/physics.md E4 to E10
 */
export function runningTime(plan: StreamPlan, feed: FeedReport, ofDay: number | null = null): RunningTime {
  const { battery, sun, job } = plan
  const source = batterySource(plan)
  const drawnA = loadsOf(feed, source).loadRunA
  if (!battery || !source || source.nominalV === null) return nothing
  const { nominalV } = source
  const pack = {
    ...packOf(battery, source, nominalV, job, drawnA, ofDay),
    constantPower: isSwitched(plan, feed, source),
  }
  const { bank, share, loadW, idleW, depth, cold, packV, energyJ } = pack
  const whileOn = runtimeWhileOn(plan, pack, nominalV, drawnA)
  const dailyJ = loadW === null ? null : loadW * share * DAY_S + idleW * (1 - share) * DAY_S
  const bankLoadA = bank ? drawnA : null
  const efficiency = sun && efficiencyOf(sun, nominalV)
  return {
    pack,
    controllerEfficiency: efficiency,
    energyJ,
    runtimeS: whileOn === null ? null : whileOn / Math.max(share, 1e-6),
    wishedS: battery.wishedS,
    loadA: drawnA,
    bankLoadA,
    dailyJ,
    neededCoulomb:
      battery.wishedS !== null && loadW
        ? ((loadW / (bank ? BANK_EFFICIENCY : 1) + idleW) * battery.wishedS * share) / (depth * cold * packV)
        : null,
    keepAlive: keepAliveOf(battery, nominalV, bankLoadA),
    underFlightLimit: energyJ === null ? null : energyJ <= FLIGHT_LIMIT_J,
    ...sunOf(plan, pack, dailyJ, efficiency),
  }
}
