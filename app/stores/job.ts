import { useManualRefHistory } from '@vueuse/core'
import {
  addStream,
  changeWords,
  copyStream,
  moveStream,
  completePlan,
  fanIdsOf,
  holdKeptFlow,
  mergePlans,
  planSchema,
  removeStream,
  settleFeed,
  streamName,
  plannedFans,
  seenAt,
  seenFrom,
  settlePlaces,
  type Fan,
  type PlanDocument,
  wholePlan,
  type PlacePlan,
  type StreamPlan,
  type ShelfShown,
} from '#core/document'
import { computeReport, reportSteps, type Report, type ReportResult } from '#core/plan'
import { presentFlow } from '#core/requirement'
import type { SavedPlan, StoredPlan } from '#shared/api'
import { inPieces } from '#shared/pieces'
import { newId } from '~/composables/useJob'
import { steady } from '~/utils/steady'
import { createSaving, type Draft, type SaveAnswer, type SaveState } from '~/stores/saving'

/** Changes of one field within this time are one step of undo. */
const COALESCE_MS = 1500
const UNDO_STEPS = 100
const BOTH_KEPT = 'Another device changed this job meanwhile: both changes were kept.'
/** @param twice steps of the build that both ticked */
const togetherWords = (twice: readonly string[]) =>
  twice.length
    ? `Another device ticked ${twice.map((t) => `“${t}”`).join(', ')} as well: the later value stands, the other is in its note.`
    : BOTH_KEPT
const FOUND = 'Unsaved changes were found in this browser, and the job was changed elsewhere since.'

const draftKey = (id: string) => `redpoll-draft-${id}`
const copy = (plan: PlanDocument): PlanDocument => structuredClone(toRaw(plan))

function readDraft(id: string): Draft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as Draft | null
    const checked = draft && planSchema.safeParse(completePlan(draft.plan))
    if (!checked?.success) return null
    const whole = (plan: PlanDocument | null | undefined) => {
      const read = plan ? planSchema.safeParse(completePlan(plan)) : null
      return read?.success ? read.data : null
    }
    const { revision, base, unsure } = draft!
    return { plan: checked.data, revision, base: whole(base), unsure: whole(unsure) }
  } catch {
    return null
  }
}
function keepDraft({ plan, revision, base, unsure }: Draft) {
  try {
    localStorage.setItem(draftKey(plan.job.id), JSON.stringify({ plan, revision, base, unsure }))
  } catch {
    // a full or forbidden browser store: the change still lives in this page
  }
}
const breathe = () => new Promise<void>((done) => setTimeout(done))

const dropDraft = (id: string) => localStorage.removeItem(draftKey(id))

async function put(plan: PlanDocument, revision: number): Promise<SaveAnswer> {
  const result = await api<SavedPlan>(`jobs/${plan.job.id}`, { method: 'PUT', body: { plan, revision } })
  if (result.ok) return { ok: true, ...result.data }
  const kind = result.kind === 'conflict' || result.kind === 'offline' ? result.kind : 'refused'
  return { ok: false, kind, message: result.message }
}

/**
 * The open job: one document, its report, saving in the background, undo. What is not saved yet is kept in the browser
 * as well, so that neither a dead server, a closed window nor another job lose it.
 */
