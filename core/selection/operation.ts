import { LOADED_FACTOR } from '#core/airpath'
import { dutyOf, type PathElement, type StreamPlan } from '#core/document'
import type { Delivered } from '#core/requirement'
import {
  alike,
  drivenArray,
  drivenV,
  modelPath,
  operatingFlow,
  pathSolver,
  scalePath,
  usefulShare,
  type AirSystem,
  type ArrayDrive,
  type FanArray,
  type PathModel,
} from '#core/system'
import { evaluateCandidate, type Candidate, type SupplyWindow } from './candidate'
import type { SelectionContext } from './context'

/** The selected fans where they really run. */
export interface Operation {
  /** null without a selection that can be computed, or without a whole path */
  candidate: Candidate | null
  /** what of their air does the job */
  delivered: Delivered
  /** the same with the filters loaded, m3/s; null without a filter */
  deliveredDirty: number | null
  /** flow of one fan alone, m3/s; null for a single one */
  flowOfOne: number | null
}

const positive = (flow: number) => (flow > 0 ? flow : null)
const useful = (path: PathModel, flow: number | null | undefined) =>
  flow ? flow * usefulShare(path, flow) : null

const loaded = (e: PathElement): PathElement =>
  e.kind === 'filter' ? { ...e, loadFactor: Math.max(LOADED_FACTOR, e.loadFactor ?? 1) } : e

/** The path with its filters loaded; null where it has none. */
function dirtyPath(plan: StreamPlan, { air, path }: AirSystem): PathModel | null {
  if (!plan.path.some((e) => e.kind === 'filter')) return null
  const part = { ...plan, path: plan.path.map(loaded) }
  const guess = modelPath(part, air)
  return path.factor === 1 ? guess : scalePath(part, guess, path.factor, path.calibrated)
}

/** Flow of the same fans on another path, m3/s. */
function flowOn(
  system: AirSystem,
  path: PathModel,
  fanArray: FanArray,
  drive: ArrayDrive,
  guess: number | null,
): number | null {
  const driven = drivenArray(fanArray, drive, system.air)
  return driven && positive(operatingFlow(pathSolver(path, guess), driven.curve, driven.drive))
}

/**
 * The operating point of the plan's selection, and what of its air does the job.
 * @param fanV voltage at the fans as the feed gives it, V; null where there is no feed
 * @param supply between what it may lie, V; null where that is not known
 */
export function operationOf(
  plan: StreamPlan,
  system: AirSystem,
  context: SelectionContext,
  fanV: number | null,
  supply: SupplyWindow | null = null,
): Operation {
  const { path, fanArray } = system
  if (!fanArray || !path.complete)
    return {
      candidate: null,
      delivered: { flow: null, low: null, high: null, powerW: null },
      deliveredDirty: null,
      flowOfOne: null,
    }
  const drive = { volts: fanV ?? drivenV(plan, fanArray), duty: dutyOf(plan) }
  const candidate = evaluateCandidate(context, fanArray, drive, supply)
  const dirty = dirtyPath(plan, system)
  const one = alike(fanArray.model, 1, 'single')
  return {
    candidate,
    delivered: {
      flow: useful(path, candidate.flow),
      low: useful(path, candidate.flowLow),
      high: useful(path, candidate.flowHigh),
      powerW: candidate.powerW,
    },
    deliveredDirty: dirty && useful(path, flowOn(system, dirty, fanArray, drive, candidate.flow)),
    flowOfOne: fanArray.count > 1 ? flowOn(system, path, one, drive, context.designFlow) : null,
  }
}
