<script setup lang="ts">
import type { SoakReport } from '#core/heat'
import type { WindowSummary } from '#core/measure'
import { newReading, newRun, readingNames, type ReadingQuantity, type Run } from '#core/document'
import type { LogSummary } from '#shared/api'
import { readingLimit } from '#core/document'

/** Takes the window's values into a run: means of the window, the predicted end of the watched temperature, the conditions. */
const props = defineProps<{
  log: LogSummary
  summary: (WindowSummary | null)[]
  soak: SoakReport | null
  watched: number | null
  windowS: number
  /** end of the window, s from the log's start */ endS: number
}>()
const store = useJobStore()
const toast = useToast()
const { show } = useUnits()
const kinds = [
  { value: 'baseline' as const, label: 'a new baseline run' },
  { value: 'after' as const, label: 'a new run after a change' },
  { value: 'bench' as const, label: 'a new bench test' },
]
const target = ref<string>('baseline')
const options = computed(() => [
  ...kinds,
  ...store.plan!.runs.map((r) => ({ value: r.id, label: `the run “${r.name}”` })),
])
watchEffect(() => {
  if (options.value.some((o) => o.value === target.value)) return
  target.value = 'baseline'
})
onMounted(() => {
  if (store.plan!.runs.some((r) => r.kind === 'baseline')) target.value = 'after'
})
const useEnd = ref(true)
const predicted = computed(() => props.soak?.state === 'predicted' && useEnd.value)

interface Row {
  quantity: ReadingQuantity
  place: string
  value: number
  what: string
}
/** A sensor's noise around zero is zero where less cannot be. */
const NEVER_BELOW_ZERO = new Set<ReadingQuantity>(['flow', 'rotation', 'voltage', 'current', 'power', 'level'])
const found = computed(() =>
  props.log.channels.flatMap((c, i): Row[] => {
    const s = props.summary[i]
    if (!s || !(c.quantity in readingNames)) return []
    const quantity = c.quantity as ReadingQuantity
    if (i === props.watched && props.soak?.final != null && (predicted.value || props.soak.state === 'steady'))
      return [
        {
          quantity,
          place: c.name,
          value: props.soak.final,
          what: props.soak.state === 'steady' ? 'steady' : 'predicted end',
        },
      ]
    if (quantity === 'temperature' && isAmbient(c.name))
      return [{ quantity, place: c.name, value: s.last, what: 'last, taken as the ambient' }]
    return [
      {
        quantity,
        place: c.name,
        value: quantity === 'temperature' ? s.last : s.mean,
        what: quantity === 'temperature' ? 'last' : 'mean of the window',
      },
    ]
  }),
)
const rows = computed(() =>
  found.value
    .map((r) => (NEVER_BELOW_ZERO.has(r.quantity) ? { ...r, value: Math.max(0, r.value) } : r))
    .filter((r) => readingLimit(r.quantity).safeParse(r.value).success),
)
const ambient = computed(
  () => rows.value.find((r) => r.quantity === 'temperature' && isAmbient(r.place)) ?? null,
)
const volts = computed(() => rows.value.find((r) => r.quantity === 'voltage') ?? null)

function take() {
  const readings = rows.value
    .filter((r) => r !== ambient.value)
    .map((r) => newReading(newId('reading'), r.quantity, r.place, r.value))
  const conditions: Partial<Run> = {
    logId: props.log.id,
    soakS: props.endS,
    steady: props.soak?.state === 'steady' || predicted.value,
    slopeKS:
      props.soak?.state === 'predicted' && !predicted.value
        ? props.soak.slope
        : props.soak?.state === 'rising'
          ? props.soak.slope
          : 0,
    tauS: props.soak?.tau ?? null,
    ...(ambient.value ? { ambientC: ambient.value.value } : {}),
    ...(volts.value ? { fanV: volts.value.value, voltageAt: 'fan' as const } : {}),
  }
  const isNew = kinds.some((k) => k.value === target.value)
  const id = isNew ? newId('run') : target.value
  const problem = store.change((d) => {
    const last = d.runs.toSorted((a, b) => b.takenAt.localeCompare(a.takenAt))[0]
    const kind = target.value as 'baseline' | 'after' | 'bench'
    if (isNew) {
      const changeNo =
        kind === 'after'
          ? Math.max(0, ...d.runs.filter((r) => r.kind === 'after').map((r) => r.changeNo ?? 1)) + 1
          : null
      d.runs.push({
        ...newRun(id, kind, new Date().toISOString()),
        name: props.log.name,
        changeNo,
        ...(last
          ? {
              lid: last.lid,
              distanceM: last.distanceM,
              instrument: last.instrument,
              heatW: last.heatW,
              who: last.who,
            }
          : { heatW: d.job.heatW }),
      })
    }
    const run = d.runs.find((r) => r.id === id)
    if (!run) return
    Object.assign(run, conditions)
    run.readings = [
      ...run.readings.filter((r) => !readings.some((x) => x.quantity === r.quantity && x.place === r.place)),
      ...readings,
    ]
  })
  if (!problem)
    toast.show(`${readings.length} readings taken into the run.`, {
      action: { label: 'Open it', run: () => navigateTo(`/job/${store.plan!.job.id}/log?run=${id}`) },
    })
}
</script>

<template>
  <section class="sheet stack" aria-label="Into a run">
    <h2>Into a run</h2>
    <ChoiceField v-model="target" label="Take it into" :options="options" />
    <el-checkbox v-if="soak?.state === 'predicted'" v-model="useEnd" class="small"
      >use the predicted end, not the last value</el-checkbox
    >
    <ul class="rows small">
      <li v-for="r in rows" :key="r.quantity + r.place">
        <span
          >{{ r.place }} <span class="soft">{{ r.what }}</span></span
        >
        <span class="mono">{{ show(r.value, r.quantity) }}</span>
      </li>
    </ul>
    <p v-if="!rows.length" class="small soft">Nothing in this window can be a reading.</p>
    <div>
      <el-button type="primary" :disabled="!rows.length" @click="take"> Take the readings </el-button>
    </div>
    <p class="small soft">
      Window of {{ show(windowS, 'duration') }}, ending {{ show(endS, 'duration') }} after the start.
    </p>
  </section>
</template>

<style scoped>
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
.rows li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
