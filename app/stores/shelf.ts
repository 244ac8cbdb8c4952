import type { Fan } from '../../core/plan/document'
import type { StoredFan } from '../../shared/api'

/** The fans of the shelf. */
export const useShelfStore = defineStore('shelf', () => {
  const stored = shallowRef<StoredFan[]>([])
  /** fans that a plan still speaks of although they were deleted */
  const extra = shallowRef<Fan[]>([])
  /** what was typed into a fan and left without saving */
  const draft = shallowRef<Fan | null>(null)
  const loaded = ref(false)
  const problem = ref('')

  async function load(force = false) {
    if (loaded.value && !force) return
    const result = await api<StoredFan[]>('fans')
    if (!result.ok) {
      problem.value = result.message
      return
    }
    stored.value = result.data
    loaded.value = true
    problem.value = ''
  }

  const fans = computed(() => stored.value.map(s => s.fan))
  const known = computed(() => [...fans.value, ...extra.value.filter(f => !fans.value.some(g => g.id === f.id))])
  const byId = (id: string) => stored.value.find(s => s.fan.id === id) ?? null

  const put = (one: StoredFan) => {
    const others = stored.value.filter(s => s.fan.id !== one.fan.id)
    stored.value = [...others, one].sort((a, b) => a.fan.frameM - b.fan.frameM || a.fan.maker.localeCompare(b.fan.maker) || a.fan.model.localeCompare(b.fan.model))
  }

  async function save(fan: Fan, revision: number | null) {
    const result = await (revision === null
      ? api<StoredFan>('fans', { method: 'POST', body: fan })
      : api<StoredFan>(`fans/${fan.id}`, { method: 'PUT', body: { fan, revision } }))
    if (result.ok) put(result.data)
    return result
  }

  async function remove(fan: Fan) {
    const result = await api(`fans/${fan.id}`, { method: 'DELETE' })
    const toast = useToast()
    if (!result.ok) return toast.show(result.message, { tone: 'bad' })
    stored.value = stored.value.filter(s => s.fan.id !== fan.id)
    toast.show(`${fan.model} is off the shelf.`, { action: { label: 'Undo', run: async () => {
      await api(`fans/${fan.id}/restore`, { method: 'POST' })
      await load(true)
    } } })
  }

  /** Keeps what was typed into a fan that is left unsaved, and offers the way back. */
  function leaveUnsaved(fan: Fan, path: string) {
    draft.value = fan
    useToast().show(`What you typed for ${fan.model || 'the new fan'} is not saved.`, { action: { label: 'Take it up again', run: () => navigateTo({ path, query: { draft: '1' } }) } })
  }

  const remember = (fans: Fan[]) => {
    extra.value = fans
  }
  return { stored, fans, known, loaded, problem, draft, load, byId, save, remove, remember, leaveUnsaved }
})
