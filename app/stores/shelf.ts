import type { Fan, ShelfShown } from '#core/document'
import { MAX_ON_PAGE, type FanChanges, type FanPage, type StoredFan } from '#shared/api'

/** The fans of the shelf. */
export const useShelfStore = defineStore('shelf', () => {
  const stored = shallowRef<StoredFan[]>([])
  /** fans that a plan still speaks of although they were deleted */
  const extra = shallowRef<Fan[]>([])
  /** what was typed into a fan and left without saving */
  const draft = shallowRef<Fan | null>(null)
  const loaded = ref(false)
  const problem = ref('')

  /** what the shelf's tests say about claims */
  const shown = shallowRef<ShelfShown | null>(null)
  /** 0..1 while a long shelf comes in */
  const progress = ref<number | null>(null)
  let coming: Promise<void> | null = null
  /** counts up when the shelf has changed, for lists that hold a part of it */
  const changed = ref(0)

  /** The whole shelf, page by page: a long one does not hold the screen up. */
  async function fetchAll(): Promise<void> {
    const list: StoredFan[] = []
    let total = 1
    while (list.length < total) {
      const page = await api<FanPage>(`fans?limit=${MAX_ON_PAGE}&offset=${list.length}`)
      if (!page.ok) {
        problem.value = page.message
        return
      }
      if (!page.data.fans.length) break
      list.push(...page.data.fans)
      total = page.data.total
      progress.value = total > MAX_ON_PAGE ? list.length / total : null
    }
    const told = await api<ShelfShown>('fans/shown')
    shown.value = told.ok ? told.data : null
    stored.value = list
    loaded.value = true
    problem.value = ''
  }
  async function load(force = false): Promise<void> {
    if (loaded.value && !force && !coming) return
    if (force) changed.value++
    coming ??= fetchAll().finally(() => {
      coming = null
      progress.value = null
    })
    await coming
  }

  /** Takes up what was changed since a moment, here or elsewhere. */
  async function catchUp(since: string): Promise<void> {
    if (!loaded.value) return
    const result = await api<FanChanges>(`fans/changed?since=${encodeURIComponent(since)}`)
    if (!result.ok) return
    const { all, fans: moved, gone } = result.data
    if (all) return load(true)
    const fresh = moved.filter((f) => byId(f.fan.id)?.revision !== f.revision)
    const left = gone.filter(byId)
    if (!fresh.length && !left.length) return
    stored.value = stored.value.filter((s) => !left.includes(s.fan.id))
    for (const one of fresh) put(one)
    changed.value++
    const told = await api<ShelfShown>('fans/shown')
    if (told.ok) shown.value = told.data
  }

  followChanges({
    told: (now, before) => {
      if (before && before.shelf !== now.shelf) void catchUp(before.at)
    },
  })

  const fans = computed(() => stored.value.map((s) => s.fan))
  const known = computed(() => {
    const there = new Set(fans.value.map((f) => f.id))
    return [...fans.value, ...extra.value.filter((f) => !there.has(f.id))]
  })
  const byId = (id: string) => stored.value.find((s) => s.fan.id === id) ?? null

  const put = (one: StoredFan) => {
    const others = stored.value.filter((s) => s.fan.id !== one.fan.id)
    stored.value = [...others, one].sort(
      (a, b) =>
        a.fan.frameM - b.fan.frameM ||
        a.fan.maker.localeCompare(b.fan.maker) ||
        a.fan.model.localeCompare(b.fan.model),
    )
  }

  async function save(fan: Fan, revision: number | null) {
    const result = await (revision === null
      ? api<StoredFan>('fans', { method: 'POST', body: fan })
      : api<StoredFan>(`fans/${fan.id}`, { method: 'PUT', body: { fan, revision } }))
    if (result.ok) extra.value = extra.value.map((f) => (f.id === fan.id ? result.data.fan : f))
    if (result.ok && loaded.value) {
      put(result.data)
      const told = await api<ShelfShown>('fans/shown')
      if (told.ok) shown.value = told.data
    }
    return result
  }

  /** One fan with its revision, from the shelf that is here or from the server. */
  async function fetchOne(id: string) {
    return byId(id) ?? (await api<StoredFan>(`fans/${id}`).then((r) => (r.ok ? r.data : null)))
  }

  /** @param after what to do when the fan went or came back */
  async function remove(fan: Fan, after: () => unknown = () => {}) {
    const result = await api(`fans/${fan.id}`, { method: 'DELETE' })
    const toast = useToast()
    if (!result.ok) return toast.show(result.message, { tone: 'bad' })
    stored.value = stored.value.filter((s) => s.fan.id !== fan.id)
    toast.show(`${fan.model} is off the shelf.`, {
      action: {
        label: 'Undo',
        run: async () => {
          await api(`fans/${fan.id}/restore`, { method: 'POST' })
          if (loaded.value) await load(true)
          await after()
        },
      },
    })
    await after()
  }

  /** Keeps what was typed into a fan that is left unsaved, and offers the way back. */
  function leaveUnsaved(fan: Fan, path: string) {
    draft.value = fan
    useToast().show(`What you typed for ${fan.model || 'the new fan'} is not saved.`, {
      action: { label: 'Take it up again', run: () => navigateTo({ path, query: { draft: '1' } }) },
    })
  }

  const remember = (fans: Fan[]) => {
    extra.value = fans
  }
  return {
    stored,
    fans,
    known,
    shown,
    loaded,
    changed,
    progress,
    problem,
    draft,
    load,
    byId,
    fetchOne,
    save,
    remove,
    remember,
    leaveUnsaved,
  }
})
