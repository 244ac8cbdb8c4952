import type { Fan, ShelfShown } from '#core/document'
import { MAX_ON_PAGE, type FanChanges, type FanName, type StoredFan } from '#shared/api'

const byPlace = (a: FanName, b: FanName) =>
  a.frameM - b.frameM || a.maker.localeCompare(b.maker) || a.model.localeCompare(b.model)
const nameOf = ({ id, maker, model, frameM }: Fan): FanName => ({ id, maker, model, frameM })

/**
 * The fans of the shelf. A short shelf is here as a whole; of a long one the names are, and the fans that somebody has
 * asked for.
 */
export const useShelfStore = defineStore('shelf', () => {
  const names = shallowRef<FanName[]>([])
  /** fans that are here, by id, with their revisions */
  const here = shallowRef<ReadonlyMap<string, StoredFan>>(new Map())
  /** fans that a plan still speaks of although they were deleted */
  const extra = shallowRef<Fan[]>([])
  /** what was typed into a fan and left without saving */
  const draft = shallowRef<Fan | null>(null)
  const loaded = ref(false)
  const problem = ref('')

  /** what the shelf's tests say about claims */
  const shown = shallowRef<ShelfShown | null>(null)
  /** 0..1 while many fans come in */
  const progress = ref<number | null>(null)
  let coming: Promise<void> | null = null
  /** counts up when the shelf has changed, for lists that hold a part of it */
  const changed = ref(0)
  /** fans that the open job speaks of */
  let pinned: string[] = []

  /** Some fans from the server, in parts. */
  async function fetchSome(ids: readonly string[]): Promise<StoredFan[]> {
    const found: StoredFan[] = []
    for (let from = 0; from < ids.length; from += MAX_ON_PAGE) {
      const part = ids.slice(from, from + MAX_ON_PAGE)
      const result = await api<StoredFan[]>('fans/some', { method: 'POST', body: { ids: part } })
      if (!result.ok) {
        problem.value = result.message
        break
      }
      found.push(...result.data)
      progress.value = ids.length > MAX_ON_PAGE ? (from + part.length) / ids.length : null
    }
    progress.value = null
    return found
  }
  const withThem = (some: readonly StoredFan[], old: Iterable<[string, StoredFan]> = here.value) =>
    new Map([...old, ...some.map((s): [string, StoredFan] => [s.fan.id, s])])

  async function fetchShelf(): Promise<void> {
    const told = await api<FanName[]>('fans/names')
    if (!told.ok) {
      problem.value = told.message
      return
    }
    const tests = await api<ShelfShown>('fans/shown')
    const there = new Set(told.data.map((n) => n.id))
    const wanted =
      there.size <= MAX_ON_PAGE
        ? [...there]
        : (here.value.size <= MAX_ON_PAGE ? [...here.value.keys()] : pinned).filter((id) => there.has(id))
    here.value = withThem(await fetchSome(wanted), [])
    names.value = told.data
    shown.value = tests.ok ? tests.data : null
    loaded.value = true
    problem.value = ''
  }
  async function load(force = false): Promise<void> {
    if (loaded.value && !force && !coming) return
    if (force) changed.value++
    coming ??= fetchShelf().finally(() => {
      coming = null
    })
    await coming
  }
  const isHere = (id: string) => here.value.has(id) || extra.value.some((f) => f.id === id)
  /** Brings fans here that are not yet. */
  async function ensure(ids: readonly (string | null | undefined)[]): Promise<void> {
    const missing = [...new Set(ids)].filter((id): id is string => typeof id === 'string' && !isHere(id))
    if (missing.length) here.value = withThem(await fetchSome(missing))
  }
  /** The fans that the open job speaks of: they are here as long as it is. */
  function pin(ids: readonly string[]): Promise<void> {
    pinned = [...ids]
    return ensure(ids)
  }
  /** Every fan of the shelf. */
  async function whole(): Promise<Fan[]> {
    await load()
    await ensure(names.value.map((n) => n.id))
    return names.value.flatMap((n) => here.value.get(n.id)?.fan ?? [])
  }

  /** Takes up what was changed since a moment, here or elsewhere. */
  async function catchUp(since: string): Promise<void> {
    if (!loaded.value) return
    const result = await api<FanChanges>(`fans/changed?since=${encodeURIComponent(since)}`)
    if (!result.ok) return
    const { all, fans: moved, gone } = result.data
    if (all) return load(true)
    const known = new Set(names.value.map((n) => n.id))
    const fresh = moved.filter((f) => byId(f.fan.id)?.revision !== f.revision)
    const left = gone.filter((id) => known.has(id))
    if (!fresh.length && !left.length) return
    takeOff(left)
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

  const known = computed(() => [
    ...[...here.value.values()].map((s) => s.fan),
    ...extra.value.filter((f) => !here.value.has(f.id)),
  ])
  const byId = (id: string) => here.value.get(id) ?? null

  function put(one: StoredFan) {
    here.value = withThem([one])
    names.value = [...names.value.filter((n) => n.id !== one.fan.id), nameOf(one.fan)].sort(byPlace)
  }
  function takeOff(ids: readonly string[]) {
    here.value = new Map([...here.value].filter(([id]) => !ids.includes(id)))
    names.value = names.value.filter((n) => !ids.includes(n.id))
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
    takeOff([fan.id])
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
    names,
    known,
    shown,
    loaded,
    changed,
    progress,
    problem,
    draft,
    load,
    ensure,
    pin,
    whole,
    fetchOne,
    save,
    remove,
    remember,
    leaveUnsaved,
  }
})

/** The shelf's fans as choices of a list. @param none what stands first, for no fan */
export function useFanOptions(none: string) {
  const shelf = useShelfStore()
  return computed(() => [
    { value: null as string | null, label: none },
    ...shelf.names.map((n) => ({ value: n.id as string | null, label: `${n.maker} ${n.model}`.trim() })),
  ])
}
