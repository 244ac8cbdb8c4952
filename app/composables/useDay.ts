import { proxy, wrap, type Remote } from 'comlink'
import type { Advice, DayModel, DayView, DoubtedDay, Quietest, SchoolRow } from '#core/day'
import { seenFrom, wholePlan } from '#core/document'
import type { LogSummary } from '#shared/api'
import type { DayWorker, ShownDay } from '~/workers/day.worker'

const WAIT_MS = 60
/** Columns that a day and a week are drawn with. */
const COLUMNS = { day: 720, week: 1008 } as const

/** What the clock on the wall showed when a log began, s after midnight. */
const secondsOfDay = (iso: string) => {
  const at = new Date(iso)
  return at.getHours() * 3600 + at.getMinutes() * 60 + at.getSeconds()
}
const started = () => {
  const thread = new Worker(new URL('../workers/day.worker.ts', import.meta.url), { type: 'module' })
  return { thread, remote: wrap<DayWorker>(thread) as Remote<DayWorker> }
}

/**
 * The days of the open job, worked out in a worker: answers to older plans are dropped. What takes long (drawn days, the
 * search for a curve) runs in a worker of its own that is ended when it is stopped or overtaken.
 * @param index of the control that is in front
 */
export function useDay(kind: Ref<ShownDay>, index: Ref<number>) {
  const job = useJobStore()
  const inputOf = usePlanInput()
  const view = shallowRef<DayView | null>(null)
  const model = shallowRef<DayModel | null>(null)
  const advice = shallowRef<Advice | null>(null)
  const schools = shallowRef<SchoolRow[]>([])
  const drawn = shallowRef<DoubtedDay | null>(null)
  const quietest = shallowRef<Quietest | null>(null)
  const busy = ref(false)
  /** long work: which, and how far, 0..1 */
  const long = ref<{ what: 'drawn' | 'quietest'; share: number } | null>(null)
  const near = started()
  let far: ReturnType<typeof started> | null = null
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  const input = () => inputOf(seenFrom(wholePlan(job.plan!)))

  async function ask() {
    if (!job.plan) return
    const mine = ++asked
    busy.value = true
    const given = input()
    const columns = kind.value === 'week' || kind.value === 'three' ? COLUMNS.week : COLUMNS.day
    try {
      const [made, known] = await Promise.all([
        near.remote.day(given, kind.value, columns),
        near.remote.model(given, index.value),
      ])
      if (mine !== asked) return
      view.value = made
      model.value = known?.model ?? null
      advice.value = known?.advice ?? null
      const rows = await near.remote.schools(given, index.value)
      if (mine === asked) schools.value = rows
    } finally {
      if (mine === asked) busy.value = false
    }
  }
  function stop() {
    far?.thread.terminate()
    far = null
    long.value = null
  }
  watch(
    [() => job.plan, kind, index],
    () => {
      stop()
      drawn.value = null
      quietest.value = null
      clearTimeout(timer)
      timer = setTimeout(ask, WAIT_MS)
    },
    { immediate: true },
  )
  /** Runs what takes long; its answer counts only if nothing came between. */
  async function run<T>(
    what: 'drawn' | 'quietest',
    work: (remote: Remote<DayWorker>, onDone: (share: number) => void) => Promise<T | null>,
  ): Promise<T | null> {
    stop()
    const own = (far = started())
    long.value = { what, share: 0 }
    const onDone = (share: number) => {
      if (far === own) long.value = { what, share }
    }
    const answer = await work(own.remote, proxy(onDone))
    if (far !== own) return null
    stop()
    return answer
  }
  const draw = async () => {
    const day = kind.value
    if (day === 'week' || day === 'three') return
    drawn.value = await run<DoubtedDay>('drawn', async (remote, onDone) => remote.drawn(input(), day, onDone))
  }
  const search = async () => {
    quietest.value = await run<Quietest>('quietest', async (remote, onDone) =>
      remote.quietest(input(), index.value, onDone),
    )
  }
  /** A log of this job driven through the control in front. */
  const replayLog = (log: LogSummary, temperature: number, duty: number | null) =>
    near.remote.replay(input(), index.value, log.id, structuredClone(toRaw(log.channels)), temperature, duty)
  /** A day of air from a log. */
  const ambientOf = (log: LogSummary, channel: number) =>
    near.remote.ambient(log.id, structuredClone(toRaw(log.channels)), channel, secondsOfDay(log.startedAt))
  onBeforeUnmount(() => {
    asked++
    clearTimeout(timer)
    near.thread.terminate()
    stop()
  })
  return { view, model, advice, schools, drawn, quietest, busy, long, draw, search, stop, replayLog, ambientOf }
}
