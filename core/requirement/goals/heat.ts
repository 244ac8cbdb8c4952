import { CP_AIR } from '#core/air'
import { flowForSinkResistance, sinkProblem, sinkResistanceAt } from '#core/heat'
import { airflowWithWallLoss, cabinetTemperature } from '#core/need'
import type { Job, PlanDocument } from '#core/document'
import { figure, input } from '#core/figure'
import { densityInput, firstMissing, heatFigureBasis, heatInput, heatNote, type GoalNeed } from './model'

/** The temperature inside that the plan is judged by: the Need's limit, or a target's. */
export function insideLimit(plan: PlanDocument): number | null {
  return plan.job.insideMaxC ?? plan.targets.find((t) => t.kind === 'temperature')?.limit ?? null
}
const limitOf = (job: Job, plan: PlanDocument) => job.insideMaxC ?? insideLimit(plan)

/** Cool a box or cabinet: the air carries what the walls do not. */
export const cool: GoalNeed = {
  uncertainties: ['heatW', 'wallLossWK', 'ambientC', 'insideMaxC'],
  missing: (job, { plan }) =>
    firstMissing(job, [['heatW', 'the heat inside']]) ??
    (limitOf(job, plan) === null ? 'the limit inside' : null),
  flow: (job, { plan, air }) => {
    const inside = limitOf(job, plan)
    return job.heatW === null || inside === null
      ? null
      : airflowWithWallLoss(job.heatW, job.wallLossWK ?? 0, inside, job.ambientC, air.density)
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
        densityInput(air),
        input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
      ],
    }
  },
  extras: (job, { air }, { flow, low, high }) => {
    const ua = job.wallLossWK ?? 0
    const at = (q: number | null) =>
      q === null || job.heatW === null ? null : cabinetTemperature(job.heatW, ua, job.ambientC, q, air.density)
    const inputs = [
      heatInput(job),
      input('UA', 'wall loss', ua, 'thermalConductance'),
      input('Q', 'airflow', flow, 'flow'),
      densityInput(air),
    ]
    return [
      figure(
        'need.inside',
        'Inside with the picked fan',
        'temperature',
        at(flow),
        'tᵢ = tₐ + P/(UA + ρ·cp·Q)',
        'heat balance of a stirred box',
        { basis: 'estimated', low: at(high), high: at(low), inputs },
      ),
      figure(
        'need.closed',
        'Inside with no air at all',
        'temperature',
        ua > 0 ? at(0) : null,
        'tᵢ = tₐ + P/UA',
        'heat balance of a closed box',
        { basis: 'estimated', inputs: inputs.slice(0, 2), note: ua > 0 ? '' : 'Needs the wall loss.' },
      ),
    ]
  },
}

const wantedResistance = (job: Job) =>
  job.heatW && job.partMaxC !== null
    ? (job.partMaxC - job.ambientC) / job.heatW - (job.partInnerKPerW ?? 0)
    : null
const sinkOf = (plan: PlanDocument) => plan.sink.map((p) => ({ flow: p.flowM3s, kPerW: p.kPerW }))

/** Cool a heatsink or part: its resistance falls with the airflow over it. */
export const part: GoalNeed = {
  uncertainties: ['heatW', 'ambientC', 'partMaxC', 'partInnerKPerW'],
  missing: (job, { plan }) =>
    firstMissing(job, [
      ['heatW', 'the heat of the part'],
      ['partMaxC', 'the part’s limit'],
    ]) ?? sinkProblem(sinkOf(plan)),
  flow: (job, { plan }) => {
    const wanted = wantedResistance(job)
    return wanted === null ? null : flowForSinkResistance(sinkOf(plan), wanted)
  },
  working: (job, { plan }) => {
    const wanted = wantedResistance(job)
    const points = sinkOf(plan)
    return {
      label: 'Airflow needed over the part',
      formula: 'R(Q) = (t_part − tₐ)/P − R_inner',
      source:
        'thermal resistance chain; power law between the points, R ~ Q^−0.5 beyond them (common practice)',
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
      ],
    }
  },
  extras: (job, { plan, air }, { flow, low, high }) => {
    const points = sinkOf(plan)
    const at = (q: number | null) => {
      const r = q === null ? null : sinkResistanceAt(points, q)
      return r === null || job.heatW === null
        ? null
        : job.ambientC + job.heatW * (r + (job.partInnerKPerW ?? 0))
    }
    const r = flow === null ? null : sinkResistanceAt(points, flow)
    return [
      figure(
        'need.part',
        'Part with the picked fan',
        'temperature',
        at(flow),
        't = tₐ + P·(R(Q) + R_inner)',
        'thermal resistance chain',
        {
          basis: 'estimated',
          low: at(high),
          high: at(low),
          inputs: [
            heatInput(job),
            input('R(Q)', 'surface to air', r, 'thermalResistance'),
            input('Q', 'airflow', flow, 'flow'),
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
