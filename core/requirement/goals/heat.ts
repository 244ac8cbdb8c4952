import { CP_AIR, type AirState } from '#core/air'
import { flowForSinkResistance, sinkProblem, sinkReach, sinkResistanceAt } from '#core/heat'
import { airflowWithWallLoss } from '#core/need'
import { densityAtFan, insideC } from '#core/system'
import {
  blowsOf,
  targetOf,
  wantedRange,
  type Blows,
  type Job,
  type StreamPlan,
  type UncertainInput,
} from '#core/document'
import { doubtedRange, doubtsOf } from '../doubts'
import { figure, input } from '#core/figure'
import { passiveFigure } from './passive-figures'
import { densityInput, firstMissing, heatFigureBasis, heatInput, heatNote, type GoalNeed } from './model'

/** The temperature inside that the plan is judged by: the Need's limit, or a target's. */
export function insideLimit(plan: StreamPlan): number | null {
  const target = targetOf(plan, 'temperature', 'high')
  return plan.job.insideMaxC ?? (target && wantedRange(target).high)
}
const limitOf = (job: Job, plan: StreamPlan) => job.insideMaxC ?? insideLimit(plan)

/** What an inside temperature is doubted by. */
const heatDoubts: UncertainInput[] = ['heatW', 'wallLossWK', 'ambientC']
/** Density at the fan as an input of a working: of the air that leaves where it draws out. */
const densityAt = (blows: Blows, air: AirState, leavingC: number | null) =>
  input(
    'ρ',
    blows === 'out' ? 'air density where it leaves' : 'air density',
    leavingC === null ? air.density : densityAtFan(blows, air, leavingC),
    'density',
  )

/** Cool a box or cabinet: the air carries what the walls do not. */
export const cool: GoalNeed = {
  uncertainties: [...heatDoubts, 'insideMaxC'],
  missing: (job, { plan }) =>
    firstMissing(job, [['heatW', 'the heat inside']]) ??
    (limitOf(job, plan) === null ? 'the limit inside' : null),
  flow: (job, { plan, air }) => {
    const inside = limitOf(job, plan)
    return job.heatW === null || inside === null
      ? null
      : airflowWithWallLoss(
          job.heatW,
          job.wallLossWK ?? 0,
          inside,
          job.ambientC,
          densityAtFan(blowsOf(plan), air, inside),
        )
  },
  working: (job, { plan, air }) => {
    const inside = limitOf(job, plan)
    return {
      label: 'Airflow needed',
      formula: 'Q = (P − UA·(tᵢ − tₐ)) / (ρ·cp·(tᵢ − tₐ))',
      source: 'heat balance, ASHRAE Fundamentals',
      basis: heatFigureBasis(job),
      note:
        inside !== null && inside <= job.ambientC
          ? 'Air cannot cool below its own temperature.'
          : heatNote(job),
      inputs: [
        heatInput(job),
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('tᵢ', 'highest temperature inside', inside, 'temperature'),
        input('tₐ', 'air at the intake', job.ambientC, 'temperature'),
        densityAt(blowsOf(plan), air, inside),
        input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
      ],
    }
  },
  extras: (job, { plan, air, path }, delivered) => {
    const { flow } = delivered
    const blows = blowsOf(plan)
    const ua = job.wallLossWK ?? 0
    const inside = insideC(job, blows, air, flow)
    const inputs = [
      heatInput(job),
      input('UA', 'wall loss', ua, 'thermalConductance'),
      input('tₐ', 'air at the intake', job.ambientC, 'temperature'),
      input('Q', 'airflow', flow, 'flow'),
      densityAt(blowsOf(plan), air, inside),
      input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
    ]
    const doubts = doubtsOf(plan, heatDoubts)
    const still = { flow: 0, low: null, high: null }
    return [
      figure(
        'need.inside',
        'Inside with the picked fan',
        'temperature',
        inside,
        'tᵢ = tₐ + P/(UA + ρ·cp·Q)',
        'heat balance of a stirred box',
        {
          basis: 'estimated',
          ...doubtedRange(job, doubts, delivered, (j, q) => insideC(j, blows, air, q)),
          inputs,
        },
      ),
      figure(
        'need.closed',
        'Inside with no air at all',
        'temperature',
        ua > 0 ? insideC(job, blows, air, 0) : null,
        'tᵢ = tₐ + P/UA',
        'heat balance of a closed box',
        {
          basis: 'estimated',
          ...(ua > 0 ? doubtedRange(job, doubts, still, (j) => insideC(j, blows, air, 0)) : {}),
          inputs: inputs.slice(0, 3),
          note: ua > 0 ? '' : 'Needs the wall loss.',
        },
      ),
      passiveFigure(job, air, path, limitOf(job, plan)),
    ]
  },
}

