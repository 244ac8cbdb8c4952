import type { AirState } from '../air'
import { deliveredClass, stallLimit } from '../fan'
import type { Quantity, Sentence } from '../units'
import type { Arrangement, Job } from './document'
import { driveSpeed, fanCurrent, freeDelivery, shutOffPressure, type FanModel } from './fan'
import { levelAtListener, type LevelEstimate } from './noise'
import { driveOf, operateOnPath, operatingFlow, type PathSolver } from './operate'
import { pathDoubt, pathDrop } from './path'

/** Pressure above which a path counts as a restriction for the noise claim, Pa. Handbook, findings `noise-free-air-claim`. */
const RESTRICTED_PA = 5
/** Voltage over start voltage that a plan should keep for cold, dust and age. Common practice, no source. */
export const START_MARGIN = 1.2

/** What two stages in series may lose without a straightener between them, share of their pressure. Common practice, no source (10 to 20 %). */
const SERIES_LOSS = 0.15

/** Left of this share of free delivery an axial fan known by two numbers only is "possibly in stall". Handbook, estimated curves (common practice). */
const ESTIMATED_STALL = 0.5

export interface Context {
  job: Job
  air: AirState
  solver: PathSolver
  /** airflow needed without and with margin, m3/s */
  needFlow: number | null
  designFlow: number | null
  levelLimit: number | null
  costLimit: number | null
  thicknessLimit: number | null
}

export type Verdict = 'good' | 'warn' | 'fail'
export interface Reason { verdict: Verdict, text: Sentence }

export interface Candidate {
  fanId: string
  maker: string
  model: string
  count: number
  arrangement: Arrangement
  driveV: number
  speed: number
  flow: number | null
  flowLow: number | null
  flowHigh: number | null
  pressure: number | null
  level: LevelEstimate | null
  powerW: number | null
  currentA: number | null
  cost: number | null
  /** depth of the group, stages behind each other added, m */
  thicknessM: number
  /** flow over the airflow needed, minus 1 */
  margin: number | null
  verdict: Verdict
  reasons: Reason[]
  /** flow below which the curve dips, as driven, m3/s; null where no dip is visible (which is not "no stall") */
  stallFlow: number | null
  stalled: boolean
  estimated: boolean
  owned: boolean
}

export const arrangementOf = (count: number, arrangement: Arrangement): Arrangement => count === 1 ? 'single' : arrangement === 'single' ? 'parallel' : arrangement

/** The quick part of a candidate, enough to rank drive levels: flow and level at one voltage. */
export function quickLook(context: Context, model: FanModel, count: number, arrangement: Arrangement, volts: number): { flow: number, level: number | null } {
  const speed = driveSpeed(model, volts)
  if (speed <= 0) return { flow: 0, level: null }
  const flow = operatingFlow(context.solver, model.curves.middle, driveOf(context.air, speed, count, arrangement))
  const level = levelAtListener(model, speed, count, context.job.listenerM, true, false)
  return { flow, level: level?.value ?? null }
}

