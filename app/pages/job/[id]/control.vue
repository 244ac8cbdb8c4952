<script setup lang="ts">
import { plannedFans } from '#core/document'
import type { ShownDay } from '~/workers/day.worker'

definePageMeta({ station: 'control' })

const { plan, report, findings, control, index, take } = useControl()
const { show } = useUnits()
const kind = ref<ShownDay>('hot')
const kinds = [
  { value: 'cold' as const, label: 'Cold' },
  { value: 'usual' as const, label: 'Usual' },
  { value: 'hot' as const, label: 'Hot' },
  { value: 'three' as const, label: 'All' },
  { value: 'week' as const, label: 'Week' },
]
const view = ref<'day' | 'curve' | 'replay'>('day')
const route = useRoute()
watch(
  () => route.hash,
  (hash) => {
    if (hash === '#field-points') view.value = 'curve'
  },
  { immediate: true },
)
const onCurve = computed(() => control.value.school === 'curve' || control.value.school === 'host')
const views = computed(() => [
  { value: 'day' as const, label: 'The day' },
  ...(onCurve.value ? [{ value: 'curve' as const, label: 'The curve' }] : []),
  { value: 'replay' as const, label: 'Replay' },
])
watch(onCurve, (on) => {
  if (!on && view.value === 'curve') view.value = 'day'
})
const day = useDay(kind, index)
const fans = computed(() => plannedFans(plan.value) !== null && report.value.selection !== null)
const planned = computed(() => plan.value.controls.length > 0)
const nightLimit = computed(() => {
  const limits = plan.value.targets
    .filter((t) => t.kind === 'level' && /night/i.test(t.stage))
    .map((t) => t.limit)
  return limits.length ? Math.min(...limits) : null
})
const figures = computed(() => report.value.day?.figures ?? [])
/** What drawing the doubts told, in a line. */
const drawnWords = computed(() => {
  const d = day.drawn.value
  const m = day.model.value
  if (!d || !m) return ''
  const peaks = m.parts.map(
    (p, i) => `${p.name} ${show(d.peakC[i]!.low, 'temperature')} to ${show(d.peakC[i]!.high, 'temperature')}`,
  )
  const holds = d.holds === null ? '' : `; every limit holds in ${Math.round(100 * d.holds)} of 100`
  return `95 of 100 such days: ${peaks.join(', ')}${holds}.`
})
</script>

<template>
  <p v-if="!fans" class="sheet soft">
    Pick a fan in the Line-up: the day is simulated with the air that it really moves.
    <NuxtLink :to="`/job/${plan.job.id}/line-up`">To the Line-up</NuxtLink>
  </p>
  <div v-else class="stack">
    <div class="layout">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2 class="visually-hidden">The day, before you build it</h2>
          <SegmentChoice v-model="view" label="Show" :options="views" />
          <template v-if="view === 'day'">
            <SegmentChoice v-model="kind" label="Which day" :options="kinds" />
            <el-button
              v-if="kind !== 'week' && kind !== 'three' && !day.long.value"
              size="small"
              @click="day.draw"
            >
              How sure?
            </el-button>
          </template>
        </div>
        <dl v-if="figures.length" class="figures">
          <div v-for="f in figures" :key="f.key">
            <dt class="small soft">{{ f.label }}</dt>
            <dd><FigureValue :figure="f" /></dd>
          </div>
        </dl>
        <template v-if="view === 'day'">
          <DayChart
            v-if="day.view.value"
            :view="day.view.value"
            :control="control"
            :night-limit="nightLimit"
            :drawn="day.drawn.value"
          />
          <el-skeleton v-else :rows="6" animated />
          <div v-if="day.long.value?.what === 'drawn'" class="row small">
            <el-progress
              :percentage="Math.round(100 * day.long.value.share)"
              :stroke-width="8"
              class="bar"
              aria-label="Days drawn"
            />
            <el-button size="small" @click="day.stop">Stop</el-button>
          </div>
          <p v-if="drawnWords" class="small" role="status">{{ drawnWords }}</p>
        </template>
        <CurveEditor
          v-else-if="view === 'curve'"
          :model="day.model.value"
          :quietest="day.quietest.value"
          :searching="day.long.value?.what === 'quietest' ? day.long.value.share : null"
          @search="day.search"
          @stop="day.stop"
        />
        <ReplayPanel v-else :job-id="plan.job.id" :run="day.replayLog" />
      </section>
      <div class="stack">
        <ControlForms :model="day.model.value" :advice="day.advice.value" :ambient-of="day.ambientOf" />
        <section class="sheet">
          <FindingList :findings="findings" empty="Nothing to fix in what has been checked." />
        </section>
      </div>
    </div>
    <SchoolTable :rows="day.schools.value" :planned="planned" @take="take" />
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(104px, 1fr));
  gap: 8px;
  margin: 0;
}
.figures dd {
  margin: 0;
}
.bar {
  width: 140px;
}
@media (max-width: 960px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
