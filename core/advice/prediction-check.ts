import type { Figure } from '#core/figure'
import type { Fan, FanTest, PlanDocument, ReadingQuantity, Run } from '#core/document'
import { newCalibration, newTest, readingMean } from '#core/document'
import type { Report } from '#core/plan'
import { readingHalfWidth, targetReading } from '#core/verification'
import { loudnessRatio } from '#core/noise'
import { preferredUnit, type Quantity, type UnitPreferences } from '#core/units'

/** What a run teaches the plan: predictions against it, corrections to take over, and what the gain has cost. */

export interface Prediction {
  quantity: Quantity
  label: string
  predicted: number
  /** rests on an estimate: shown with a tilde */ estimated: boolean
  low: number | null
  high: number | null
  measured: number
  inside: boolean
  teaches: string
}

const advice: Partial<Record<ReadingQuantity, string>> = {
  level: 'Look for a mount that rings, a grille close to the blades, or another source.',
  flow: 'Look at the filter’s and openings’ values, or the way it was measured.',
  temperature: 'Less air than planned, more heat than thought, or air that goes round in a circle.',
  current: 'A clogged path raises or lowers it with the kind of fan; a stiff bearing raises it.',
}

/** Scatter of a fan's current, share. Common practice, no source. */
const CURRENT_SCATTER = 0.1
type Predicted = Pick<Figure, 'value' | 'low' | 'high' | 'basis'>

/** One prediction held against what was read; nothing where one of the two is missing. */
function held(
  quantity: ReadingQuantity,
  label: string,
  shown: Quantity,
  predicted: Predicted | undefined,
  measured: number | undefined,
): Prediction[] {
  if (!predicted || predicted.value === null || measured === undefined) return []
  const { value, low, high, basis } = predicted
  const inside = low !== null && high !== null && measured >= low && measured <= high
  const teaches = inside
    ? 'Within the range: plan and measurement agree.'
    : `Outside. ${advice[quantity] ?? 'Look at what was put in.'}`
  const estimated = basis === 'estimated'
  return [{ quantity: shown, label, predicted: value, estimated, low, high, measured, inside, teaches }]
}

/** Current of the fans as a prediction with its scatter. */
const currentOf = (amps: number | null): Predicted | undefined =>
  amps === null
    ? undefined
    : {
        value: amps,
        low: (1 - CURRENT_SCATTER) * amps,
        high: (1 + CURRENT_SCATTER) * amps,
        basis: 'estimated',
      }

/** Every figure that was both predicted and measured in the latest state. */
export function predictionsOf(report: Report): Prediction[] {
  const { verdict, selection, power } = report
  const { after } = verdict
  if (!after || !selection) return []
  const read = (quantity: ReadingQuantity) => after.readings.find((r) => r.quantity === quantity && !r.source)
  const mean = (quantity: ReadingQuantity) => {
    const reading = read(quantity)
    return reading && readingMean(reading)
  }
  const figure = (key: string) => selection.figures.find((f) => f.key === key)
  // a level is told where its target judged it, corrected for background and distance
  const judged = verdict.targets.find((t) => targetReading[t.target.kind] === 'level' && t.measured)
  const inside = mean('temperature')
  const rise = inside === undefined || after.ambientC === null ? undefined : inside - after.ambientC
  const flow = read('flow')?.method === 'jet' ? undefined : mean('flow')
  const level = judged?.measured?.value ?? mean('level')
  return [
    ...held('flow', 'Airflow', 'flow', selection.served, flow),
    ...held('level', 'Sound level', 'level', figure('selection.level'), level),
    ...held('temperature', 'Rise of the air', 'temperatureDifference', figure('selection.rise'), rise),
    ...held('current', 'Current of the fan', 'current', currentOf(power.fanRunA), mean('current')),
  ]
}

