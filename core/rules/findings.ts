import {
  isOneOfSeveral,
  staysAsIs,
  streamName,
  type StreamPlan,
  fromEachPlace,
  placeName,
} from '#core/document'
import { arrayOf } from '#core/system'
import { assumedFacts, softened } from './assumed'
import { allRuleGroups, type RuleGroup } from './catalogue'
import { byCause, rulesOfCauses } from './causes'
import { concernedElements } from './concerns'
import { judgeRules, type Fired, type Unjudged } from './evaluate'
import type { FactName } from './fact-catalogue'
import { planFacts } from './facts'
import type { FactSources } from './facts/sources'
import { placeOfFact, stationOfGroup, streamGroups, type StationKey, type Where } from './where'

/** A finding as it is told: what, why, what to do, where, and what else the same cause raises. */
export interface Finding extends Fired {
  /** station that it counts for */
  station: StationKey
  /** where it is mended */
  at: Where
  /** elements of the path that it speaks of */
  elements: string[]
  /** findings of the same cause, told below it */
  also: Finding[]
  /** the air stream it speaks of, by name; null in a job of one, and where it speaks of the whole machine */
  stream: { id: string; name: string } | null
}

/** Every finding of a list with those of the same cause, which are told below it. */
export const withAlso = (findings: readonly Finding[]): Finding[] => findings.flatMap((f) => [f, ...f.also])

/** A finding that cannot be believed while something else keeps the fans from running as planned. */
export interface Resting {
  id: string
  message: string
  /** the stop that comes first */
  after: string
}

/** A fact that is not told, where it is told, and what waits for it. */
export interface OpenFact {
  name: FactName
  at: Where
  /** rules that wait for it, the gravest first */
  rules: string[]
  /** gravest of them */
  severity: Fired['severity']
}

/** A finding that may stand, with the reason that was given for it. */
export interface KnownFinding {
  finding: Finding
  reason: string
}

export interface Evaluation {
  findings: Finding[]
  /** what was put aside as known */
  known: KnownFinding[]
  passed: string[]
  notChecked: Unjudged[]
  /** the same by the facts that are missing, those that a stop waits for first */
  open: OpenFact[]
  rests: Resting[]
}

/** A cause that names a rule which is not there would be silent: it is found when this is loaded. */
const known = new Set(allRuleGroups.flatMap((g) => g.rules.map((r) => r.id)))
const strange = rulesOfCauses().filter((id) => !known.has(id))
if (strange.length) throw new Error(`causes.ts names rules that are not there: ${strange.join(', ')}`)

const severities = ['stop', 'fix', 'note'] as const

/** Where a finding is mended: at what it is judged for, at the element it concerns, at the first fact that has a place. */
function whereOf(fired: Fired, elements: readonly string[]): Where {
  const places = Object.keys(fired.facts)
    .map((name) => placeOfFact(name as FactName))
    .filter((w) => w !== null)
  const { subject } = fired
  if (subject?.at) {
    const field = places.find((w) => w.station === subject.at!.station && w.field)?.field
    return field ? { ...subject.at, field } : subject.at
  }
  if (elements.length) return { station: 'air-path', element: elements[0]! }
  return places.find((w) => w.field) ?? { station: stationOfGroup(fired.group) }
}

function openFacts(notChecked: readonly Unjudged[]): OpenFact[] {
  const waiting = new Map<FactName, Unjudged[]>()
  // a rule asks one thing at a time: often the second question only follows from the first
  for (const rule of notChecked) {
    const first = rule.missing[0]!
    waiting.set(first, [...(waiting.get(first) ?? []), rule])
  }
  return [...waiting]
    .map(([name, rules]) => {
      const sorted = rules.toSorted((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity))
      return {
        name,
        at: placeOfFact(name) ?? { station: stationOfGroup(sorted[0]!.group) },
        rules: sorted.map((r) => r.id),
        severity: sorted[0]!.severity,
      }
    })
    .toSorted(
      (a, b) =>
        severities.indexOf(a.severity) - severities.indexOf(b.severity) || b.rules.length - a.rules.length,
    )
}

const groupsOfStream = allRuleGroups.filter((g) => streamGroups.includes(g.key))
const groupsOfMachine = allRuleGroups.filter(
  (g) => !streamGroups.includes(g.key) || g.key === 'noise' || g.key === 'targets',
)
/** What is asked of a stream: nothing of one that stays as it is, the whole machine's with the first one. */
const groupsFor = ({ plan }: FactSources, first: boolean): readonly RuleGroup[] => {
  const asIs = staysAsIs(plan)
  if (first) return asIs ? groupsOfMachine : allRuleGroups
  return asIs ? [] : groupsOfStream
}
/** Two streams may call what they have by the same id. */
const keyOf = (f: Finding) => `${f.id} ${subjectKey(f)} ${f.stream?.id ?? ''}`

