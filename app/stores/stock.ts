import type { StockPart } from '#core/document'

/** The parts of the shelf other than fans. */
export const useStockStore = defineStore('stock', () => {
  const parts = shallowRef<StockPart[]>([])
  const loaded = ref(false)
  const problem = ref('')
  async function take(asked: Promise<ApiResult<StockPart[]>>): Promise<boolean> {
    const result = await asked
    problem.value = result.ok ? '' : result.message
    if (result.ok) {
      parts.value = result.data
      loaded.value = true
    }
    return result.ok
  }
  const load = async (force = false) => (loaded.value && !force ? true : take(api<StockPart[]>('parts')))
  const save = (list: StockPart[]) => take(api<StockPart[]>('parts', { method: 'PUT', body: { parts: list } }))
  const archive = (ids: string[], archived: boolean) =>
    take(api<StockPart[]>('parts/archive', { method: 'POST', body: { ids, archived } }))
  followChanges({
    told: (now, before) => {
      if (before && before.parts !== now.parts && loaded.value) void load(true)
    },
  })
  return { parts, loaded, problem, load, save, archive }
})
