import { airState, type AirState } from '../air'
import { evaluateFindings, type Evaluation } from '../findings'
import { LOADED_FACTOR } from '../airpath'
import { arrangementOf, evaluateCandidate, type Candidate, type Context } from './candidate'
import type { PathElement, PlanDocument, PlanInput } from './document'
import { planFacts } from './facts'
import { modelFan, driveSpeed, type FanModel } from './fan'
import { figure, input, type Figure } from './figure'
import { computeNeed, type Need } from './need'
import { driveOf, operatingFlow, pathSolver } from './operate'
import { elementDrop, elementFigure, modelPath, pathDoubt, pathDrop, type PathModel } from './path'
import { computePower, type PowerReport } from './power'
import { ribbonOf, type RibbonSegment } from './ribbon'
import { stationsOf, type Station } from './stations'
import { computeVerdict, type VerdictReport } from './verdict'
import { temperatureRise } from '../need'

export interface ElementReport { id: string, figure: Figure, share: number | null, missing: string | null }

export interface PathReport { model: PathModel, complete: boolean, elements: ElementReport[], drop: Figure, atFlow: number | null }

export interface Report {
  air: AirState
  density: Figure
  need: Need
  path: PathReport
  context: Context
  pick: { candidate: Candidate, fanName: string, figures: Figure[] } | null
  /** why the picked fan cannot be computed */
  pickProblem: string | null
  power: PowerReport
  verdict: VerdictReport
  findings: Evaluation
  stations: Station[]
  ribbon: RibbonSegment[]
}

export type ReportResult = { ok: true, report: Report } | { ok: false, reason: string }

/** Context of every candidate of a plan: what rankings and the report share. */
function contextOf(plan: PlanDocument, air: AirState, path: PathModel, need: Need): Context {
  return {
    job: plan.job, air, solver: pathSolver(path, need.design.value), needFlow: need.flow.value ?? need.flowTarget?.limit ?? null, designFlow: need.design.value,
    levelLimit: need.levelLimit?.limit ?? null, costLimit: plan.targets.find(t => t.kind === 'money')?.limit ?? null,
  }
}

const loaded = (e: PathElement): PathElement => e.kind === 'filter' ? { ...e, loadFactor: Math.max(LOADED_FACTOR, e.loadFactor ?? 1) } : e

/** A candidate's figures with their workings. */
export function candidateFigures({ job, air, needFlow }: Context, c: Candidate, model: FanModel): Figure[] {
  const basis = model.curves.basis === 'estimated' ? 'estimated' as const : model.curves.basis
  const rise = c.flow && job.heatW ? temperatureRise(job.heatW, c.flow, air.density) : null
  const riseAt = (flow: number | null) => flow && job.heatW ? temperatureRise(job.heatW, flow, air.density) : null
  return [
    figure('pick.flow', 'Airflow at the operating point', 'flow', c.flow, 's²·ρ/1.2·p(Q/(n·s)) = Δp_path(Q)', 'monotone cubic through the fan’s curve; affinity laws; bracketed root', {
      basis, low: c.flowLow, high: c.flowHigh,
      inputs: [input('V', 'at the fan', c.driveV, 'voltage'), input('s', 'speed ratio', c.speed, 'ratio'), input('n', c.arrangement === 'series' ? 'fans in series' : 'fans side by side', c.count, 'number'), input('ρ', 'air density', air.density, 'density')],
      note: basis === 'estimated' ? 'The curve is estimated from free delivery and shut-off pressure.' : '',
    }),
    figure('pick.pressure', 'Pressure at the operating point', 'pressure', c.pressure, 'Δp_path(Q)', 'the path’s resistance at that flow', { inputs: [input('Q', 'airflow', c.flow, 'flow')] }),
    figure('pick.margin', 'Against the need', 'ratio', c.margin, 'Q / Q_need − 1', 'definition', { inputs: [input('Q', 'airflow', c.flow, 'flow'), input('Q_need', 'needed', needFlow, 'flow')] }),
    figure('pick.level', 'Level at the listener', 'level', c.level?.value ?? null, 'L = L_claim + 50·lg s − 20·lg(r/r₀) + 10·lg n + installation', 'fan sound law; free field to 1.5 m; installed fans 0 to 8 dB louder (common practice)', {
      basis: 'estimated', low: c.level?.low, high: c.level?.high,
      inputs: [input('L_claim', 'claim', model.fan.noiseDbA, 'level'), input('r₀', 'distance of the claim (1 m if unstated)', model.fan.noiseDistanceM ?? 1, 'distance'), input('r', 'listener', job.listenerM, 'distance'), input('n', 'fans', c.count, 'number'), input('s', 'speed ratio', c.speed, 'ratio')],
      note: model.fan.noiseDbA === null ? 'The sheet states no level.' : '',
    }),
    figure('pick.rise', 'Rise of the air', 'temperatureDifference', rise, 'Δt = P/(ρ·cp·Q)', 'heat balance', { basis: 'estimated', low: riseAt(c.flowHigh), high: riseAt(c.flowLow), inputs: [input('P', 'heat inside', job.heatW, 'power'), input('Q', 'airflow', c.flow, 'flow')], note: job.heatW ? '' : 'No heat given.' }),
  ]
}

