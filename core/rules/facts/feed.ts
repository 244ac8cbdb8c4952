import { converterDefaults } from '#core/power'
import {
  isConverter,
  leadOfFans,
  partsAbove,
  sourceFuse,
  sourceOf,
  type Converter,
  type FeedPart,
  type Source,
  blowsOf,
} from '#core/document'
import { fansNodeOf, ledDrop, rootOf, windowOf, type FeedNodeReport } from '#core/supply'
import { insideC } from '#core/system'
import { distinctMembers } from './fan'
import { headerFacts, sourceFacts, usbFacts } from './power'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** The things of the feed that are judged one by one: every fan that is fed, every converter, every lead, every LED string. */

/** Junction temperature to stay under, degC. docs/physics.md, linear regulator. */
const JUNCTION_LIMIT_C = 100
/** Current that common indicator LEDs are rated for, A. Common practice, no source. */
const LED_RATED_A = 0.02
const setKinds = ['buck', 'boost', 'linear']

/** The solved feed of a source. */
interface Fed extends FactSources {
  source: Source
  nodes: readonly FeedNodeReport[]
}

const partOf = ({ plan }: FactSources, id: string): FeedPart | undefined => plan.feed.find((f) => f.id === id)

/** The converter that stands at a node; undefined for any other node. */
const converterAt = ({ plan }: FactSources, id: string): Converter | undefined =>
  plan.feed.filter(isConverter).find((p) => p.id === id)

/** Every node above one, the nearest first. */
function above(nodes: readonly FeedNodeReport[], node: FeedNodeReport): FeedNodeReport[] {
  const parent = nodes.find((n) => n.id === node.parentId)
  return parent ? [parent, ...above(nodes, parent)] : []
}

/** What a fan that is fed stands between: nothing, or the nearest converter above it. */
function feederFacts(fed: Fed, node: FeedNodeReport): SiFacts {
  const converter = above(fed.nodes, node)
    .map((n) => converterAt(fed, n.id))
    .find((c) => c !== undefined)
  if (!converter) return { 'conv.kind': 'none' }
  const holds = setKinds.includes(converter.converterKind)
  return {
    'conv.kind': holds ? converter.converterKind : undefined,
    'conv.vOut': holds ? converter.outV : node.inV,
    'usb.boost': converter.converterKind === 'boost',
  }
}

/** A stop rests on what a sheet or a meter says: assumed limits have facts of their own. */
const limitFacts = (limits: {
  maxV: number | null
  startV: number | null
  maxKnown: boolean
  startKnown: boolean
}): SiFacts => ({
  'fan.vMax': limits.maxKnown ? (limits.maxV ?? undefined) : undefined,
  'fan.vMaxAssumed': limits.maxKnown ? undefined : (limits.maxV ?? undefined),
  'fan.startV': limits.startKnown ? (limits.startV ?? undefined) : undefined,
  'fan.startVAssumed': limits.startKnown ? undefined : (limits.startV ?? undefined),
})

/**
 * Highest voltage at a fan: a stop rests on what is typed, measured or in the nature of the source; a tolerance that is
 * usual of it only asks.
 */
function highFacts(node: FeedNodeReport | undefined, maxV: number | null): SiFacts {
  if (!node) return {}
  if (node.highFirm) return { 'fan.highV': node.highV }
  return node.inV > (maxV ?? Infinity) ? { 'fan.highV': node.inV } : { 'fan.highVAssumed': node.highV }
}

/** Lowest voltage at a fan, in the same way. */
function lowFacts(node: FeedNodeReport, startV: number | null): SiFacts {
  if (node.lowFirm) return { 'fan.drivenV': node.lowV }
  const assumed = node.inV >= (startV ?? 0) && node.lowV < node.inV
  return { 'fan.drivenV': node.inV, 'fan.drivenVAssumed': assumed ? node.lowV : undefined }
}

