import type { ThermalLink, ThermalPart } from '#core/control'
import type { Day, StreamPlan, Run, ThermalPartDoc } from '#core/document'
import { riseFigure } from '#core/selection'
import { goalNeeds } from '#core/requirement'
import { partHeats } from './materials'
import type { DayStream } from './streams'

/** What gets warm: the lumped parts of a machine, as typed, as measured, or as the plan's own balance has them. */

export interface DayPart extends ThermalPart {
  id: string
  name: string
  limitC: number | null
  /** measured or typed in full; 'assumed': some of it is, see `assumed` */
  basis: 'typed' | 'measured' | 'assumed'
  /** what was not told and stands in its place, in words */
  assumed: string[]
}

/** Where a still part gives off this share of what moving air takes. Common practice, no source: a guess to be replaced. */
const STILL_SHARE = 0.2
/** Time constant of a box of which none was seen, s. A guess to be replaced by a soak. */
const USUAL_TAU_S = 15 * 60

export interface DayHeat {
  parts: DayPart[]
  links: ThermalLink[]
  /** parts that cannot be counted yet, with what they want */
  incomplete: { id: string; name: string; wants: string }[]
}

const capacityOf = ({ capacityJK, massKg, material }: ThermalPartDoc): number | null =>
  capacityJK ?? (massKg !== null && material !== null ? massKg * partHeats[material] : null)

/** A typed part on the flow that its group has in the plan. */
function typedPart(
  part: ThermalPartDoc,
  group: number,
  referenceM3s: number,
  exponent: number,
): DayPart | string {
  const capacity = capacityOf(part)
  if (capacity === null) return 'its mass and material, or its heat capacity'
  if (part.movedWK === null) return 'what moving air takes from it, or a run that tells it'
  const assumed: string[] = []
  const still = part.stillWK ?? STILL_SHARE * part.movedWK
  if (part.stillWK === null) assumed.push('what it gives off without moving air')
  if (part.loadShare === null) assumed.push('its share of the load')
  const at = part.atM3s ?? referenceM3s
  const moved =
    at > 0 && referenceM3s > 0 ? still + (part.movedWK - still) * (referenceM3s / at) ** exponent : part.movedWK
  return {
    id: part.id,
    name: part.name,
    limitC: part.limitC,
    capacityJK: capacity,
    stillWK: Math.min(still, part.movedWK),
    movedWK: Math.max(moved, still),
    loadShare: part.loadShare ?? 1,
    group,
    basis: assumed.length ? 'assumed' : part.basis,
    assumed,
  }
}

/** The last run that told a time constant with its fans running. */
const soakedRun = (runs: readonly Run[]): Run | null =>
  runs.findLast((r) => r.tauS !== null && r.tauS > 0 && !r.fans.some((f) => f.off === true)) ?? null

/** The air of a box, or the part of a heatsink, as the plan's own balance has it; null where it has none. */
function planPart(stream: DayStream, group: number, runs: readonly Run[]): DayPart | null {
  const { plan, system, context, operation } = stream
  const { job } = plan
  const heat = job.heatW
  const { delivered } = operation
  if (!heat || delivered.flow === null) return null
  const onPart = job.goal === 'part'
  const balanced = job.goal === 'cool' || job.goal === 'quieten'
  if (!onPart && !balanced) return null
  const told = goalNeeds[job.goal]
    .extras(job, { plan, air: system.air, path: system.path, fans: [], outletBoreM: null }, delivered)
    .find((f) => f.key === (onPart ? 'need.part' : 'need.inside'))?.value
  const riseK = told != null ? told - job.ambientC : riseFigure(context, delivered).value
  if (riseK === null || !(riseK > 0)) return null
  const moved = heat / riseK
  const wall = !onPart && job.wallLossWK ? Math.min(job.wallLossWK, moved) : null
  const run = soakedRun(runs)
  const assumed = [
    ...(wall === null ? ['what it gives off without moving air'] : []),
    ...(run ? [] : ['how slowly it warms']),
  ]
  return {
    id: `plan-${plan.stream}`,
    name: onPart ? 'Part' : 'Air inside',
    limitC: onPart ? job.partMaxC : job.insideMaxC,
    capacityJK: moved * (run?.tauS ?? USUAL_TAU_S),
    stillWK: wall ?? STILL_SHARE * moved,
    movedWK: moved,
    loadShare: 1,
    group,
    basis: assumed.length ? 'assumed' : 'measured',
    assumed,
  }
}

/**
 * The parts of a plan: those that were told; where none was, what its own heat balance knows.
 * @param groupOf index of the group that steers a stream; −1 for none
 * @param flows that each group has as planned, m3/s
 * @param exponent of the conductance over the flow
 */
export function heatOf(
  plan: StreamPlan,
  day: Day | null,
  streams: readonly DayStream[],
  groupOf: (streamId: string) => number,
  flows: readonly number[],
  exponent: number,
): DayHeat {
  const incomplete: DayHeat['incomplete'] = []
  const parts = (day?.parts ?? []).flatMap((p) => {
    const group = groupOf(p.streamId)
    const made = typedPart(p, group, flows[group] ?? 0, exponent)
    if (typeof made !== 'string') return [made]
    incomplete.push({ id: p.id, name: p.name, wants: made })
    return []
  })
  // until one of them can be counted the plan's own balance stands in
  if (!parts.length)
    for (const s of streams) {
      const own = planPart(s, groupOf(s.plan.stream), plan.runs)
      if (own) parts.push(own)
    }
  const index = new Map(parts.map((p, i) => [p.id, i]))
  const links = (day?.links ?? []).flatMap(({ fromId, toId, conductanceWK }): ThermalLink[] => {
    const [from, to] = [index.get(fromId), index.get(toId)]
    return from === undefined || to === undefined ? [] : [{ from, to, conductanceWK }]
  })
  return { parts, links, incomplete }
}
