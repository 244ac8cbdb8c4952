import { claimRatio } from '#core/measure'
import { mainComparison, type Comparison } from '#core/verification'
import type { FactSources, SiFacts } from './sources'
import { driveSpeed } from '#core/system'
import { readingMean, type Reading, type Run } from '#core/document'
import { latestRun, targetReading } from '#core/verification'

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

function singleRunFacts({ plan, system: { fanArray }, verdict }: FactSources, run: Run): SiFacts {
  const of = (quantity: Reading['quantity']) => run.readings.find((r) => r.quantity === quantity && !r.source)
  const level = of('level')
  const flow = of('flow')
  const rpm = of('rotation')
  const fan = fanArray?.model.fan
  const flowTarget = plan.targets.some((t) => t.kind === 'flow')
  return {
    ...(level
      ? {
          'meas.level': readingMean(level),
          'meas.background': run.backgroundDbA,
          'meas.backgroundCorrected': true,
          'meas.floor': run.floorDbA,
          'meas.instrument': run.instrument,
          'meas.calibrated': run.calibrated ?? (run.instrument === 'phone' ? false : null),
          'meas.usedAs': plan.targets.some((t) => t.kind === 'level') ? 'absolute' : 'difference',
        }
      : {}),
    ...(flow
      ? {
          'meas.flow': readingMean(flow),
          'meas.flowMethod': flow.method,
          'meas.points': flow.points,
          'meas.reportedAs': flow.method === 'jet' && !flowTarget && verdict.before ? 'comparison' : 'flow',
        }
      : {}),
    'meas.voltageAt': run.voltageAt,
    'meas.rpm': rpm ? readingMean(rpm) : null,
    'meas.slope': run.slopeKS === null ? null : 60 * run.slopeKS,
    'meas.tau': run.tauS,
    'meas.atRatedV':
      rpm && fan && run.fanV !== null
        ? Math.abs(run.fanV - fan.ratedV) <= AT_RATED * fan.ratedV && plan.selection?.duty == null
        : null,
  }
}

/** What the runs say of themselves and of each other. */
export function measureFacts(sources: FactSources): SiFacts {
  const { plan, verdict } = sources
  const { before, after, beforeState, afterState } = verdict
  const run = after ?? before
  const always = { 'meas.rankBy': plan.job.rankedBy, ...benchFacts(sources) }
  if (!run) return always
  const single = { ...always, ...singleRunFacts(sources, run) }
  if (!before || !after || !beforeState || !afterState) return single
  const wanted = plan.targets.find((t) => targetReading[t.kind])
  const main = mainComparison(
    verdict.comparisons.filter((c) => !c.refused),
    plan.job.statedOf ?? (wanted ? targetReading[wanted.kind]! : (verdict.comparisons[0]?.quantity ?? null)),
    wanted?.place,
  )
  const voltageChanged =
    after.changed === 'voltage' ||
    after.changed === 'fan' ||
    (after.changed === null && plan.job.goal === 'quieten')
  return {
    ...single,
    ...statedFacts(sources, main),
    ...(voltageChanged ? {} : { 'meas.vBefore': before.fanV, 'meas.vAfter': after.fanV }),
    'meas.before': main?.before,
    'meas.after': main?.after,
    'meas.ciHalf': main?.halfWidth,
    'meas.ambBefore': before.ambientC,
    'meas.ambAfter': after.ambientC,
    'meas.comparesRise': before.ambientC !== null && after.ambientC !== null,
    'meas.soakBefore': before.soakS,
    'meas.soakAfter': after.soakS,
    'meas.bothSteady': before.steady === null || after.steady === null ? null : before.steady && after.steady,
    'meas.loadBefore': before.heatW,
    'meas.loadAfter': after.heatW,
    'meas.distBefore': before.distanceM,
    'meas.distAfter': after.distanceM,
    'meas.lidBefore': before.lid,
    'meas.lidAfter': after.lid,
    'meas.changes': after.changes,
    'meas.secondOpeningSame': after.otherOpenings,
    'meas.n': Math.min(beforeState.runs.length, afterState.runs.length),
  }
}
