import { setDrive, type Goal, type PlanDocument, type PlanInput } from '#core/document'
import { variants } from './what-if'
import { computeReport, type Report } from '#core/plan'

/** One change of the plan with what it would do. */
export interface Improvement {
  key: string
  /** what is changed, in words */
  label: string
  /** the path, the drive, the fans, or what is asked for */
  group: 'path' | 'drive' | 'fans' | 'need'
  plan: PlanDocument
  /** airflow that does the job, m3/s */
  flow: number | null
  /** airflow needed then, m3/s */
  need: number | null
  /** flow over need, minus 1 */
  margin: number | null
  level: number | null
  /** gain of the margin against the plan as it stands */
  gain: number
  meets: boolean
}

/** How many of the worst elements are tried. */
const WORST = 4
/** Least gain of margin that is worth a line. */
const MIN_GAIN = 0.01

interface Change {
  key: string
  label: string
  group: Improvement['group']
  change: (plan: PlanDocument) => void
}

/** Changes of what is asked for, by goal: what a maker could live with. */
const relaxed: Partial<Record<Goal, Change[]>> = {
  cool: [
    {
      key: 'need.rise',
      label: 'allow 5 K more inside',
      group: 'need',
      change: (p) => {
        if (p.job.insideMaxC !== null) p.job.insideMaxC += 5
      },
    },
  ],
  part: [
    {
      key: 'need.part',
      label: 'allow the part 5 K more',
      group: 'need',
      change: (p) => {
        if (p.job.partMaxC !== null) p.job.partMaxC += 5
      },
    },
  ],
  ventilate: [
    {
      key: 'need.changes',
      label: 'a fifth fewer air changes',
      group: 'need',
      change: (p) => {
        if (p.job.airChangesPerH !== null) p.job.airChangesPerH *= 0.8
      },
    },
    {
      key: 'need.clear',
      label: 'half as long again to clear',
      group: 'need',
      change: (p) => {
        if (p.job.clearS !== null) p.job.clearS *= 1.5
      },
    },
  ],
  fume: [
    {
      key: 'need.nearer',
      label: 'the nozzle a quarter nearer',
      group: 'need',
      change: (p) => {
        if (p.job.captureDistanceM !== null) p.job.captureDistanceM *= 0.75
        p.uncertainties = p.uncertainties.filter((d) => d.id !== 'captureDistanceM')
      },
    },
    {
      key: 'need.flange',
      label: 'a flange on the nozzle',
      group: 'need',
      change: (p) => {
        p.job.nozzleOpening = 'flanged'
      },
    },
  ],
  stir: [
    {
      key: 'need.turnovers',
      label: 'a fifth fewer turnovers',
      group: 'need',
      change: (p) => {
        if (p.job.turnoversPerH !== null) p.job.turnoversPerH *= 0.8
      },
    },
  ],
}

function pathChanges(plan: PlanDocument, report: Report): Change[] {
  const worst = report.path.elements
    .filter((e) => (e.share ?? 0) > 0.02)
    .toSorted((a, b) => b.share! - a.share!)
    .slice(0, WORST)
  return worst.flatMap(({ id }) => {
    const element = plan.path.find((e) => e.id === id)!
    return variants(element)
      .filter((v) => v.element)
      .map((v): Change => ({
        key: `path.${id}.${v.key}`,
        label: `${element.name}: ${v.label}`,
        group: 'path',
        change: (p) => {
          p.path = p.path.map((e) => (e.id === id ? v.element! : e))
        },
      }))
  })
}

function fanChanges(plan: PlanDocument, report: Report, input: PlanInput): Change[] {
  const { selection } = plan
  const fan = input.fans.find((f) => f.id === selection?.fanId)
  if (!selection || !fan) return []
  const list: Change[] = []
  const top = Math.min(fan.ratedV, report.power.fanHighV ?? fan.ratedV)
  const set = (p: PlanDocument, volts: number) => setDrive(p, { volts, converterId: 'converter-improved' })
  if (selection.driveV < 0.98 * fan.ratedV)
    list.push({
      key: 'drive.rated',
      label: 'full rated voltage',
      group: 'drive',
      change: (p) => set(p, fan.ratedV),
    })
  if (selection.driveV + 1 < top)
    list.push({
      key: 'drive.volt',
      label: 'one volt more',
      group: 'drive',
      change: (p) => set(p, selection.driveV + 1),
    })
  if (selection.count < 12) {
    list.push({
      key: 'fans.more',
      label: `${selection.count + 1} side by side`,
      group: 'fans',
      change: (p) => {
        p.selection = { ...p.selection!, count: selection.count + 1, arrangement: 'parallel' }
      },
    })
  }
  if (selection.count === 1) {
    list.push({
      key: 'fans.series',
      label: 'two, one behind the other',
      group: 'fans',
      change: (p) => {
        p.selection = { ...p.selection!, count: 2, arrangement: 'series' }
      },
    })
  }
  return list
}

/**
 * What would have to change: every lever with its computed effect on the whole plan, the strongest first. Those that
 * change nothing, or make it worse, are left out.
 * @param input the plan with its fans
 * @param report its report
 */
export function improvementsOf(input: PlanInput, report: Report): Improvement[] {
  const { plan } = input
  const now =
    report.selection?.served.value && report.need.flow.value
      ? report.selection.served.value / report.need.flow.value - 1
      : null
  if (now === null) return []
  const changes = [
    ...pathChanges(plan, report),
    ...fanChanges(plan, report, input),
    ...(relaxed[plan.job.goal] ?? []),
  ]
  const improvements = changes.map(({ key, label, group, change }): Improvement | null => {
    const next = JSON.parse(JSON.stringify(plan)) as PlanDocument
    change(next)
    const result = computeReport({ ...input, plan: next })
    if (!result.ok) return null
    const { selection, need } = result.report
    const flow = selection?.served.value ?? null
    const margin = flow !== null && need.flow.value ? flow / need.flow.value - 1 : null
    return {
      key,
      label,
      group,
      plan: next,
      flow,
      need: need.flow.value,
      margin,
      level: selection?.candidate.level?.value ?? null,
      gain: (margin ?? -1) - now,
      meets: selection ? selection.candidate.verdict !== 'fail' : false,
    }
  })
  return improvements
    .filter((l) => l !== null)
    .filter((l) => l.gain > MIN_GAIN)
    .sort((a, b) => Number(b.meets) - Number(a.meets) || b.gain - a.gain)
}
