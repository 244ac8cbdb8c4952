import { newFit, type Fit, type PlanDocument } from '#core/document'

type Lists = 'keepClear' | 'things' | 'lugs' | 'positions'

/** The place of the fans of the open stream: its record, begun with the first thing that is told of it. */
export function useFit() {
  const store = useJobStore()
  const { plan, report } = useJob('fit')
  const blank = newFit('blank')
  const fit = computed(() => plan.value.fit ?? blank)
  const mount = computed(() => report.value.mount)
  const begun = (d: PlanDocument): Fit => (d.fit ??= newFit(newId('fit')))
  const change = (edit: (fit: Fit) => void, key?: string, label?: string) =>
    store.change((d) => edit(begun(d)), key, label)
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
        store.removeWithUndo(`${name} removed.`, (d) => begun(d)[list].splice(index, 1)),
    }
  }
  return { store, plan, report, fit, mount, change, set, listOf }
}