/** The picked fans at what reaches them; without a source at the voltage they were picked for. */
function pickedSubjects(sources: FactSources, fed: Fed | null): SiSubject[] {
  const { plan, power, operation } = sources
  const { fanArray } = sources.system
  if (!fanArray) return []
  const node = fed ? fansNodeOf(plan, power.feed) : undefined
  const members = distinctMembers(fanArray)
  const otherFans = plan.feed.some((f) => f.loadKind === 'fan' && f.streamId !== plan.stream)
  return members.map((m): SiSubject => {
    const { fan } = m
    return {
      kind: 'driven',
      id: fan.id,
      name: members.length > 1 || otherFans ? fan.model : '',
      at: { station: 'power' },
      facts: {
        ...limitFacts(m),
        'fan.ratedV': fan.ratedV,
        'fan.vMin': fan.minV ?? undefined,
        ...(node && power.fanLowV !== null
          ? lowFacts(node, m.startV)
          : { 'fan.drivenV': power.fanV ?? undefined }),
        ...(power.fanHighV === null ? {} : highFacts(node, m.maxV)),
        'fan.currentKnown': fan.ratedA !== null,
        // a stated lowest voltage has its own rule; an assumed one only asks
        'op.turns': operation.candidate?.none === 'not-turning' && fan.minV === null ? false : undefined,
        ...(node && fed ? feederFacts(fed, node) : {}),
      },
    }
  })
}

/** A further fan of the feed. */
function loadFan(fed: Fed, node: FeedNodeReport, part: FeedPart): SiSubject {
  const { maxV, startV, minV, assumed } = node.limits
  const fan = node.fans?.fanArray.model.fan ?? fed.fans.find((f) => f.id === part.fanId)
  return {
    kind: 'driven',
    id: part.id,
    name: part.name,
    at: { station: 'power', part: part.id },
    facts: {
      ...limitFacts({ maxV, startV, maxKnown: !assumed.max, startKnown: !assumed.start }),
      'fan.ratedV': fan?.ratedV ?? part.ratedV,
      'fan.vMin': assumed.min ? undefined : (minV ?? undefined),
      ...lowFacts(node, startV),
      ...highFacts(node, maxV),
      'fan.currentKnown': node.inA !== null,
      ...ofOwnSource(fed, node),
      ...feederFacts(fed, node),
    },
  }
}

/** The fans of streams that hang on a node. */
const fansBehind = (nodes: readonly FeedNodeReport[], id: string): FeedNodeReport[] =>
  nodes.filter((n) => n.fans !== null && above(nodes, n).some((x) => x.id === id))

function converterFacts({ plan, nodes }: Fed, node: FeedNodeReport, converter: Converter): SiFacts {
  const kind = converter.converterKind
  const regulated = setKinds.includes(kind)
  const linear = kind === 'linear'
  const perW = linear ? converter.junctionToAirKPerW : null
  const hottest = perW === null ? null : (plan.job.ambientMaxC ?? plan.job.ambientC) + node.heatW * perW
  const fans = fansBehind(nodes, node.id)
  const starts = fans.flatMap(({ limits }) =>
    limits.assumed.start || limits.startV === null ? [] : [limits.startV],
  )
  return {
    'conv.kind': regulated ? kind : undefined,
    'conv.vOut': regulated ? (converter.outV ?? undefined) : undefined,
    'conv.outA': regulated ? (node.worstOutA ?? null) : undefined,
    'conv.iMax': regulated ? node.limitA : undefined,
    'supply.vMin': node.lowV,
    'boost.inputA': kind === 'boost' ? node.worstA : undefined,
    'resistor.ohm': kind === 'resistor' ? node.ohm : undefined,
    'resistor.power': kind === 'resistor' ? node.heatW : undefined,
    'conv.vSet': regulated ? (converter.measuredV ?? undefined) : undefined,
    'conv.dropout':
      kind === 'buck' || kind === 'linear'
        ? (converter.dropoutV ?? converterDefaults[kind].dropoutV)
        : undefined,
    'conv.adjustable': regulated ? converter.adjustable : undefined,
    'conv.setFirst': regulated ? converter.setFirst : undefined,
    'reg.tj': linear ? hottest : undefined,
    'reg.tjMax': linear ? JUNCTION_LIMIT_C : undefined,
    'reg.caps': linear ? converter.capsFitted : undefined,
    'resistor.rating': kind === 'resistor' ? converter.ratingW : undefined,
    'fan.startA':
      kind !== 'resistor' || !fans.length
        ? undefined
        : fans.some((n) => n.startA === null)
          ? null
          : fans.reduce((sum, n) => sum + n.startA!, 0),
    'fan.startV': kind === 'resistor' && starts.length ? Math.max(...starts) : undefined,
    'divider.feedsFan': kind === 'divider' && fans.length ? true : undefined,
    'cap.ratingV': converter.capV ?? undefined,
    'cap.highV': converter.capV === null ? undefined : node.highV,
  }
}

