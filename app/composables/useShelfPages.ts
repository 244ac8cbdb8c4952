import type { FanPage, StoredFan } from '#shared/api'

const PAGE = 50
/** Rows kept ready above and below what is in sight. */
const AROUND = 12

/** A shelf of any length, of which only what is in sight is fetched and drawn. */
export function useShelfPages(query: Ref<Record<string, string>>, rowHeight: number) {
  const total = ref<number | null>(null)
  const problem = ref('')
  const pages = shallowRef(new Map<number, StoredFan[]>())
  const top = ref(0)
  const height = ref(600)
  let asked = 0
  const waiting = new Set<number>()

  async function fetchPage(page: number) {
    if (waiting.has(page)) return
    waiting.add(page)
    const mine = asked
    const words = new URLSearchParams({ ...query.value, offset: String(page * PAGE), limit: String(PAGE) })
    const result = await api<FanPage>(`fans?${words}`)
    if (mine !== asked) return
    waiting.delete(page)
    problem.value = result.ok ? '' : result.message
    if (!result.ok) return
    total.value = result.data.total
    pages.value = new Map(pages.value).set(page, result.data.fans)
  }
  /** Begins anew: another question, or the shelf has changed. */
  async function refresh() {
    asked++
    waiting.clear()
    pages.value = new Map()
    await fetchPage(Math.floor(first.value / PAGE))
  }
  const first = computed(() => Math.max(0, Math.floor(top.value / rowHeight) - AROUND))
  const last = computed(() =>
    Math.min(total.value ?? 0, Math.ceil((top.value + height.value) / rowHeight) + AROUND),
  )
  /** What is drawn: the rows in sight, null where one is still on its way. */
  const rows = computed(() =>
    Array.from({ length: Math.max(0, last.value - first.value) }, (_, i) => {
      const at = first.value + i
      return { at, stored: pages.value.get(Math.floor(at / PAGE))?.[at % PAGE] ?? null }
    }),
  )
  watch([first, last], () => {
    for (
      let page = Math.floor(first.value / PAGE);
      page <= Math.floor(Math.max(0, last.value - 1) / PAGE);
      page++
    )
      if (!pages.value.has(page)) void fetchPage(page)
  })
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(query, () => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      top.value = 0
      void refresh()
    }, 120)
  })
  onBeforeUnmount(() => clearTimeout(timer))
  const scrolled = (event: Event) => {
    const box = event.target as HTMLElement
    top.value = box.scrollTop
    height.value = box.clientHeight
  }
  return {
    total,
    problem,
    rows,
    refresh,
    scrolled,
    before: computed(() => first.value * rowHeight),
    after: computed(() => Math.max(0, (total.value ?? 0) - last.value) * rowHeight),
  }
}
