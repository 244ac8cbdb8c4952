import {
  newControlOf,
  newDay,
  type Control,
  type Day,
  type LoadStep,
  type ThermalPartDoc,
  wholePlan,
} from '#core/document'

type DayLists = 'loads' | 'parts' | 'links' | 'ambient'

/**
 * The controls of the open job: the one in front (the address may name it), its record begun with the first thing that is
 * told of it, and the day that all of them have to serve.
 */
export function useControl() {
  const { store, plan, report, findings } = useJob('control')
  const route = useRoute()
  const day = computed(() => report.value.day)
  const index = computed(() => {
    const at = plan.value.controls.findIndex((c) => c.id === route.query.part)
    return Math.max(0, at)
  })
  const blank = newControlOf('blank', 'always', [])
  const control = computed((): Control => plan.value.controls[index.value] ?? blank)
  const blankDay = newDay('blank')
  const told = computed((): Day => plan.value.day ?? blankDay)

  const change = (mutate: (control: Control) => void, key = '', label = '') =>
    store.change(
      (d) => {
        if (!d.controls.length) d.controls.push(newControlOf(newId('control'), 'always', [d.stream]))
        mutate(d.controls[index.value]!)
      },
      key && `control.${index.value}.${key}`,
      label,
    )
  const set = (key: keyof Control, value: unknown, label?: string) =>
    change((c) => assign(c, key, value), key, label)
  /** Puts a whole control in the place of the one in front. */
  const take = (taken: Control) =>
    store.change(
      (d) => {
        const id = d.controls[index.value]?.id ?? newId('control')
        d.controls[index.value] = { ...taken, id }
      },
      '',
      'the school of control',
    )
  const add = () => {
    const id = newId('control')
    store.change((d) => {
      const steered = new Set(d.controls.flatMap((c) => c.streamIds))
      const free = wholePlan(d)
        .streams.map((s) => s.id)
        .filter((s) => !steered.has(s))
      d.controls.push(newControlOf(id, 'always', free))
    })
    return id
  }
  const remove = () =>
    store.removeWithUndo(`${control.value.name || 'The control'} removed.`, (d) => {
      d.controls.splice(index.value, 1)
    })

  const changeDay = (mutate: (day: Day) => void, key = '', label = '') =>
    store.change((d) => mutate((d.day ??= newDay(newId('day')))), key && `day.${key}`, label)
  const setDay = (key: keyof Day, value: unknown, label?: string) =>
    changeDay((d) => assign(d, key, value), key, label)
  /** The actions of one of its lists. */
  function listOf<K extends DayLists>(list: K) {
    type Item = Day[K][number]
    return {
      add: (item: Item) => changeDay((d) => (d[list] as Item[]).push(item)),
      set: (at: number, key: string, value: unknown, label?: string) =>
        changeDay((d) => assign(d[list][at] as object, key as never, value), `${list}.${at}.${key}`, label),
      remove: (at: number, name: string) =>
        store.removeWithUndo(`${name} removed.`, (d) => {
          const day = d.day
          if (!day) return
          if (list === 'parts') {
            const gone = day.parts[at]!.id
            day.links = day.links.filter((l) => l.fromId !== gone && l.toId !== gone)
          }
          day[list].splice(at, 1)
        }),
    }
  }
  return {
    plan,
    report,
    findings,
    day,
    index,
    control,
    told,
    change,
    set,
    take,
    add,
    remove,
    changeDay,
    setDay,
    listOf,
  }
}

const WORK_FROM_S = 8 * 3600
const WORK_TO_S = 17 * 3600
/** A piece of work of a usual day. */
export const newLoad = (watts: number): LoadStep => ({
  id: newId('load'),
  name: 'working',
  fromS: WORK_FROM_S,
  toS: WORK_TO_S,
  watts,
})
/** A part of which only the name is known. */
export const newPart = (name: string, streamId: string): ThermalPartDoc => ({
  id: newId('part'),
  name,
  streamId,
  limitC: null,
  massKg: null,
  material: null,
  capacityJK: null,
  stillWK: null,
  movedWK: null,
  atM3s: null,
  loadShare: null,
  basis: 'typed',
})
