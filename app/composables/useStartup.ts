import { useTimeoutPoll } from '@vueuse/core'
import type { Startup } from '#shared/api'

const ASK_MS = 400

/** Waits until the server has opened its database, then for units and theme; says meanwhile what is being done. */
export function useStartup() {
  const settings = useSettingsStore()
  const ready = ref(false)
  const doing = ref('')
  const poll = useTimeoutPoll(ask, ASK_MS, { immediate: false, immediateCallback: true })
  async function ask() {
    const result = await api<Startup>('startup')
    if (!result.ok) {
      doing.value = result.message
      return
    }
    doing.value = result.data.doing
    if (!result.data.ready) return
    poll.pause()
    await settings.load()
    ready.value = true
  }
  poll.resume()
  return { ready, doing }
}
