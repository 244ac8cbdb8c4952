import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import type { Changes } from '#shared/api'

/** How often a page that is looked at asks whether somebody else changed something, ms. */
const ASK_MS = 4000

/** How the workshop stood when it was last asked; null before. */
const last = shallowRef<Changes | null>(null)

/** Sees what other people, or other windows, change: the open job, the shelf, its parts. */
export function useOthers() {
  const route = useRoute()
  const visibility = useDocumentVisibility()
  const job = useJobStore()
  const shelf = useShelfStore()
  let asking = false
  /** the job that was told to be gone */
  let gone = ''

  async function ask() {
    if (asking || visibility.value === 'hidden' || route.path === '/enter') return
    asking = true
    const id = job.plan?.job.id ?? ''
    const result = await api<Changes>(`changes?job=${encodeURIComponent(id)}`)
    asking = false
    if (!result.ok) return
    const before = last.value
    last.value = result.data
    if (before && before.shelf !== result.data.shelf) void shelf.catchUp(before.at)
    const stock = useStockStore()
    if (before && before.parts !== result.data.parts && stock.loaded) void stock.load(true)
    if (!id || id !== job.plan?.job.id) return
    const { revision } = result.data
    if (revision !== null) {
      gone = ''
      return job.seen(revision)
    }
    if (gone === id) return
    gone = id
    useToast().show('This job was taken off the bench on another device.', {
      tone: 'bad',
      action: { label: 'Put it back', run: () => api(`jobs/${id}/restore`, { method: 'POST' }) },
    })
  }
  // asked before the page asks for its list: what comes between the two is seen the next time
  useIntervalFn(ask, ASK_MS, { immediateCallback: true })
  watch(visibility, (now) => now === 'visible' && void ask())
}

/** The mark of the bench's last change, for a list of its jobs. */
export const benchChange = () => computed(() => last.value?.bench ?? '')
