import { driveAt } from '../plans'
import { computeReport, type Report } from '#core/plan'
import { addsPressure, branchFlows } from '#core/system'
import { driveVolts, type PathElement, type StreamPlan } from '#core/document'
import { drawOf, randomElement, randomPlan, type RandomPlan } from './plans'
import { slowFlow, slowSplit } from './slow-solver'

/** What a random plan breaks; empty where all holds. */
export interface Complaint {
  seed: number
  what: string
}

/** Largest allowed difference of flow between the two solvers, share. */
const AGREE = 1e-3
/** What a property may be off by rounding, share. */
const ROUNDING = 1e-6

const reportOf = (random: RandomPlan, plan: StreamPlan = random.plan): Report => {
  const result = computeReport({ plan, fans: random.fans, shown: null })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const changed = (plan: StreamPlan, change: (plan: StreamPlan) => void): StreamPlan => {
  const next = JSON.parse(JSON.stringify(plan)) as StreamPlan
  change(next)
  return next
}

/** Every number of a report that is not finite, and every range that does not hold its value. */
function figuresOf(report: Report) {
  return [
    report.need.flow,
    ...report.need.extras,
    ...(report.selection?.figures ?? []),
    ...(report.selection ? [report.selection.served] : []),
    ...report.path.elements.map((e) => e.figure),
    report.path.drop,
    ...report.power.figures,
    ...report.runtime.figures,
  ]
}

/**
 * Holds one random plan against the slow solver and against what physics demands of any plan.
 * @param seed of the plan
 */
export function complaintsOf(seed: number): Complaint[] {
  const found: Complaint[] = []
  const complain = (what: string) => found.push({ seed, what })
  const random = randomPlan(seed)
  const report = reportOf(random)
  const flow = report.selection?.candidate.flow ?? null
  const { model: path } = report.path
  const fanArray = report.selection?.fanArray
  if (!fanArray || !path.complete) {
    complain(`no selection: ${report.selectionProblem ?? 'path not complete'}`)
    return found
  }
  const slow = slowFlow(path, fanArray, driveVolts(random.plan)!, report.air)
  if ((slow ?? 0) > 0 !== (flow ?? 0) > 0) complain(`flow ${flow} where the slow solver finds ${slow}`)
  else if (slow && flow && Math.abs(flow / slow - 1) > AGREE)
    complain(`flow ${flow} against ${slow}: ${(100 * (flow / slow - 1)).toFixed(3)} %`)
  for (const f of figuresOf(report)) {
    for (const x of [f.value, f.low, f.high])
      if (x !== null && !Number.isFinite(x)) complain(`${f.key} is ${x}`)
    const slack = 1e-9 * Math.abs(f.value ?? 0)
    if (f.value !== null && f.low !== null && f.low > f.value + slack)
      complain(`${f.key}: low ${f.low} > ${f.value}`)
    if (f.value !== null && f.high !== null && f.high < f.value - slack)
      complain(`${f.key}: high ${f.high} < ${f.value}`)
  }
  if (!flow) return found
  for (const e of path.main.filter((x) => x.branches)) {
    const flows = branchFlows(e, flow)
    const sum = flows.reduce((s, x) => s + x, 0)
    if (Math.abs(sum / flow - 1) > 1e-9) complain(`ways of a split carry ${sum} of ${flow}`)
    const other = slowSplit(e, flow).flows
    if (flows.some((x, i) => Math.abs(x - other[i]!) > AGREE * flow)) complain(`ways ${flows} against ${other}`)
  }
  const d = drawOf(seed + 7919)
  const flowOf = (change: (plan: StreamPlan) => void) =>
    reportOf(random, changed(random.plan, change)).selection?.candidate.flow ?? 0
  // a pipe that ends in a larger opening loses more of its speed: there more area may cost a little air
  const piped = (e: PathElement) => {
    const row = random.plan.path.filter((x) => x.branchId === e.branchId)
    const at = row.indexOf(e)
    return [row[at - 1], row[at + 1]].some((x) => x?.diameterM || x?.kind === 'duct')
  }
  const areas = random.plan.path.filter((e) => e.areaM2 && e.kind !== 'chamber' && !piped(e))
  if (areas.length) {
    const { id } = d.pick(areas)
    const more = flowOf((p) => {
      const e = p.path.find((x) => x.id === id)!
      e.areaM2! *= d.between(1.05, 2)
    })
    if (more < flow * (1 - ROUNDING)) complain(`more area at ${id}: ${flow} falls to ${more}`)
  }
  const at = Math.floor(d.unit() * (random.plan.path.length + 1))
  const filtered = flowOf((p) => {
    const branchId = p.path[at]?.kind === 'split' ? null : (p.path[at]?.branchId ?? null)
    p.path.splice(at, 0, randomElement(d, 'filter', 'added', branchId))
  })
  if (filtered > flow * (1 + ROUNDING)) complain(`a filter at ${at}: ${flow} rises to ${filtered}`)
  const dips = fanArray.groups.some(({ model: m }) =>
    m.curves.middle.p.some((p, i, all) => i > 0 && p > all[i - 1]!),
  )
  // beyond its free delivery a stage brakes with its end slope, which grows with its speed: an assumption
  if (!dips && !(fanArray.groups.length > 1 && addsPressure(fanArray.arrangement))) {
    const faster = flowOf((p) => {
      driveAt(p, 1.05 * driveVolts(p)!)
    })
    if (faster < flow * (1 - ROUNDING)) complain(`more volts: ${flow} falls to ${faster}`)
  }
  return found
}
