<script setup lang="ts">
import type { DriveMode, Weights } from '#core/selection'

/** What the line-up is ranked by, how the fans may be driven, and what the shelf is narrowed to. */
const choice = defineModel<RankChoice>({ required: true })
defineProps<{ status: string }>()
const BUTTONS = 4
/** The ranking that is not one of the buttons. */
const further = computed({
  get: () => objectives.slice(BUTTONS).find((o) => o.value === choice.value.objective)?.value ?? null,
  set: (value) => {
    choice.value.objective = value ?? 'quietest'
  },
})
const drives: { value: DriveMode; label: string }[] = [
  { value: 'any', label: 'any voltage' },
  { value: 'rails', label: 'voltages that are there' },
  { value: 'rated', label: 'rated voltage' },
  { value: 'pwm', label: 'PWM, 4-wire fans' },
]
const weightNames: { key: keyof Weights; label: string }[] = [
  { key: 'quiet', label: 'quiet' },
  { key: 'margin', label: 'margin' },
  { key: 'power', label: 'little power' },
  { key: 'cheap', label: 'cheap' },
  { key: 'thin', label: 'thin' },
]
/** A fan that bolts in where the present one sat. */
const job = useJobStore()
const shelf = useShelfStore()
const { show } = useUnits()
const present = computed(() => shelf.known.find((f) => f.id === job.plan?.job.existingFanId) ?? null)
const asNow = computed({
  get: () => choice.value.filter.frameM !== null,
  set: (on) => {
    choice.value.filter.frameM = on ? (present.value?.frameM ?? null) : null
  },
})
const filtered = computed(() => {
  const { text, wires, connector, bearing, kind, priceMost } = choice.value.filter
  return [wires, connector, bearing, kind, priceMost].filter((x) => x !== null).length + (text ? 1 : 0)
})
</script>

<template>
  <div class="controls">
    <div class="head">
      <h2>Line-up</h2>
      <SegmentChoice v-model="choice.objective" label="Rank by" :options="objectives.slice(0, BUTTONS)" />
    </div>
    <div class="row filters small">
      <ChoiceField
        v-model="further"
        class="short"
        hide-label
        label="Rank by something else"
        :options="[{ value: null, label: 'rank by …' }, ...objectives.slice(BUTTONS)]"
      />
      <ChoiceField
        v-model="choice.drive"
        class="short"
        hide-label
        label="How the fans may be driven"
        :options="drives"
      />
      <el-checkbox v-model="choice.filter.fits">fits</el-checkbox>
      <el-checkbox v-model="choice.filter.owned">I own it</el-checkbox>
      <el-checkbox v-model="choice.pairs">mixed pairs</el-checkbox>
      <el-checkbox v-if="present || asNow" v-model="asNow"
        >frame as now{{ present ? `, ${show(present.frameM, 'length')}` : '' }}</el-checkbox
      >
    </div>
    <div class="row small last">
      <span class="soft" role="status">{{ status }}</span>
      <el-popover trigger="click" placement="bottom-end" :width="220" :persistent="false">
        <template #reference>
          <el-button size="small" text>Columns</el-button>
        </template>
        <el-checkbox-group v-model="choice.columns" class="columns" aria-label="Columns of the line-up">
          <el-checkbox v-for="c in rankColumns" :key="c.key" :value="c.key">{{ c.label }}</el-checkbox>
        </el-checkbox-group>
      </el-popover>
    </div>
    <div v-if="choice.objective === 'weights'" class="weights small">
      <div v-for="w in weightNames" :key="w.key">
        <span aria-hidden="true">{{ w.label }}</span>
        <SliderField v-model="choice.weights[w.key]" :label="w.label" :min="0" :max="1" :step="0.05" />
      </div>
    </div>
    <FoldBox class="small">
      <template #title>
        More filters<span v-if="filtered" class="aside">{{ filtered }} set</span>
      </template>
      <div class="fields tight">
        <TextField v-model="choice.filter.text" label="Maker, model or note" />
        <ChoiceField
          v-model="choice.most"
          label="Fans side by side"
          :options="[1, 2, 4, 8, 16].map((n) => ({ value: n, label: n === 1 ? 'one' : `up to ${n}` }))"
        />
        <ChoiceField
          v-model="choice.filter.wires"
          label="Wires"
          :options="[
            { value: null, label: 'any' },
            { value: 2, label: '2' },
            { value: 3, label: '3, tach' },
            { value: 4, label: '4, PWM' },
          ]"
        />
        <ChoiceField
          v-model="choice.filter.connector"
          label="Connector"
          :options="[
            { value: null, label: 'any' },
            ...Object.entries(connectorNames).map(([value, label]) => ({
              value: value as keyof typeof connectorNames,
              label,
            })),
          ]"
        />
        <ChoiceField
          v-model="choice.filter.bearing"
          label="Bearing"
          :options="[
            { value: null, label: 'any' },
            { value: 'no-sleeve', label: 'no sleeve (vertical, hot, shaken)' },
            { value: 'ball', label: 'ball' },
            { value: 'fluid', label: 'fluid' },
            { value: 'sleeve', label: 'sleeve' },
          ]"
        />
        <ChoiceField
          v-model="choice.filter.kind"
          label="Kind"
          :options="[
            { value: null, label: 'any' },
            { value: 'axial', label: 'axial' },
            { value: 'blower', label: 'blower' },
          ]"
        />
        <QuantityField v-model="choice.filter.priceMost" label="Price, at most" quantity="money" />
      </div>
    </FoldBox>
  </div>
</template>

<style scoped>
.head,
.last {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
}
.columns {
  display: grid;
}
.filters {
  gap: 4px 10px;
  margin: 6px 0 2px;
}
.filters .short {
  flex: 0 1 112px;
  min-width: 104px;
}
.filters :deep(.el-checkbox) {
  margin: 0;
  white-space: nowrap;
  display: inline-flex;
  align-items: center;
  min-height: 26px;
}
.filters :deep(.el-checkbox__label) {
  padding-left: 6px;
  font-size: 13px;
}
.weights {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: 4px 12px;
  margin: 4px 0;
}
.weights > div {
  display: grid;
  gap: 0;
}
</style>
