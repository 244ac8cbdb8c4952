import { sourceOf, staysAsIs, type StreamPlan } from '#core/document'
import type { BuildReport } from '#core/build'
import type { DayReport } from '#core/day'
import type { MountReport } from '#core/mount'
import type { Requirement } from '#core/requirement'
import type { Evaluation, Finding, StationKey } from '#core/rules'
import type { Operation, SelectionContext } from '#core/selection'
import type { PowerState } from '#core/supply'
import { pathDrop, type AirSystem } from '#core/system'
import type { Quantity, Sentence } from '#core/units'
import type { VerdictReport } from '#core/verification'

/** disc, ring, diamond, square on the screen: the shape tells, not only the colour */
export type StationState = 'settled' | 'not-begun' | 'fix' | 'stop'

export interface Station {
  key: StationKey
  title: string
  state: StationState
  headline: Sentence
}

interface Parts {
  plan: StreamPlan
  system: AirSystem
  requirement: Requirement
  context: SelectionContext
  operation: Operation
  power: PowerState
  verdict: VerdictReport
  findings: Evaluation
  fanName: string
  mount: MountReport | null
  day: DayReport | null
  build: BuildReport
}

export const goalNames = {
  cool: 'cool a box',
  part: 'cool a part',
  ventilate: 'ventilate',
  fume: 'carry off fumes',
  stir: 'stir',
  chill: 'chill water',
  quieten: 'quieten',
} as const

type Headline = (parts: Parts) => Sentence
const of = (value: number | null, quantity: Quantity) => ({ value, quantity })

const needHeadline: Headline = ({ requirement: { missing, flow, levelLimit } }) =>
  missing
    ? [`wants ${missing}`]
    : [of(flow, 'flow'), ...(levelLimit === null ? [] : [', ≤ ', of(levelLimit, 'level')])]

const elementsWords = (n: number) => (n === 0 ? 'open air' : n === 1 ? '1 element' : `${n} elements`)
const pathHeadline: Headline = ({ plan, system: { path }, requirement, context }) => {
  if (!plan.path.length) return ['no elements yet']
  if (!path.complete) return ['an element lacks its size']
  if (requirement.flow === null || context.needFlow === null)
    return [elementsWords(plan.path.filter((e) => e.kind !== 'fan').length)]
  return [of(pathDrop(path, context.needFlow), 'pressure'), ' at the need']
}

const selectionHeadline: Headline = ({ operation: { candidate }, fanName }) =>
  candidate ? [`${fanName}, `, of(candidate.driveV, 'voltage')] : ['nothing picked']

const fitHeadline: Headline = ({ mount }) => {
  if (!mount) return ['waiting for a fan']
  if (mount.holeM !== null) return ['hole ', of(mount.holeM, 'length')]
  return mount.leftM === null
    ? ['wants a hole of ', of(mount.wantedM, 'length')]
    : [of(mount.leftM, 'length'), ' left']
}

const powerHeadline: Headline = ({ plan, power: { loadRunA } }) => {
  const source = sourceOf(plan)
  if (loadRunA === null) return [source ? source.name : 'no source yet']
  const drawn = of(loadRunA, 'current')
  return source?.iMaxA ? [drawn, ' of ', of(source.iMaxA, 'current')] : [drawn]
}

/** Short names of the schools. */
export const schoolWords = {
  always: 'always on',
  slow: 'always slow',
  timer: 'by the clock',
  thermostat: 'on when warm',
  curve: 'by a curve',
  host: 'by its host',
  boost: 'quiet, boost',
  tool: 'with the tool',
} as const

const controlHeadline: Headline = ({ plan: { controls }, day }) => {
  const [first] = controls
  if (!first) return day ? ['always on'] : ['not planned yet']
  if (!day) return [schoolWords[first.school]]
  const index = day.model.groups.findIndex((g) => g.control === first)
  const onS = day.usual.groups[index]?.onS ?? 0
  return [`${schoolWords[first.school]}, `, of(onS, 'duration'), ' a day']
}

const buildHeadline: Headline = ({ build: { done, count } }) => [`${done} of ${count} steps`]

const logHeadline: Headline = ({ plan: { runs } }) => {
  const count = (kind: 'baseline' | 'after') => runs.filter((r) => r.kind === kind).length
  return runs.length ? [`${count('baseline')} baseline, ${count('after')} after`] : ['no run yet']
}

