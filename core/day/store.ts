import { batterySource, sourceOf, type StreamPlan } from '#core/document'
import { fansNodeOf, loadsOf, runningTime } from '#core/supply'
import type { DayStream } from './streams'

/** What stands between the fans and their energy: converters on the way, other loads, a battery with its sun. */
export interface DayStore {
  /** of the way from the source to the fans, 0..1 */
  efficiency: number
  /** what else the source feeds all the time, W */
  restW: number
  /** usable energy, J; null: no battery, or its capacity is not told */
  usableJ: number | null
  /** J that the sun brings on a usual day; 0 without sun */
  sunJ: number
  greyShare: number
  startShare: number
}

/** What a grey day leaves of the sun. A guess to be replaced by what was seen. */
const GREY = 0.2

/** Efficiency of all converters between the source and the fans. */
function efficiencyOf({ plan, power }: DayStream): number {
  const { nodes } = power.feed
  let at = fansNodeOf(plan, power.feed)
  let share = 1
  while (at) {
    const above = nodes.find((n) => n.id === at!.parentId)
    if (above?.kind === 'converter' && above.efficiency) share *= above.efficiency
    at = above
  }
  return sourceOf(plan) ? share : 1
}

/** The store of a plan; null without a source that tells its voltage. */
export function storeOf(plan: StreamPlan, home: DayStream | null): DayStore | null {
  const { sun, day } = plan
  const source = batterySource(plan)
  if (!home || !source || source.nominalV === null) return null
  const { feed } = home.power
  const runtime = runningTime(plan, feed)
  const efficiency = efficiencyOf(home)
  const fanW = home.operation.candidate?.powerW ?? 0
  const wholeW = (loadsOf(feed, source).loadRunA ?? 0) * source.nominalV
  const month = day?.month === null || day?.month === undefined ? null : runtime.months[day.month - 1]
  const harvest = month ?? runtime.worst
  return {
    efficiency,
    restW: Math.max(0, wholeW - fanW / efficiency) + (runtime.pack?.idleW ?? 0),
    usableJ: runtime.pack?.usableJ ?? null,
    sunJ: sun ? (harvest?.harvestJ ?? 0) : 0,
    greyShare: day?.greyShare ?? GREY,
    startShare: day?.startCharge ?? 1,
  }
}
