import { proxy, wrap, type Remote } from 'comlink'
import type { LogTable } from '#shared/exchange/log-file'
import type { LogSummary } from '#shared/api'
import type { ImportResult, LogWorker } from '~/workers/log.worker'

/** A logger's file: looked at, read beside the page, sent in blocks; given up at any moment without a trace. */
export function useLogImport(jobId: () => string) {
  const thread = new Worker(new URL('../workers/log.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<LogWorker> = wrap<LogWorker>(thread)
  const table = shallowRef<LogTable | null>(null)
  const result = shallowRef<ImportResult | null>(null)
  const problem = ref('')
  const name = ref('')
  const fileTime = ref('')
  const doing = ref('')
  /** 0..1 while something long goes on */
  const progress = ref<number | null>(null)
  let cancelled = false
  const tell = proxy((share: number) => {
    progress.value = share
  })

  async function read() {
    if (!table.value) return
    doing.value = 'Reading'
    progress.value = 0
    const got = await remote.read(structuredClone(toRaw(table.value)), tell)
    progress.value = null
    if (got) {
      result.value = got
      problem.value = got.problem
    }
  }
  async function open(file: File) {
    cancelled = false
    problem.value = ''
    result.value = null
    name.value = file.name.replace(/\.\w{1,4}$/, '').slice(0, 120) || 'Imported log'
    fileTime.value = new Date(file.lastModified).toISOString()
    const seen = await remote.sniff(file).catch(() => 'The file cannot be read.')
    if (typeof seen === 'string') {
      table.value = null
      problem.value = seen
      return
    }
    table.value = seen
    await read()
  }
  /** Another meaning of a column, another time: reads anew. */
  async function change(mutate: (t: LogTable) => void) {
    if (!table.value) return
    const next = structuredClone(toRaw(table.value))
    mutate(next)
    table.value = next
    await read()
  }
  function cancel() {
    cancelled = true
    progress.value = null
    void remote.cancel()
  }

  /** @returns the log, or null when it was given up or refused */
  async function write(): Promise<LogSummary | null> {
    const r = result.value
    if (!r || r.problem) return null
    cancelled = false
    doing.value = 'Writing'
    progress.value = 0
    const { tally } = r
    const remarks =
      tally && tally.broken
        ? `${tally.broken} rows of the file could not be read, the first in line ${tally.brokenSample[0]!.line}`
        : ''
    const id = newId('log')
    const made = await api<LogSummary>(`jobs/${jobId()}/logs`, {
      method: 'POST',
      body: {
        id,
        name: name.value.trim() || 'Imported log',
        origin: 'imported',
        startedAt: r.startedAt ?? fileTime.value,
        instrumentId: null,
        channels: r.channels,
        remarks,
      },
    })
    if (!made.ok) {
      progress.value = null
      problem.value = made.message
      return null
    }
    let rows = 0
    for (let index = 0; ; index++) {
      const block = await remote.block(index)
      if (!block) break
      const sent = await sendFile<{ rows: number }>(
        `logs/${id}/blocks?seq=${index}`,
        new Blob([block.data as Uint8Array<ArrayBuffer>]),
      )
      if (cancelled || !sent.ok) {
        await api(`logs/${id}/drop`, { method: 'POST' })
        problem.value = sent.ok ? 'Given up: nothing was kept.' : `Stopped: ${sent.message} Nothing was kept.`
        progress.value = null
        return null
      }
      rows += sent.data.rows
      progress.value = rows / r.rows
      if (!block.more) break
    }
    progress.value = null
    const whole = await api<LogSummary>(`logs/${id}/whole`, { method: 'POST', body: { rows } })
    if (!whole.ok) {
      problem.value = whole.message
      return null
    }
    await remote.forget()
    return whole.data
  }
  onBeforeUnmount(() => {
    cancelled = true
    thread.terminate()
  })
  return { table, result, problem, name, doing, progress, open, change, cancel, write }
}
