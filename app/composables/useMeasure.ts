import { useEventListener } from '@vueuse/core'
import {
  type CartonCurve,
  cartonCurve,
  cartonProblem,
  designCarton,
  nextReading,
  readRig,
  readRigLeak,
  rigOf,
  type Interest,
} from '#core/lab'
import { asClaimed, cartonSchema, newTest, type Carton, type CartonReading, type Fan } from '#core/document'
import { lastFlow } from '#core/fan'
import { modelFan } from '#core/system'
import type { Report } from '#core/plan'
import type { StoredFan } from '#shared/api'

/** Wait after a key before what was typed is stored, ms. */
const SAVE_AFTER_MS = 500
/** Gauge that most people have: a pair of barometric sensors, averaged. */
const GAUGE_PA = 1
/** Hole of a leak card, m. */
const LEAK_HOLE_M = 0.012

/** What the job that it is measured for wants to know of the fan. */
async function interestOf(job: string, ratedV: number): Promise<Interest | null> {
  if (!job) return null
  const result = await api<Pick<Report, 'selection' | 'need'>>(`jobs/${job}/report`)
  const candidate = result.ok ? result.data.selection?.candidate : null
  if (!candidate?.flow || !(candidate.speed > 0) || candidate.driveV > 1.5 * ratedV) return null
  const beside = candidate.arrangement === 'series' ? 1 : candidate.count
  return { flowM3s: candidate.flow / beside / candidate.speed, margin: candidate.margin }
}

/**
 * A fan being measured on a carton: the rig, its readings, the curve, what to do next. Everything typed is stored with the
 * fan at once.
 */
