import { transfer, wrap, type Remote } from 'comlink'
import { makeAxes, readCurve, readingError, type Pixel } from '#core/trace'
import type { TraceWorker } from '~/workers/trace.worker'

export type MarkKey = 'flow1' | 'flow2' | 'pressure1' | 'pressure2'
export interface Mark {
  at: Pixel | null
  value: number | null
}

/** Reading a curve off a picture: the picture, four marks on its axes, the places on the curve. */
export function useTrace() {
  const thread = new Worker(new URL('../workers/trace.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<TraceWorker> = wrap<TraceWorker>(thread)
  const picture = shallowRef<{ url: string; width: number; height: number } | null>(null)
  const marks = reactive<Record<MarkKey, Mark>>({
    flow1: { at: null, value: 0 },
    flow2: { at: null, value: null },
    pressure1: { at: null, value: 0 },
    pressure2: { at: null, value: null },
  })
  const logs = reactive({ flow: false, pressure: false })
  const places = ref<Pixel[]>([])
  const thickness = ref(1)
  const tolerance = ref(90)
  const count = ref(16)
  const problem = ref('')
  const busy = ref(false)

  async function open(file: File) {
    const opened = await openPicture(file, 'the chart')
    problem.value = typeof opened === 'string' ? opened : ''
    if (typeof opened === 'string') return
    const { url, width, height, data } = opened
    await remote.setPicture(width, height, transfer(data, [data.buffer]))
    if (picture.value) URL.revokeObjectURL(picture.value.url)
    picture.value = { url, width, height }
    for (const mark of Object.values(marks)) mark.at = null
    places.value = []
  }

  /** Columns between the two flow marks, a little more on both sides. */
  const limit = () => {
    const xs = [marks.flow1.at?.x, marks.flow2.at?.x].filter((x) => x !== undefined)
    return xs.length === 2
      ? {
          left: Math.max(0, Math.round(Math.min(...xs)) - 2),
          right: Math.min(picture.value!.width - 1, Math.round(Math.max(...xs)) + 400),
        }
      : { left: 0, right: picture.value!.width - 1 }
  }
  async function follow(at: Pixel) {
    busy.value = true
    const answer = await remote.follow(at, tolerance.value, count.value, limit())
    busy.value = false
    problem.value = typeof answer === 'string' ? answer : ''
    if (typeof answer === 'string') return
    places.value = answer.points
    thickness.value = answer.thickness
  }

  const axes = computed(() => {
    const { flow1, flow2, pressure1, pressure2 } = marks
    const whole = (m: Mark) => (m.at && m.value !== null ? { at: m.at, value: m.value } : null)
    const [a, b, c, d] = [flow1, flow2, pressure1, pressure2].map(whole)
    return a && b && c && d
      ? makeAxes(
          { first: a, second: b, logarithmic: logs.flow },
          { first: c, second: d, logarithmic: logs.pressure },
        )
      : null
  })
  /** The curve in SI with its reading error, or what stands in its way. */
  const read = computed(() => {
    if (!axes.value) return { points: [], error: null, message: 'Set the four marks and type their values.' }
    if (!axes.value.ok) return { points: [], error: null, message: axes.value.message }
    if (!places.value.length)
      return { points: [], error: null, message: 'Click on the curve: it is followed both ways.' }
    const curve = readCurve(axes.value.axes, places.value, thickness.value)
    return typeof curve === 'string'
      ? { points: [], error: null, message: curve }
      : { points: curve, error: readingError(curve), message: '' }
  })
  onBeforeUnmount(() => {
    thread.terminate()
    if (picture.value) URL.revokeObjectURL(picture.value.url)
  })
  return { picture, marks, logs, places, tolerance, count, problem, busy, open, follow, read }
}
