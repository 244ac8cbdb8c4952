import { wrap, type Remote } from 'comlink'
import type { Fan, PlanDocument } from '#core/document'
import type { Ranking, RankOptions } from '#core/selection'
import type { RankWorker } from '~/workers/rank.worker'

const WAIT_MS = 60

/** The shelf ranked for the open job, in a worker; the last answer stays until the next one is there. */
export function useRanking(plan: Ref<PlanDocument>, fans: Ref<Fan[]>, options: Ref<RankOptions>) {
  const shelf = useShelfStore()
  const ranking = shallowRef<Ranking | null>(null)
  const busy = ref(true)
  const problem = ref('')
  const thread = new Worker(new URL('../workers/rank.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<RankWorker> = wrap<RankWorker>(thread)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let sent: Fan[] | null = null

  async function ask() {
    const mine = ++asked
    busy.value = true
    try {
      const list = fans.value
      if (sent !== list) {
        await remote.setShelf(structuredClone(toRaw(list)), structuredClone(toRaw(shelf.shown)))
        // what was sent, not what the shelf has become in the meantime
        sent = list
      }
      const answer = await remote.rank(
        structuredClone(toRaw(plan.value)),
        structuredClone(toRaw(options.value)),
      )
      if (mine !== asked) return
      ranking.value = answer
      problem.value = ''
    } catch (error) {
      problem.value = error instanceof Error ? error.message : 'The search stopped.'
    } finally {
      if (mine === asked) busy.value = false
    }
  }
  watch(
    [plan, fans, options],
    () => {
      clearTimeout(timer)
      timer = setTimeout(ask, ranking.value ? WAIT_MS : 0)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    thread.terminate()
  })
  return { ranking, busy, problem }
}
