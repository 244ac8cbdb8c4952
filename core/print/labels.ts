import { sourceFuse, type StreamPlan, seenFrom, wholePlan, fromEachPlace, placeName } from '#core/document'
import type { Report } from '#core/plan'
import { windowOf } from '#core/supply'
import type { Quantity, Sentence } from '#core/units'

/** Labels for what was built: plugs, fuses, screws that nobody turns, the way of the air. Handbook build 3 (common practice). */

export interface Label {
  key: string
  /** what is read first, large */
  big: Sentence
  lines: Sentence[]
  /** it points the way of the air */
  arrow: boolean
}

const of = (value: number | null, quantity: Quantity) => ({ value, quantity })
const label = (key: string, big: Sentence, ...lines: (Sentence | null)[]): Label => ({
  key,
  big,
  lines: lines.filter((l) => l !== null),
  arrow: false,
})

function sourceLabels(plan: StreamPlan, report: Report): Label[] {
  return plan.sources.flatMap((source) => {
    const node = report.power.feed.nodes.find((n) => n.id === source.id)
    if (!node) return []
    const window = windowOf(plan, source)
    return [
      label(
        `source-${source.id}`,
        [of(node.outV, 'voltage'), source.output === 'ac' ? ' AC' : ' DC, + marked'],
        [source.name],
        window ? ['gives ', of(window.lowV, 'voltage'), ' to ', of(window.highV, 'voltage')] : null,
        node.limitA === null ? null : ['at most ', of(node.limitA, 'current')],
      ),
    ]
  })
}

const converterLabels = ({ power: { feed } }: Report, { feed: parts }: StreamPlan): Label[] =>
  feed.nodes.flatMap((n) => {
    const part = parts.find((p) => p.id === n.id)
    const kind = part?.converterKind
    if (n.kind !== 'converter' || (kind !== 'buck' && kind !== 'boost' && kind !== 'linear')) return []
    const wanted = part?.outV ?? n.outV
    return [
      label(
        `converter-${n.id}`,
        ['set to ', of(wanted, 'voltage')],
        ['do not turn'],
        [`${n.name}, from `, of(n.inV, 'voltage')],
      ),
    ]
  })

const fuseLabels = ({ power: { feed } }: Report, { sources }: StreamPlan): Label[] =>
  [
    ...sources.map((s) => ({ id: s.id, at: `at ${s.name}`, fuseA: sourceFuse(s) })),
    ...feed.nodes.map((n) => ({ id: n.id, at: `to ${n.name}`, fuseA: n.lead?.fuseA ?? null })),
  ].flatMap(({ id, at, fuseA }) =>
    fuseA === null
      ? []
      : [
          label(
            `fuse-${id}`,
            ['fuse ', of(fuseA, 'current')],
            [at],
            ['the same value again, never a larger one'],
          ),
        ],
  )

/** Of every fan that hangs on the feed: what its plug carries. */
const plugLabels = ({ power: { feed } }: Report): Label[] =>
  feed.nodes.flatMap((n) => {
    if (!n.fans) return []
    const limits = n.fans.fanArray.groups.flatMap((g) => g.model.fan.maxV ?? [])
    return [
      label(
        `plug-${n.id}`,
        [of(n.inV, 'voltage'), ' DC'],
        [`${n.name}: + and − as marked`],
        limits.length ? ['it stands ', of(Math.min(...limits), 'voltage'), ' at most'] : null,
        n.inA === null ? null : ['takes ', of(n.inA, 'current')],
      ),
    ]
  })

const switchLabels = ({ power: { feed } }: Report, plan: StreamPlan): Label[] =>
  feed.nodes.flatMap((n) => {
    const part = plan.feed.find((p) => p.id === n.id)
    if (n.kind !== 'switch' || !part) return []
    const at: Sentence | null =
      part.onC === null
        ? null
        : [
            'closes at ',
            of(part.onC, 'temperature'),
            ...(part.offC === null ? [] : [', opens at ', of(part.offC, 'temperature')]),
          ]
    return [label(`switch-${n.id}`, [n.name], [n.what], at)]
  })

/** The way of the air, once for each place. */
const airLabels = ({ streams }: Report, plan: StreamPlan): Label[] =>
  streams.flatMap((s) => {
    if (s.asIs || !s.fanArray) return []
    const stream = seenFrom(wholePlan(plan), s.id)
    const places = fromEachPlace(stream).filter(({ place }) => place.fans.length > 0)
    return places.flatMap(({ place }): Label[] => {
      const { direction } = place
      if (direction === null) return []
      const where = [streams.length > 1 ? s.name : '', places.length > 1 ? placeName(stream, place) : '']
        .filter(Boolean)
        .join(', ')
      return [
        {
          ...label(
            `air-${s.id}-${place.id}`,
            ['AIR'],
            [direction === 'in' ? 'blows in' : 'draws out'],
            where ? [where] : null,
          ),
          arrow: true,
        },
      ]
    })
  })

/**
 * The labels of a plan.
 * @param date ISO date that stands on the last one
 */
export const labelsOf = (plan: StreamPlan, report: Report, date: string): Label[] => [
  ...sourceLabels(plan, report),
  ...converterLabels(report, plan),
  ...fuseLabels(report, plan),
  ...switchLabels(report, plan),
  ...plugLabels(report),
  ...airLabels(report, plan),
  label(
    'job',
    [plan.job.name],
    [`built ${date}`],
    ['Changes stand in the log book. Unsure? Ask someone licensed.'],
  ),
]
