import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import type { Changes } from '#shared/api'

/** How often a page that is looked at asks whether somebody else changed something, ms. */
const ASK_MS = 4000

/** How the workshop stood when it was last asked; null before. */
const last = shallowRef<Changes | null>(null)

/** Something that is held here and may be changed elsewhere. Stores join when they are first used: pages stay small. */
interface Follower {
  /** id of the job that is open; '' where none is */
  open?: () => string
  /** @param id the job that was asked after */
  told: (now: Changes, before: Changes | null, id: string) => unknown
}
const followers: Follower[] = []
export const followChanges = (follower: Follower) => void followers.push(follower)

/** Sees what other people, or other windows, change, and tells those who hold it. */
export function useOthers() {
  const route = useRoute()
  const visibility = useDocumentVisibility()
  let asking = false

  async function ask() {
    if (asking || visibility.value === 'hidden' || route.path === '/enter') return
    asking = true
    const id = followers.map((f) => f.open?.()).find(Boolean) ?? ''
    const result = await api<Changes>(`changes?job=${encodeURIComponent(id)}`)
    asking = false
    if (!result.ok) return
    const before = last.value
    last.value = result.data
    for (const follower of followers) follower.told(result.data, before, id)
  }
  // asked before the page asks for its list: what comes between the two is seen the next time
  useIntervalFn(ask, ASK_MS, { immediateCallback: true })
  watch(visibility, (now) => now === 'visible' && void ask())
}

/** The mark of the bench's last change, for a list of its jobs. */
export const benchChange = () => computed(() => last.value?.bench ?? '')
