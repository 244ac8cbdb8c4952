import { airState, type AirState } from '#core/air'
import { buildReport, type BuildReport } from '#core/build'
import { dayReportSteps, loadShare, type DayReport, type DayStream } from '#core/day'
import {
  fanIdsOf,
  isOneOfSeveral,
  staysAsIs,
  fromEachStream,
  seenFrom,
  streamName,
  wholePlan,
  type Fan,
  type StreamPlan,
  type PlanInput,
  seenAt,
  dutyOf,
  withoutAside,
} from '#core/document'
import type { Figure } from '#core/figure'
import { mountsOf, type MountReport } from '#core/mount'
import { atOnce } from '#core/numeric'
import { needFigures, requirementOf, type Need, type NeedEnv } from '#core/requirement'
import { chanceOf, findingsOf, predictTarget, type Evaluation, type Predicted } from '#core/rules'
import { operationOf, selectionContextOf, trustedFans, type SelectionContext } from '#core/selection'
import {
  batteryFigures,
  feedOf,
  powerFigures,
  powerOf,
  runningTime,
  type FeedReport,
  type PowerState,
  type RunningTime,
  type StreamFans,
} from '#core/supply'
import {
  airSystem,
  arrayCost,
  arrayMass,
  arrayName,
  arrayThickness,
  densityFigure,
  drivenV,
  impellerDiameter,
} from '#core/system'
import { computeVerdict, type VerdictReport } from '#core/verification'
import { allowedLevel, machineSound, othersLevel, type MachineSound } from './machine-sound'
import { packEndFigures } from './pack-ends'
import { pathReport, type PathReport } from './path-report'
import { ribbonOf, type RibbonSegment } from './ribbon'
import { selectionReport, type SelectionReport } from './selection-report'
import { ofAllStreams, stationsOf, type Station } from './stations'
import { streamSummary, type StreamSummary } from './stream-summary'

/** Everything that is computed from a plan. */
export interface Report {
  air: AirState
  density: Figure
  need: Need
  needEnv: NeedEnv
  path: PathReport
  selectionContext: SelectionContext
  /** the selected fans where they run; null where they cannot be computed */
  selection: SelectionReport | null
  /** why the selected fans cannot be computed */
  selectionProblem: string | null
  /** the fans as the plan believes them */
  fans: Fan[]
  power: PowerState & { figures: Figure[] }
  runtime: RunningTime & { figures: Figure[] }
  /** how the picked fans go into their place, and into each where they have two; null without fans */
  mount: MountReport | null
  mounts: MountReport[]
  verdict: VerdictReport
  /** what the plan predicts of every target, by its id */
  predictions: Record<string, TargetPrediction>
  /** every air stream in a line: what its tab and the whole machine tell of it */
  streams: StreamSummary[]
  /** the days that its controls have to serve; null where none was planned */
  day: DayReport | null
  /** the build: steps with the plan's numbers, cautions, what was ticked */
  build: BuildReport
  /** all fans together at the listener */
  sound: MachineSound
  findings: Evaluation
  stations: Station[]
  ribbon: RibbonSegment[]
}

/** What a plan predicts of a target, and how likely it is met; null where it cannot tell. */
export interface TargetPrediction extends Predicted {
  chance: number | null
}

export type ReportResult = { ok: true; report: Report } | { ok: false; reason: string }

/** The fans that a plan speaks of, as it believes them. */
function believedFans({ plan, fans, shown }: PlanInput): Fan[] {
  const ids = new Set(fanIdsOf(wholePlan(plan)))
  return trustedFans(
    fans.filter((f) => ids.has(f.id)),
    plan.job.trust,
    shown,
  )
}

/** An air stream as far as it is known without the feed. */
function streamOf(face: StreamPlan, air: AirState, fans: Fan[]) {
  const plan = seenAt(face)
  const system = airSystem(plan, air, fans)
  const { path, fan } = system
  const needEnv = { plan, air, path, fans, outletBoreM: fan ? impellerDiameter(fan) : plan.place.fitWidthM }
  return { plan, fans, system, needEnv, requirement: requirementOf(needEnv) }
}
type StreamBase = ReturnType<typeof streamOf>

/** The fans of every stream that has some, as the feed carries them. */
const fansOfStreams = (streams: readonly StreamBase[]): StreamFans[] =>
  streams.flatMap(({ plan, system: { fanArray } }) =>
    fanArray ? [{ stream: plan.stream, duty: dutyOf(plan), fanArray, driveV: drivenV(plan, fanArray) }] : [],
  )

/** A stream with its feed: where its fans really run. */
function runOf(base: StreamBase, feed: FeedReport, context: SelectionContext) {
  const { plan, system } = base
  const power = powerOf(plan, system.fanArray && drivenV(plan, system.fanArray), feed)
  const operation = operationOf(plan, system, context, power.fanV, power.fanRuns)
  const fanName = system.fanArray ? arrayName(system.fanArray) : (system.fan?.model ?? '')
  const mounts = mountsOf(plan, system, operation.candidate)
  return { ...base, context, power, operation, fanName, mounts, mount: mounts[0] ?? null }
}

/** The streams where they run; beside others, each with the level that the others leave it. */
function streamsRunning(bases: readonly StreamBase[], feed: FeedReport) {
  const alone = bases.map((b) => runOf(b, feed, selectionContextOf(b.plan, b.system, b.requirement)))
  const sound = machineSound(alone)
  if (alone.length === 1) return { streams: alone, sound }
  const streams = alone.map((s) => {
    const { levelLimit } = s.context
    if (levelLimit === null) return s
    const others = othersLevel(sound, s.plan.stream)
    return runOf(s, feed, { ...s.context, levelLimit: allowedLevel(levelLimit, others) })
  })
  return { streams, sound }
}

