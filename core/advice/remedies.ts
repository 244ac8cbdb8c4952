import {
  newConverter,
  newSource,
  putInLead,
  sourceOf,
  setDrive,
  type FeedPart,
  type StreamPlan,
  type PlanInput,
} from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { resistorRating } from '#core/power'
import { subjectKey, withAlso, type Finding } from '#core/rules'
import { fansNodeOf, fuseFamilyOf, fuseFor, rootOf } from '#core/supply'
import { freeAreaOf, sweptArea } from '#core/system'
import { changesOf, type Change } from './improvements'

/** What can be tried against a finding: changes of the plan, each computed, kept only where the finding is gone after it. */
export interface Remedy {
  key: string
  /** what is changed, in words */
  label: string
  plan: StreamPlan
  /** airflow that does the job then, m3/s, and level at the listener, dB(A) */
  flow: number | null
  level: number | null
}

/** Remedies that are shown at most. */
const MOST = 4
/** Thinnest wire number that is offered. */
const THICKEST_AWG = 14
const CONVERTER_ID = 'converter-remedy'

type Make = (input: PlanInput, report: Report, finding: Finding) => Change[]
const change = (key: string, label: string, apply: (plan: StreamPlan) => void): Change => ({
  key,
  label,
  group: 'drive',
  change: apply,
})
const partOf = (plan: StreamPlan, finding: Finding): FeedPart | undefined =>
  plan.feed.find((f) => f.id === finding.subject?.id)

/** A converter before the fan that gets too much or too little: the picked one's, or one of its own. */
const convert =
  (kind: 'buck' | 'boost'): Make =>
  ({ plan, fans }, { selection }, finding) => {
    const part = partOf(plan, finding)
    const volts = part
      ? (fans.find((f) => f.id === part.fanId)?.ratedV ?? part.ratedV)
      : selection?.fanArray.model.fan.ratedV
    if (!volts) return []
    const label = `a step-${kind === 'buck' ? 'down' : 'up'} converter set to ${volts} V`
    return [
      change(`convert.${kind}`, label, (p) => {
        if (!part) return setDrive(p, { volts, by: { converterKind: kind }, converterId: CONVERTER_ID })
        const made = newConverter(`${part.id}-converter`, volts, kind)
        putInLead(
          p,
          p.feed.find((f) => f.id === part.id)!,
          { ...made, setFirst: null },
        )
      }),
    ]
  }

const fasten: Make = (_, { selection }) => {
  const volts = selection?.fanArray.model.fan.ratedV
  return volts
    ? [change('drive.rated', 'full rated voltage', (p) => setDrive(p, { volts, converterId: CONVERTER_ID }))]
    : []
}

/** The gauges that are thicker than what is there. */
const thicken: Make = ({ plan }, _, finding) => {
  const part = partOf(plan, finding)
  const now = part?.wireAwg ?? null
  if (!part || now === null) return []
  const thicker = Array.from({ length: Math.max(0, (now - THICKEST_AWG) / 2) }, (_x, i) => now - 2 * (i + 1))
  return thicker.map((awg) =>
    change(`awg.${awg}`, `a wire of AWG ${awg}`, (p) => {
      Object.assign(
        p.feed.find((f) => f.id === part.id)!,
        { wireAwg: awg, wireMm2: null },
      )
    }),
  )
}

const fuse: Make = ({ plan }, report, finding) => {
  const part = partOf(plan, finding)
  const { feed } = report.power
  const node = part ? feed.nodes.find((n) => n.id === part.id) : fansNodeOf(plan, feed)
  const source = node && plan.sources.find((s) => s.id === rootOf(feed, node).id)
  const amps = node && source ? fuseFor(node, fuseFamilyOf(source)) : null
  // the fuse at a source that feeds nothing else protects the lead
  const alone = source && plan.feed.filter((f) => f.parentId === source.id).length === 1
  const own = part && (part.fuseA !== null || !alone || source.fuseA === null)
  return amps === null
    ? []
    : [
        change('fuse', `a fuse of ${amps} A`, (p) => {
          if (own) p.feed.find((f) => f.id === part.id)!.fuseA = amps
          else
            Object.assign(
              p.sources.find((s) => s.id === source?.id)!,
              { fuseA: amps, fuseFitted: true },
            )
        }),
      ]
}

