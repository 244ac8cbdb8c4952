import {
  MOST_FANS,
  driveVolts,
  holdKeptFlow,
  setDrive,
  type FanSelection,
  type Goal,
  type StreamPlan,
  type PlanInput,
  putFans,
  plannedFans,
} from '#core/document'
import { presentFlow } from '#core/requirement'
import { START_MARGIN } from '#core/selection'
import { arrayLimits, drivenV, fanPlaces, isOfOneKind } from '#core/system'
import { variants } from './what-if'
import { computeReport, type Report } from '#core/plan'

/** One change of the plan with what it would do. */
export interface Improvement {
  key: string
  /** what is changed, in words */
  label: string
  /** the path, the drive, the fans, or what is asked for */
  group: 'path' | 'drive' | 'fans' | 'need'
  plan: StreamPlan
  /** airflow that does the job, m3/s */
  flow: number | null
  /** airflow needed then, m3/s */
  need: number | null
  /** flow over need, minus 1 */
  margin: number | null
  level: number | null
  /** air inside, or the part where the job cools one, degC; null where the goal tells none */
  insideC: number | null
  /** of all fans, in the currency of the shelf */
  cost: number | null
  /** what it changes: airflow and need as shares of what they are, the level in dB; null where it is not known */
  change: { flow: number | null; need: number | null; level: number | null }
  /** gain of the margin against the plan as it stands */
  gain: number
  meets: boolean
}

/** How many of the worst elements are tried. */
const WORST = 4
/** Least gain of margin that is worth a line. */
const MIN_GAIN = 0.01
/** Least part of what lacks that a change must bring to be an answer to it. A choice of ours. */
const MIN_PART = 0.25
/** A plan with more than this over its planned airflow wants less, not more. A choice of ours. */
const PLENTY = 1.5
/** Least change of level that is worth a line, dB: just noticed side by side. */
const MIN_QUIETER = 1

