import { useIntervalFn } from '@vueuse/core'
import type {
  BackupItem,
  BackupPreview,
  ConflictChoice,
  Restored,
  RestoreProgress,
} from '#shared/schemas/backup'

/** How often it is asked how far a restore is, ms. */
const ASK_MS = 700

/** A backup that was chosen elsewhere: the page where it is looked at takes it up. */
export const chosenBackup = shallowRef<File | null>(null)

/** A backup on its way into the workshop: looked at, decided, written. */
export function useRestore() {
  const preview = shallowRef<BackupPreview | null>(null)
  const name = ref('')
  const doing = ref('')
  const problem = ref('')
  const done = shallowRef<Restored | null>(null)
  const choices = ref<Record<string, ConflictChoice>>({})
  /** how far it is; also one that another page, or a server before this one, began */
  const progress = shallowRef<RestoreProgress | null>(null)
  const asking = useIntervalFn(ask, ASK_MS, { immediate: false })
  async function ask() {
    const result = await api<RestoreProgress>('restore')
    progress.value = result.ok && result.data.doing !== 'nothing' ? result.data : null
    if (!doing.value && progress.value?.doing !== 'writing') asking.pause()
    else asking.resume()
  }
  void ask()

  function begin(file: string, what: string) {
    name.value = file
    doing.value = what
    problem.value = ''
    preview.value = null
    done.value = null
    choices.value = {}
    if (what) asking.resume()
  }
  async function look(file: string, asked: () => Promise<ApiResult<BackupPreview>>) {
    begin(file, 'Reading it and holding it against what is here')
    const result = await asked()
    doing.value = ''
    if (result.ok) preview.value = result.data
    else problem.value = result.message
  }
  const open = (file: File) => look(file.name, () => sendFile<BackupPreview>('restore', file))
  const openCopy = (copy: string) =>
    look(copy, () =>
      api<BackupPreview>(`backup/copies/${copy}`, { method: 'POST', body: {}, patienceMs: PATIENCE_LONG_MS }),
    )

  const keyOf = (item: BackupItem) => `${item.kind}/${item.id}`
  const choiceOf = (item: BackupItem): ConflictChoice => choices.value[keyOf(item)] ?? 'keep'
  const choose = (item: BackupItem, choice: ConflictChoice) => {
    choices.value = { ...choices.value, [keyOf(item)]: choice }
  }
  const conflicts = computed(() => preview.value?.items.filter((i) => i.state === 'conflict') ?? [])
  /** How many things would be written. */
  const wanted = computed(() => {
    const counts = Object.values(preview.value?.counts ?? {})
    return counts.reduce((n, c) => n + c.new, 0) + conflicts.value.filter((i) => choiceOf(i) !== 'keep').length
  })
  /** Things in it. */
  const of = computed(() =>
    Object.values(preview.value?.counts ?? {}).reduce((n, c) => n + c.new + c.same + c.conflict, 0),
  )
  async function run(id: string, body: object) {
    doing.value = 'Writing'
    problem.value = ''
    asking.resume()
    const result = await api<Restored>(`restore/${id}`, { method: 'POST', body, patienceMs: PATIENCE_LONG_MS })
    doing.value = ''
    await ask()
    if (!result.ok) {
      problem.value = result.message
      return
    }
    done.value = result.data
    preview.value = null
    // what pages hold of the workshop is read anew
    await Promise.all([useShelfStore().load(true), useStockStore().load(true), useSettingsStore().load()])
  }
  const write = () => preview.value && run(preview.value.id, { choices: choices.value, of: of.value })
  /** One that was stopped goes on as it was begun. */
  const goOn = () => progress.value && run(progress.value.id, {})
  /** Stops what is being written behind its next thing; one that was stopped is given up. */
  async function stop() {
    if (!progress.value) return
    const result = await api(`restore/${progress.value.id}`, { method: 'DELETE' })
    if (!result.ok) problem.value = result.message
    await ask()
  }
  const giveUp = () => begin('', '')
  return {
    preview,
    name,
    doing,
    problem,
    done,
    conflicts,
    wanted,
    open,
    openCopy,
    choiceOf,
    choose,
    write,
    progress,
    goOn,
    stop,
    giveUp,
  }
}