/** A stream as its build takes it; one that stays as it is has nothing to be built. */
const buildStream = ({ plan, system, power, mounts }: RunningStream) => ({
  id: plan.stream,
  name: isOneOfSeveral(plan) ? streamName(plan) : '',
  plan,
  system: staysAsIs(plan) ? { ...system, fanArray: null } : system,
  power,
  mounts: staysAsIs(plan) ? [] : mounts,
})
type RunningStream = ReturnType<typeof runOf>

/** What a plan would buy: money of all streams together, thickness of the thickest. */
function boughtBy(streams: readonly StreamBase[]) {
  const arrays = streams.flatMap((s) => (s.system.fanArray && !staysAsIs(s.plan) ? [s.system.fanArray] : []))
  const costs = arrays.map(arrayCost)
  const masses = arrays.map(arrayMass)
  return {
    cost: !arrays.length || costs.includes(null) ? null : costs.reduce<number>((sum, c) => sum + c!, 0),
    thicknessM: arrays.length ? Math.max(...arrays.map(arrayThickness)) : null,
    massKg: !arrays.length || masses.includes(null) ? null : masses.reduce<number>((sum, m) => sum + m!, 0),
  }
}

/** Every target against the stream that it is about; those of the whole machine against the first one. */
function predictionsOf(streams: readonly Parameters<typeof predictTarget>[0][]): Report['predictions'] {
  const [home] = streams
  return Object.fromEntries(
    home!.plan.targets.flatMap((target) => {
      const own = streams.find((s) => s.plan.stream === target.streamId) ?? home!
      const predicted = predictTarget(own, target)
      return predicted && predicted.value !== null
        ? [[target.id, { ...predicted, chance: chanceOf(target, predicted) }]]
        : []
    }),
  )
}

/** All air streams of a plan where they run; null where not even the air exists. */
function runningOf(input: PlanInput) {
  const whole = withoutAside(wholePlan(input.plan), input.plan.stream)
  const home = seenFrom(whole)
  const { job } = home
  const air = airState(job.ambientC, job.altitudeM, job.humidity)
  if (!air) return null
  const fans = believedFans(input)
  const bases = fromEachStream(whole).map((face) => streamOf(face, air, fans))
  const feed = feedOf(home, fansOfStreams(bases), fans)
  return { home, air, fans, bases, feed, ...streamsRunning(bases, feed) }
}

/** The air streams of a plan as its days take them, the first one first; none where the air does not exist. */
export const dayStreamsOf = (input: PlanInput): DayStream[] => runningOf(input)?.streams ?? []

/**
 * The one function: a plan and the fans it speaks of in, the whole report out. Pure; screens, server, tests and the
 * command line all call it. The parts of an air stream are those of the stream that the plan is seen from;
 * feed, verdict, findings, sound and stations are those of the whole machine.
 * @param input the plan, the fans of the shelf, and how claims held on it
 * @returns a reason instead of a report where not even the air exists (impossible humidity, altitude above 11 km)
 */
export const computeReport = (input: PlanInput): ReportResult => atOnce(reportSteps(input))

/**
 * The same in steps: each is a stage, plain values in, plain values out, nothing filled in later; between two of them
 * other work may go on.
 */
export function* reportSteps(input: PlanInput): Generator<void, ReportResult> {
  const running = runningOf(input)
  if (!running)
    return { ok: false, reason: 'This combination of temperature, altitude and humidity does not exist.' }
  const front = input.plan.stream
  const { home, air, fans, bases, feed, streams, sound } = running
  const { job } = home
  yield
  const day = yield* dayReportSteps(home, streams)
  const runtime = runningTime(home, feed, day && loadShare(day, feed, home))
  yield
  const build = buildReport({ plan: home, streams: streams.map(buildStream), feed, day })
  yield
  const verdict = computeVerdict(home, boughtBy(bases))
  const machineDbA = streams.length > 1 ? sound.total : null
  yield
  const judged = streams.map((s) => ({ ...s, runtime, verdict, machineDbA, day, streams }))
  const findings = findingsOf(judged)
  yield
  const shown = streams.find((s) => s.plan.stream === front)!
  const { plan, system, needEnv, requirement, context, power, operation, fanName, mount, mounts } = shown
  const { fanArray } = system
  const railOf = (s: (typeof streams)[number]) => stationsOf({ ...s, verdict, findings, day, build })
  return {
    ok: true,
    report: {
      air,
      density: densityFigure(job, air),
      need: needFigures(needEnv, requirement, operation.delivered),
      needEnv,
      path: pathReport(system, context, operation, findings.findings),
      selectionContext: context,
      selection: selectionReport(plan, system, requirement, context, operation),
      selectionProblem: system.arrayProblem,
      fans,
      power: { ...power, figures: powerFigures(plan, fanArray, power) },
      runtime: {
        ...runtime,
        figures: [...batteryFigures(home, runtime), ...packEndFigures(plan, system, context, power, operation)],
      },
      mount,
      mounts,
      verdict,
      day,
      build,
      predictions: predictionsOf(judged),
      streams: streams.map((s) => streamSummary(s, findings.findings)),
      sound,
      findings,
      stations: ofAllStreams(streams.filter((s) => !staysAsIs(s.plan)).map(railOf), railOf(shown)),
      ribbon: ribbonOf({ plan, system, context, operation, fanName }),
    },
  }
}
