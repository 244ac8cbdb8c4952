import type { Imported, Undone } from '#shared/api'
import { proxy, wrap, type Remote } from 'comlink'
import { IMPORT_PART } from '#shared/schemas/fan'
import type { Outcome, ShelfWorker } from '~/workers/shelf.worker'

/** Reading a shelf file, looking at what it would do, writing it in parts, taking it back. */
export function useShelfImport() {
  const shelf = useShelfStore()
  const toast = useToast()
  const thread = new Worker(new URL('../workers/shelf.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<ShelfWorker> = wrap<ShelfWorker>(thread)
  const outcome = shallowRef<Outcome | null>(null)
  /** 0..1 while something long goes on */
  const progress = ref<number | null>(null)
  const doing = ref('')
  let cancelled = false
  const tell = proxy((share: number) => {
    progress.value = share
  })

  async function busy(what: string, work: () => Promise<Outcome>) {
    doing.value = what
    progress.value = 0
    cancelled = false
    const answer = await work().catch((error: unknown): Outcome => ({
      problem: error instanceof Error ? error.message : 'The file could not be read.',
      headings: [],
      counts: { new: 0, changed: 0, same: 0, twice: 0, wrong: 0 },
      sample: [],
    }))
    progress.value = null
    if (!cancelled) outcome.value = answer
  }
  async function open(text: string) {
    doing.value = 'Looking at the shelf'
    progress.value = 0
    const fans = await shelf.whole()
    await remote.setShelf(structuredClone(fans.map((f) => toRaw(f))))
    await busy('Reading', () => remote.open(text, tell))
  }
  const remap = (index: number, key: string | null, unit: string | null) =>
    busy('Reading', () => remote.remap(index, key, unit, tell))
  function cancel() {
    cancelled = true
    void remote.cancel()
  }

  async function write() {
    const total = (outcome.value?.counts.new ?? 0) + (outcome.value?.counts.changed ?? 0)
    if (!total) return
    doing.value = 'Writing'
    progress.value = 0
    cancelled = false
    const done: Imported[] = []
    let written = 0
    while (written < total && !cancelled) {
      const fans = await remote.part(written, IMPORT_PART)
      if (!fans.length) break
      const result = await api<Imported>('fans/import', { method: 'POST', body: { fans } })
      if (!result.ok) {
        toast.show(`Stopped after ${written} fans: ${result.message}`, { tone: 'bad' })
        break
      }
      done.push(result.data)
      written += fans.length
      progress.value = written / total
    }
    progress.value = null
    await shelf.load(true)
    if (!written) return
    toast.show(
      `${written} fans written${cancelled && written < total ? `, ${total - written} left out` : ''}.`,
      {
        action: {
          label: 'Undo',
          run: async () => {
            const left: string[] = []
            for (const part of done.reverse()) {
              const back = await api<Undone>('fans/import/undo', { method: 'POST', body: part })
              if (!back.ok) toast.show(`Not all of it was taken back: ${back.message}`, { tone: 'bad' })
              else left.push(...back.data.left)
            }
            await shelf.load(true)
            if (left.length)
              toast.show(`Taken back, but for what was changed since: ${left.slice(0, 5).join(', ')}.`)
          },
        },
      },
    )
    outcome.value = null
    await navigateTo('/shelf')
  }
  onBeforeUnmount(() => thread.terminate())
  return { outcome, progress, doing, open, remap, cancel, write }
}
