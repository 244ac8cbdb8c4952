import { useManualRefHistory } from '@vueuse/core'
import {
  changeWords,
  completePlan,
  holdKeptFlow,
  planSchema,
  type Fan,
  type PlanDocument,
  type ShelfShown,
} from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { presentFlow } from '#core/requirement'
import type { StoredPlan } from '#shared/api'
import { createSaving, type Draft, type SaveAnswer, type SaveState } from '~/stores/saving'

/** Changes of one field within this time are one step of undo. */
const COALESCE_MS = 1500
const UNDO_STEPS = 100
const FOUND = 'Unsaved changes were found in this browser, and the job was changed elsewhere since.'

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
function keepDraft({ plan, revision }: Draft) {
  try {
    localStorage.setItem(draftKey(plan.job.id), JSON.stringify({ plan, revision }))
  } catch {
    // a full or forbidden browser store: the change still lives in this page
  }
}
const dropDraft = (id: string) => localStorage.removeItem(draftKey(id))

async function put(plan: PlanDocument, revision: number): Promise<SaveAnswer> {
  const result = await api<{ revision: number }>(`jobs/${plan.job.id}`, {
    method: 'PUT',
    body: { plan, revision },
  })
  if (result.ok) return { ok: true, revision: result.data.revision }
  const kind = result.kind === 'conflict' || result.kind === 'offline' ? result.kind : 'refused'
  return { ok: false, kind, message: result.message }
}

/**
 * The open job: one document, its report, saving in the background, undo. What is not saved yet is kept in the browser
 * as well, so that neither a dead server, a closed window nor another job lose it.
 */
export const useJobStore = defineStore('job', () => {
  const plan = shallowRef<PlanDocument | null>(null)
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const missing = ref('')
  const shelf = useShelfStore()
  const history = useManualRefHistory(plan, { capacity: UNDO_STEPS })
  /** what led to a state of the plan, in words */
  const ledTo = new WeakMap<PlanDocument, string>()
  let wanted = ''
  let lastKey = ''
  let lastAt = 0

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

  const saving = createSaving({
    put,
    keepDraft,
    dropDraft,
    told: (id, state, message) => {
      if (plan.value?.job.id !== id) return
      saveState.value = state
      saveMessage.value = message
    },
  })

  /** Shows a document as it came; undo begins there. */
  function show(next: PlanDocument | null) {
    plan.value = next
    history.commit()
    history.clear()
    lastKey = ''
  }

  /** Unsaved changes go on top of what the server has, or stand beside it where that was changed since. */
  function takeUp(stored: StoredPlan, draft: Draft) {
    plan.value = draft.plan
    history.commit()
    if (draft.revision === stored.revision) saving.changed(draft.plan, 0)
    else saving.begin(draft.plan, draft.revision, 'conflict', FOUND)
  }

  async function open(id: string) {
    wanted = id
    if (plan.value?.job.id === id && saveState.value !== 'saved') return
    show(null)
    missing.value = ''
    const held = await saving.settle(id)
    const result = await api<StoredPlan & { fans: Fan[]; shown: ShelfShown | null }>(`jobs/${id}`)
    // another job was asked for meanwhile
    if (wanted !== id) return
    void shelf.load()
    if (!result.ok) {
      missing.value = result.kind === 'missing' ? 'missing' : result.message
      return
    }
    const { data } = result
    shelf.remember(data.fans)
    if (data.shown) shelf.shown ??= data.shown
    show(data.plan)
    saving.begin(data.plan, data.revision)
    const draft = held ?? readDraft(id)
    if (draft) takeUp(data, draft)
  }

  /**
   * Changes the document. A result that the schema refuses is not taken: the last good plan stays.
   * @param key names the field, so that typing in it is one step of undo
   * @param label what the person calls that field
   * @returns the refusal's message, or an empty text
   */
  function change(mutate: (draft: PlanDocument) => void, key = '', label = ''): string {
    if (!plan.value) return ''
    const next = copy(plan.value)
    mutate(next)
    // a job to quieten keeps the airflow it was found with, whatever is done to its path once a fan is chosen
    if (next.selection && lastGood.value && JSON.stringify(next.path) !== JSON.stringify(plan.value.path))
      holdKeptFlow(next, presentFlow(plan.value.job, lastGood.value.needEnv))
    const checked = planSchema.safeParse(next)
    if (!checked.success) {
      const message = checked.error.issues[0]?.message ?? 'This cannot be.'
      useToast().show(`Not taken: ${message}`, { tone: 'bad' })
      return message
    }
    const now = Date.now()
    const continues = key !== '' && key === lastKey && now - lastAt < COALESCE_MS
    ledTo.set(next, changeWords(plan.value, next, label))
    plan.value = next
    if (continues) history.last.value = markRaw({ snapshot: next, timestamp: now })
    else history.commit()
    lastKey = key
    lastAt = now
    saving.changed(next)
    return ''
  }

  function step(move: () => void) {
    move()
    lastKey = ''
    if (plan.value) saving.changed(plan.value)
  }
  const undo = () => {
    if (history.canUndo.value) step(history.undo)
  }
  const redo = () => {
    if (history.canRedo.value) step(history.redo)
  }

  /** What undo takes back and redo brings again; '' where there is nothing. */
  const undoWhat = computed(() => (history.canUndo.value && plan.value && ledTo.get(plan.value)) || '')
  const redoWhat = computed(() => {
    const next = history.redoStack.value[0]?.snapshot
    return (next && ledTo.get(toRaw(next))) || ''
  })

  /** Removal with its undo offered. */
  function removeWithUndo(text: string, mutate: (draft: PlanDocument) => void) {
    change(mutate)
    useToast().show(text, { action: { label: 'Undo', run: undo } })
  }

  /** After a conflict: keep this page's version, or take the one on the server (this one stays one undo away). */
  async function resolveConflict(keep: 'mine' | 'theirs') {
    const mine = plan.value
    if (!mine) return
    const result = await api<StoredPlan>(`jobs/${mine.job.id}`)
    if (!result.ok) {
      saveMessage.value = result.message
      return
    }
    const { plan: theirs, revision } = result.data
    if (keep === 'mine') return saving.keep(mine.job.id, revision)
    plan.value = theirs
    history.commit()
    dropDraft(theirs.job.id)
    saving.begin(theirs, revision)
  }

  const retry = () => plan.value && saving.retry(plan.value.job.id)

  return {
    plan,
    saveState,
    saveMessage,
    missing,
    report: lastGood,
    problem,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    undoWhat,
    redoWhat,
    open,
    change,
    undo,
    redo,
    removeWithUndo,
    resolveConflict,
    retry,
  }
})