export const useJobStore = defineStore('job', () => {
  const stored = shallowRef<PlanDocument | null>(null)
  /** the stream that was chosen, and whether the open page speaks of one stream or of the whole machine */
  const chosen = ref('')
  const ofStream = ref(true)
  /** the place of its fans that was chosen */
  const chosenPlace = ref('')
  /** the plan as pages see it: from the chosen stream where they speak of one */
  const plan = computed(
    () => stored.value && seenAt(seenFrom(stored.value, ofStream.value ? chosen.value : ''), chosenPlace.value),
  )
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const missing = ref('')
  const shelf = useShelfStore()
  const history = useManualRefHistory(stored, { capacity: UNDO_STEPS })
  /** what led to a state of the plan, in words */
  const ledTo = new WeakMap<PlanDocument, string>()
  let wanted = ''
  /** the revision that the open job stands on */
  let held = 0
  let lastKey = ''
  let lastAt = 0

  watch(stored, (open) => void shelf.pin(open ? fanIdsOf(open) : []))

  const lastGood = shallowRef<Report | null>(null)
  const problem = ref('')
  /** what the report rests on beside the plan; a shelf that comes in without changing it works nothing out again */
  const spokenOf = (document: PlanDocument): Fan[] => {
    const ids = new Set(fanIdsOf(document))
    return shelf.known.filter((f) => ids.has(f.id))
  }
  const fans = computed((before?: Fan[]) => steady(before, stored.value ? spokenOf(stored.value) : []))
  const shown = computed((before?: ShelfShown | null) => steady(before, shelf.shown))
  /** the report of a job that is being opened, worked out before the job is shown */
  let ahead: { of: PlanDocument; result: ReportResult } | null = null
  async function lookAhead(of: PlanDocument) {
    const input = { plan: seenFrom(of), fans: spokenOf(of), shown: shelf.shown }
    ahead = { of, result: await inPieces(reportSteps(input), breathe) }
  }
  watchEffect(() => {
    if (!plan.value) {
      lastGood.value = null
      return
    }
    const input = { plan: plan.value, fans: fans.value, shown: shown.value }
    const foreseen = ahead?.of === stored.value && plan.value.before === 0
    const result = foreseen ? ahead!.result : computeReport(input)
    ahead = null
    problem.value = result.ok ? '' : result.reason
    if (result.ok) lastGood.value = result.report
  })

  const saving = createSaving({
    put,
    keepDraft,
    dropDraft,
    join: (base, mine, theirs) => {
      const both = mergePlans(base, mine, theirs)
      const checked = both && planSchema.safeParse(both.plan)
      return checked?.success ? checked.data : null
    },
    joined: (next, twice) => {
      if (stored.value?.job.id !== next.job.id) return
      ledTo.set(next, 'what another device changed')
      stored.value = next
      history.commit()
      lastKey = ''
      useToast().show(togetherWords(twice))
    },
    told: (id, state, message, revision) => {
      if (state === 'conflict' && saving.sides(id)) {
        void putTogether(id, message)
        return
      }
      if (plan.value?.job.id !== id) return
      saveState.value = state
      saveMessage.value = message
      held = revision
    },
  })

  /** Two devices changed one job: what only one of them touched is kept from both, the rest is asked. */
  async function putTogether(id: string, message: string) {
    const result = await api<StoredPlan>(`jobs/${id}`)
    const sides = saving.sides(id)
    const shown = plan.value?.job.id === id
    const theirs = result.ok ? planSchema.safeParse(completePlan(result.data.plan)) : null
    const both = theirs?.success && sides ? mergePlans(sides.base, sides.mine, theirs.data) : null
    const checked = both && planSchema.safeParse(both.plan)
    if (!result.ok || !checked?.success) {
      if (shown) [saveState.value, saveMessage.value] = ['conflict', message]
      return
    }
    if (shown) {
      stored.value = checked.data
      history.commit()
    }
    const { twice } = both!
    useToast().show(togetherWords(twice))
    await saving.together(checked.data, result.data.plan, result.data.revision)
  }

  /** Shows a document as it came; undo begins there. */
  function show(next: PlanDocument | null) {
    stored.value = next
    history.commit()
    history.clear()
    lastKey = ''
  }

  /** Unsaved changes go on top of what the server has, or stand beside it where that was changed since. */
  function takeUp(found: StoredPlan, draft: Draft) {
    stored.value = draft.plan
    history.commit()
    const same = (a: PlanDocument, b: PlanDocument) => JSON.stringify(a) === JSON.stringify(b)
    // what was sent from here and never answered stands there: nobody else changed anything
    const own = draft.unsure && same(draft.unsure, planSchema.parse(completePlan(found.plan)))
    if (draft.revision === found.revision || own) saving.changed(draft.plan, 0)
    else saving.begin(draft.plan, draft.revision, 'conflict', FOUND, draft.base ?? null)
  }

  async function open(id: string) {
    wanted = id
    if (plan.value?.job.id === id && saveState.value !== 'saved') return
    // who comes back to a job finds the stream that was left
    if (stored.value?.job.id !== id) chosen.value = chosenPlace.value = ''
    show(null)
    missing.value = ''
    const unsaved = await saving.settle(id)
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
    const draft = unsaved ?? readDraft(id)
    await lookAhead(draft?.plan ?? data.plan)
    if (wanted !== id) return
    show(data.plan)
    saving.begin(data.plan, data.revision)
    if (draft) takeUp(data, draft)
  }

  /**
   * Changes the document. A result that the schema refuses is not taken: the last good plan stays.
   * @param key names the field, so that typing in it is one step of undo
   * @param label what the person calls that field
   * @returns the refusal's message, or an empty text
   */
  function change(mutate: (draft: PlacePlan) => void, key = '', label = ''): string {
    if (!plan.value || !stored.value) return ''
    const next = seenAt(seenFrom(copy(stored.value), plan.value.stream), plan.value.place.id)
    mutate(next)
    settlePlaces(next)
    // a job to quieten keeps the airflow it was found with, whatever is done to its path once a fan is chosen
    if (plannedFans(next) && lastGood.value && JSON.stringify(next.path) !== JSON.stringify(plan.value.path))
      holdKeptFlow(next, presentFlow(plan.value.job, lastGood.value.needEnv))
    return take(wholePlan(next), key, changeWords(plan.value, next, label))
  }

  /** Puts a whole document in the place of this one, whichever stream it is seen from. */
  const replace = (next: StreamPlan) =>
    change((d) => {
      Object.assign(d, seenFrom(copy(wholePlan(next)), d.stream))
    })

  /** Takes a changed document. */
  function take(next: PlanDocument, key: string, words: string): string {
    settleFeed(next, stored.value)
    const checked = planSchema.safeParse(next)
    if (!checked.success) {
      const message = checked.error.issues[0]?.message ?? 'This cannot be.'
      useToast().show(`Not taken: ${message}`, { tone: 'bad' })
      return message
    }
    const now = Date.now()
    const continues = key !== '' && key === lastKey && now - lastAt < COALESCE_MS
    ledTo.set(next, words)
    stored.value = next
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
    if (stored.value) saving.changed(stored.value)
  }
  const undo = () => {
    if (history.canUndo.value) step(history.undo)
  }
  const redo = () => {
    if (history.canRedo.value) step(history.redo)
  }

  /** What undo takes back and redo brings again; '' where there is nothing. */
  const undoWhat = computed(() => (history.canUndo.value && stored.value && ledTo.get(stored.value)) || '')
  const redoWhat = computed(() => {
    const next = history.redoStack.value[0]?.snapshot
    return (next && ledTo.get(toRaw(next))) || ''
  })

  /** Removal with its undo offered. */
  function removeWithUndo(text: string, mutate: (draft: PlacePlan) => void) {
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
    stored.value = theirs
    history.commit()
    dropDraft(theirs.job.id)
    saving.begin(theirs, revision)
  }

  /**
   * The open job was saved elsewhere: it is shown as it is now. What is not saved here yet is put together with it when it
   * is sent.
   */
  async function seen(revision: number) {
    const id = stored.value?.job.id
    if (!id || saveState.value !== 'saved' || revision <= held) return
    const result = await api<StoredPlan>(`jobs/${id}`)
    // meanwhile something was changed here, or another job opened
    if (
      !result.ok ||
      stored.value?.job.id !== id ||
      saveState.value !== 'saved' ||
      result.data.revision <= held
    )
      return
    const { plan: theirs, revision: now } = result.data
    ledTo.set(theirs, 'what another device changed')
    stored.value = theirs
    history.commit()
    lastKey = ''
    saving.begin(theirs, now)
    useToast().show('Another device changed this job: this is how it stands now.')
  }

  /** the job that was told to be gone */
  let gone = ''
  followChanges({
    open: () => stored.value?.job.id ?? '',
    told: ({ revision }, _, id) => {
      if (!id || stored.value?.job.id !== id) return
      if (revision !== null) {
        gone = ''
        void seen(revision)
      } else if (gone !== id && window.location.pathname.startsWith(`/job/${id}`)) {
        gone = id
        useToast().show('This job was taken off the bench.', {
          tone: 'bad',
          action: { label: 'Put it back', run: () => api(`jobs/${id}/restore`, { method: 'POST' }) },
        })
      }
    },
  })

  /**
   * Changes the list of air streams.
   * @param mutate gives the id of the stream that is shown then
   */
  function changeStreams(words: string, mutate: (next: PlanDocument) => string): boolean {
    if (!stored.value) return false
    const next = copy(stored.value)
    const shown = mutate(next)
    if (take(next, '', words)) return false
    chosen.value = shown
    return true
  }
  /** Puts a further air stream behind the others and shows it. */
  const newAirStream = (name: string) =>
    changeStreams(`${name} added`, (next) => {
      const id = newId('stream')
      addStream(next, id, name)
      return id
    })
  /** Puts one like the shown stream behind the others and shows it. */
  const copyAirStream = () =>
    changeStreams('air stream copied', (next) => {
      const id = newId('stream')
      copyStream(next, plan.value!.stream, id, newId)
      return id
    })
  const moveAirStream = (by: number) =>
    changeStreams('order of the air streams', (next) => {
      moveStream(next, plan.value!.stream, by)
      return plan.value!.stream
    })
  /** Takes the shown stream away, with its leads and targets; undo is offered. The last one stays. */
  function removeAirStream() {
    if (!plan.value?.beside.length) return
    const name = streamName(plan.value)
    const { stream } = plan.value
    const gone = changeStreams(`${name} removed`, (next) => {
      removeStream(next, stream)
      return ''
    })
    if (gone) useToast().show(`${name} removed.`, { action: { label: 'Undo', run: undo } })
  }

  const retry = () => plan.value && saving.retry(plan.value.job.id)

  return {
    plan,
    chosen,
    chosenPlace,
    ofStream,
    newAirStream,
    copyAirStream,
    moveAirStream,
    removeAirStream,
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
    replace,
    undo,
    redo,
    removeWithUndo,
    resolveConflict,
    retry,
  }
})