const rateResistor: Make = (_, report, finding) => {
  const node = report.power.feed.nodes.find((n) => n.id === finding.subject?.id)
  const watts = node ? resistorRating(node.heatW) : null
  return watts === null
    ? []
    : [
        change('rating', `one rated for ${watts} W`, (p) => {
          p.feed.find((f) => f.id === node!.id)!.ratingW = watts
        }),
      ]
}

/** Currents that small supplies are sold with, A. Common practice, no source. */
const SUPPLY_AMPS = [1, 2, 3, 5, 8, 10, 15, 20]
/** Load over what the supply gives that is used without a word. */
const LOADED = 0.8
/** A supply of the hub’s own; the header stays as what only steers. */
const ownSupply: Make = ({ plan }, { selection, power }) => {
  const source = sourceOf(plan)
  const volts = selection?.fanArray.model.fan.ratedV ?? source?.nominalV
  if (!source || !volts) return []
  const wanted = Math.max((power.loadWorstA ?? 0) / LOADED, power.loadStartA ?? 0)
  const amps = SUPPLY_AMPS.find((a) => a >= wanted)
  const label = `an adapter of ${volts} V${amps ? `, ${amps} A` : ''} for the hub; the header only steers`
  return [
    change('hub.supply', label, (p) => {
      const made = { ...newSource(`${source.id}-hub`, 'adapter', volts), iMaxA: amps ?? null, regulated: true }
      p.sources.unshift(made)
      for (const part of p.feed) if (part.parentId === source.id) part.parentId = made.id
    }),
  ]
}

const straighten: Make = ({ plan }, _, finding) =>
  finding.elements.map((id) =>
    change(`stretch.${id}`, `${plan.path.find((e) => e.id === id)?.name ?? 'the hose'}: stretched`, (p) => {
      const e = p.path.find((x) => x.id === id)
      if (e) e.slack = 1
    }),
  )

/** Room left over what the fans sweep, share. A choice of ours. */
const OVER_SWEPT = 1.1
/** The openings of an element made as large as what the fans sweep, or a duct as wide as the fan. */
const widen: Make = (input, report, finding) => {
  const { plan } = input
  const fans = report.selection?.fanArray
  if (!fans) return []
  const own = finding.elements.flatMap((id) => {
    const e = plan.path.find((x) => x.id === id)
    if (!e) return []
    if (e.kind === 'duct' || e.kind === 'bend') {
      const bore = fans.model.fan.frameM
      const narrow = plan.path.filter(
        (x) => (x.kind === 'duct' || x.kind === 'bend') && (x.diameterM ?? 1) < bore,
      )
      return [
        change(`bore.${id}`, `${narrow.map((x) => x.name).join(', ')}: as wide as the fan`, (p) => {
          for (const x of p.path) if (narrow.some((n) => n.id === x.id)) x.diameterM = bore
        }),
      ]
    }
    const free = freeAreaOf(e)
    const wanted =
      OVER_SWEPT *
      sweptArea(fans.model.fan) *
      (fans.arrangement === 'parallel' ? fans.count : fans.groups[0]!.count)
    return e.areaM2 && free && free < wanted
      ? [
          change(`area.${id}`, `${e.name}: as large as what the fans sweep`, (p) => {
            const x = p.path.find((y) => y.id === id)!
            x.areaM2 = (x.areaM2! * wanted) / free
          }),
        ]
      : []
  })
  return [...own, ...levers(input, report, finding)]
}

