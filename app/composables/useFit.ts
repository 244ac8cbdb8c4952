import { facePlace, newFit, type Fit, type Job, type StreamPlan } from '#core/document'
import { fanPlaces } from '#core/system'

type Lists = 'keepClear' | 'things' | 'lugs' | 'positions'

/**
 * The place of the fans of the open stream, or the one of two that the address names: the plan with this place in front,
 * its record, begun with the first thing that is told of it, and how the fans go in there.
 */
export function useFit() {
  const { store, plan: whole, report, findings: all } = useJob('fit')
  const route = useRoute()
  const mounts = computed(() => report.value.mounts)
  const place = computed((): 0 | 1 => (route.query.place === '2' && mounts.value.length > 1 ? 1 : 0))
  /** What the places are called; fewer than two where there is nothing to choose. */
  const places = computed(() =>
    mounts.value.length > 1
      ? fanPlaces(whole.value).map(({ element }, i) => ({
          value: i === 0 ? ('1' as const) : ('2' as const),
          label: element.name || `Place ${i + 1}`,
        }))
      : [],
  )
  const plan = computed(() => facePlace(whole.value, place.value))
  const blank = newFit('blank')
  const fit = computed(() => plan.value.fit ?? blank)
  const mount = computed(() => mounts.value[place.value] ?? null)
  /** Those of this place, and those of none. */
  const findings = computed(() =>
    all.value.filter((f) => mounts.value.length < 2 || (f.at.place ?? 0) === place.value),
  )
  /** Changes the plan with this place in front. */
  const edit = (mutate: (faced: StreamPlan) => void) => (d: StreamPlan) => {
    const faced = facePlace(d, place.value)
    mutate(faced)
    Object.assign(d, facePlace(faced, 0))
  }
  const changePlan = (mutate: (faced: StreamPlan) => void, key = '', label = '') =>
    store.change(edit(mutate), `${key}.${place.value}`, label)
  const begun = (d: StreamPlan): Fit => (d.fit ??= newFit(newId('fit')))
  const change = (mutate: (fit: Fit) => void, key?: string, label?: string) =>
    changePlan((d) => mutate(begun(d)), key, label)
  const set = (key: keyof Fit, value: unknown, label?: string) =>
    change((f) => assign(f, key, value), `fit.${key}`, label)
  const setJob = (key: keyof Job, value: unknown, label?: string) =>
    changePlan((d) => assign(d.job, key, value), `job.${key}`, label)

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
        store.removeWithUndo(
          `${name} removed.`,
          edit((d) => begun(d)[list].splice(index, 1)),
        ),
    }
  }
  return { plan, report, fit, mount, place, places, findings, change, changePlan, set, setJob, listOf }
}
