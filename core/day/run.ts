import {
  DAY_S,
  leqBetween,
  simulateDay,
  type ControlSettings,
  type DayGroup,
  type DayInput,
  type DayLanes,
} from '#core/control'
import type { DayKind } from '#core/document'
import { atOnce } from '#core/numeric'
import type { DayModel, ModelGroup } from './model'
import { ambientOf, humidityOf, lightOf, loadOf, sunShape } from './weather'

/** The days of a model, run. */

/** A step is at most so much of what changes fastest; the longest step, s. */
const STEP_SHARE = 1 / 3
const LONGEST_S = 30
/** Steps that a day is a whole number of, s. */
const STEPS_S = [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 16, 18, 20, 24, 30]
/** Run before midnight: so many time constants, a day at most. */
const LEAD_TAUS = 5

/** What stands still is the fault of a control that cannot be stepped: the fans then run as the plan drives them. */
const asPlanned = (g: ModelGroup): ControlSettings => ({
  law: { kind: 'fixed', duty: g.planned },
  minDuty: 0,
  startDuty: 0,
  capDuty: 1,
  kickDuty: 1,
  kickS: 0,
  fanStop: true,
  filterTauS: 0,
  rampUpPerS: 0,
  rampDownPerS: 0,
  sensorLowC: -40,
  sensorHighC: 150,
  faultDuty: 1,
})

/** The step that follows sensor, filter, ramp and parts, s; a kick shorter than half of it is left out. */
export function stepOf({ groups, parts }: Pick<DayModel, 'groups' | 'parts'>): number {
  const fast = groups.flatMap(({ settings, sensorLagS }) => {
    if (!settings) return []
    const { law, filterTauS, rampUpPerS } = settings
    const looks = law.kind === 'thermostat' || law.kind === 'curve'
    return [
      ...(looks && sensorLagS > 0 ? [sensorLagS] : []),
      ...(filterTauS > 0 ? [3 * filterTauS] : []),
      ...(rampUpPerS > 0 ? [3 / rampUpPerS] : []),
    ]
  })
  const taus = parts.map((p) => (0.5 * p.capacityJK) / p.movedWK)
  const step = STEP_SHARE * Math.min(LONGEST_S / STEP_SHARE, ...fast, ...taus)
  return STEPS_S.findLast((s) => s <= step) ?? STEPS_S[0]!
}

const longestTau = ({ parts }: DayModel) => Math.max(0, ...parts.map((p) => p.capacityJK / p.stillWK))

/** What a group looks at beside a part: light, humidity, a load; a button is a load that begins. */
function looksOf(
  model: DayModel,
  { control, settings, sensed }: ModelGroup,
  input: Pick<DayInput, 'ambientC' | 'loadW'>,
) {
  const law = settings?.law.kind
  if (law === 'demand') {
    if (control.school === 'thermostat') {
      const light = lightOf(model.light.fromS, model.light.toS)
      return { demand: (t: number) => light(t) === (control.runsIn === 'light') }
    }
    const from = control.demandW ?? model.idleW
    return {
      demand: (t: number) => input.loadW(t) > from || (control.demandW !== null && input.loadW(t) >= from),
    }
  }
  if (law === 'thermostat' && control.sense === 'humidity')
    return { reading: humidityOf(input.ambientC, model.job, model.pressurePa) }
  return sensed < 0 ? { reading: input.ambientC } : {}
}

export interface DayOptions {
  works?: boolean
  /** how far from the plan a drawn day is: shares of flow, heat passed on, capacity, load; K of the air around */
  drawn?: { flow: number; conductance: number; capacity: number; load: number; ambientK: number }
  stepS?: number
}

/** A day as the kernel steps it. */
export function dayInput(
  model: DayModel,
  kind: DayKind,
  { works = true, drawn, stepS }: DayOptions = {},
): DayInput {
  const off = drawn ?? { flow: 1, conductance: 1, capacity: 1, load: 1, ambientK: 0 }
  const air = ambientOf(model.weather[kind])
  const load = loadOf(works ? model.loads : [], model.idleW)
  const ambientC = off.ambientK === 0 ? air : (t: number) => air(t) + off.ambientK
  const loadW = off.load === 1 ? load : (t: number) => off.load * load(t)
  const step = stepS ?? stepOf(model)
  const moved = off.flow ** model.exponent * off.conductance
  return {
    parts: model.parts.map((p) => ({
      ...p,
      capacityJK: p.capacityJK * off.capacity,
      stillWK: p.stillWK * off.conductance,
      movedWK: Math.max(p.movedWK * moved, p.stillWK * off.conductance),
    })),
    links: model.links,
    exponent: model.exponent,
    groups: model.groups.map((g): DayGroup => {
      const control = g.settings ?? asPlanned(g)
      return {
        fans: g.table,
        referenceM3s: Math.max(1e-9, g.referenceM3s),
        control: control.kickS < step / 2 ? { ...control, kickS: 0 } : control,
        sensed: Math.max(0, g.sensed),
        sensorLagS: g.sensorLagS,
        ...looksOf(model, g, { ambientC, loadW }),
      }
    }),
    ambientC,
    loadW,
    startC: ambientC(0),
    leadS: Math.min(DAY_S, LEAD_TAUS * longestTau(model)),
    seconds: DAY_S,
    stepS: step,
  }
}