/** What the path, the drive, the fans and the wishes could give; of an element only what changes it. */
const levers: Make = ({ plan, fans, shown }, report, finding) => {
  const all = changesOf(plan, report, { plan, fans, shown })
  const own = all.filter((c) => finding.elements.some((id) => c.key.startsWith(`path.${id}.`)))
  return own.length ? own : all
}

const makers: Record<string, Make> = Object.fromEntries(
  (
    [
      [
        convert('buck'),
        [
          'power-over-voltage',
          'power-direct-too-high',
          'power-wrong-nominal',
          'power-vehicle-high',
          'power-unregulated',
          'batt-full-too-high',
          'batt-solar-open-volts',
          'own-over-assumed',
          'own-may-be-over',
        ],
      ],
      [convert('boost'), ['power-usb-12v-fan']],
      [
        fasten,
        ['fan-will-not-start', 'fan-start-margin', 'own-start-assumed', 'own-not-turning', 'power-under-run'],
      ],
      [thicken, ['wire-ampacity', 'wire-drop', 'wire-drop-note']],
      [fuse, ['wire-fuse-missing', 'wire-fuse-too-big', 'wire-fuse-too-small', 'wire-fuse-useless']],
      [rateResistor, ['power-resistor-burns', 'power-resistor-hot']],
      [ownSupply, ['own-hub-unfed']],
      [straighten, ['air-duct-slack']],
      [
        widen,
        [
          'air-inlet-small',
          'air-outlet-small',
          'air-duct-narrow',
          'port-intake-starved',
          'port-outlet-starved',
        ],
      ],
      [
        levers,
        [
          'need-flow-short',
          'need-flow-far-short',
          'need-margin-thin',
          'need-oversized',
          'need-rise-tight',
          'need-capture-slow',
          'need-clear-out-slow',
          'air-grille-closed',
          'air-duct-fast',
          'air-filter-too-fast',
          'air-filter-loaded-short',
          'fan-pressure-short',
          'fan-stall-region',
          'fan-quiet-type-restricted',
          'fan-parallel-no-gain',
          'fan-series-no-gain',
          'fan-no-redundancy',
          'noise-target-missed',
          'noise-sum-missed',
          'noise-exposure',
          'noise-exposure-action',
          'target-hotter',
          'target-may-be-hotter',
          'target-runtime-short',
          'batt-runtime-short',
          'power-overload',
          'power-headroom-thin',
        ],
      ],
    ] as [Make, string[]][]
  ).flatMap(([make, ids]) => ids.map((id) => [id, make])),
)

/** Whether something can be tried against findings of this rule. */
export const hasRemedies = (ruleId: string): boolean => ruleId in makers

const same = (a: Finding, b: Finding) => a.id === b.id && subjectKey(a) === subjectKey(b)
const stops = (findings: readonly Finding[]) => findings.filter((f) => f.severity === 'stop').length

/**
 * Changes of the plan after which a finding is gone and no stop has come instead, the ones that move the most air first.
 * @param input the plan with its fans
 * @param report its report
 * @param finding one of the report's
 */
export function remediesOf(input: PlanInput, report: Report, finding: Finding): Remedy[] {
  const before = stops(report.findings.findings)
  const cured = (makers[finding.id]?.(input, report, finding) ?? []).flatMap(
    ({ key, label, change: apply }) => {
      const next = JSON.parse(JSON.stringify(input.plan)) as StreamPlan
      apply(next)
      const result = computeReport({ ...input, plan: next })
      if (!result.ok) return []
      const { findings, selection } = result.report
      const stays = withAlso(findings.findings).some((f) => same(f, finding))
      const later = findings.rests.some((r) => r.id === finding.id)
      if (stays || later || stops(findings.findings.filter((f) => f.id !== 'power-converter-unset')) > before)
        return []
      return [
        {
          key,
          label,
          plan: next,
          flow: selection?.served.value ?? null,
          level: selection?.candidate.level?.value ?? null,
        },
      ]
    },
  )
  return cured.slice(0, MOST)
}
