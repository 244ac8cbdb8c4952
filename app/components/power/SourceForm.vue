<script setup lang="ts">
import { newSource, setDrive, withNominal, type StreamPlan, type Source } from '#core/document'
import type { SupplyKind } from '#core/power'
import { usbBudgetOf, windowOf } from '#core/supply'

/** What feeds it: its kind, its window, what it can give; the first source, or a further one by its id. */
const props = defineProps<{ id?: string }>()
const emit = defineEmits<{ gone: [] }>()
const { store, plan, report } = useJob('power')
const { show } = useUnits()
const sourceIn = (d: StreamPlan) =>
  props.id === undefined ? d.source : (d.sources.find((s) => s.id === props.id) ?? null)
const source = computed(() => sourceIn(plan.value))
/** Rated voltage of the chosen fan: a source that comes in any voltage is taken at it. */
const fanV = computed(() => report.value.selection?.fanArray.model.fan.ratedV ?? null)
/** Puts a changed source in the place of the one that is open. */
function replace(d: StreamPlan, next: Source) {
  if (props.id === undefined) d.source = next
  else d.sources = d.sources.map((s) => (s.id === props.id ? next : s))
}
const choose = (kind: SupplyKind) =>
  store.change((d) => {
    const now = sourceIn(d)
    replace(d, {
      ...newSource(now?.id ?? newId('source'), kind, fanV.value),
      wireAwg: now?.wireAwg ?? null,
      wireMm2: now?.wireMm2 ?? null,
      wireLengthM: now?.wireLengthM ?? null,
    })
    if (props.id !== undefined || !d.source) return
    // the pick keeps its voltage whatever feeds it: straight where the source has it, else through what makes it
    if (d.selection && d.source.nominalV)
      setDrive(d, { volts: d.selection.driveV, converterId: newId('converter') })
  })
const set = (key: keyof Source, value: unknown) =>
  store.change(
    (d) => {
      const now = sourceIn(d)
      if (!now) return
      if (key === 'nominalV') replace(d, withNominal(now, value as number | null))
      else assign(now, key, value)
      if (key === 'usbKind') now.iMaxA = usbBudgetOf(now) ?? now.iMaxA
    },
    `source.${props.id ?? ''}.${key}`,
  )
/** Takes a further source away; what hung on it hangs on the first one. */
function remove() {
  store.removeWithUndo(`${source.value?.name || 'Source'} removed.`, (d) => {
    d.sources = d.sources.filter((s) => s.id !== props.id)
    for (const part of d.feed) if (part.parentId === props.id) part.parentId = null
  })
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
    <div v-if="id !== undefined">
      <el-button text size="small" @click="remove">Take {{ source.name || 'this source' }} away</el-button>
    </div>
    <p v-if="sourceNote(source.kind)" class="small soft">{{ sourceNote(source.kind) }}</p>
  </template>
</template>
