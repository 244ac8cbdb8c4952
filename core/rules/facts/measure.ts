import { claimRatio } from '#core/measure'
import { readingMean, targetKinds, type StreamPlan, type Reading, type Run, dutyOf } from '#core/document'
import { alike, drivenArray, driveSpeed, endsOf, modelFan, type FanArray } from '#core/system'
import { latestRun, mainComparison, type Comparison } from '#core/verification'
import type { Quantity } from '#core/units'
import type { FactName } from '../fact-catalogue'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** The facts of the group Measurement: what the runs say of themselves and of each other. */

/** How near to its rated voltage a fan counts as at it. */
const AT_RATED = 0.05
/** A stated change that agrees with the change of the rise this nearly speaks of the rise, not of degrees. */
const SAME_SHARE = 0.005

/** What the person would report of a quantity, and what it is a share of. */
function statedFacts({ plan: { job } }: FactSources, main: Comparison | null): SiFacts {
  if (job.statedChange === null || job.statedOf === null) return {}
  const ofRise =
    main?.asRise &&
    main.change !== null &&
    Math.abs(Math.abs(job.statedChange) - Math.abs(main.change)) < SAME_SHARE
  return {
    'meas.reportedPct': 100 * job.statedChange,
    'meas.pctOf':
      job.statedOf === 'level' ? 'decibel' : job.statedOf === 'temperature' && !ofRise ? 'celsius' : 'quantity',
  }
}

/** A bench test of the picked fan: its free delivery against the claim, at the claim's speed where that was read. */
function benchFacts({ plan, system: { fanArray } }: FactSources): SiFacts {
  const run = latestRun(plan, 'bench')
  const flow = run?.readings.find((r) => r.quantity === 'flow')
  const claimed = fanArray?.model.fan.maxFlowM3s
  if (!run || !flow || !fanArray || !claimed) return {}
  const { fan } = fanArray.model
  const rpm = run.readings.find((r) => r.quantity === 'rotation')
  const speed =
    rpm && fan.ratedRpm
      ? readingMean(rpm) / fan.ratedRpm
      : run.fanV === null
        ? null
        : driveSpeed(fanArray.model, run.fanV)
  return {
    'meas.claimCorrected': speed !== null,
    'meas.claimRatio': claimRatio(readingMean(flow), speed || 1, claimed, 1),
  }
}

/** The fans that a run was taken with: the present ones for a baseline, the picked ones after the change, one alone on the bench. */
function fansOf({ plan, fans, system }: FactSources, run: Run): FanArray | null {
  const { job } = plan
  const picked = system.fanArray
  if (run.kind === 'after') return picked
  if (run.kind === 'bench') return picked && alike(picked.model, 1, 'single')
  const present = fans.find((f) => f.id === job.existingFanId)
  const made = present && modelFan(present)
  if (!made?.ok) return null
  return alike(made.model, job.existingCount, 'parallel')
}

/** What a level reading says of itself. */
function levelFacts({ plan }: FactSources, run: Run, level: Reading | undefined): SiFacts {
  if (!level) return {}
  return {
    'meas.level': readingMean(level),
    'meas.background': run.backgroundDbA,
    'meas.floor': run.floorDbA,
    'meas.instrument': run.instrument,
    'meas.calibrated': run.calibrated ?? (run.instrument === 'phone' ? false : null),
    'meas.usedAs': plan.targets.some((t) => t.kind === 'level') ? 'absolute' : 'difference',
  }
}

/** What a flow reading says of itself, against what its own fans give at most. */
function flowFacts(sources: FactSources, run: Run, flow: Reading | undefined): SiFacts {
  if (!flow) return {}
  const { plan, verdict, system } = sources
  const array = fansOf(sources, run)
  const volts = run.fanV ?? (run.kind === 'after' ? sources.operation.candidate?.driveV : null) ?? null
  const duty = run.kind === 'after' ? dutyOf(plan) : null
  const driven = array && volts !== null ? drivenArray(array, { volts, duty }, system.air) : null
  const compared = flow.method === 'jet' && verdict.before && !plan.targets.some((t) => t.kind === 'flow')
  return {
    'meas.flow': readingMean(flow),
    'meas.flowMethod': flow.method,
    'meas.points': flow.method === 'traverse' ? flow.points : undefined,
    'meas.reportedAs': compared ? 'comparison' : 'flow',
    // a jet's reading at one spot is no flow to be held against a free delivery
    'fan.freeFlow': driven && flow.method !== 'jet' ? endsOf(driven).free : undefined,
  }
}

