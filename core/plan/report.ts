import { airState, type AirState } from '#core/air'
import { allRuleGroups, evaluateFindings, type Evaluation } from '#core/rules'
import { LOADED_FACTOR } from '#core/airpath'
import {
  calibrate,
  type CalibrationReport,
  drivenArray,
  arrayCost,
  arrayName,
  fanArrayOf,
  arrayThickness,
  type FanArray,
  impellerDiameter,
  lifeAt,
  type FanModel,
  elementDrop,
  elementFigure,
  elementFlows,
  fanFlowFor,
  modelPath,
  pathUncertainty,
  pathDrop,
  scalePath,
  usefulShare,
  type PathModel,
} from '#core/system'
import { trustedFans } from '#core/selection'
import { evaluateCandidate, type Candidate, type SelectionContext } from '#core/selection'
import { fanIdsOf, type Fan, type PathElement, type PlanDocument, type PlanInput } from '#core/document'
import { planFacts, concernedElements } from '#core/rules'
import { fanAirC, operatingFlow, pathSolver } from '#core/system'
import { figure, input, type Figure } from '#core/figure'
import { computeNeed, needExtras, type Delivered, type Need, type NeedEnv } from '#core/requirement'
import { computePower, type PowerReport, runtimeOf, type RuntimeReport } from '#core/supply'
import { ribbonOf, type RibbonSegment } from './ribbon'
import { stationsOf, type Station } from './stations'
import { computeVerdict, type VerdictReport } from '#core/verification'
import { temperatureRise } from '#core/need'

/** One element: its drop, the flow through it, and its share of the power the path takes (shares add up to one, branches or not). */
export interface ElementReport {
  id: string
  figure: Figure
  flow: number | null
  share: number | null
  missing: string | null
  findings: string[]
}

export interface PathReport {
  model: PathModel
  /** the same before it was calibrated */
  guess: PathModel
  calibration: CalibrationReport | null
  complete: boolean
  elements: ElementReport[]
  drop: Figure
  /** the whole guess at the same flow, where a calibration is used */
  guessDrop: number | null
  /** fan-side flow that the drops are told at, m3/s */
  atFlow: number | null
  /** share of the fan's flow that does the job */
  useful: Figure | null
}

export interface Report {
  air: AirState
  density: Figure
  need: Need
  needEnv: NeedEnv
  path: PathReport
  context: SelectionContext
  /** the pick, its figures, and the part of its air that does the job */
  selection: {
    candidate: Candidate
    fanArray: FanArray
    fanName: string
    figures: Figure[]
    served: Figure
    life: Figure | null
  } | null
  /** the fans as the plan believes them */
  fans: Fan[]
  /** why the picked fan cannot be computed */
  selectionProblem: string | null
  power: PowerReport
  runtime: RuntimeReport
  verdict: VerdictReport
  findings: Evaluation
  stations: Station[]
  ribbon: RibbonSegment[]
}

export type ReportResult = { ok: true; report: Report } | { ok: false; reason: string }

/** Context of every candidate of a plan: what rankings and the report share. */
function contextOf(plan: PlanDocument, air: AirState, path: PathModel, need: Need): SelectionContext {
  const fanSide = (flow: number | null) => (flow === null ? null : fanFlowFor(path, flow))
  const designFlow = fanSide(need.design.value)
  return {
    job: plan.job,
    air,
    solver: pathSolver(path, designFlow),
    needFlow: fanSide(need.flow.value ?? need.flowTarget?.limit ?? null),
    designFlow,
    levelLimit: need.levelLimit?.limit ?? null,
    costLimit: plan.targets.find((t) => t.kind === 'money')?.limit ?? null,
    thicknessLimit: plan.targets.find((t) => t.kind === 'thickness')?.limit ?? null,
  }
}

const loaded = (e: PathElement): PathElement =>
  e.kind === 'filter' ? { ...e, loadFactor: Math.max(LOADED_FACTOR, e.loadFactor ?? 1) } : e

