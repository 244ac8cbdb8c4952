import { completePlan, planSchema } from '#core/document'
import { computeReport, type Report } from '#core/plan'
import type { Fan, ShelfShown, PlanDocument } from '#core/document'
import type { StoredPlan } from '#shared/api'

export type SaveState = 'saved' | 'saving' | 'unsaved' | 'failed' | 'conflict'

interface Draft {
  plan: PlanDocument
  revision: number
}

const SAVE_AFTER_MS = 350
const RETRY_MS = 2500
/** Changes of one field within this time are one step of undo. */
const COALESCE_MS = 1500
const UNDO_STEPS = 100

const draftKey = (id: string) => `redpoll-draft-${id}`
const copy = (plan: PlanDocument): PlanDocument => structuredClone(toRaw(plan))

function readDraft(id: string): Draft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as Draft | null
    const checked = draft && planSchema.safeParse(completePlan(draft.plan))
    return checked?.success ? { plan: checked.data, revision: draft!.revision } : null
  } catch {
    return null
  }
}

/**
 * The open job: one document, its report, saving in the background, undo. What is not saved yet is kept in the browser
 * as well, so that neither a dead server nor a closed window loses it.
 */
export const useJobStore = defineStore('job', () => {
  const plan = shallowRef<PlanDocument | null>(null)
  const revision = ref(0)
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const missing = ref('')
  const past = shallowRef<PlanDocument[]>([])
  const future = shallowRef<PlanDocument[]>([])
  const shelf = useShelfStore()
  let timer: ReturnType<typeof setTimeout> | undefined
  let lastKey = ''
  let lastAt = 0
  let savingNow = false

  const lastGood = shallowRef<Report | null>(null)
  const problem = ref('')
  watchEffect(() => {
    if (!plan.value) {
      lastGood.value = null
      return
    }
    const result = computeReport({ plan: plan.value, fans: shelf.known, shown: shelf.shown })
    problem.value = result.ok ? '' : result.reason
    if (result.ok) lastGood.value = result.report
  })

  async function open(id: string) {
    if (plan.value?.job.id === id && saveState.value !== 'saved') return
    clearTimeout(timer)
    plan.value = null
    past.value = []
    future.value = []
    missing.value = ''
    const result = await api<StoredPlan & { fans: Fan[]; shown: ShelfShown | null }>(`jobs/${id}`)
    void shelf.load()
    if (!result.ok) {
      missing.value = result.kind === 'missing' ? 'missing' : result.message
      return
    }
    shelf.remember(result.data.fans)
    if (result.data.shown) shelf.shown ??= result.data.shown
    revision.value = result.data.revision
    plan.value = result.data.plan
    saveState.value = 'saved'
    const draft = readDraft(id)
    if (!draft) return
    past.value = [result.data.plan]
    plan.value = draft.plan
    if (draft.revision === result.data.revision) scheduleSave(0)
    else {
      saveState.value = 'conflict'
      saveMessage.value = 'Unsaved changes were found in this browser, and the job was changed elsewhere since.'
    }
  }

  function keepDraft() {
    if (!plan.value) return
    try {
      localStorage.setItem(
        draftKey(plan.value.job.id),
        JSON.stringify({ plan: plan.value, revision: revision.value }),
      )
    } catch {
      // a full or forbidden browser store: the change still lives in this page
    }
  }

  function scheduleSave(after = SAVE_AFTER_MS) {
    clearTimeout(timer)
    if (saveState.value === 'conflict') return
    if (saveState.value === 'saved') saveState.value = 'saving'
    timer = setTimeout(save, after)
  }

  async function save() {
    if (!plan.value || savingNow) return
    savingNow = true
    const sent = plan.value
    const result = await api<{ revision: number }>(`jobs/${sent.job.id}`, {
      method: 'PUT',
      body: { plan: sent, revision: revision.value },
    })
    savingNow = false
    if (plan.value?.job.id !== sent.job.id) return
    if (result.ok) {
      revision.value = result.data.revision
      saveMessage.value = ''
      if (plan.value !== sent) {
        saveState.value = 'saving'
        keepDraft()
        return scheduleSave(0)
      }
      saveState.value = 'saved'
      localStorage.removeItem(draftKey(sent.job.id))
      return
    }
    saveMessage.value = result.message
    if (result.kind === 'conflict') saveState.value = 'conflict'
    else if (result.kind === 'offline') {
      saveState.value = 'unsaved'
      timer = setTimeout(save, RETRY_MS)
    } else saveState.value = 'failed'
  }

  function replace(next: PlanDocument) {
    plan.value = next
    keepDraft()
    scheduleSave()
  }

  /**
   * Changes the document. A result that the schema refuses is not taken: the last good plan stays.
   * @param key names the field, so that typing in it is one step of undo
   * @returns the refusal's message, or an empty text
   */
  function change(mutate: (draft: PlanDocument) => void, key = ''): string {
    if (!plan.value) return ''
    const next = copy(plan.value)
    mutate(next)
    const checked = planSchema.safeParse(next)
    if (!checked.success) {
      const message = checked.error.issues[0]?.message ?? 'This cannot be.'
      useToast().show(`Not taken: ${message}`, { tone: 'bad' })
      return message
    }
    const now = Date.now()
    const continues = key !== '' && key === lastKey && now - lastAt < COALESCE_MS
    if (!continues) past.value = [...past.value.slice(-UNDO_STEPS), plan.value]
    future.value = []
    lastKey = key
    lastAt = now
    replace(next)
    return ''
  }

  function step(from: typeof past, to: typeof past) {
    const target = from.value.at(-1)
    if (!target || !plan.value) return
    to.value = [...to.value, plan.value]
    from.value = from.value.slice(0, -1)
    lastKey = ''
    replace(target)
  }
  const undo = () => step(past, future)
  const redo = () => step(future, past)

  /** Removal with its undo offered. */
  function removeWithUndo(text: string, mutate: (draft: PlanDocument) => void) {
    change(mutate)
    useToast().show(text, { action: { label: 'Undo', run: undo } })
  }

  /** After a conflict: keep this page's version, or take the one on the server (this one stays one undo away). */
  async function resolveConflict(keep: 'mine' | 'theirs') {
    if (!plan.value) return
    const result = await api<StoredPlan>(`jobs/${plan.value.job.id}`)
    if (!result.ok) {
      saveMessage.value = result.message
      return
    }
    revision.value = result.data.revision
    if (keep === 'theirs') {
      past.value = [...past.value, plan.value]
      plan.value = result.data.plan
      localStorage.removeItem(draftKey(result.data.plan.job.id))
      saveState.value = 'saved'
      return
    }
    saveState.value = 'saving'
    await save()
  }

  const retry = () => {
    saveState.value = 'saving'
    void save()
  }

  return {
    plan,
    revision,
    saveState,
    saveMessage,
    missing,
    report: lastGood,
    problem,
    past,
    future,
    open,
    change,
    undo,
    redo,
    removeWithUndo,
    resolveConflict,
    retry,
  }
})