export interface DayRun {
  kind: DayKind
  lanes: DayLanes
  /** drawn from the source, W, one row a step; null without a source */
  drawnW: Float64Array | null
  /** charge, 0..1 of what is usable, one row a step; null without a battery that tells its capacity */
  charge: Float64Array | null
  summary: DaySummary
}
/** A day in figures. */
export interface DaySummary {
  peakC: number[]
  groups: { onS: number; starts: number; busiestHour: number; lowDuty: number; highDuty: number }[]
  /** at the fans, and drawn from the source, J */
  energyJ: number
  drawnJ: number | null
  leqDbA: number
  loudestDbA: number
  nightDbA: number
  /** lowest charge, 0..1; when it was empty for the first time, s */
  lowestCharge: number | null
  emptyAtS: number | null
  endCharge: number | null
}

/** Most starts within any hour. */
function busiestHour(duty: Float64Array, stepS: number): number {
  const starts: number[] = []
  let most = 0
  for (let k = 1; k < duty.length; k++) {
    if (!(duty[k]! > 0 && duty[k - 1] === 0)) continue
    starts.push(k * stepS)
    while (starts[0]! <= k * stepS - 3600) starts.shift()
    if (starts.length > most) most = starts.length
  }
  return most
}

/** The battery over a day: what is drawn taken out, the sun's share put in. */
function chargeOver(
  model: DayModel,
  kind: DayKind,
  drawnW: Float64Array,
  stepS: number,
  start: number,
): Float64Array | null {
  const { store, light } = model
  if (!store?.usableJ) return null
  const sun = sunShape(light.fromS, light.toS)
  const harvest = store.sunJ * (kind === 'cold' ? store.greyShare : 1)
  const charge = new Float64Array(drawnW.length)
  let at = start
  for (let k = 0; k < drawnW.length; k++) {
    at += (stepS * (harvest * sun((k + 0.5) * stepS) - drawnW[k]!)) / store.usableJ
    at = Math.min(1, Math.max(0, at))
    charge[k] = at
  }
  return charge
}

const dutyEnds = (duty: Float64Array) => {
  let [low, high] = [Infinity, 0]
  for (const d of duty) {
    if (d > 0 && d < low) low = d
    if (d > high) high = d
  }
  return { lowDuty: Number.isFinite(low) ? low : 0, highDuty: high }
}

/** One day of a model. @param start charge at midnight, 0..1 */
export function runDay(model: DayModel, kind: DayKind, options: DayOptions = {}, start?: number): DayRun {
  const lanes = simulateDay(dayInput(model, kind, options))
  const { store } = model
  const drawnW = store ? lanes.powerW.map((w) => w / store.efficiency + store.restW) : null
  const charge = drawnW && chargeOver(model, kind, drawnW, lanes.stepS, start ?? store!.startShare)
  const empty = charge?.indexOf(0) ?? -1
  return {
    kind,
    lanes,
    drawnW,
    charge,
    summary: {
      peakC: lanes.peakC,
      groups: lanes.groups.map((g) => ({
        onS: g.onS,
        starts: g.starts,
        busiestHour: busiestHour(g.duty, lanes.stepS),
        ...dutyEnds(g.duty),
      })),
      energyJ: lanes.energyJ,
      drawnJ: drawnW && drawnW.reduce((sum, w) => sum + w * lanes.stepS, 0),
      leqDbA: lanes.leqDbA,
      loudestDbA: lanes.loudestDbA,
      nightDbA: leqBetween(lanes, model.night.fromS, model.night.toS),
      lowestCharge: charge && charge.reduce((low, c) => Math.min(low, c), 1),
      emptyAtS: empty >= 0 ? empty * lanes.stepS : null,
      endCharge: charge?.at(-1) ?? null,
    },
  }
}

/** The days of a week one after the other, each begun with the charge that the one before left. */
export const runWeek = (model: DayModel): DayRun[] => atOnce(weekSteps(model))

/** The same in steps, a day each. */
export function* weekSteps(model: DayModel): Generator<void, DayRun[]> {
  const days: DayRun[] = []
  for (const { kind, works } of model.week) {
    const last = days.at(-1)?.summary.endCharge
    days.push(runDay(model, kind, { works }, last ?? undefined))
    yield
  }
  return days
}
