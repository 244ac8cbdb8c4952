import { useLocalStorage } from '@vueuse/core'
import {
  placesInUse,
  plannedFans,
  putFans,
  setDrive,
  type FanSelection,
  type FansAt,
  type PlacePlan,
} from '#core/document'
import { fanPlaces } from '#core/system'
import {
  defaultRank,
  noFilter,
  railsOf,
  type Candidate,
  type DriveMode,
  type Objective,
  type PlaceSought,
  type RankOptions,
  type ShelfFilter,
  type Weights,
} from '#core/selection'

/** The rankings; the first four stand as buttons. */
export const objectives: { value: Objective; label: string }[] = [
  { value: 'quietest', label: 'Quietest' },
  { value: 'margin', label: 'Most margin' },
  { value: 'cheapest', label: 'Cheapest' },
  { value: 'power', label: 'Least power' },
  { value: 'thinnest', label: 'Thinnest' },
  { value: 'loudness', label: 'Air per loudness' },
  { value: 'value', label: 'Air per money' },
  { value: 'weights', label: 'Own weights' },
]
export const COMPARE_MOST = 6
export const candidateKey = ({ fans, arrangement }: Pick<Candidate, 'fans' | 'arrangement'>) =>
  [...fans.map((f) => `${f.fanId} ${f.count}`), arrangement].join('|')

/** Columns of the line-up that can be chosen, beside the fan and how it is driven. */
export const rankColumns = [
  { key: 'flow', label: 'Airflow' },
  { key: 'pressure', label: 'Pressure' },
  { key: 'level', label: 'Sound level' },
  { key: 'margin', label: 'Against the need' },
  { key: 'current', label: 'Current' },
  { key: 'power', label: 'Power' },
  { key: 'thickness', label: 'Thickness' },
  { key: 'cost', label: 'Cost' },
] as const
export type RankColumn = (typeof rankColumns)[number]['key']

/** What a job's line-up is ranked by, narrowed to and shown with; remembered in this browser. */
export interface RankChoice {
  objective: Objective
  drive: DriveMode
  pairs: boolean
  /** the most fans alike side by side that are tried */
  most: number
  weights: Weights
  filter: ShelfFilter
  columns: RankColumn[]
}
const firstChoice = (): RankChoice => ({
  objective: 'quietest',
  drive: 'any',
  pairs: false,
  most: defaultRank.counts.length,
  weights: { ...defaultRank.weights },
  filter: { ...noFilter, fits: true },
  columns: ['flow', 'level', 'margin', 'cost'],
})

/** The place that fans are chosen for: the one that is shown, another one where that is put aside. */
const placeInUse = (plan: PlacePlan) => (plan.place.aside ? (placesInUse(plan)[0] ?? plan.place) : plan.place)
/** The fans of all places but that one. */
const elsewhere = (plan: PlacePlan): FansAt[] =>
  plannedFans(plan)?.groups.filter((g) => g.placeId !== placeInUse(plan).id) ?? []

