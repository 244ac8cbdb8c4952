<script setup lang="ts">
import type { AmbientDay, DayModel } from '#core/day'
import { dayKinds, daySchema, loadStepSchema, type DayKind } from '#core/document'
import type { LogSummary } from '#shared/api'

/** The air, the work and the light of the days; the week that they make. */
const props = defineProps<{
  model: DayModel | null
  ambientOf: (log: LogSummary, channel: number) => Promise<AmbientDay | null>
}>()
const { plan, told, setDay, changeDay, listOf } = useControl()
const { show } = useUnits()
const loads = listOf('loads')
const kindWords: Record<DayKind, string> = { cold: 'cold', usual: 'usual', hot: 'hottest' }
const kinds = dayKinds.map((value) => ({ value, label: kindWords[value] }))
const setWeek = (i: number, kind: DayKind) =>
  changeDay(
    (d) => {
      const week = [...d.week]
      while (week.length < 7) week.push('usual')
      week[i] = kind
      d.week = week
    },
    `week.${i}`,
    'the week',
  )
const setRest = (i: number, works: boolean) =>
  changeDay(
    (d) => (d.restDays = works ? d.restDays.filter((r) => r !== i) : [...d.restDays, i]),
    '',
    'the week',
  )
const logs = ref<LogSummary[]>([])
onMounted(async () => {
  const result = await api<LogSummary[]>(`jobs/${plan.value.job.id}/logs`)
  if (result.ok) logs.value = result.data
})
const airs = computed(() =>
  logs.value.flatMap((log) =>
    log.channels.flatMap((c, channel) =>
      c.quantity === 'temperature' ? [{ value: `${log.id}/${channel}`, label: `${log.name}, ${c.name}` }] : [],
    ),
  ),
)
/** Nothing is taken until somebody does. */
const route = useRoute()
const clockOpen = computed(() => clockFields.some((f) => route.hash === `#field-${f.key}`))
const noAir: string | null = null
const said = ref('')
async function takeAir(key: string | null) {
  if (!key) return
  const [id, channel] = key.split('/')
  const log = logs.value.find((l) => l.id === id)!
  const day = await props.ambientOf(log, Number(channel))
  if (!day) {
    said.value = 'Less than a quarter of a day was logged there: it is no day.'
    return
  }
  const name = airs.value.find((a) => a.value === key)!.label
  changeDay(
    (d) => {
      d.ambient = day.points
      d.ambientFrom = name.slice(0, 120)
    },
    '',
    'the air of the usual day',
  )
  const gap = show(day.longestGapS, 'duration')
  said.value = day.missing
    ? `${day.missing} half hours are missing in the log, the longest time without is ${gap}: straight lines stand in.`
    : ''
}
const dropAir = () =>
  changeDay(
    (d) => {
      d.ambient = []
      d.ambientFrom = ''
    },
    '',
    'the air of the usual day',
  )
/** Every load is 0 although something could warm. */
const nothingWarms = computed(
  () =>
    (props.model?.parts.length ?? 0) > 0 &&
    props.model!.idleW === 0 &&
    props.model!.loads.every((l) => l.watts === 0),
)
const assumed = computed(() => {
  const weather = props.model?.weather
  if (!weather) return []
  return dayKinds.flatMap((k) =>
    weather[k].assumed
      ? [
          `${kindWords[k]} day ${show(weather[k].lowC, 'temperature')} to ${show(weather[k].highC, 'temperature')}`,
        ]
      : [],
  )
})
</script>

<template>
  <p v-if="assumed.length" class="small soft">Assumed until it is told: {{ assumed.join('; ') }}.</p>
  <FieldGrid tight :record="told" :fields="dayFields" :shape="daySchema.shape" @set="setDay" />
  <FoldBox title="Night, light, warmest hour" :open="clockOpen">
    <FieldGrid tight :record="told" :fields="clockFields" :shape="daySchema.shape" @set="setDay" />
  </FoldBox>
  <div v-if="airs.length" class="row">
    <ChoiceField
      label="Usual day from a log"
      :model-value="noAir"
      :options="[{ value: noAir, label: told.ambientFrom || 'none' }, ...airs]"
      @update:model-value="takeAir"
    />
    <el-button v-if="told.ambient.length" size="small" @click="dropAir">As typed again</el-button>
  </div>
  <p v-if="said" class="small" role="status">{{ said }}</p>
  <h3>Work over the day</h3>
  <p v-if="model?.loadAssumed" class="small soft">
    Assumed: the heat of the Need, {{ show(model.idleW, 'power') }}, all day long.
  </p>
  <p v-else-if="nothingWarms" class="small">
    <StateMark state="not-begun" /> No heat over the whole day: nothing warms, and no control has anything to
    do.
  </p>
  <FieldGrid tight :record="told" :fields="idleField" :shape="daySchema.shape" @set="setDay" />
  <div data-field="loads">
    <RecordList
      :records="told.loads"
      :fields="() => loadFields"
      :shape="loadStepSchema.shape"
      add="+ Work"
      :name-of="(l) => l.name"
      :most="24"
      @add="loads.add(newLoad(plan.job.heatW ?? 10))"
      @set="loads.set"
      @remove="loads.remove($event, told.loads[$event]!.name)"
    />
  </div>
  <template v-if="plan.battery || plan.sun">
    <h3>Battery and sun</h3>
    <FieldGrid tight :record="told" :fields="daySunFields" :shape="daySchema.shape" @set="setDay" />
  </template>
  <FoldBox title="The week">
    <div class="week">
      <div v-for="i in 7" :key="i" class="row">
        <ChoiceField
          :label="`Day ${i}`"
          :model-value="told.week[i - 1] ?? 'usual'"
          :options="kinds"
          @update:model-value="setWeek(i - 1, $event)"
        />
        <el-checkbox
          :model-value="!told.restDays.includes(i - 1)"
          :aria-label="`Work on day ${i}`"
          @change="setRest(i - 1, $event === true)"
          >work</el-checkbox
        >
      </div>
    </div>
  </FoldBox>
</template>

<style scoped>
.week {
  display: grid;
  gap: 4px;
}
</style>
