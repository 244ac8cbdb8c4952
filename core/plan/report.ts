import { airState, type AirState } from '#core/air'
import { fanIdsOf, type Fan, type PlanInput } from '#core/document'
import type { Figure } from '#core/figure'
import { needFigures, requirementOf, type Need, type NeedEnv } from '#core/requirement'
import { findingsOf, type Evaluation } from '#core/rules'
import { operationOf, selectionContextOf, trustedFans, type SelectionContext } from '#core/selection'
import {
  batteryFigures,
  powerFigures,
  powerOf,
  runningTime,
  type PowerState,
  type RunningTime,
} from '#core/supply'
import { airSystem, arrayCost, arrayName, arrayThickness, densityFigure, impellerDiameter } from '#core/system'
import { computeVerdict, type VerdictReport } from '#core/verification'
import { packEndFigures } from './pack-ends'
import { pathReport, type PathReport } from './path-report'
import { ribbonOf, type RibbonSegment } from './ribbon'
import { selectionReport, type SelectionReport } from './selection-report'
import { stationsOf, type Station } from './stations'

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
  verdict: VerdictReport
  findings: Evaluation
  stations: Station[]
  ribbon: RibbonSegment[]
}

export type ReportResult = { ok: true; report: Report } | { ok: false; reason: string }

/** The fans that a plan speaks of, as it believes them. */
function believedFans({ plan, fans, shown }: PlanInput): Fan[] {
  const ids = new Set(fanIdsOf(plan))
  return trustedFans(
    fans.filter((f) => ids.has(f.id)),
    plan.job.trust,
    shown,
  )
}

/**
 * The one function: a plan and the fans it speaks of in, the whole report out. Pure; screens, server, tests and the
 * command line all call it. Each line is a stage: plain values in, plain values out, nothing filled in later.
 * @param input the plan, the fans of the shelf, and how claims held on it
 * @returns a reason instead of a report where not even the air exists (impossible humidity, altitude above 11 km)
 */
export function computeReport(input: PlanInput): ReportResult {
  const { plan } = input
  const { job } = plan
  const air = airState(job.ambientC, job.altitudeM, job.humidity)
  if (!air)
    return { ok: false, reason: 'This combination of temperature, altitude and humidity does not exist.' }
  const fans = believedFans(input)
  const system = airSystem(plan, air, fans)
  const { path, fanArray, fan } = system
  const needEnv = { plan, air, path, fans, outletBoreM: fan ? impellerDiameter(fan) : job.fitWidthM }
  const requirement = requirementOf(needEnv)
  const context = selectionContextOf(plan, system, requirement)
  const power = powerOf(plan, fanArray, fans)
  const { fanV, fanLowV, fanHighV } = power
  const supply = fanLowV === null || fanHighV === null ? null : { low: fanLowV, high: fanHighV }
  const operation = operationOf(plan, system, context, fanV, supply)
  const runtime = runningTime(plan, power)
  const bought = {
    cost: fanArray && arrayCost(fanArray),
    thicknessM: fanArray && arrayThickness(fanArray),
  }
  const verdict = computeVerdict(plan, bought)
  const findings = findingsOf({
    plan,
    fans,
    needEnv,
    context,
    system,
    requirement,
    operation,
    power,
    runtime,
    verdict,
  })
  const fanName = fanArray ? arrayName(fanArray) : (fan?.model ?? '')
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
        figures: [...batteryFigures(plan, runtime), ...packEndFigures(plan, system, context, power, operation)],
      },
      verdict,
      findings,
      stations: stationsOf({
        plan,
        system,
        requirement,
        context,
        operation,
        power,
        verdict,
        findings,
        fanName,
      }),
      ribbon: ribbonOf({ plan, system, context, operation, fanName }),
    },
  }
}