function speedFacts(sources: FactSources, run: Run, rpm: Reading | undefined): SiFacts {
  const array = fansOf(sources, run)
  if (!rpm || !array) return {}
  const { fan } = array.model
  return {
    'meas.rpm': readingMean(rpm),
    'fan.ratedRpm': fan.ratedRpm ?? undefined,
    'meas.atRatedV':
      run.fanV === null
        ? null
        : Math.abs(run.fanV - fan.ratedV) <= AT_RATED * fan.ratedV &&
          (run.kind !== 'after' || dutyOf(sources.plan) === null),
  }
}

/** What a run says of itself. */
function runFacts(sources: FactSources, run: Run): SiFacts {
  const of = (quantity: Reading['quantity']) => run.readings.find((r) => r.quantity === quantity && !r.source)
  return {
    ...levelFacts(sources, run, of('level')),
    ...flowFacts(sources, run, of('flow')),
    ...speedFacts(sources, run, of('rotation')),
    'meas.voltageAt': run.voltageAt ?? (run.fanV === null ? undefined : null),
    // only a temperature settles
    'meas.slope': run.slopeKS === null || !of('temperature') ? undefined : 60 * run.slopeKS,
    'meas.tau': run.tauS ?? undefined,
  }
}

/** The latest run of each state, by itself: each with its own fans. */
export function runSubjects(sources: FactSources): SiSubject[] {
  const { plan, verdict } = sources
  const runs = [verdict.before, verdict.after, latestRun(plan, 'bench')].filter((r) => r !== null)
  return [...new Map(runs.map((r) => [r.id, r])).values()].map((run): SiSubject => ({
    kind: 'run',
    id: run.id,
    name: run.name,
    at: { station: 'log', run: run.id },
    facts: runFacts(sources, run),
  }))
}

/** The comparison that the verdict speaks of first. */
function mainOf({ plan, verdict }: FactSources): Comparison | null {
  const fair = verdict.comparisons.filter((c) => !c.refused)
  if (plan.job.statedOf) return mainComparison(fair, plan.job.statedOf)
  for (const target of plan.targets) {
    const found = mainComparison(fair, targetKinds[target.kind].reading, target.place)
    if (found) return found
  }
  return fair.find((c) => !c.source) ?? null
}

/** Only where the fan or its drive was not what was changed has the voltage to agree. */
const mayDiffer = ({ job }: StreamPlan, after: Run) =>
  after.changed === 'voltage' || after.changed === 'fan' || (after.changed === null && job.goal === 'quieten')

/** What the runs say of each other. */
export function comparisonFacts(sources: FactSources): SiFacts {
  const { plan, verdict } = sources
  const { before, after, beforeState, afterState } = verdict
  const always = { 'meas.rankBy': plan.job.rankedBy ?? undefined, ...benchFacts(sources) }
  if (!before || !after || !beforeState || !afterState) return always
  const main = mainOf(sources)
  const reads = (quantity: Reading['quantity']) =>
    [before, after].every((r) => r.readings.some((x) => x.quantity === quantity))
  const levels = reads('level')
  const warmth = reads('temperature')
  return {
    ...always,
    ...statedFacts(sources, main),
    ...(mayDiffer(plan, after) ? {} : { 'meas.vBefore': before.fanV, 'meas.vAfter': after.fanV }),
    'meas.before': main?.before,
    'meas.after': main?.after,
    'meas.ciHalf': main?.halfWidth,
    'meas.soakBefore': warmth ? before.soakS : undefined,
    'meas.soakAfter': warmth ? after.soakS : undefined,
    'meas.bothSteady': before.steady === null || after.steady === null ? null : before.steady && after.steady,
    'meas.loadBefore': warmth ? before.heatW : undefined,
    'meas.loadAfter': warmth ? after.heatW : undefined,
    'meas.distBefore': levels ? before.distanceM : undefined,
    'meas.distAfter': levels ? after.distanceM : undefined,
    'meas.lidBefore': before.lid,
    'meas.lidAfter': after.lid,
    'meas.changes': after.changes,
    'meas.secondOpeningSame': after.otherOpenings,
    'meas.n': Math.min(beforeState.runs.length, afterState.runs.length),
  }
}

/** The compared values are printed in the unit of their reading, a difference of temperatures in kelvin. */
export function comparisonQuantities(sources: FactSources): Partial<Record<FactName, Quantity>> {
  const main = mainOf(sources)
  if (!main) return {}
  const differences: Partial<Record<Quantity, Quantity>> = {
    temperature: 'temperatureDifference',
    level: 'levelDifference',
  }
  const difference = differences[main.quantity] ?? main.quantity
  const value = main.asRise ? 'temperatureDifference' : main.quantity
  return { 'meas.before': value, 'meas.after': value, 'meas.ciHalf': difference }
}