/** Rule groups that are judged for each place of the fans. */
const placeGroups = ['fit', 'place']
/** A stream once for each of the places of its fans, with only its fans there; none where there is but one. */
function placesOf(sources: FactSources): { sources: FactSources; place: Fired['subject'] & object }[] {
  const { plan, system, mounts } = sources
  const { fanArray } = system
  if (!fanArray || mounts.length < 2) return []
  return fromEachPlace(plan).flatMap((at) => {
    const { place } = at
    const groups = fanArray.groups.filter((g) => g.placeId === place.id)
    const mount = mounts.find((m) => m.place === place.id)
    if (!groups.length || !mount) return []
    const there = { ...system, fanArray: arrayOf(groups, 'parallel') }
    const where: Where = { station: 'fit', place: place.id }
    return [
      {
        sources: { ...sources, plan: at, system: there, mount },
        place: { kind: 'place' as const, id: place.id, name: placeName(plan, place), at: where },
      },
    ]
  })
}
/** A finding of one of two places says which. */
const ofPlace = (fired: Fired, place: Fired['subject']): Fired => {
  if (!place) return fired
  const { subject } = fired
  if (!subject) return { ...fired, subject: place }
  return { ...fired, subject: { ...subject, at: subject.at && { ...subject.at, ...place.at } } }
}

/**
 * Everything that the rules say of a machine: the first stream with all that concerns the whole, each further stream with
 * what concerns itself. The same thing of the same subject is told once.
 * @param streams one entry a stream, the first one first
 */
export function findingsOf(streams: readonly FactSources[]): Evaluation {
  const [first, ...further] = streams.flatMap((sources, i) => {
    const groups = groupsFor(sources, i === 0)
    const places = placesOf(sources)
    if (places.length < 2) return [findingsOfOne(sources, groups)]
    const whole = groups.filter((g) => !placeGroups.includes(g.key))
    const ofPlace = groups.filter((g) => placeGroups.includes(g.key))
    return [findingsOfOne(sources, whole), ...places.map((p) => findingsOfOne(p.sources, ofPlace, p.place))]
  })
  return further.reduce((all, own): Evaluation => {
    const told = new Set([...all.findings, ...all.known.map((k) => k.finding)].map(keyOf))
    const failed = new Set(
      [...all.findings, ...own.findings].flatMap((f) => [f.id, ...f.also.map((x) => x.id)]),
    )
    return {
      findings: [...all.findings, ...own.findings.filter((f) => !told.has(keyOf(f)))].toSorted(
        (a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity),
      ),
      known: [...all.known, ...own.known.filter((k) => !told.has(keyOf(k.finding)))],
      passed: all.passed.filter((id) => !failed.has(id) && !own.notChecked.some((u) => u.id === id)),
      notChecked: [
        ...all.notChecked,
        ...own.notChecked.filter((u) => !all.notChecked.some((v) => v.id === u.id)),
      ],
      open: [...all.open, ...own.open.filter((o) => !all.open.some((p) => p.name === o.name))],
      rests: [...all.rests, ...own.rests],
    }
  }, first!)
}

/**
 * Everything that the rules say of one stream: each cause once, nothing that a stop makes unbelievable, every fact that is
 * missing with the way to it.
 */
function findingsOfOne(
  sources: FactSources,
  groups: readonly RuleGroup[],
  place: Fired['subject'] = null,
): Evaluation {
  const { plan } = sources
  const whole = planFacts(sources)
  const { findings: fired, passed, notChecked } = judgeRules(whole, whole.subjects, groups)
  const further = isOneOfSeveral(plan) ? plan.stream : null
  const assumed = assumedFacts(plan, sources.system.fanArray)
  const { told, rests } = byCause(fired.map((f) => asFinding(plan, ofPlace(softened(f, assumed), place))))
  const all = told.map(({ finding, also }): Finding => ({ ...finding, also }))
  const reasons = new Map(all.map((f) => [f, knownReason(plan, f)]))
  return {
    findings: all.filter((f) => !reasons.get(f)),
    known: all.flatMap((finding) => {
      const reason = reasons.get(finding)
      return reason ? [{ finding, reason }] : []
    }),
    passed,
    notChecked,
    open: openFacts(notChecked).map((o) => ({
      ...o,
      at: {
        ...o.at,
        ...(further ? { stream: further } : {}),
        ...(place?.at?.place ? { place: place.at.place } : {}),
      },
    })),
    rests: rests.map(({ finding, after }) => ({ id: finding.id, message: finding.message, after: after.id })),
  }
}

/** What a finding is told of, as it is noted when it is put aside. */
export const subjectKey = ({ subject, stream }: Pick<Finding, 'subject' | 'stream'>): string =>
  subject?.id ?? stream?.id ?? ''
/** Why a finding may stand; '' where nobody said so. */
const knownReason = ({ job }: StreamPlan, finding: Finding): string =>
  job.known.find((k) => k.rule === finding.id && k.subject === subjectKey(finding))?.reason ?? ''

/** The stream that a finding of a plan speaks of. */
const streamOf = (plan: StreamPlan, { group, subject }: Fired): Finding['stream'] =>
  isOneOfSeveral(plan) && streamGroups.includes(group) && !(subject?.kind === 'target' && group === 'noise')
    ? { id: plan.stream, name: streamName(plan) }
    : null

function asFinding(plan: StreamPlan, fired: Fired): Finding {
  const own = fired.subject?.at?.element
  const elements = own ? [own] : concernedElements(plan, fired.id)
  const stream = streamOf(plan, fired)
  const at = whereOf(fired, elements)
  return {
    ...fired,
    station: stationOfGroup(fired.group),
    at: stream ? { ...at, stream: stream.id } : at,
    elements,
    also: [],
    stream,
  }
}
