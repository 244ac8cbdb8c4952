<script setup lang="ts">
import type { Advice, DayModel, AmbientDay } from '#core/day'
import { usesWire } from '#core/day'
import { plannedFans, controlSchema, schoolKinds, type School, streamNames } from '#core/document'
import type { LogSummary } from '#shared/api'

/** What is told of the control in front, piece by piece. A finding opens the right one. */
const props = defineProps<{
  model: DayModel | null
  advice: Advice | null
  ambientOf: (log: LogSummary, channel: number) => Promise<AmbientDay | null>
}>()
const { plan, control, index, set, change, add, remove } = useControl()
const route = useRoute()
const pieces = [
  { value: 'how' as const, label: 'How' },
  { value: 'limits' as const, label: 'Limits' },
  { value: 'fails' as const, label: 'Fails' },
  { value: 'day' as const, label: 'Day' },
  { value: 'heat' as const, label: 'Heat' },
]
type Key = (typeof pieces)[number]['value']
const open = ref<Key>('how')
const holds = (fields: { key: string }[], key: string) => fields.some((f) => f.key === key)
function pieceOf(key: string): Key {
  if (key === 'parts' || key === 'links') return 'heat'
  if (holds([...dayFields, ...clockFields, ...daySunFields, ...idleField], key) || key === 'loads') return 'day'
  if (holds([...limitFields, ...pwmFields, ...chopFields], key)) return 'limits'
  if (holds(failFields({ ...control.value, school: 'host', tachAlarm: true }), key)) return 'fails'
  return 'how'
}
watch(
  () => route.hash,
  (hash) => {
    const key = /^#field-(.+)$/.exec(hash)?.[1]
    if (key) open.value = pieceOf(key)
  },
  { immediate: true },
)
const group = computed(() => props.model?.groups[index.value] ?? null)
const parts = computed(() => props.model?.parts ?? [])
const schools = schoolKinds.map((value) => ({ value, label: schoolNames[value] }))
const setMany = (values: Partial<typeof control.value>) =>
  change((c) => Object.assign(c, values), '', 'the control')
const wire = computed(() => usesWire(control.value, plan.value))
const chops = computed(() => control.value.actuator === 'chopped')
const switches = computed(() => ['contact', 'relay', 'thermal-switch'].includes(control.value.actuator ?? ''))
const fans = computed(() => plannedFans(plan.value)?.count ?? 1)
const streams = computed(() => [...streamNames(plan.value)].map(([id, name]) => ({ id, name })))
const others = computed(
  () => new Set(plan.value.controls.flatMap((c, i) => (i === index.value ? [] : c.streamIds))),
)
function steer(ids: (string | number | boolean)[]) {
  set('streamIds', ids.map(String), 'what it steers')
}
const several = computed(() => plan.value.controls.length > 1 || streams.value.length > 1)
const which = computed(() =>
  plan.value.controls.map((c, i) => ({ value: c.id, label: c.name || `Control ${i + 1}` })),
)
const turnTo = (id: string) => navigateTo({ query: { ...route.query, part: id } })
async function addOne() {
  const id = add()
  await nextTick()
  await turnTo(id)
}
</script>

<template>
  <section class="sheet stack forms">
    <div v-if="several" class="row">
      <SegmentChoice
        v-if="which.length > 1"
        :model-value="control.id"
        label="Control in front"
        :options="which"
        @update:model-value="turnTo"
      />
      <el-button v-if="which.length < streams.length" size="small" @click="addOne">+ Control</el-button>
    </div>
    <SegmentChoice v-model="open" label="What is told of the control" :options="pieces" />
    <template v-if="open === 'how'">
      <p v-if="!plan.controls.length" class="small soft">
        Nothing is planned yet: the fans are always on. Choose how they run, or take a school from the table.
      </p>
      <div class="fields tight">
        <ChoiceField
          label="The fans run"
          data-field="school"
          :model-value="control.school"
          :options="schools"
          @update:model-value="(s: School) => set('school', s, 'the school of control')"
        />
        <TextField
          v-if="several"
          label="Called"
          :model-value="control.name"
          @update:model-value="set('name', $event, 'its name')"
        />
      </div>
      <fieldset v-if="streams.length > 1" class="plain">
        <legend class="small soft">It steers</legend>
        <el-checkbox-group :model-value="control.streamIds" @change="steer">
          <el-checkbox
            v-for="s in streams"
            :key="s.id"
            :value="s.id"
            :label="s.name"
            :disabled="others.has(s.id)"
          />
        </el-checkbox-group>
      </fieldset>
      <FieldGrid
        tight
        :record="control"
        :fields="howFields(control, parts)"
        :shape="controlSchema.shape"
        @set="set"
      />
      <p v-if="group?.problem" class="error" role="alert">
        {{ group.problem.message }} Until then the day shows the fans as the plan drives them.
      </p>
      <p v-if="control.sense === 'humidity' && control.school === 'thermostat'" class="small soft">
        The air at its sensor is taken as the room’s, which keeps its moisture over the day; what the fans
        change of it is not counted.
      </p>
      <FieldGrid
        v-if="switches"
        tight
        :record="control"
        :fields="contactFields"
        :shape="controlSchema.shape"
        @set="set"
      />
      <AdviceLines v-if="advice" :advice="advice" :control="control" @set="setMany" />
      <FieldGrid
        tight
        :record="control"
        :fields="[{ key: 'price', label: 'Its parts cost', quantity: 'money' }]"
        :shape="controlSchema.shape"
        @set="set"
      />
      <div v-if="which.length > 1">
        <el-button size="small" text @click="remove">Remove this control</el-button>
      </div>
    </template>
    <template v-else-if="open === 'limits'">
      <FieldGrid tight :record="control" :fields="limitFields" :shape="controlSchema.shape" @set="set" />
      <DutyFinder
        @found="
          (min, start) =>
            setMany({
              ...(min === null ? {} : { minDuty: min }),
              ...(start === null ? {} : { startDuty: start }),
            })
        "
      />
      <template v-if="wire || chops">
        <FieldGrid
          tight
          :record="control"
          :fields="chops ? [...pwmFields, ...chopFields] : pwmFields"
          :shape="controlSchema.shape"
          @set="set"
        />
        <PwmHelper :control="control" :fans="fans" :wire="wire" @set="setMany" />
      </template>
    </template>
    <template v-else-if="open === 'fails'">
      <FailureTable v-if="advice" :failures="advice.failures" />
      <FieldGrid
        tight
        :record="control"
        :fields="failFields(control)"
        :shape="controlSchema.shape"
        @set="set"
      />
      <TachWords v-if="control.tachAlarm" :control="control" />
    </template>
    <DayForms v-else-if="open === 'day'" :model="model" :ambient-of="ambientOf" />
    <HeatForms v-else :model="model" :streams="streams" />
  </section>
</template>

<style scoped>
.plain {
  border: 0;
  padding: 0;
  margin: 0;
}
</style>