export interface Change {
  key: string
  label: string
  group: Improvement['group']
  change: (plan: StreamPlan) => void
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

function pathChanges(plan: StreamPlan, report: Report): Change[] {
  const worst = report.path.elements
    .filter((e) => (e.share ?? 0) > 0.02)
    .toSorted((a, b) => b.share! - a.share!)
    .slice(0, WORST)
  return worst.flatMap(({ id }) => {
    const element = plan.path.find((e) => e.id === id)!
    return variants(element, plan.job.goal)
      .filter((v) => v.element)
      .map((v): Change => ({
        key: `path.${id}.${v.key}`,
        label: `${element.name}: ${v.label}`,
        group: 'path',
        change: (p) => {
          // what was there is to be kept, not what the old fan would move through the better path
          holdKeptFlow(p, presentFlow(plan.job, report.needEnv))
          p.path = p.path.map((e) => (e.id === id ? v.element! : e))
        },
      }))
  })
}

function fanChanges(plan: StreamPlan, report: Report, input: PlanInput): Change[] {
  const selection = plannedFans(plan)
  const fan = input.fans.find((f) => f.id === selection?.groups[0]!.fanId)
  if (!selection || !fan) return []
  const list: Change[] = []
  const driveV = driveVolts(plan) ?? fan.ratedV
  const top = Math.min(fan.ratedV, report.power.fanHighV ?? fan.ratedV)
  const set = (p: StreamPlan, volts: number) => setDrive(p, { volts, converterId: 'converter-improved' })
  if (driveV < 0.98 * fan.ratedV)
    list.push({
      key: 'drive.rated',
      label: 'full rated voltage',
      group: 'drive',
      change: (p) => set(p, fan.ratedV),
    })
  if (driveV + 1 < top)
    list.push({
      key: 'drive.volt',
      label: 'one volt more',
      group: 'drive',
      change: (p) => set(p, driveV + 1),
    })
  const more = stepped(plan, selection, 1)
  if (more)
    list.push({
      key: 'fans.more',
      label: numberWords(plan, more),
      group: 'fans',
      change: (p) => {
        putFans(p, more)
      },
    })
  if (selection.count === 1 && fanPlaces(plan).length < 2) {
    list.push({
      key: 'fans.series',
      label: 'two, one behind the other',
      group: 'fans',
      change: (p) => {
        putFans(p, { ...selection, groups: [{ ...selection.groups[0]!, count: 2 }], arrangement: 'series' })
      },
    })
  }
  return list
}

/**
 * The same fans with one more or one less: of openings alike in every one of them, of two places at each.
 * @returns null where that cannot be
 */
function stepped(
  plan: StreamPlan,
  { groups, count: now, arrangement }: FanSelection,
  by: 1 | -1,
): FanSelection | null {
  const openings = fanPlaces(plan)[0]?.times ?? 1
  // of a pair one more of the one that the air meets first
  const next = groups.map((g, i) =>
    arrangement === 'places'
      ? { ...g, count: g.count + by }
      : i === 0
        ? { ...g, count: g.count + by * openings }
        : g,
  )
  const count = next.reduce((sum, g) => sum + g.count, 0)
  if (next.some((g) => g.count < 1) || count > MOST_FANS || count === now) return null
  // behind one another, or a pair: one more stands beside them as before
  const left = arrangement === 'places' ? arrangement : by > 0 ? 'parallel' : arrangement
  return { groups: next, count, arrangement: count === 1 ? 'single' : left }
}
/** How many stand where, in words. */
function numberWords(plan: StreamPlan, { groups, count, arrangement }: FanSelection): string {
  const openings = fanPlaces(plan)[0]?.times ?? 1
  if (arrangement === 'places') return `${groups.map((g) => g.count).join(' and ')} at the two places`
  if (openings > 1) return `${count / openings} in each of ${openings} openings`
  return arrangement === 'parallel' ? `${count} side by side` : `${count} fans`
}

/** Steps in which the drive is lowered in search of the least that suffices, V. */
const DRIVE_STEP = 0.5

/** Ways to less: what a plan with far more air than it wants can give up for quiet. */
function lessChanges(plan: StreamPlan, report: Report): Change[] {
  const selection = plannedFans(plan)
  const running = report.selection
  if (!selection || !running) return []
  const set = (p: StreamPlan, volts: number) => setDrive(p, { volts, converterId: 'converter-improved' })
  const lowest = START_MARGIN * arrayLimits(running.fanArray).startV
  const list: Change[] = []
  for (let volts = drivenV(plan, running.fanArray) - DRIVE_STEP; volts >= lowest; volts -= DRIVE_STEP) {
    const at = Math.round(volts * 10) / 10
    list.push({ key: `drive.${at}`, label: `driven at ${at} V`, group: 'drive', change: (p) => set(p, at) })
  }
  const fewer = isOfOneKind(running.fanArray) ? stepped(plan, selection, -1) : null
  if (fewer)
    list.push({
      key: 'fans.fewer',
      label: fewer.count === 1 ? 'one fan alone' : numberWords(plan, fewer),
      group: 'fans',
      change: (p) => {
        putFans(p, fewer)
      },
    })
  return list
}

/** Temperature that a plan predicts: of the part where the job cools one, else of the air inside, degC. */
const insideOf = ({ need }: Report): number | null =>
  need.extras.find((f) => f.key === 'need.part' || f.key === 'need.inside')?.value ?? null

const part = (now: number | null, next: number | null) => (now && next !== null ? next / now - 1 : null)

/** A change carried out on a copy of the plan, and the whole report asked again. */
function tried(input: PlanInput, report: Report, { key, label, group, change }: Change): Improvement | null {
  const next = JSON.parse(JSON.stringify(input.plan)) as StreamPlan
  change(next)
  const result = computeReport({ ...input, plan: next })
  if (!result.ok) return null
  const { selection, need } = result.report
  const flow = selection?.served.value ?? null
  const wanted = need.wanted
  const margin = flow !== null && wanted ? flow / wanted - 1 : null
  const level = selection?.candidate.level?.exact ?? null
  const before = report.selection?.candidate.level?.exact ?? null
  return {
    key,
    label,
    group,
    plan: next,
    flow,
    need: wanted,
    margin,
    level: selection?.candidate.level?.value ?? null,
    insideC: insideOf(result.report),
    cost: selection?.candidate.cost ?? null,
    change: {
      flow: part(report.selection?.served.value ?? null, flow),
      need: part(report.need.wanted, wanted),
      level: level === null || before === null ? null : level - before,
    },
    gain: (margin ?? -1) - (marginOf(report) ?? -1),
    meets: selection ? selection.candidate.verdict !== 'fail' : false,
  }
}

/** Flow over what is wanted, minus 1. */
const marginOf = ({ selection, need }: Report): number | null =>
  selection?.served.value && need.wanted ? selection.served.value / need.wanted - 1 : null

/** Of the drives that still give the planned airflow only the quietest; each worth at least a decibel. */
function quieter(list: readonly Improvement[], design: number): Improvement[] {
  const enough = list.filter(
    (l) => l.flow !== null && l.flow >= design && l.change.level !== null && l.change.level <= -MIN_QUIETER,
  )
  const byLevel = enough.toSorted((a, b) => a.change.level! - b.change.level!)
  const drive = byLevel.find((l) => l.group === 'drive')
  return byLevel.filter((l) => l.group !== 'drive' || l === drive)
}

/** Ways to more air, or to a need for less of it. */
const moreChanges = (plan: StreamPlan, report: Report, input: PlanInput): Change[] => [
  ...pathChanges(plan, report),
  ...fanChanges(plan, report, input),
  ...(relaxed[plan.job.goal] ?? []),
]
/** Every single change of path, drive, fans and wishes that could be tried on a plan. */
export const changesOf = (plan: StreamPlan, report: Report, input: PlanInput): Change[] => [
  ...moreChanges(plan, report, input),
  ...lessChanges(plan, report),
]

/**
 * What would have to change, each lever with its computed effect on the whole plan. A plan that lacks air is answered
 * with what brings at least a quarter of what lacks, the strongest first; one that has plenty with what makes it
 * quieter and still gives the planned airflow. What asks for less comes last; what changes nothing, or makes it worse, is
 * left out.
 * @param input the plan with its fans
 * @param report its report
 */
export function improvementsOf(input: PlanInput, report: Report): Improvement[] {
  const { plan } = input
  const now = marginOf(report)
  if (now === null) return []
  const tryAll = (changes: readonly Change[]) =>
    changes.map((c) => tried(input, report, c)).filter((l) => l !== null)
  const design = report.need.design.value ?? report.need.wanted!
  if (report.selection!.served.value! > PLENTY * design)
    return quieter(tryAll(lessChanges(plan, report)), design)
  const least = now < 0 ? Math.max(MIN_GAIN, -now * MIN_PART) : MIN_GAIN
  return tryAll(moreChanges(plan, report, input))
    .filter((l) => l.gain > least)
    .sort(
      (a, b) =>
        Number(a.group === 'need') - Number(b.group === 'need') ||
        Number(b.meets) - Number(a.meets) ||
        b.gain - a.gain,
    )
}
