import type { Finding } from '#core/rules'
import type { Quantity, Sentence } from '#core/units'
import type { PlanDocument } from '#core/document'
import type { Need } from '#core/requirement'
import type { PowerReport } from '#core/supply'
import type { Candidate } from '#core/selection'
import type { VerdictReport } from '#core/verification'

export type StationKey = 'brief' | 'need' | 'air-path' | 'line-up' | 'power' | 'log' | 'verdict'
/** disc, ring, diamond, square on the screen: the shape tells, not only the colour */
export type StationState = 'settled' | 'not-begun' | 'fix' | 'stop'

export interface Station {
  key: StationKey
  title: string
  state: StationState
  headline: Sentence
}

/** Which station a rule group belongs to. */
const groupStation: Record<string, StationKey> = {
  need: 'need',
  'air-path': 'air-path',
  fan: 'line-up',
  noise: 'line-up',
  fit: 'line-up',
  power: 'power',
  wiring: 'power',
  control: 'power',
  battery: 'power',
  safety: 'brief',
  own: 'air-path',
  measurement: 'verdict',
}
export const stationOfGroup = (group: string): StationKey => groupStation[group] ?? 'brief'

interface Parts {
  plan: PlanDocument
  need: Need
  candidate: Candidate | null
  pathDropAtNeed: number | null
  pathComplete: boolean
  power: PowerReport
  verdict: VerdictReport
  findings: Finding[]
  fanName: string
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

/** The rail: each station's headline figure and state. */
export function stationsOf(parts: Parts): Station[] {
  const { plan, need, candidate, power, verdict, findings } = parts
  const v = (value: number | null, quantity: Quantity) => ({ value, quantity })
  const state = (key: StationKey, begun: boolean): StationState => {
    const mine = findings.filter((f) => stationOfGroup(f.group) === key)
    if (mine.some((f) => f.severity === 'stop')) return 'stop'
    if (mine.some((f) => f.severity === 'fix')) return 'fix'
    return begun ? 'settled' : 'not-begun'
  }
  const count = {
    baseline: plan.runs.filter((r) => r.kind === 'baseline').length,
    after: plan.runs.filter((r) => r.kind === 'after').length,
  }
  const met = verdict.targets.filter((t) => t.verdict === 'met').length
  const judged = verdict.targets.filter((t) => t.verdict !== 'not-measured').length
  const verdictState: StationState = verdict.targets.some((t) => t.verdict === 'not-met')
    ? 'fix'
    : state('verdict', judged > 0 && judged === verdict.targets.length)
  return [
    {
      key: 'brief',
      title: 'Brief',
      state: state('brief', plan.job.equipment !== '' || plan.job.complaint !== ''),
      headline: [goalNames[plan.job.goal]],
    },
    {
      key: 'need',
      title: 'Need',
      state: state('need', need.missing === null),
      headline: need.missing
        ? [`wants ${need.missing}`]
        : [v(need.flow.value, 'flow'), ...(need.levelLimit ? [', ≤ ', v(need.levelLimit.limit, 'level')] : [])],
    },
    {
      key: 'air-path',
      title: 'Air path',
      state: state('air-path', parts.pathComplete),
      headline: !plan.path.length
        ? ['no elements yet']
        : !parts.pathComplete
          ? ['an element lacks its size']
          : parts.pathDropAtNeed === null
            ? [`${plan.path.filter((e) => e.kind !== 'fan').length} elements`]
            : [v(parts.pathDropAtNeed, 'pressure'), ' at the need'],
    },
    {
      key: 'line-up',
      title: 'Line-up',
      state: state('line-up', candidate !== null),
      headline: candidate ? [`${parts.fanName}, `, v(candidate.driveV, 'voltage')] : ['nothing picked'],
    },
    {
      key: 'power',
      title: 'Power',
      state: state('power', plan.source !== null),
      headline:
        power.loadRunA === null
          ? [plan.source ? plan.source.name : 'no source yet']
          : plan.source?.iMaxA
            ? [v(power.loadRunA, 'current'), ' of ', v(plan.source.iMaxA, 'current')]
            : [v(power.loadRunA, 'current')],
    },
    {
      key: 'log',
      title: 'Log',
      state: plan.runs.length ? 'settled' : 'not-begun',
      headline: plan.runs.length ? [`${count.baseline} baseline, ${count.after} after`] : ['no run yet'],
    },
    {
      key: 'verdict',
      title: 'Verdict',
      state: verdictState,
      headline: !plan.targets.length
        ? ['no target yet']
        : !verdict.after
          ? ['waiting for a run']
          : [`${met} of ${plan.targets.length} targets met`],
    },
  ]
}
