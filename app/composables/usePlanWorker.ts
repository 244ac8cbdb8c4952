import type { InjectionKey } from 'vue'
import { wrap, type Remote } from 'comlink'
import { bandAt, type DoubtReport, type Lever, type Worth } from '#core/advice'
import { fanIdsOf } from '#core/document'
import { pathCurve, pathDrop, type PathCurvePoint } from '#core/system'
import type { Report } from '#core/plan'
import type { PlanWorker } from '~/workers/plan.worker'

const WAIT_MS = 80

/** What is computed beside the report: slower, and never in the way of typing. */
export interface Beside {
  doubt: DoubtReport | null
  levers: Lever[] | null
  worth: Worth[]
}

const key = Symbol('beside') as InjectionKey<{ beside: Ref<Beside>; wantLevers: Ref<boolean> }>

/** The open job's doubt and levers, in a worker: answers to older plans are dropped. Levers only where a page wants them. */
export function usePlanWorker() {
  const job = useJobStore()
  const shelf = useShelfStore()
  const beside = shallowRef<Beside>({ doubt: null, levers: null, worth: [] })
  const wantLevers = ref(false)
  const thread = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<PlanWorker> = wrap<PlanWorker>(thread)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  async function ask() {
    if (!job.plan) return
    const mine = ++asked
    const ids = fanIdsOf(job.plan)
    const plan = structuredClone(toRaw(job.plan))
    const input = {
      plan,
      fans: structuredClone(shelf.known.filter((f) => ids.includes(f.id)).map((f) => toRaw(f))),
      shown: structuredClone(toRaw(shelf.shown)),
    }
    const doubt = await remote.sample(input).catch(() => null)
    if (mine !== asked) return
    beside.value = { ...beside.value, doubt }
    if (!wantLevers.value) return
    const found = await remote.levers(input).catch(() => ({ levers: [], worth: [] }))
    if (mine === asked) beside.value = { doubt, ...found }
  }
  watch(
    [() => job.plan, () => shelf.known, wantLevers],
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
  provide(key, { beside, wantLevers })
}

const nothing = () => ({
  beside: shallowRef<Beside>({ doubt: null, levers: null, worth: [] }),
  wantLevers: ref(false),
})
/** The sampled doubt of the open job, in a station's page. */
export function useDoubtReport() {
  const { beside } = inject(key, nothing, true)
  return computed(() => beside.value.doubt)
}
/** Levers and the worth of measuring, while the component that wants them is there. */
export function useLevers() {
  const { beside, wantLevers } = inject(key, nothing, true)
  wantLevers.value = true
  onBeforeUnmount(() => {
    wantLevers.value = false
  })
  return beside
}

/** The path's curve with its sampled band, or the elements' weighted one until the samples are there. */
export function bandedPath(report: Report, doubt: DoubtReport | null, maxFlow: number): PathCurvePoint[] {
  const { complete, model } = report.path
  if (!complete) return []
  if (!doubt?.band.length) return pathCurve(model, maxFlow)
  return pathCurve(model, maxFlow, (flow, drop) => bandAt(doubt.band, flow, drop, (q) => pathDrop(model, q)))
}