/** A candidate's figures with their workings. */
export function candidateFigures(
  { job, air, needFlow }: SelectionContext,
  c: Candidate,
  model: FanModel,
): Figure[] {
  const basis = model.curves.basis === 'estimated' ? ('estimated' as const) : model.curves.basis
  const rise = c.flow && job.heatW ? temperatureRise(job.heatW, c.flow, air.density) : null
  const riseAt = (flow: number | null) =>
    flow && job.heatW ? temperatureRise(job.heatW, flow, air.density) : null
  return [
    figure(
      'selection.flow',
      'Airflow at the operating point',
      'flow',
      c.flow,
      's²·ρ/1.2·p(Q/(n·s)) = Δp_path(Q)',
      'monotone cubic through the fan’s curve; affinity laws; bracketed root',
      {
        basis,
        low: c.flowLow,
        high: c.flowHigh,
        inputs: [
          input('V', 'at the fan', c.driveV, 'voltage'),
          input('s', 'speed ratio', c.speed, 'ratio'),
          input(
            'n',
            c.arrangement === 'parallel' || c.arrangement === 'single' ? 'fans side by side' : 'fans in series',
            c.count,
            'number',
          ),
          input('ρ', 'air density', air.density, 'density'),
        ],
        note: [
          basis === 'estimated' ? 'The curve is estimated from free delivery and shut-off pressure.' : '',
          model.fan.trusted?.flow || model.fan.trusted?.rotation
            ? `Its claims are corrected after ${(model.fan.trusted.flow ?? model.fan.trusted.rotation)!.from === 'own' ? 'your own test' : 'what this shelf has shown'}.`
            : '',
        ]
          .filter(Boolean)
          .join(' '),
      },
    ),
    figure(
      'selection.pressure',
      'Pressure at the operating point',
      'pressure',
      c.pressure,
      'Δp_path(Q)',
      'the path’s resistance at that flow',
      { inputs: [input('Q', 'airflow', c.flow, 'flow')] },
    ),
    figure('selection.margin', 'Against the need', 'ratio', c.margin, 'Q / Q_need − 1', 'definition', {
      inputs: [input('Q', 'airflow', c.flow, 'flow'), input('Q_need', 'needed', needFlow, 'flow')],
    }),
    figure(
      'selection.level',
      'Level at the listener',
      'level',
      c.level?.value ?? null,
      'L = L_claim + 50·lg s − 20·lg(r/r₀) + 10·lg n + installation',
      'fan sound law; free field to 1.5 m; installed fans 0 to 8 dB louder (common practice)',
      {
        basis: 'estimated',
        low: c.level?.low,
        high: c.level?.high,
        inputs: [
          input('L_claim', model.fan.noiseDbA === null ? 'claim, from sone' : 'claim', model.claimDbA, 'level'),
          input('r₀', 'distance of the claim (1 m if unstated)', model.claimDistanceM ?? 1, 'distance'),
          input('r', 'listener', job.listenerM, 'distance'),
          input('n', 'fans', c.count, 'number'),
          input('s', 'speed ratio', c.speed, 'ratio'),
        ],
        note: [
          model.claimDbA === null
            ? 'The sheet states no level.'
            : model.fan.noiseDbA === null
              ? 'Sone to dB(A): ±5 dB between spectra.'
              : '',
          model.fan.trusted?.level
            ? `Corrected by ${model.fan.trusted.level.middle.toFixed(1)} dB after ${model.fan.trusted.level.from === 'own' ? 'your own test' : 'what this shelf has shown'}.`
            : '',
        ]
          .filter(Boolean)
          .join(' '),
      },
    ),
    figure(
      'selection.rise',
      'Rise of the air',
      'temperatureDifference',
      rise,
      'Δt = P/(ρ·cp·Q)',
      'heat balance',
      {
        basis: 'estimated',
        low: riseAt(c.flowHigh),
        high: riseAt(c.flowLow),
        inputs: [input('P', 'heat inside', job.heatW, 'power'), input('Q', 'airflow', c.flow, 'flow')],
        note: job.heatW ? '' : 'No heat given.',
      },
    ),
  ]
}

/** Hours of life are worth no more than hundreds. */
const hundreds = (hours: number) => Math.round(hours / 100) * 100

function lifeFigure(
  plan: PlanDocument,
  need: Need,
  candidate: Candidate,
  fanArray: FanArray,
  density: number,
): Figure | null {
  const { fan } = fanArray.model
  const airC = fanAirC(plan, need, candidate.flow, density) ?? plan.job.ambientMaxC ?? plan.job.ambientC
  const life = lifeAt(fan, airC)
  return (
    life &&
    figure(
      'selection.life',
      'Bearing life there, hours',
      'number',
      hundreds(Math.sqrt(life.low * life.high)),
      'L = L10 · 2^((T_ref − T)/k), k 10 to 15 K',
      'handbook, heat and time (common practice)',
      {
        basis: 'estimated',
        low: hundreds(life.low),
        high: hundreds(life.high),
        note: 'L10: by then one in ten has failed. Dust, shock and a wrong shaft are not in it.',
        inputs: [
          input('L10', 'sheet, hours', fan.lifeH, 'number'),
          input('T_ref', 'stated at', fan.lifeC ?? 40, 'temperature'),
          input('T', 'air at the fan', airC, 'temperature'),
        ],
      },
    )
  )
}

