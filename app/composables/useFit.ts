import { newFit, type Fit } from '#core/document'

type Lists = 'keepClear' | 'things' | 'lugs' | 'positions'

/**
 * The place of the fans that is shown: its record, begun with the first thing that is told of it, and how the fans go in
 * there.
 */
export function useFit() {
  const { store, plan, report, put: setJob, putPlace: setPlace, findings: all } = useJob('fit')
  const mounts = computed(() => report.value.mounts)
  const place = computed(() => plan.value.place)
  const blank = newFit('blank')
  const fit = computed(() => place.value.fit ?? blank)
  const mount = computed(() => mounts.value.find((m) => m.place === place.value.id) ?? null)
  /** Those of this place, and those of none. */
  const findings = computed(() =>
    all.value.filter((f) => mounts.value.length < 2 || (f.at.place ?? place.value.id) === place.value.id),
  )
  const keyOf = (key: string) => `${key}.${place.value.id}`
  const change = (mutate: (fit: Fit) => void, key = '', label = '') =>
    store.change((d) => mutate((d.place.fit ??= newFit(newId('fit')))), key && keyOf(key), label)
  const set = (key: keyof Fit, value: unknown, label?: string) =>
    change((f) => assign(f, key, value), `fit.${key}`, label)

  /** The actions of one of its lists. */
  function listOf<K extends Lists>(list: K) {
    type Item = Fit[K][number]
    return {
      add: (item: (fit: Fit) => Item) => change((f) => (f[list] as Item[]).push(item(f))),
      set: (index: number, key: string, value: unknown, label?: string) =>
        change(
          (f) => assign(f[list][index] as object, key as never, value),
          `fit.${list}.${index}.${key}`,
          label,
        ),
      remove: (index: number, name: string) =>
        store.removeWithUndo(`${name} removed.`, (d) => d.place.fit?.[list].splice(index, 1)),
    }
  }
  return { store, plan, report, fit, mount, place, findings, change, set, setJob, setPlace, listOf }
}