function judge(context: Context, model: FanModel, c: Omit<Candidate, 'reasons' | 'verdict'>): Reason[] {
  const { fan } = model
  const { job } = context
  const reasons: Reason[] = []
  const fail = (...text: Sentence) => reasons.push({ verdict: 'fail', text })
  const warn = (...text: Sentence) => reasons.push({ verdict: 'warn', text })
  const of = (value: number, quantity: Quantity) => ({ value, quantity })
  if (c.driveV < model.startV) fail('starts at ', of(model.startV, 'voltage'), ', driven at ', of(c.driveV, 'voltage'))
  else if (c.driveV < START_MARGIN * model.startV) warn('hardly above its start voltage of ', of(model.startV, 'voltage'))
  if (c.driveV > model.maxV) fail('allows only ', of(model.maxV, 'voltage'))
  if (job.fitDepthM !== null && fan.thicknessM > job.fitDepthM) fail('needs ', of(fan.thicknessM, 'length'), ' of depth, the space has ', of(job.fitDepthM, 'length'))
  if (job.fitWidthM !== null && fan.frameM > job.fitWidthM) fail('frame of ', of(fan.frameM, 'length'), ', the space has ', of(job.fitWidthM, 'length'))
  if (context.thicknessLimit !== null && c.thicknessM > context.thicknessLimit) fail('is ', of(c.thicknessM, 'length'), ' thick, ', of(context.thicknessLimit, 'length'), ' wanted')
  if (c.flow === null) fail('no operating point on this path')
  else if (context.needFlow !== null && c.flow < context.needFlow) {
    const short = pathDrop(context.solver.path, context.needFlow) - shutOffPressure(model) * c.speed ** 2 * context.air.densityRatio * (c.arrangement === 'series' ? c.count : 1)
    if (short > 0) fail('lacks ', of(short, 'pressure'), ' even with no air moving')
    else fail('lacks ', of(context.needFlow - c.flow, 'flow'))
  }
  else if (context.designFlow !== null && c.flow < context.designFlow) warn('meets the need, but ', of(context.designFlow - c.flow, 'flow'), ' short of the margin')
  if (c.stalled) warn('would run in the stall region: rumble')
  if (c.level && context.levelLimit !== null && c.level.value > context.levelLimit) fail(of(c.level.value - context.levelLimit, 'levelDifference'), ' too loud')
  if (c.cost !== null && context.costLimit !== null && c.cost > context.costLimit) fail(of(c.cost - context.costLimit, 'money'), ' over the money limit')
  if (c.flow !== null && !c.estimated && deliveredClass(c.flow, freeDelivery(model) * c.speed * (c.arrangement === 'series' ? 1 : c.count)) === 'check') warn('delivers under 15 % of its free air')
  if (c.level === null && context.levelLimit !== null) warn('no noise figure')
  return reasons
}

/** One fan type, count and drive on this job's path, with the reasons for or against it. */
export function evaluateCandidate(context: Context, model: FanModel, count: number, arrangement: Arrangement, volts: number): Candidate {
  const { fan } = model
  const speed = driveSpeed(model, volts)
  const drive = driveOf(context.air, speed, count, arrangement)
  const op = speed > 0 ? operateOnPath(context.solver, model.curves.middle, drive) : null
  const flow = op?.flow ?? null
  const doubt = flow ? pathDoubt(context.solver.path, flow) : 0
  const band = (curve: 'low' | 'high', factor: number) => {
    const stages = curve === 'low' && arrangement === 'series' ? { ...drive, series: drive.series * (1 - SERIES_LOSS) } : drive
    const q = operatingFlow(context.solver, model.curves[curve], stages, factor)
    return q > 0 ? q : null
  }
  const dip = model.curves.basis === 'estimated' && fan.kind === 'axial' ? ESTIMATED_STALL * freeDelivery(model) : stallLimit(model.curves.middle)
  const stallFlow = dip === null ? null : dip * speed * drive.parallel
  const stalled = flow !== null && stallFlow !== null && flow < stallFlow
  const current = fanCurrent(model, volts)
  const partial = {
    fanId: fan.id, maker: fan.maker, model: fan.model, count, arrangement, driveV: volts, speed,
    flow, flowLow: flow === null ? null : band('low', 1 + doubt), flowHigh: flow === null ? null : band('high', Math.max(0.05, 1 - doubt)), pressure: op?.pressure ?? null,
    level: speed > 0 ? levelAtListener(model, speed, count, context.job.listenerM, (op?.pressure ?? 0) > RESTRICTED_PA, stalled) : null,
    powerW: current === null ? null : current * volts * count, currentA: current === null ? null : current * count,
    thicknessM: fan.thicknessM * (arrangement === 'series' ? count : 1),
    cost: fan.owned ? 0 : fan.price === null ? null : fan.price * count,
    margin: flow !== null && context.needFlow ? flow / context.needFlow - 1 : null,
    stallFlow, stalled, estimated: model.curves.basis === 'estimated', owned: fan.owned,
  }
  const reasons = judge(context, model, partial)
  const verdict: Verdict = reasons.some(r => r.verdict === 'fail') ? 'fail' : reasons.length ? 'warn' : 'good'
  return { ...partial, reasons, verdict }
}
