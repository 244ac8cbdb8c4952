import { wholePlan, type ShelfShown, type StreamPlan } from '#core/document'
import type { Ranking, RankOptions } from '#core/selection'

const WAIT_MS = 60

/**
 * The shelf ranked for the open job, on the server, where all its fans are; the last answer stays until the next one is
 * there. One question is asked at a time: what changed meanwhile is asked afterwards.
 */
export function useRanking(plan: Ref<StreamPlan>, options: Ref<RankOptions>) {
  const shelf = useShelfStore()
  const shown = computed((before?: ShelfShown | null) => steady(before, shelf.shown))
  const ranking = shallowRef<Ranking | null>(null)
  const busy = ref(true)
  const problem = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let asking = false
  let stale = false
  let gone = false

  async function ask() {
    if (asking) {
      stale = true
      return
    }
    asking = true
    busy.value = true
    do {
      stale = false
      const answer = await api<{ ranking: Ranking | null }>('fans/rank', {
        method: 'POST',
        body: {
          plan: wholePlan(plan.value),
          stream: plan.value.stream,
          options: options.value,
        },
      })
      if (gone) return
      problem.value = answer.ok ? '' : answer.message
      if (!answer.ok || stale) continue
      // rows speak of fans: what is told of them needs their sheets
      const { rows } = answer.data.ranking ?? { rows: [] }
      await shelf.ensure(rows.flatMap((c) => c.fans.map((f) => f.fanId)))
      ranking.value = answer.data.ranking
    } while (stale && !gone)
    asking = false
    busy.value = false
  }
  watch(
    [plan, options, () => shelf.changed, shown],
    () => {
      clearTimeout(timer)
      // what stands there is the answer to another question from now on
      busy.value = true
      timer = setTimeout(ask, ranking.value ? WAIT_MS : 0)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    gone = true
    clearTimeout(timer)
  })
  return { ranking, busy, problem }
}
