<script setup lang="ts">
import {
  plannedFans,
  addSource,
  converterOf,
  driveVolts,
  newSource,
  removeSource,
  setDrive,
  sourceOf,
  withNominal,
  type StreamPlan,
  type Source,
} from '#core/document'
import type { SupplyKind } from '#core/power'
import { usbBudgetOf, windowOf } from '#core/supply'

/** What feeds it: its kind, its window, what it can give; that of the stream's fans, or one by its id. */
const props = defineProps<{ id?: string }>()
const emit = defineEmits<{ gone: [] }>()
const { store, plan, report } = useJob('power')
const { show } = useUnits()
const sourceIn = (d: StreamPlan) =>
  props.id === undefined ? sourceOf(d) : (d.sources.find((s) => s.id === props.id) ?? null)
const source = computed(() => sourceIn(plan.value))
/** Rated voltage of the chosen fan: a source that comes in any voltage is taken at it. */
const fanV = computed(() => report.value.selection?.fanArray.model.fan.ratedV ?? null)
/** So far from its rated voltage a fan that hangs straight on its source is driven at what that source happens to have. */
const AS_RATED = 0.1
/** What the fans are to be driven at by whatever feeds them, V. */
function keptDrive(d: StreamPlan): number | null {
  const drive = driveVolts(d)
  const rated = fanV.value
  const asRated = drive !== null && rated !== null && Math.abs(drive - rated) < AS_RATED * rated
  return drive === null || (asRated && !converterOf(d)) ? rated : drive
}
const choose = (kind: SupplyKind) =>
  store.change((d) => {
    const now = sourceIn(d)
    const driveV = keptDrive(d)
    const next = newSource(now?.id ?? newId('source'), kind, fanV.value)
    if (now) d.sources[d.sources.indexOf(now)] = next
    else addSource(d, next)
    // the pick keeps its voltage whatever feeds it: straight where the source has it, else through what makes it
    if (plannedFans(d) && driveV !== null && next.nominalV && sourceOf(d)?.id === next.id)
      setDrive(d, { volts: driveV, converterId: newId('converter') })
  })
const set = (key: keyof Source, value: unknown) =>
  store.change((d) => {
    const now = sourceIn(d)
    if (!now) return
    if (key === 'nominalV') Object.assign(now, withNominal(now, value as number | null))
    else assign(now, key, value)
    if (key === 'usbKind') now.iMaxA = usbBudgetOf(now) ?? now.iMaxA
  }, `source.${source.value?.id}.${key}`)
/** What hung on a source that goes hangs on the first one left. */
function remove() {
  const { id, name } = source.value!
  store.removeWithUndo(`${name || 'Source'} removed.`, (d) => removeSource(d, id))
  emit('gone')
}
</script>

<template>
  <div class="sheet-head">
    <h2>{{ id === undefined ? 'What feeds it?' : source?.name || 'A further source' }}</h2>
    <ChoiceField
      class="wide-choice"
      label="Kind of source"
      hide-label
      :model-value="(source?.kind ?? 'none') as SupplyKind"
      :options="sourceKinds"
      @update:model-value="choose($event)"
    />
  </div>
  <p v-if="!source" class="soft">
    Choose the source: its window and current are filled in as usual values, which you then correct from its
    label or a meter.
  </p>
  <template v-else>
    <FieldGrid
      tight
      :record="source"
      :fields="sourceFields(source, windowOf(plan, source))"
      :shape="sourceShape(source)"
      @set="set"
    />
    <div class="row" role="group" aria-label="Usual voltages">
      <el-button
        v-for="v in usualVoltages"
        :key="v"
        size="small"
        :aria-pressed="source.nominalV === v"
        @click="set('nominalV', v)"
      >
        {{ v }} V
      </el-button>
      <span v-if="fanV !== null" class="small soft">the fan is for {{ show(fanV, 'voltage') }}</span>
    </div>
    <div v-if="plan.sources.length > 1">
      <el-button text size="small" @click="remove">Take {{ source.name || 'this source' }} away</el-button>
    </div>
    <p v-if="sourceNote(source.kind)" class="small soft">{{ sourceNote(source.kind) }}</p>
  </template>
</template>