/** The path scaled by a run's flow with the picked fan: the plan of a new variant; null where the run does not say enough. */
export function calibratedBy(plan: PlanDocument, run: Run, id: string): PlanDocument | null {
  const flow = run.readings.find((r) => r.quantity === 'flow' && !r.source && r.method !== 'jet')
  const { selection } = plan
  if (
    !flow ||
    !selection ||
    run.fanV === null ||
    selection.secondFanId !== null ||
    selection.arrangement === 'series' ||
    selection.arrangement === 'places' ||
    selection.duty !== null
  )
    return null
  return {
    ...plan,
    calibration: {
      ...newCalibration(id),
      kind: 'flow',
      fanId: selection.fanId,
      count: selection.count,
      volts: run.fanV,
      flowM3s: readingMean(flow),
      flowDoubt: readingMean(flow) > 0 ? readingHalfWidth(run, flow) / readingMean(flow) : null,
    },
  }
}

/**
 * A bench run as a test of the fan's own record. Only a single fan's figures are taken: flow in free delivery, pressure
 * with the outlet shut, speed, current and level.
 * @returns null without a voltage or a figure
 */
export function testOf(run: Run, id: string): FanTest | null {
  if (run.kind !== 'bench' || run.fanV === null) return null
  const of = (quantity: ReadingQuantity) => {
    const r = run.readings.find((x) => x.quantity === quantity && !x.source)
    return r ? readingMean(r) : null
  }
  const test: FanTest = {
    ...newTest(id, run.fanV, run.takenAt),
    ambientC: run.ambientC,
    currentA: of('current'),
    rpm: of('rotation'),
    flowM3s: of('flow'),
    pressurePa: of('pressure'),
    levelDbA: of('level'),
    levelDistanceM: run.distanceM,
    backgroundDbA: run.backgroundDbA,
    notes: run.name,
  }
  return [test.currentA, test.rpm, test.flowM3s, test.pressurePa, test.levelDbA].some((x) => x !== null)
    ? test
    : null
}
/** A fan with a test added, or put in the place of the one with its id. */
export const withTest = (fan: Fan, test: FanTest): Fan => ({
  ...fan,
  tests: [...fan.tests.filter((t) => t.id !== test.id), test],
})

/** What a gain has cost; null where no price is known. */
export interface GainCost {
  what: string
  gain: number
  quantity: Quantity
  /** money per SI unit */ perUnit: number | null
}
/** The same in the person's unit: money, and per what. */
export function costPerUnit(
  { quantity, perUnit }: GainCost,
  units: UnitPreferences,
): { money: number; per: string } | null {
  const unit = preferredUnit(quantity, units)
  return perUnit === null
    ? null
    : { money: perUnit * unit.factor, per: quantity === 'number' ? 'per halving' : `per ${unit.symbol}` }
}
/**
 * Gains that the verdict shows, with their price.
 * @param price money
 */
export function gainCosts(report: Report, price: number | null): GainCost[] {
  // what was owned already has no price to share out
  const cost = price || null
  const { comparisons } = report.verdict
  const rows: GainCost[] = []
  for (const c of comparisons) {
    if (c.refused || !c.shown || c.source) continue
    if (c.quantity === 'temperature' && c.difference < 0)
      rows.push({
        what: `cooler at ${c.place || 'the probe'}`,
        gain: -c.difference,
        quantity: 'temperatureDifference',
        perUnit: cost === null ? null : cost / -c.difference,
      })
    if (c.quantity === 'level' && c.difference < 0) {
      rows.push({
        what: `quieter at ${c.place || 'the spot'}`,
        gain: -c.difference,
        quantity: 'levelDifference',
        perUnit: cost === null ? null : cost / -c.difference,
      })
      const halvings = -Math.log2(loudnessRatio(c.difference))
      if (halvings > 0)
        rows.push({
          what: 'halvings of loudness',
          gain: halvings,
          quantity: 'number',
          perUnit: cost === null ? null : cost / halvings,
        })
    }
    if (c.quantity === 'flow' && c.difference > 0 && !c.ratioOnly)
      rows.push({
        what: 'more air',
        gain: c.difference,
        quantity: 'flow',
        perUnit: cost === null ? null : cost / c.difference,
      })
  }
  return rows
}
