import { transfer, wrap, type Remote } from 'comlink'
import type { SoakReport } from '#core/heat'
import type { WindowSummary } from '#core/measure'
import type { LogSummary } from '#shared/api'
import type { LogFacts, LogView, LogWorker } from '~/workers/log.worker'

const POLL_MS = 700
/** Points that a channel is drawn with. */
const POINTS = 1400

/**
 * One log's samples in a worker: loaded in parts, followed while it is recorded, looked at through a window. What is lost on
 * the way is fetched again, since every question names the last block that is held.
 */
export function useLogData() {
  const thread = new Worker(new URL('../workers/log.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<LogWorker> = wrap<LogWorker>(thread)
  const log = shallowRef<LogSummary | null>(null)
  const view = shallowRef<LogView | null>(null)
  const facts = shallowRef<LogFacts>({ step: null, gaps: [], tachLosses: [], jumps: [] })
  const summary = shallowRef<(WindowSummary | null)[]>([])
  const soak = shallowRef<SoakReport | null>(null)
  /** shown window, s; null is the whole log */
  const range = shallowRef<{ from: number; to: number } | null>(null)
  /** the channel whose soak is watched, and the ambient it is held against */
  const watched = shallowRef<{ channel: number; ambient: number | null } | null>(null)
  const loading = ref(false)
  const offline = ref('')
  let last = -1
  let end = 0
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  const window_ = computed(() => range.value ?? { from: 0, to: Math.max(end, 1) })

  async function look() {
    const mine = asked
    const { from, to } = range.value ?? { from: 0, to: Math.max(end, 1) }
    const [v, s] = await Promise.all([remote.view(from, to, POINTS), remote.summary(from, to)])
    const w = watched.value
    const k = w ? await remote.soak(w.channel, w.ambient, from, to) : null
    if (mine !== asked) return
    view.value = v
    summary.value = s
    soak.value = k
  }

  /** All parts behind the last block. @returns whether anything came */
  async function fetchNew(id: string): Promise<boolean> {
    let any = false
    for (let more = true; more;) {
      const mine = asked
      let response: Response
      try {
        response = await fetch(`/api/logs/${id}/data?after=${last}`)
      } catch {
        offline.value = 'The Redpoll server does not answer; nothing is lost, the log goes on when it does.'
        return any
      }
      if (mine !== asked || !log.value) return any
      if (!response.ok) {
        offline.value = 'The log cannot be read just now.'
        return any
      }
      offline.value = ''
      more = response.headers.get('x-more') === '1'
      const buffer = await response.arrayBuffer()
      if (!buffer.byteLength) return any
      // a channel may have joined since: the summary knows
      const known = await api<LogSummary>(`logs/${id}`)
      if (mine !== asked) return any
      if (known.ok) log.value = known.data
      const got = await remote.append(transfer(buffer, [buffer]), (known.ok ? known.data : log.value).channels)
      last = got.last
      end = got.end
      any = true
    }
    return any
  }

  async function follow() {
    const mine = asked
    const current = log.value
    if (!current) return
    if (await fetchNew(current.id)) {
      // a recording begins without channels: the first rows bring them
      watched.value ??= usualWatch(log.value?.channels ?? [])
      facts.value = await remote.facts()
      await look()
    }
    if (mine !== asked) return
    if (log.value?.open) timer = setTimeout(follow, POLL_MS)
  }

  async function open(summary_: LogSummary | null) {
    asked++
    clearTimeout(timer)
    if (summary_?.id !== log.value?.id) {
      last = -1
      end = 0
      range.value = null
      view.value = null
      soak.value = null
      watched.value = null
      await remote.clear()
    }
    log.value = summary_
    if (!summary_) return
    loading.value = true
    await fetchNew(summary_.id)
    loading.value = false
    facts.value = await remote.facts()
    watched.value ??= usualWatch(log.value?.channels ?? summary_.channels)
    await look()
    await follow()
  }
  watch([range, watched], look)

  const exportAs = async (kind: 'csv' | 'json') => {
    if (log.value)
      saveBlob(
        await remote.export(kind, log.value.name, log.value.startedAt),
        `${fileWords(log.value.name)}.${kind}`,
      )
  }
  onBeforeUnmount(() => {
    asked++
    clearTimeout(timer)
    thread.terminate()
  })
  return { log, view, facts, summary, soak, range, watched, window: window_, loading, offline, open, exportAs }
}

/** Channels that stand for the room. */
export const isAmbient = (name: string) => /room|ambient|intake|outside/i.test(name)
/** The first temperature that is not the room's, held against the room's where there is one. */
function usualWatch(channels: LogSummary['channels']): { channel: number; ambient: number | null } | null {
  const channel = channels.findIndex((c) => c.quantity === 'temperature' && !isAmbient(c.name))
  const ambient = channels.findIndex((c) => c.quantity === 'temperature' && isAmbient(c.name))
  return channel < 0 ? null : { channel, ambient: ambient < 0 ? null : ambient }
}
