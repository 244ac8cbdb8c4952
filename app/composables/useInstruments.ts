import type { InstrumentState } from '#shared/api'

const POLL_MS = 1000

/** The instruments and what they say now, asked for every second while the page is open. */
export function useInstruments() {
  const instruments = shallowRef<InstrumentState[]>([])
  const problem = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let gone = false
  async function renew() {
    clearTimeout(timer)
    const result = await api<InstrumentState[]>('instruments')
    if (gone) return
    problem.value = result.ok ? '' : result.message
    if (result.ok) instruments.value = result.data
    timer = setTimeout(renew, POLL_MS)
  }
  onBeforeUnmount(() => {
    gone = true
    clearTimeout(timer)
  })
  return { instruments, problem, renew }
}