/** Drop, flow and share of every element, with the findings that speak of it. */
function elementReports(
  plan: PlanDocument,
  path: PathModel,
  flow: number | null,
  total: number | null,
  { findings }: Evaluation,
): ElementReport[] {
  const flows = flow === null ? null : elementFlows(path, flow)
  const spoken = findings.map((f) => ({ id: f.id, elements: concernedElements(plan, f.id) }))
  return path.elements.map((e) => {
    const { id, kind } = e.element
    const through = flows?.get(id) ?? null
    const counted = total && flow && through !== null && !e.missing && kind !== 'split'
    return {
      id,
      flow: through,
      figure: elementFigure(e, through),
      missing: kind === 'fan' ? null : e.missing,
      share: counted ? (elementDrop(e, through) * through) / (total * flow) : null,
      findings: spoken.filter((f) => f.elements.includes(id)).map((f) => f.id),
    }
  })
}

function usefulFigure(path: PathModel, flow: number): Figure {
  const share = usefulShare(path, flow)
  return figure(
    'path.useful',
    'Air that does the job',
    'ratio',
    share,
    '1 − ΣQ_leak / Q',
    'ways side by side share one pressure drop',
    {
      basis: 'estimated',
      inputs: [
        input('Q', 'through the fan', flow, 'flow'),
        input('Q_leak', 'past the job', (1 - share) * flow, 'flow'),
      ],
    },
  )
}

/** What the pick gives to the job: its flow less what leaks past. */
function servedFigure(candidate: Candidate, { flow, low, high }: Delivered, model: FanModel): Figure {
  return figure(
    'selection.served',
    'The picked fan gives',
    'flow',
    flow,
    'Q_job = Q · (1 − leak share)',
    'operating point; ways side by side share one pressure drop',
    {
      basis: model.curves.basis,
      low,
      high,
      inputs: [
        input('Q', 'through the fan', candidate.flow, 'flow'),
        input(
          'leak',
          'share that leaks past',
          candidate.flow && flow !== null ? 1 - flow / candidate.flow : null,
          'ratio',
        ),
      ],
    },
  )
}

/**
 * The one function: a plan and the fans it speaks of in, the whole report out. Pure; screens, server, tests and the
 * command line all call it.
 * @returns a reason instead of a report where not even the air exists (impossible humidity, altitude above 11 km)
 */
