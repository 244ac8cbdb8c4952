import type { InjectionKey } from 'vue'
import { wrap, type Remote } from 'comlink'
import { bandAt, fanIdsOf, pathCurve, pathDrop, type DoubtReport, type PathCurvePoint, type Report } from '../../core/plan'
import type { DoubtWorker } from '../workers/doubt.worker'

const WAIT_MS = 80

const key = Symbol('doubt') as InjectionKey<Ref<DoubtReport | null>>

/** The plan's doubt as sampled cases, in a worker: typing is never held up, and answers to older plans are dropped. */
export function useDoubt() {
  const job = useJobStore()
  const shelf = useShelfStore()
  const doubt = shallowRef<DoubtReport | null>(null)
  const thread = new Worker(new URL('../workers/doubt.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<DoubtWorker> = wrap<DoubtWorker>(thread)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  async function ask() {
    const plan = job.plan
    if (!plan) return
    const mine = ++asked
    const ids = fanIdsOf(plan)
    const answer = await remote.sample(structuredClone(toRaw(plan)), structuredClone(shelf.known.filter(f => ids.includes(f.id)).map(f => toRaw(f)))).catch(() => null)
    if (mine === asked) doubt.value = answer
  }
  watch([() => job.plan, () => shelf.known], () => {
    clearTimeout(timer)
    timer = setTimeout(ask, WAIT_MS)
  }, { immediate: true })
  onBeforeUnmount(() => {
    asked++
    clearTimeout(timer)
    thread.terminate()
  })
  provide(key, doubt)
  return doubt
}

/** The sampled doubt of the open job, in a station's page. */
export const useDoubtReport = () => inject(key, shallowRef(null))

/** The path's curve with its sampled band, or the elements' weighted one until the samples are there. */
export function bandedPath(report: Report, doubt: DoubtReport | null, maxFlow: number): PathCurvePoint[] {
  const { complete, model } = report.path
  if (!complete) return []
  if (!doubt?.band.length) return pathCurve(model, maxFlow)
  return pathCurve(model, maxFlow, (flow, drop) => bandAt(doubt.band, flow, drop, q => pathDrop(model, q)))
}