const wantedResistance = (job: Job) =>
  job.heatW && job.partMaxC !== null
    ? (job.partMaxC - job.ambientC) / job.heatW - (job.partInnerKPerW ?? 0)
    : null
const sinkOf = (plan: StreamPlan) => plan.sink.map((p) => ({ flow: p.flowM3s, kPerW: p.kPerW }))

/** What a part's temperature is doubted by. */
const partDoubts: UncertainInput[] = ['heatW', 'ambientC', 'partInnerKPerW']

/** Cool a heatsink or part: its resistance falls with the airflow over it. */
export const part: GoalNeed = {
  uncertainties: [...partDoubts, 'partMaxC'],
  missing: (job, { plan }) =>
    firstMissing(job, [
      ['heatW', 'the heat of the part'],
      ['partMaxC', 'the part’s limit'],
    ]) ?? sinkProblem(sinkOf(plan)),
  flow: (job, { plan, air }) => {
    const wanted = wantedResistance(job)
    const flow = wanted === null ? null : flowForSinkResistance(sinkOf(plan), wanted)
    return flow === null ? null : flow / air.densityRatio
  },
  working: (job, { plan, air }) => {
    const wanted = wantedResistance(job)
    const points = sinkOf(plan)
    return {
      label: 'Airflow needed over the part',
      formula: 'R(Q·ρ/1.2) = (t_part − tₐ)/P − R_inner',
      source:
        'thermal resistance chain; power law between the points, R ~ Q^−0.5 beyond them (common practice); the mass of air counts',
      basis: points.length > 1 ? heatFigureBasis(job) : 'estimated',
      note:
        wanted !== null && wanted <= 0
          ? 'The way from the part to its surface takes more than the whole rise: no air cools that.'
          : points.length === 1
            ? 'One point only: the rest follows R ~ Q^−0.5.'
            : heatNote(job),
      inputs: [
        heatInput(job),
        input('t_part', 'part at most', job.partMaxC, 'temperature'),
        input('tₐ', 'air at the intake', job.ambientC, 'temperature'),
        input('R_inner', 'part to surface', job.partInnerKPerW ?? 0, 'thermalResistance'),
        input('R(Q)', 'wanted of the surface', wanted, 'thermalResistance'),
        densityInput(air),
      ],
    }
  },
  extras: (job, { plan, air }, delivered) => {
    const { flow } = delivered
    const points = sinkOf(plan)
    const surface = (q: number | null) => (q === null ? null : sinkResistanceAt(points, q * air.densityRatio))
    const top = sinkReach(points) / air.densityRatio
    const at = (j: Job, q: number | null) => {
      const r = surface(q === null || q === flow ? q : Math.min(q, top))
      return r === null || j.heatW === null ? null : j.ambientC + j.heatW * (r + (j.partInnerKPerW ?? 0))
    }
    const r = surface(flow)
    return [
      figure(
        'need.part',
        'Part with the picked fan',
        'temperature',
        at(job, flow),
        't = tₐ + P·(R(Q·ρ/1.2) + R_inner)',
        'thermal resistance chain; the mass of air counts',
        {
          basis: 'estimated',
          ...doubtedRange(job, doubtsOf(plan, partDoubts), delivered, at),
          inputs: [
            heatInput(job),
            input('tₐ', 'air at the intake', job.ambientC, 'temperature'),
            input('R(Q)', 'surface to air', r, 'thermalResistance'),
            input('R_inner', 'part to surface', job.partInnerKPerW ?? 0, 'thermalResistance'),
            input('Q', 'airflow', flow, 'flow'),
            densityInput(air),
          ],
          note: flow !== null && r === null ? 'That flow lies outside the data of this sink.' : '',
        },
      ),
      figure(
        'need.airLimit',
        'What the air alone costs',
        'thermalResistance',
        flow ? 1 / (air.density * CP_AIR * flow) : null,
        'R = 1/(ρ·cp·Q)',
        'heat balance of the air',
        {
          inputs: [input('Q', 'airflow', flow, 'flow'), densityInput(air)],
          note: 'No sink gets below this at that airflow.',
        },
      ),
    ]
  },
}