const verdictHeadline: Headline = ({ plan: { targets }, verdict }) => {
  if (!targets.length) return ['no target yet']
  if (!verdict.after) return ['waiting for a run']
  const told = verdict.targets.filter((t) => t.verdict === 'met' || t.verdict === 'not-met')
  if (!told.length) return ['none could be told']
  const met = told.filter((t) => t.verdict === 'met')
  const sure = met.every((t) => !t.looks.length)
  return [`${met.length} of ${targets.length} targets ${sure ? 'met' : 'look met'}`]
}

const isJudged = ({ targets }: VerdictReport) =>
  targets.length > 0 && targets.every((t) => t.verdict === 'met' || t.verdict === 'not-met')

/** Every station: its name, its headline, and whether what it asks for is there. */
const rail: { key: StationKey; title: string; headline: Headline; begun: (parts: Parts) => boolean }[] = [
  {
    key: 'brief',
    title: 'Brief',
    headline: ({ plan }) => [goalNames[plan.job.goal]],
    begun: ({ plan: { job } }) => job.equipment !== '' || job.complaint !== '',
  },
  {
    key: 'need',
    title: 'Need',
    headline: needHeadline,
    begun: ({ requirement }) => requirement.missing === null,
  },
  { key: 'air-path', title: 'Air path', headline: pathHeadline, begun: ({ system }) => system.path.complete },
  {
    key: 'line-up',
    title: 'Line-up',
    headline: selectionHeadline,
    begun: ({ operation }) => operation.candidate !== null,
  },
  {
    key: 'fit',
    title: 'Fit',
    headline: fitHeadline,
    begun: ({ plan: { places }, mount }) =>
      mount !== null && places.some((p) => p.fit !== null && p.mountKind !== null),
  },
  { key: 'power', title: 'Power', headline: powerHeadline, begun: ({ plan }) => plan.sources.length > 0 },
  {
    key: 'control',
    title: 'Control',
    headline: controlHeadline,
    begun: ({ plan: { controls }, day }) =>
      controls.length > 0 && (day === null || day.model.groups.every((g) => g.problem === null)),
  },
  {
    key: 'build',
    title: 'Build',
    headline: buildHeadline,
    begun: ({ build: { done, count } }) => count > 0 && done === count,
  },
  { key: 'log', title: 'Log', headline: logHeadline, begun: ({ plan }) => plan.runs.length > 0 },
  { key: 'verdict', title: 'Verdict', headline: verdictHeadline, begun: ({ verdict }) => isJudged(verdict) },
]

function stateOf(key: StationKey, findings: readonly Finding[], begun: boolean): StationState {
  const mine = findings.filter((f) => f.station === key)
  if (mine.some((f) => f.severity === 'stop')) return 'stop'
  if (mine.some((f) => f.severity === 'fix')) return 'fix'
  return begun ? 'settled' : 'not-begun'
}

/** A caution holds the build. */
const isHeld = ({ build }: Parts) => build.sittings.some((s) => s.held)

/** Of a stream whose present fan stays nothing is asked here. */
const asksNothing = ({ plan }: Parts, key: StationKey) => staysAsIs(plan) && streamStations.includes(key)
const streamStations: StationKey[] = ['need', 'air-path', 'line-up', 'fit']

/** The rail: each station's headline figure and state. */
export function stationsOf(parts: Parts): Station[] {
  const { verdict, findings } = parts
  const missed = verdict.targets.some((t) => t.verdict === 'not-met')
  return rail.map(({ key, title, headline, begun }) => ({
    key,
    title,
    headline: asksNothing(parts, key) ? ['stays as it is'] : headline(parts),
    state:
      key === 'verdict' && missed
        ? 'fix'
        : key === 'build' && isHeld(parts)
          ? 'stop'
          : stateOf(key, findings.findings, begun(parts)),
  }))
}

/** Worst first. */
const states: StationState[] = ['stop', 'fix', 'not-begun', 'settled']
/**
 * The rail of a machine of several streams: headlines of the one in front, states of the one that needs most.
 * @param rails one a stream, those that stay as they are left out @param front the one in front
 */
export const ofAllStreams = (rails: readonly Station[][], front: readonly Station[]): Station[] =>
  front.map((station, i) => ({
    ...station,
    state: states.find((s) => rails.some((rail) => rail[i]!.state === s)) ?? station.state,
  }))