const converterSubjects = (fed: Fed): SiSubject[] =>
  fed.nodes.flatMap((node): SiSubject[] => {
    const converter = converterAt(fed, node.id)
    if (!converter) return []
    const facts = { ...ofOwnSource(fed, node), ...converterFacts(fed, node, converter) }
    return [{ kind: 'converter', id: node.id, name: node.name, at: { station: 'power', part: node.id }, facts }]
  })

/** The source that feeds a node. */
function feedingOf(fed: Fed, node: FeedNodeReport): Source {
  const root = rootOf(fed.power.feed, node)
  return fed.plan.sources.find((s) => s.id === root.id) ?? fed.source
}

/** What a further source is, beside what the whole plan says of its first one. */
function ofOwnSource(fed: Fed, node: FeedNodeReport): SiFacts {
  const source = feedingOf(fed, node)
  return source === fed.source ? {} : sourceFacts({ ...fed, source })
}

/** Every source with what is drawn from it: alike for all, the first one named only where there are several. */
function sourceSubjects(fed: Fed): SiSubject[] {
  const sources = fed.plan.sources
  return sources.flatMap((source): SiSubject[] => {
    const root = fed.nodes.find((n) => n.id === source.id)
    if (!root) return []
    const unknown = fed.nodes.some(
      (n) => n.kind === 'selection' && n.inA === null && rootOf(fed.power.feed, n) === root,
    )
    const power = {
      ...fed.power,
      loadWorstA: unknown ? null : root.worstA,
      loadStartA: unknown ? null : root.startA,
    }
    const own = { ...fed, source, power }
    return [
      {
        kind: 'source',
        id: source.id,
        name: sources.length > 1 ? root.name : '',
        at: { station: 'power', part: source.id },
        facts: { ...sourceFacts(own), ...headerFacts(own), ...usbFacts(own) },
      },
    ]
  })
}

function leadSubjects(fed: Fed): SiSubject[] {
  const { nodes } = fed
  const leads = nodes.flatMap((node): SiSubject[] => {
    const { lead } = node
    if (!lead || lead.ampacityA === null || node.inA === null) return []
    const amps = node.worstA ?? node.inA
    return [
      {
        kind: 'lead',
        id: node.id,
        name: nodes.filter((n) => n.lead?.ampacityA).length > 1 ? `wire to ${node.name}` : '',
        at: { station: 'power', part: node.id },
        facts: {
          'wire.drop': lead.dropV,
          'wire.lineV': node.aboveV,
          'wire.current': amps,
          'wire.ampacity': lead.ampacityA,
          'fuse.rating': lead.guardA ?? undefined,
        },
      },
    ]
  })
  return [...leads, ...fed.plan.sources.flatMap((source) => trunkSubject(fed, source, leads))]
}

/** The fuse at a source against all that it carries; none where its only lead says the same. */
function trunkSubject(fed: Fed, source: Source, leads: readonly SiSubject[]): SiSubject[] {
  const mine = fed.nodes.filter((n) => feedingOf(fed, n) === source)
  const fuseA = sourceFuse(source)
  const carried = mine.find((n) => n.id === source.id)?.worstOutA ?? null
  const ids = new Set(mine.map((n) => n.id))
  const judged = leads.filter((l) => ids.has(l.id))
  const alone =
    judged.length === 1 && judged[0]!.facts['fuse.rating'] === fuseA && !mine.some((n) => n.kind === 'load')
  if (fuseA === null || carried === null || alone) return []
  return [
    {
      kind: 'lead',
      id: source.id,
      name: source.name,
      at: { station: 'power', part: source.id },
      facts: { 'fuse.rating': fuseA, 'wire.current': carried },
    },
  ]
}