export function computeReport({ plan, fans: shelf, shown }: PlanInput): ReportResult {
  const { job } = plan
  const ids = new Set(fanIdsOf(plan))
  const fans = trustedFans(
    shelf.filter((f) => ids.has(f.id)),
    job.trust,
    shown,
  )
  const air = airState(job.ambientC, job.altitudeM, job.humidity)
  if (!air)
    return { ok: false, reason: 'This combination of temperature, altitude and humidity does not exist.' }
  const guess = modelPath(plan, air)
  const { path, report: calibration } = calibrate(plan, guess, air, fans)
  const made = plan.selection ? fanArrayOf(plan.selection, fans) : null
  const fanArray = made?.ok ? made.fanArray : null
  const fan = fanArray?.model.fan ?? fans.find((f) => f.id === plan.selection?.fanId)
  const needEnv: NeedEnv = {
    plan,
    air,
    path,
    fans,
    outletBoreM: fan ? impellerDiameter(fan) : plan.job.fitWidthM,
  }
  const need = computeNeed(needEnv)
  const context = contextOf(plan, air, path, need)
  const power = computePower(plan, fanArray, fans)
  const usable = path.complete
  let candidate: Candidate | null = null
  let flowDirty: number | null = null
  let flowOfOne: number | null = null
  if (plan.selection && fanArray && usable) {
    const drive = { volts: power.fanV ?? plan.selection.driveV, duty: plan.selection.duty }
    candidate = evaluateCandidate(context, fanArray, drive)
    const positive = (q: number) => (q > 0 ? q : null)
    const driven = drivenArray(fanArray, drive, air)
    if (driven && plan.path.some((e) => e.kind === 'filter')) {
      const part = { ...plan, path: plan.path.map(loaded) }
      const dirtyGuess = modelPath(part, air)
      const dirty =
        path.factor === 1
          ? dirtyGuess
          : scalePath(part, dirtyGuess, path.factor, path.calibratedUncertainty ?? 0)
      flowDirty = positive(operatingFlow(pathSolver(dirty, candidate.flow), driven.curve, driven.drive))
    }
    const alone =
      fanArray.count > 1
        ? drivenArray({ ...fanArray, second: null, count: 1, arrangement: 'single' }, drive, air)
        : null
    if (alone) flowOfOne = positive(operatingFlow(context.solver, alone.curve, alone.drive))
  }

  const usefulAt = (flow: number | null | undefined) => (flow ? flow * usefulShare(path, flow) : null)
  const usefulFlow = usefulAt(candidate?.flow)
  const delivered = {
    flow: usefulFlow,
    low: usefulAt(candidate?.flowLow),
    high: usefulAt(candidate?.flowHigh),
    powerW: candidate?.powerW ?? null,
  }
  const atFlow = candidate?.flow ?? context.designFlow
  const total = atFlow === null || !usable ? null : pathDrop(path, atFlow)
  const uncertainty = atFlow ? pathUncertainty(path, atFlow) : 0
  const drop = figure(
    'path.drop',
    candidate?.flow ? 'Whole path at the operating point' : 'Whole path at the planned flow',
    'pressure',
    total,
    'Δp = Σ Δpᵢ(Q)',
    'elements in series add',
    {
      basis: 'estimated',
      low: total === null ? null : total * (1 - uncertainty),
      high: total === null ? null : total * (1 + uncertainty),
      inputs: [input('Q', 'flow', atFlow, 'flow')],
      note: !usable
        ? plan.path.length
          ? 'An element still lacks its size.'
          : 'The path has no elements yet.'
        : path.factor === 1
          ? ''
          : `Scaled by ${path.factor.toPrecision(2)} after your measurement.`,
    },
  )

  const cost = fanArray ? arrayCost(fanArray) : null
  const thicknessM = fanArray ? arrayThickness(fanArray) : null
  const runtime = runtimeOf(plan, power)
  const verdict = computeVerdict(plan, { cost, thicknessM })
  const facts = planFacts({
    plan,
    need,
    path,
    fanArray,
    candidate,
    runtime,
    air,
    usefulFlow,
    flowDirty: usefulAt(flowDirty),
    flowOfOne,
    power,
    verdict,
  })
  const findings = evaluateFindings(facts, allRuleGroups)
  const elements = elementReports(plan, path, usable ? atFlow : null, total, findings)
  const fanName = fanArray ? arrayName(fanArray) : (fan?.model ?? '')
  const stations = stationsOf({
    plan,
    need,
    candidate,
    power,
    verdict,
    findings: findings.findings,
    fanName,
    pathComplete: usable,
    pathDropAtNeed: usable && need.flow.value !== null ? pathDrop(path, context.needFlow!) : null,
  })
  return {
    ok: true,
    report: {
      air,
      need: { ...need, extras: needExtras(needEnv, delivered) },
      needEnv,
      context,
      power,
      runtime,
      verdict,
      findings,
      stations,
      density: figure(
        'air.density',
        'Air density',
        'density',
        air.density,
        'ρ = (p − pv)/(287.05·T) + pv/(461.52·T)',
        'ideal mixture; pressure from ISO 2533, saturation after ASHRAE',
        {
          inputs: [
            input('t', 'air', job.ambientC, 'temperature'),
            input('h', 'altitude', job.altitudeM, 'altitude'),
            input('RH', 'relative humidity', job.humidity, 'ratio'),
            input('p', 'pressure', air.pressurePa, 'pressure'),
          ],
        },
      ),
      path: {
        model: path,
        guess,
        calibration,
        complete: usable,
        elements,
        drop,
        atFlow,
        guessDrop: path === guess || atFlow === null ? null : pathDrop(guess, atFlow),
        useful: atFlow !== null && usable && usefulShare(path, atFlow) < 1 ? usefulFigure(path, atFlow) : null,
      },
      fans,
      selection:
        candidate && fanArray
          ? {
              candidate,
              fanArray,
              fanName,
              figures: candidateFigures(context, candidate, fanArray.model),
              served: servedFigure(candidate, delivered, fanArray.model),
              life: lifeFigure(plan, need, candidate, fanArray, air.density),
            }
          : null,
      selectionProblem: made && !made.ok ? made.reason : null,
      ribbon: ribbonOf({
        plan,
        path,
        flow: usable ? atFlow : null,
        usefulFlow: candidate ? usefulFlow : usefulAt(atFlow),
        gainPa: candidate?.pressure ?? null,
        density: air.density,
        fanName,
      }),
    },
  }
}