/**
 * The one function: a plan and the fans it speaks of in, the whole report out. Pure; screens, server, tests and the
 * command line all call it.
 * @returns a reason instead of a report where not even the air exists (impossible humidity, altitude above 11 km)
 */
export function computeReport({ plan, fans }: PlanInput): ReportResult {
  const { job } = plan
  const air = airState(job.ambientC, job.altitudeM, job.humidity)
  if (!air) return { ok: false, reason: 'This combination of temperature, altitude and humidity does not exist.' }
  const path = modelPath(plan.path, air)
  const need = computeNeed(plan, air, path, fans)
  const context = contextOf(plan, air, path, need)

  const fan = plan.pick ? fans.find(f => f.id === plan.pick!.fanId) : undefined
  const made = fan ? modelFan(fan) : null
  const model = made?.ok ? made.model : null
  const power = computePower(plan, model)
  const usable = path.complete
  let candidate: Candidate | null = null
  let flowDirty: number | null = null
  let flowOfOne: number | null = null
  if (plan.pick && model && usable) {
    const { count } = plan.pick
    const arrangement = arrangementOf(count, plan.pick.arrangement)
    const volts = power.fanV ?? plan.pick.driveV
    candidate = evaluateCandidate(context, model, count, arrangement, volts)
    const speed = driveSpeed(model, volts)
    const positive = (q: number) => q > 0 ? q : null
    if (plan.path.some(e => e.kind === 'filter')) {
      const dirty = modelPath(plan.path.map(loaded), air)
      flowDirty = positive(operatingFlow(pathSolver(dirty, candidate.flow), model.curves.middle, driveOf(air, speed, count, arrangement)))
    }
    if (count > 1) flowOfOne = positive(operatingFlow(context.solver, model.curves.middle, driveOf(air, speed, 1, 'single')))
  }

  const atFlow = candidate?.flow ?? need.design.value
  const total = atFlow === null || !usable ? null : pathDrop(path, atFlow)
  const doubt = atFlow ? pathDoubt(path, atFlow) : 0
  const elements = path.elements.map((e): ElementReport => ({
    id: e.element.id, figure: elementFigure(e, atFlow), missing: e.element.kind === 'fan' ? null : e.missing,
    share: total && atFlow !== null && !e.missing ? elementDrop(e, atFlow) / total : null,
  }))
  const drop = figure('path.drop', candidate?.flow ? 'Whole path at the operating point' : 'Whole path at the planned flow', 'pressure', total, 'Δp = Σ Δpᵢ(Q)', 'elements in series add', {
    basis: 'estimated', low: total === null ? null : total * (1 - doubt), high: total === null ? null : total * (1 + doubt), inputs: [input('Q', 'flow', atFlow, 'flow')],
    note: usable ? '' : plan.path.length ? 'An element still lacks its size.' : 'The path has no elements yet.',
  })

  const cost = fan && plan.pick ? fan.owned ? 0 : fan.price === null ? null : fan.price * plan.pick.count : null
  const verdict = computeVerdict(plan, cost)
  const facts = planFacts({ plan, need, path, model, candidate, flowDirty, flowOfOne, power, verdict })
  const findings = evaluateFindings(facts)
  const fanName = fan?.model ?? ''
  const stations = stationsOf({
    plan, need, candidate, power, verdict, findings: findings.findings, fanName, pathComplete: usable,
    pathDropAtNeed: usable && need.flow.value !== null ? pathDrop(path, need.flow.value) : null,
  })
  return {
    ok: true, report: {
      air, need, context, power, verdict, findings, stations,
      density: figure('air.density', 'Air density', 'density', air.density, 'ρ = (p − pv)/(287.05·T) + pv/(461.52·T)', 'ideal mixture; pressure from ISO 2533, saturation after ASHRAE', {
        inputs: [input('t', 'air', job.ambientC, 'temperature'), input('h', 'altitude', job.altitudeM, 'altitude'), input('RH', 'relative humidity', job.humidity, 'ratio'), input('p', 'pressure', air.pressurePa, 'pressure')],
      }),
      path: { model: path, complete: usable, elements, drop, atFlow },
      pick: candidate && model ? { candidate, fanName, figures: candidateFigures(context, candidate, model) } : null,
      pickProblem: plan.pick && !fan ? 'The picked fan is no longer on the shelf.' : made && !made.ok ? made.reason : null,
      ribbon: ribbonOf(plan, path, usable ? candidate?.flow ?? null : null, candidate?.pressure ?? null, plan.pick ? `${plan.pick.count} × ${fanName}` : '', air.density),
    },
  }
}
