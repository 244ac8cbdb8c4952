import type { InjectionKey } from 'vue'
import { wrap, type Remote } from 'comlink'
import { bandAt, type Improvement, type Remedy, type Sensitivity, type UncertaintyReport } from '#core/advice'
import { fanIdsOf, seenFrom, wholePlan, type PlanInput, type StreamPlan } from '#core/document'
import { pathCurve, pathDrop, type PathCurvePoint } from '#core/system'
import type { Report } from '#core/plan'
import type { Finding } from '#core/rules'
import type { PlanWorker } from '~/workers/plan.worker'

const WAIT_MS = 80

/** What is computed beside the report: slower, and never in the way of typing. */
export interface Beside {
  uncertainty: UncertaintyReport | null
  improvements: Improvement[] | null
  sensitivity: Sensitivity[]
}

interface PlanThread {
  beside: Ref<Beside>
  wantImprovements: Ref<boolean>
  /** what takes a finding away */ remedies: (finding: Finding) => Promise<Remedy[]>
}
const key = Symbol('beside') as InjectionKey<PlanThread>

/** A plan with its fans, as a worker can be given it. */
export function usePlanInput() {
  const shelf = useShelfStore()
  return (plan: StreamPlan): PlanInput => {
    const ids = fanIdsOf(wholePlan(plan))
    return {
      plan: structuredClone(toRaw(plan)),
      fans: structuredClone(shelf.known.filter((f) => ids.includes(f.id)).map((f) => toRaw(f))),
      shown: structuredClone(toRaw(shelf.shown)),
    }
  }
}

/** The open job's doubt and levers, in a worker: answers to older plans are dropped. Levers only where a page wants them. */
export function usePlanWorker() {
  const job = useJobStore()
  const shelf = useShelfStore()
  const beside = shallowRef<Beside>({ uncertainty: null, improvements: null, sensitivity: [] })
  const wantImprovements = ref(false)
  const thread = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<PlanWorker> = wrap<PlanWorker>(thread)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  const inputOf = usePlanInput()
  // a finding is mended in its own air stream, one of the whole machine from the first
  const remedies = async (finding: Finding) =>
    job.plan
      ? remote
          .remedies(
            inputOf(seenFrom(wholePlan(job.plan), finding.stream?.id)),
            JSON.parse(JSON.stringify(finding)) as Finding,
          )
          .catch(() => [])
      : []
  async function ask() {
    if (!job.plan) return
    const mine = ++asked
    const input = inputOf(job.plan)
    const uncertainty = await remote.sample(input).catch(() => null)
    if (mine !== asked) return
    beside.value = { ...beside.value, uncertainty }
    if (!wantImprovements.value) return
    const found = await remote.improvements(input).catch(() => ({ improvements: [], sensitivity: [] }))
    if (mine === asked) beside.value = { uncertainty, ...found }
  }
  watch(
    [() => job.plan, () => shelf.known, wantImprovements],
    () => {
      clearTimeout(timer)
      timer = setTimeout(ask, WAIT_MS)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    asked++
    clearTimeout(timer)
    thread.terminate()
  })
  provide(key, { beside, wantImprovements, remedies })
}

const nothing = (): PlanThread => ({
  beside: shallowRef<Beside>({ uncertainty: null, improvements: null, sensitivity: [] }),
  wantImprovements: ref(false),
  remedies: () => Promise.resolve([]),
})
/** Changes after which a finding is gone, computed when they are asked for. */
export const useRemedies = () => inject(key, nothing, true).remedies
/** The sampled doubt of the open job, in a station's page. */
export function useUncertaintyReport() {
  const { beside } = inject(key, nothing, true)
  return computed(() => beside.value.uncertainty)
}
/** Levers and the worth of measuring, while the component that wants them is there. */
export function useImprovements() {
  const { beside, wantImprovements } = inject(key, nothing, true)
  wantImprovements.value = true
  onBeforeUnmount(() => {
    wantImprovements.value = false
  })
  return beside
}

/** The path's curve with its sampled band, or the elements' weighted one until the samples are there. */
export function bandedPath(
  report: Report,
  uncertainty: UncertaintyReport | null,
  maxFlow: number,
): PathCurvePoint[] {
  const { complete, model } = report.path
  if (!complete) return []
  if (!uncertainty?.band.length) return pathCurve(model, maxFlow)
  return pathCurve(model, maxFlow, (flow, drop) =>
    bandAt(uncertainty.band, flow, drop, (q) => pathDrop(model, q)),
  )
}
