import { useLocalStorage } from '@vueuse/core'
import { newEvent, type LogEvent } from '#core/document'

/** Lines of the log book of the open job: added in one action, taken off with undo. */
export function useLogBook() {
  const store = useJobStore()
  const toast = useToast()
  const who = useLocalStorage('redpoll.who', '')
  /** @returns why it is not taken; '' where it is */
  function add(told: Pick<LogEvent, 'what'> & Partial<LogEvent>): string {
    const line: LogEvent = {
      ...newEvent(newId('line'), new Date().toISOString(), told.what),
      who: who.value.trim(),
      ...told,
    }
    const problem = store.change((d) => void d.logbook.push(line), '', `“${told.what}” in the log book`)
    if (!problem) toast.show(`In the log book: ${told.what}.`, { action: { label: 'Undo', run: store.undo } })
    return problem
  }
  const remove = (line: LogEvent) =>
    store.removeWithUndo(`“${line.what}” is no longer in the log book.`, (d) => {
      d.logbook = d.logbook.filter((e) => e.id !== line.id)
    })
  return { who, add, remove }
}