export function useMeasure(stored: StoredFan, job: string, draft: Fan | null) {
  const shelf = useShelfStore()
  const toast = useToast()
  const fan = shallowRef<Fan>(draft ?? stored.fan)
  const problem = ref('')
  const saved = ref(draft === null)
  let { revision } = stored
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | null = null

  /** What this page writes of a fan; the rest may be changed elsewhere meanwhile. */
  const written = ({ cartons, points, curveBasis, curveShare, sheetPoints, tests }: Fan) => ({
    cartons,
    points,
    curveBasis,
    curveShare,
    sheetPoints,
    tests,
  })
  /** Stores the fan; changed elsewhere since, it keeps what was changed there. */
  async function store(): Promise<string> {
    const result = await shelf.save(fan.value, revision)
    if (result.ok) {
      revision = result.data.revision
      return ''
    }
    if (result.kind !== 'conflict') return result.message
    const theirs = await api<StoredFan>(`fans/${fan.value.id}`)
    if (!theirs.ok) return theirs.message
    fan.value = { ...theirs.data.fan, ...written(fan.value) }
    const again = await shelf.save(fan.value, theirs.data.revision)
    if (again.ok) revision = again.data.revision
    return again.ok ? '' : again.message
  }
  async function send(): Promise<void> {
    clearTimeout(timer)
    if (sending) await sending
    if (saved.value) return
    saved.value = true
    sending = store()
      .then((message) => {
        problem.value = message
        if (message) saved.value = false
      })
      .finally(() => {
        sending = null
      })
    await sending
  }
  onBeforeRouteLeave(async () => {
    await send()
    if (!saved.value) shelf.leaveUnsaved(fan.value, `/shelf/${fan.value.id}/measure`)
  })
  useEventListener('beforeunload', (event) => {
    if (!saved.value) event.preventDefault()
  })

  function change(next: Fan) {
    fan.value = next
    saved.value = false
    clearTimeout(timer)
    timer = setTimeout(() => void send(), SAVE_AFTER_MS)
  }

  if (draft) change(draft)

  const chosen = ref(fan.value.cartons.at(-1)?.id ?? '')
  const carton = computed(() => fan.value.cartons.find((c) => c.id === chosen.value) ?? null)
  function setCarton(part: Partial<Carton>) {
    change({
      ...fan.value,
      cartons: fan.value.cartons.map((c) => (c.id === chosen.value ? { ...c, ...part } : c)),
    })
  }

  /** A new rig for this fan; '' or why there can be none. */
  function begin(gaugePa = carton.value?.gaugePa ?? GAUGE_PA): string {
    const made = designCarton(fan.value, gaugePa)
    if (!made.ok) return made.reason
    const { widthM, heightM, depthM, holesM } = made.design
    const next = cartonSchema.parse({
      id: newId('carton'),
      specimen: carton.value?.specimen ?? 'A',
      takenAt: new Date().toISOString(),
      widthM,
      heightM,
      depthM,
      holesM,
      gaugePa,
      leakHoleM: LEAK_HOLE_M,
    })
    change({ ...fan.value, cartons: [...fan.value.cartons, next] })
    chosen.value = next.id
    return ''
  }
  function removeCarton() {
    const before = fan.value
    const gone = chosen.value
    change({ ...before, cartons: before.cartons.filter((c) => c.id !== gone) })
    chosen.value = fan.value.cartons.at(-1)?.id ?? ''
    toast.show('The rig and its readings are taken away.', {
      action: {
        label: 'Undo',
        run: () => {
          change(before)
          chosen.value = gone
        },
      },
    })
  }

  function takeReading(reading: Omit<CartonReading, 'id'>) {
    if (!carton.value) return
    setCarton({ readings: [...carton.value.readings, { id: newId('reading'), ...reading }] })
  }
  function removeReading(id: string) {
    if (!carton.value) return
    const before = carton.value.readings
    const { id: rig } = carton.value
    setCarton({ readings: before.filter((r) => r.id !== id) })
    toast.show('The reading is taken away.', {
      action: {
        label: 'Undo',
        run: () => {
          if (chosen.value === rig) setCarton({ readings: before })
        },
      },
    })
  }

  const claim = computed(() => {
    const made = modelFan(asClaimed(fan.value))
    return made.ok ? made.model : null
  })
  const curve = computed(() => (carton.value ? cartonCurve(carton.value, fan.value) : null))
  /** Flow that is expected with 1, 2 ... holes open: the design's, brought to what was read already. */
  const expected = computed(() => {
    if (!carton.value || !claim.value) return []
    const { middle } = claim.value.curves
    const made = designCarton(fan.value, carton.value.gaugePa)
    if (made.ok && made.design.expected.length === carton.value.holesM.length)
      return made.design.expected.map((e) => e.flowM3s)
    const free = lastFlow(middle)
    return carton.value.holesM.map((_, i) => ((i + 1) / (carton.value!.holesM.length + 1)) * free)
  })
  const interest = shallowRef<Interest | null>(null)
  void interestOf(job, fan.value.ratedV).then((found) => {
    interest.value = found
  })
  const next = computed(() =>
    carton.value && curve.value && !cartonProblem(carton.value)
      ? nextReading(
          carton.value,
          curve.value,
          expected.value,
          claim.value ? lastFlow(claim.value.curves.middle) : 0,
          interest.value,
        )
      : null,
  )

  /** The bench test that the carton is: held against the claim like every other, and worth as much to the shelf. */
  const testId = () => `test-${chosen.value}`
  const withoutTest = (of: Fan) => of.tests.filter((t) => t.id !== testId())
  const testOf = (made: CartonCurve) => ({
    ...newTest(testId(), fan.value.ratedV, carton.value!.takenAt),
    specimen: carton.value!.specimen,
    flowM3s: made.free?.value ?? null,
    pressurePa: made.shutOff?.value ?? null,
    ambientC: carton.value!.ambientC,
    notes: 'From the carton, at rated voltage.',
  })
  /** The measured curve becomes the fan's own. */
  function keep() {
    const made = curve.value
    if (!made || made.curve.length < 3) return
    const before = fan.value
    const sheetPoints = before.curveBasis === 'measured' ? before.sheetPoints : before.points
    change({
      ...before,
      points: made.curve,
      curveBasis: 'measured',
      curveShare: made.share,
      sheetPoints,
      tests: [...withoutTest(before), testOf(made)],
    })
    toast.show('The plan now believes what you measured.', {
      action: { label: 'Undo', run: () => change(before) },
    })
  }
  const isKept = computed(
    () =>
      fan.value.curveBasis === 'measured' &&
      JSON.stringify(fan.value.points) === JSON.stringify(curve.value?.curve ?? null),
  )

  /** The stand-in rig: another one for each rig, the same at each reading but for its noise. */
  const seedOf = (text: string) => [...text].reduce((s, c) => (s * 31 + c.charCodeAt(0)) % 1_000_000_007, 7)
  function standIn(open: number | 'leak', volts: number, misCut: boolean): string {
    const at = carton.value
    const rig = at && rigOf(at, asClaimed(fan.value), seedOf(at.id), misCut)
    if (!at || !rig) return 'The sheet of this fan gives no curve: the stand-in cannot run it.'
    const noise = seedOf(`${at.id} ${open} ${at.readings.length}`)
    if (open === 'leak') {
      const hole = at.leakHoleM ?? LEAK_HOLE_M
      setCarton({ leakHoleM: hole, leakPressurePa: readRigLeak(rig, at, hole, noise) })
    } else takeReading(readRig(rig, at, fan.value, open, volts, noise))
    return ''
  }
  function backToSheet() {
    const before = fan.value
    change({
      ...before,
      points: before.sheetPoints,
      curveBasis: 'curve',
      curveShare: null,
      sheetPoints: [],
      tests: withoutTest(before),
    })
    toast.show('The sheet’s curve counts again.', { action: { label: 'Undo', run: () => change(before) } })
  }

  return {
    fan,
    carton,
    chosen,
    curve,
    claim,
    next,
    interest,
    problem,
    saved,
    isKept,
    begin,
    removeCarton,
    setCarton,
    takeReading,
    removeReading,
    keep,
    standIn,
    backToSheet,
    retry: send,
  }
}
