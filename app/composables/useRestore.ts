import type { BackupItem, BackupPreview, ConflictChoice, Restored } from '#shared/schemas/backup'

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

  function begin(file: string, what: string) {
    name.value = file
    doing.value = what
    problem.value = ''
    preview.value = null
    done.value = null
    choices.value = {}
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
    look(copy, () => api<BackupPreview>(`backup/copies/${copy}`, { method: 'POST', body: {} }))

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
  async function write() {
    if (!preview.value) return
    doing.value = 'Writing'
    problem.value = ''
    const { id } = preview.value
    const result = await api<Restored>(`restore/${id}`, { method: 'POST', body: { choices: choices.value } })
    doing.value = ''
    if (!result.ok) {
      problem.value = result.message
      return
    }
    done.value = result.data
    preview.value = null
    // what pages hold of the workshop is read anew
    await Promise.all([useShelfStore().load(true), useStockStore().load(true), useSettingsStore().load()])
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
    giveUp,
  }
}