/** The contact that is told with the wiring, in the lead of everything. */
function wiringContact({ plan, power }: Fed): SiSubject[] {
  const { switchDcV, switchDcA } = plan.wiring
  if (switchDcV === null && switchDcA === null) return []
  const facts: SiFacts = {
    'switch.device': 'contact',
    'switch.dcV': switchDcV,
    'switch.dcA': switchDcA,
    'switch.lineV': windowOf(plan)?.highV,
    'switch.lineA': power.loadWorstA,
  }
  return [{ kind: 'switch', id: 'wiring', name: '', at: { station: 'power' }, facts }]
}

/** Temperatures of a switch that closes when it gets warm, against what the plan reaches. */
function thermalFacts({ streams, needEnv }: Fed, part: FeedPart): SiFacts {
  const fed = streams.find(({ plan }) => {
    const lead = leadOfFans(plan)
    return lead && partsAbove(plan, lead).includes(part)
  })
  if (!fed) return {}
  const { job } = fed.plan
  const cools = job.goal === 'cool' || job.goal === 'quieten'
  if (part.switchKind === 'thermal-nc')
    return { 'switch.opensWarm': cools || job.goal === 'part' ? true : undefined }
  if (part.switchKind !== 'thermal-no' && part.switchKind !== 'thermostat') return {}
  return {
    'switch.onTemp': part.onC,
    'switch.offTemp': part.offC ?? undefined,
    // a box without wall loss told gets as hot as one likes
    'switch.reached':
      cools && job.wallLossWK ? (insideC(job, blowsOf(fed.plan), needEnv.air, 0) ?? undefined) : undefined,
    'switch.coolest': job.ambientC,
  }
}

/** Every switch with what its contact opens, and when. */
function switchSubjects(fed: Fed): SiSubject[] {
  return fed.nodes.flatMap((node): SiSubject[] => {
    const part = partOf(fed, node.id)
    if (part?.kind !== 'switch') return []
    const facts: SiFacts = {
      'switch.device': 'contact',
      'switch.dcV': part.contactV,
      'switch.dcA': part.contactA,
      'switch.lineV': node.highV,
      'switch.lineA': node.worstOutA ?? null,
      ...thermalFacts(fed, part),
    }
    return [{ kind: 'switch', id: part.id, name: part.name, at: { station: 'power', part: part.id }, facts }]
  })
}

function ledSubjects(fed: Fed): SiSubject[] {
  return fed.nodes.flatMap((node): SiSubject[] => {
    const part = partOf(fed, node.id)
    if (part?.loadKind !== 'led') return []
    const stringV = (part.ledString ?? 1) * ledDrop(part)
    const facts: SiFacts = {
      'led.stringV': stringV,
      'led.feedV': node.lowV,
      'led.current': node.ohm ? Math.max(0, node.highV - stringV) / node.ohm : undefined,
      'led.rated': LED_RATED_A,
    }
    return [{ kind: 'led', id: part.id, name: part.name, at: { station: 'power', part: part.id }, facts }]
  })
}

/** Every source, every fan that is fed, every converter, lead and LED string. */
export function feedSubjects(sources: FactSources): SiSubject[] {
  const { plan } = sources
  const { nodes } = sources.power.feed
  const source = sourceOf(plan) ?? plan.sources[0]
  const fed: Fed | null = source && nodes.length ? { ...sources, source, nodes } : null
  const picked = pickedSubjects(sources, fed)
  if (!fed) return picked
  const further = nodes.flatMap((node) => {
    const part = partOf(sources, node.id)
    return part?.loadKind === 'fan' && part.streamId !== plan.stream ? [loadFan(fed, node, part)] : []
  })
  return [
    ...picked,
    ...further,
    ...sourceSubjects(fed),
    ...converterSubjects(fed),
    ...leadSubjects(fed),
    ...ledSubjects(fed),
    ...switchSubjects(fed),
    ...wiringContact(fed),
  ]
}
