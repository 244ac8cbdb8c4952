import { converterDefaults } from '#core/power'
import { sourcesOf, trunkStream, type FeedPart, type Source } from '#core/document'
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

/** What a converter is, by the id of its node; undefined for any other node. */
function converterOf(sources: FactSources, id: string) {
  const { converter } = sources.plan
  if (converter?.id === id) return { kind: converter.kind, outV: converter.outV }
  const part = partOf(sources, id)
  return part?.kind === 'converter'
    ? { kind: part.converterKind ?? ('buck' as const), outV: part.outV }
    : undefined
}

/** Every node above one, the nearest first. */
function above(nodes: readonly FeedNodeReport[], node: FeedNodeReport): FeedNodeReport[] {
  const parent = nodes.find((n) => n.id === node.parentId)
  return parent ? [parent, ...above(nodes, parent)] : []
}

/** What a fan that is fed stands between: nothing, or the nearest converter above it. */
function feederFacts(fed: Fed, node: FeedNodeReport): SiFacts {
  const converter = above(fed.nodes, node)
    .map((n) => converterOf(fed, n.id))
    .find((c) => c !== undefined)
  if (!converter) return { 'conv.kind': 'none' }
  const holds = setKinds.includes(converter.kind)
  return {
    'conv.kind': holds ? converter.kind : undefined,
    'conv.vOut': holds ? converter.outV : node.inV,
    'usb.boost': converter.kind === 'boost',
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
  if (!fanArray || !plan.selection) return []
  const node = fed ? fansNodeOf(plan, power.feed) : undefined
  const members = distinctMembers(fanArray)
  return members.map((m): SiSubject => {
    const { fan } = m
    return {
      kind: 'driven',
      id: fan.id,
      name: members.length > 1 || plan.feed.some((f) => f.loadKind === 'fan') ? fan.model : '',
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

/** What a converter's node does, whichever converter it is. */
function convertingFacts(node: FeedNodeReport, kind: string, outV: number | null): SiFacts {
  const regulated = setKinds.includes(kind)
  return {
    'conv.kind': regulated ? kind : undefined,
    'conv.vOut': regulated ? (outV ?? undefined) : undefined,
    'conv.outA': regulated ? (node.worstOutA ?? null) : undefined,
    'conv.iMax': regulated ? node.limitA : undefined,
    'supply.vMin': node.lowV,
    'boost.inputA': kind === 'boost' ? node.worstA : undefined,
    'resistor.ohm': kind === 'resistor' ? node.ohm : undefined,
    'resistor.power': kind === 'resistor' ? node.heatW : undefined,
  }
}

/** What the plan's own converter states besides. */
function ownConverterFacts(fed: Fed, node: FeedNodeReport): SiFacts {
  const { plan, power, system } = fed
  const converter = plan.converter!
  const { kind } = converter
  const regulated = setKinds.includes(kind)
  const linear = kind === 'linear'
  const perW = linear ? converter.junctionToAirKPerW : null
  const hottest = perW === null ? null : (plan.job.ambientMaxC ?? plan.job.ambientC) + node.heatW * perW
  const startsAt = system.fanArray?.model.startKnown ? system.fanArray.model.startV : undefined
  return {
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
    'fan.startA': kind === 'resistor' ? power.fanStartA : undefined,
    'fan.startV': kind === 'resistor' ? startsAt : undefined,
    'divider.feedsFan': kind === 'divider' ? true : undefined,
    'cap.ratingV': converter.capV ?? undefined,
    'cap.highV': converter.capV === null ? undefined : node.highV,
  }
}

function converterSubjects(fed: Fed): SiSubject[] {
  const { plan, nodes } = fed
  return nodes.flatMap((node): SiSubject[] => {
    const converter = converterOf(fed, node.id)
    if (!converter) return []
    const own = plan.converter?.id === node.id
    const set = partOf(fed, node.id)?.setFirst
    const facts: SiFacts = {
      ...ofOwnSource(fed, node),
      ...convertingFacts(node, converter.kind, converter.outV),
      ...(own
        ? ownConverterFacts(fed, node)
        : setKinds.includes(converter.kind)
          ? {
              'conv.adjustable': true,
              'conv.setFirst': set,
              'conv.dropout': converter.kind === 'boost' ? undefined : converterDefaults.buck.dropoutV,
            }
          : {}),
    }
    return [{ kind: 'converter', id: node.id, name: node.name, at: { station: 'power', part: node.id }, facts }]
  })
}

/** The source that feeds a node. */
function sourceAbove(fed: Fed, node: FeedNodeReport): Source {
  const root = rootOf(fed.power.feed, node)
  return sourcesOf(fed.plan).find((s) => s.id === root.id) ?? fed.source
}
const fuseOf = ({ fuseFitted, fuseA }: Source) => (fuseFitted === false ? null : fuseA)

/** What a further source is, beside what the whole plan says of its first one. */
function ofOwnSource(fed: Fed, node: FeedNodeReport): SiFacts {
  const source = sourceAbove(fed, node)
  return source === fed.source ? {} : sourceFacts({ ...fed, source })
}

/** Every source with what is drawn from it: alike for all, the first one named only where there are several. */
function sourceSubjects(fed: Fed): SiSubject[] {
  const sources = sourcesOf(fed.plan)
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

/**
 * Fuse that protects a lead, A: its own, else the nearest one above it up to a converter, which limits by power and not by
 * current; null where none is known.
 */
function fuseAbove(fed: Fed, node: FeedNodeReport): number | null {
  if (node.lead?.fuseA) return node.lead.fuseA
  const parent = fed.nodes.find((n) => n.id === node.parentId)
  if (!parent || parent.kind === 'converter') return null
  if (parent.kind === 'source') return fuseOf(sourceAbove(fed, node))
  return fuseAbove(fed, parent)
}

function leadSubjects(fed: Fed): SiSubject[] {
  const { source, nodes } = fed
  const leads = nodes.flatMap((node): SiSubject[] => {
    const { lead } = node
    if (!lead || lead.ampacityA === null || node.inA === null) return []
    const amps = node.worstA ?? node.inA
    const trunk = node.fans?.stream === trunkStream(fed.plan)
    return [
      {
        kind: 'lead',
        id: node.id,
        name: nodes.filter((n) => n.lead?.ampacityA).length > 1 ? `wire to ${node.name}` : '',
        at: { station: 'power', part: trunk ? source.id : node.id },
        facts: {
          'wire.drop': lead.dropV,
          'wire.lineV': node.aboveV,
          'wire.current': amps,
          'wire.ampacity': lead.ampacityA,
          'fuse.rating': fuseAbove(fed, node) ?? undefined,
        },
      },
    ]
  })
  return [...leads, ...sourcesOf(fed.plan).flatMap((source) => trunkSubject(fed, source, leads))]
}

/** The fuse at a source against all that it carries; none where its only lead says the same. */
function trunkSubject(fed: Fed, source: Source, leads: readonly SiSubject[]): SiSubject[] {
  const mine = fed.nodes.filter((n) => sourceAbove(fed, n) === source)
  const fuseA = fuseOf(source)
  const carried = mine.find((n) => n.id === source.id)?.worstOutA ?? null
  const ids = new Set(mine.map((n) => n.id))
  const alone = leads.filter((l) => ids.has(l.id)).length === 1 && !mine.some((n) => n.kind === 'load')
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
function thermalFacts({ plan: { job }, needEnv }: Fed, part: FeedPart): SiFacts {
  const cools = job.goal === 'cool' || job.goal === 'quieten'
  if (!part.carriesFans) return {}
  if (part.switchKind === 'thermal-nc')
    return { 'switch.opensWarm': cools || job.goal === 'part' ? true : undefined }
  if (part.switchKind !== 'thermal-no' && part.switchKind !== 'thermostat') return {}
  return {
    'switch.onTemp': part.onC,
    'switch.offTemp': part.offC ?? undefined,
    // a box without wall loss told gets as hot as one likes
    'switch.reached': cools && job.wallLossWK ? (insideC(job, needEnv.air, 0) ?? undefined) : undefined,
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
  const { source } = sources.plan
  const { nodes } = sources.power.feed
  const [first] = sourcesOf(sources.plan)
  const fed: Fed | null = first && nodes.length ? { ...sources, source: source ?? first, nodes } : null
  const picked = pickedSubjects(sources, fed)
  if (!fed) return picked
  const further = nodes.flatMap((node) => {
    const part = partOf(sources, node.id)
    return part?.loadKind === 'fan' ? [loadFan(fed, node, part)] : []
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
