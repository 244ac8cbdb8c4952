<script setup lang="ts">
import {
  fanStateSchema,
  isOneOfSeveral,
  samePlace,
  stageOf,
  stageStateSchema,
  type FanState,
  type Run,
  type StageState,
} from '#core/document'

/** What each stage of a run was: its load and soak, and what the fans of every air stream did in it. */
const props = defineProps<{ run: Run }>()
const store = useJobStore()
const streams = computed(() =>
  store.report!.streams.map((s) => ({ id: s.id, name: isOneOfSeveral(store.plan!) ? s.name : 'The fans' })),
)
/** '' is the run's own stage, whose load and soak stand among its conditions. */
const own = computed(() => props.run.stage || 'working')
const stages = computed(() => {
  const others = [
    ...props.run.readings.map((r) => stageOf(props.run, r)),
    ...props.run.stages.map((s) => s.stage),
    ...props.run.fans.map((f) => f.stage || own.value),
  ].filter((s) => !samePlace(s, own.value))
  return ['', ...others.filter((s, i) => others.findIndex((o) => samePlace(o, s)) === i)]
})
const change = (apply: (run: Run) => void, key: string) =>
  store.change((d) => {
    const run = d.runs.find((r) => r.id === props.run.id)
    if (run) apply(run)
  }, key)

const stateOf = (stage: string) => props.run.stages.find((s) => samePlace(s.stage, stage)) ?? null
const setState = (stage: string, key: 'heatW' | 'soakS', value: number | null) =>
  change((run) => {
    const at = run.stages.find((s) => samePlace(s.stage, stage))
    if (at) at[key] = value
    else run.stages.push({ id: newId('stage'), stage, heatW: null, soakS: null, [key]: value } as StageState)
  }, `run.${props.run.id}.${stage}.${key}`)

const isFor = (f: FanState, stage: string, stream: string) =>
  f.streamId === stream && samePlace(f.stage || own.value, stage || own.value)
const fanOf = (stage: string, stream: string) => props.run.fans.find((f) => isFor(f, stage, stream)) ?? null
const setFan = (stage: string, stream: string, key: 'off' | 'volts' | 'duty', value: boolean | number | null) =>
  change((run) => {
    const at = run.fans.find((f) => isFor(f, stage, stream))
    if (at) Object.assign(at, { [key]: value })
    else
      run.fans.push({
        id: newId('fans'),
        stage,
        streamId: stream,
        off: key === 'volts' || key === 'duty' ? false : null,
        volts: null,
        duty: null,
        [key]: value,
      })
  }, `run.${props.run.id}.${stage}.${stream}.${key}`)
const running = [
  { value: null, label: 'not noted' },
  { value: false, label: 'on' },
  { value: true, label: 'off' },
]
</script>

<template>
  <div class="stack">
    <fieldset v-for="stage in stages" :key="stage" class="stage">
      <legend>{{ stage || own }}</legend>
      <div v-if="stage" class="pair">
        <QuantityField
          :label="`Load, ${stage}`"
          quantity="power"
          :schema="stageStateSchema.shape.heatW"
          :model-value="stateOf(stage)?.heatW ?? null"
          @update:model-value="setState(stage, 'heatW', $event)"
        />
        <QuantityField
          :label="`Soaked, ${stage}`"
          quantity="duration"
          :schema="stageStateSchema.shape.soakS"
          :model-value="stateOf(stage)?.soakS ?? null"
          @update:model-value="setState(stage, 'soakS', $event)"
        />
      </div>
      <div v-for="s in streams" :key="s.id" class="fans">
        <ChoiceField
          :label="s.name"
          :model-value="fanOf(stage, s.id)?.off ?? null"
          :options="running"
          @update:model-value="setFan(stage, s.id, 'off', $event)"
        />
        <template v-if="fanOf(stage, s.id)?.off !== true">
          <QuantityField
            :label="`Voltage, ${s.name}`"
            quantity="voltage"
            :schema="fanStateSchema.shape.volts"
            :model-value="fanOf(stage, s.id)?.volts ?? null"
            @update:model-value="setFan(stage, s.id, 'volts', $event)"
          />
          <QuantityField
            :label="`Duty, ${s.name}`"
            quantity="ratio"
            :schema="fanStateSchema.shape.duty"
            :model-value="fanOf(stage, s.id)?.duty ?? null"
            @update:model-value="setFan(stage, s.id, 'duty', $event)"
          />
        </template>
      </div>
    </fieldset>
    <p class="small soft">
      Readings of a stage count with its own load and soak. A reading in another stage adds that stage here.
    </p>
  </div>
</template>

<style scoped>
.stage {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 6px 0 0;
  margin: 0;
}
.stage legend {
  font-weight: 700;
  padding-right: 8px;
}
.pair,
.fans {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
  align-items: end;
  margin-bottom: 6px;
}
</style>
