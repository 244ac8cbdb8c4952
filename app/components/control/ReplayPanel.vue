<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import type { LogSummary } from '#shared/api'
import { areaPath, linePath, niceScale, yOf } from '~/charts/day-layout'
import type { ReplayView } from '~/workers/day.worker'

/** A logged run driven through the planned control: what it would have done, beside what the real one did. */
const props = defineProps<{
  jobId: string
  run: (log: LogSummary, temperature: number, duty: number | null) => Promise<ReplayView | null>
}>()
const { show } = useUnits()
const logs = ref<LogSummary[]>([])
const loaded = ref(false)
const logId = ref<string | null>(null)
const temperature = ref<number | null>(null)
const duty = ref<number | null>(null)
const made = shallowRef<ReplayView | null>(null)
const problem = ref('')
const busy = ref(false)
onMounted(async () => {
  const result = await api<LogSummary[]>(`jobs/${props.jobId}/logs`)
  if (result.ok) logs.value = result.data.filter((l) => l.channels.some((c) => c.quantity === 'temperature'))
  loaded.value = true
  logId.value = logs.value[0]?.id ?? null
})
const log = computed(() => logs.value.find((l) => l.id === logId.value) ?? null)
const of = (quantity: string): { value: number | null; label: string }[] =>
  (log.value?.channels ?? []).flatMap((c, i) => (c.quantity === quantity ? [{ value: i, label: c.name }] : []))
const temperatures = computed(() => of('temperature'))
const duties = computed(() => [{ value: null as number | null, label: 'not logged' }, ...of('ratio')])
watch(log, () => {
  temperature.value = temperatures.value[0]?.value ?? null
  duty.value = duties.value[1]?.value ?? null
  made.value = null
})
async function replay() {
  if (!log.value || temperature.value === null) return
  busy.value = true
  problem.value = ''
  made.value = await props.run(log.value, temperature.value, duty.value)
  busy.value = false
  if (!made.value)
    problem.value = 'It cannot be replayed: the control lacks a number, or the log cannot be read.'
}
const box = useTemplateRef<HTMLElement>('box')
const { width: boxWidth } = useElementSize(box)
const width = computed(() => Math.max(280, Math.round(boxWidth.value) || 600))
const LEFT = 44
const inner = computed(() => width.value - LEFT - 8)
const heat = computed(() =>
  niceScale(made.value ? [...made.value.temperature.low, ...made.value.temperature.high] : [], 10, 110),
)
const plannedScale = { from: 0, to: 1, top: 140, height: 30 }
const loggedScale = { from: 0, to: 1, top: 188, height: 30 }
const words = computed(() => {
  const m = made.value
  if (!m) return ''
  const gaps = m.gaps.length
    ? ` ${m.gaps.length === 1 ? 'One gap' : `${m.gaps.length} gaps`} in the log: there it goes to its safe duty, as with a dead sensor.`
    : ''
  const off =
    m.offBy === null ? '' : ` Its duty differs from the logged one by ${show(m.offBy, 'ratio')} in the mean.`
  const starts = `${m.starts} ${m.starts === 1 ? 'start' : 'starts'}`
  return `It would have run ${show(m.onS, 'duration')} of ${show(m.seconds, 'duration')}, with ${starts}.${off}${gaps}`
})
</script>

<template>
  <div class="stack">
    <p v-if="loaded && !logs.length" class="soft">
      No log with a temperature in this job yet: record or import one, and see what this control would have
      done.
      <NuxtLink :to="`/job/${jobId}/log/import`">Import a log</NuxtLink>
    </p>
    <template v-else-if="loaded">
      <div class="fields tight">
        <ChoiceField v-model="logId" label="Log" :options="logs.map((l) => ({ value: l.id, label: l.name }))" />
        <ChoiceField v-model="temperature" label="Stands for the sensor" :options="temperatures" />
        <ChoiceField v-model="duty" label="Duty of the real one" :options="duties" />
      </div>
      <div>
        <el-button size="small" :loading="busy" :disabled="temperature === null" @click="replay"
          >Replay it</el-button
        >
      </div>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <div v-if="made" ref="box" class="stack">
        <svg :viewBox="`0 0 ${width} 226`" :width="width" height="226" role="img" :aria-label="words">
          <text v-for="t in heat.ticks" :key="t" :x="LEFT - 5" :y="yOf(heat, t) + 4" text-anchor="end">
            {{ t }}°
          </text>
          <path class="warm" :d="linePath(made.temperature, LEFT, inner, heat)" />
          <text x="2" :y="plannedScale.top - 4">planned</text>
          <path class="fans" :d="areaPath(made.planned, LEFT, inner, plannedScale)" />
          <template v-if="made.logged">
            <text x="2" :y="loggedScale.top - 4">logged</text>
            <path class="logged" :d="areaPath(made.logged, LEFT, inner, loggedScale)" />
          </template>
        </svg>
        <p class="small" role="status">{{ words }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}
text {
  font: 11px var(--mono);
  fill: var(--ink-soft);
}
.warm {
  fill: none;
  stroke: var(--cap);
  stroke-width: 1.5;
}
.fans {
  fill: var(--teal);
}
.logged {
  fill: var(--bark);
}
</style>