/** What is searched for, the ranking, the pick and the rows compared by hand. */
export function useLineUp() {
  const { store, plan, report } = useJob('line-up')
  const { show } = useUnits()
  const shelf = useShelfStore()
  const choice = useLocalStorage<RankChoice>(`redpoll-line-up-${plan.value.job.id}`, firstChoice(), {
    mergeDefaults: (stored, first) => ({
      ...first,
      ...stored,
      weights: { ...first.weights, ...stored.weights },
      filter: { ...first.filter, ...stored.filter },
    }),
  }).value
  const places = computed(() => fanPlaces(plan.value))
  /** whether the fans of one place alone are sought, that is shown, or of all places */
  const onePlace = ref(false)
  const place = computed((): PlaceSought | null => {
    if (!onePlace.value || places.value.length < 2) return null
    return { placeId: placeInUse(plan.value).id, others: elsewhere(plan.value) }
  })
  const options = computed((): RankOptions => ({
    ...defaultRank,
    objective: choice.objective,
    weights: { ...choice.weights },
    drive: choice.drive,
    pairs: choice.pairs,
    counts: Array.from({ length: choice.most }, (_, i) => i + 1),
    filter: { ...choice.filter },
    rails: railsOf(plan.value),
    places: places.value.length > 1,
    place: place.value,
  }))
  const { ranking, busy, problem } = useRanking(plan, options)
  const rows = computed(() => ranking.value?.rows ?? [])
  const picked = computed(() => report.value.selection?.candidate ?? null)
  const usable = computed(() => rows.value.filter((c) => c.verdict !== 'fail').length)

  /** compared by hand: the newest takes the place of the oldest beyond six */
  const comparedKeys = ref<string[]>([])
  function compare(c: Candidate, on: boolean) {
    const key = candidateKey(c)
    comparedKeys.value = on
      ? [...comparedKeys.value.filter((k) => k !== key), key].slice(-COMPARE_MOST)
      : comparedKeys.value.filter((k) => k !== key)
  }
  const compared = computed(() =>
    comparedKeys.value.flatMap((key) => rows.value.find((c) => candidateKey(c) === key) ?? []),
  )

  /** Puts fans in where they are to stand: the feed follows, so that the chain stays one. */
  function take(chosen: Omit<FanSelection, 'count'>, volts: number, duty: number | null) {
    store.change((d) => {
      putFans(d, chosen)
      setDrive(d, { volts, duty, converterId: newId('converter') })
    })
  }
  /** Takes a group. */
  function selection(c: Candidate) {
    const home = placeInUse(plan.value).id
    const groups = c.fans.map((f) => ({ ...f, placeId: f.placeId ?? home }))
    const stayed = keptBefore()
    take({ groups, arrangement: c.arrangement }, Number(c.driveV.toFixed(2)), c.duty)
    void tellWhatGoes(stayed)
    landIn('.ranks tr.picked .take')
  }
  const mountHere = () => report.value.mounts.find((m) => m.place === placeInUse(plan.value).id)
  /** What of the place fits the fan that is picked; what nobody could say does. */
  function keptBefore(): (key: string) => boolean {
    const before = mountHere()?.keeps
    return (key) => before?.find((k) => k.key === key)?.stays ?? true
  }
  /** Says what of the panel no longer fits the new pick. */
  async function tellWhatGoes(stayed: (key: string) => boolean) {
    // the report follows the document
    await nextTick()
    const goes = (mountHere()?.keeps ?? []).filter((k) => !k.stays && stayed(k.key))
    if (!goes.length) return
    const words = goes.map((k) => (k.sizeM === null ? k.what : `${k.what} ${show(k.sizeM, 'length')}`))
    useToast().show(`Does not fit this fan: ${words.join(', ')}.`, {
      action: { label: 'See Fit', run: () => navigateTo(`/job/${plan.value.job.id}/fit`) },
    })
  }
  /** Takes a fan that was just made for the place that is shown: one of it, at its rated voltage. */
  function takeNew(fanId: string) {
    const fan = shelf.known.find((f) => f.id === fanId)
    if (!fan) return
    const groups = [...elsewhere(plan.value), { placeId: placeInUse(plan.value).id, fanId, count: 1 }]
    take({ groups, arrangement: 'parallel' }, fan.ratedV, null)
    useToast().show(`${fan.model} is picked.`, { action: { label: 'Undo', run: store.undo } })
  }
  /** Every filter off. */
  function loosen() {
    Object.assign(choice, { filter: { ...noFilter }, drive: 'any' as const })
  }
  function unpick() {
    store.removeWithUndo('Nothing is picked now.', (d) => {
      putFans(d, { groups: onePlace.value ? elsewhere(d) : [], arrangement: 'parallel' })
    })
    landIn('.ranks tbody')
  }
  return {
    choice,
    places,
    onePlace,
    loosen,
    ranking,
    rows,
    busy,
    problem,
    picked,
    usable,
    compared,
    compare,
    selection,
    takeNew,
    unpick,
  }
}

type Show = (v: number, q: 'voltage' | 'ratio') => string
/** What a candidate is driven with, in words. */
export const driveLevelWords = (c: Candidate, show: Show): string =>
  `${show(c.driveV, 'voltage')}${c.duty === null ? '' : `, duty ${show(c.duty, 'ratio')}`}`
/** How its fans stand, in words; empty where that goes without saying. */
export const arrangementWords = (c: Candidate): string =>
  !c.ofOneKind && c.arrangement === 'parallel'
    ? 'side by side'
    : { single: '', parallel: '', series: 'in series', places: placesWords(c) }[c.arrangement]
const placesWords = ({ fans }: Candidate) => {
  const [here, there] = fans.map((f) => f.count)
  if (here !== there) return `${here} where the air comes in, ${there} where it goes on`
  return `${here === 1 ? 'one' : here} at each place`
}
export const driveWords = (c: Candidate, show: Show): string =>
  [driveLevelWords(c, show), arrangementWords(c)].filter(Boolean).join(', ')
export const candidateName = (c: Candidate) => (c.ofOneKind ? `${c.count} × ${c.model}` : c.model)
