<script setup lang="ts">
import { newSource, setDrive, withNominal, type Source } from '#core/document'
import type { SupplyKind } from '#core/power'
import { usbBudgetOf, windowOf } from '#core/supply'

/** What feeds it: its kind, its window, what it can give. */
const { store, plan, report } = useJob('power')
const { show } = useUnits()
const source = computed(() => plan.value.source)
/** Rated voltage of the chosen fan: a source that comes in any voltage is taken at it. */
const fanV = computed(() => report.value.selection?.fanArray.model.fan.ratedV ?? null)
const choose = (kind: SupplyKind) =>
  store.change((d) => {
    d.source = {
      ...newSource(d.source?.id ?? newId('source'), kind, fanV.value),
      wireAwg: d.source?.wireAwg ?? null,
      wireMm2: d.source?.wireMm2 ?? null,
      wireLengthM: d.source?.wireLengthM ?? null,
    }
    // the pick keeps its voltage whatever feeds it: straight where the source has it, else through what makes it
    if (d.selection && d.source.nominalV)
      setDrive(d, { volts: d.selection.driveV, converterId: newId('converter') })
  })
const set = (key: keyof Source, value: unknown) =>
  store.change((d) => {
    if (key === 'nominalV' && d.source) d.source = withNominal(d.source, value as number | null)
    else assign(d.source, key, value)
    if (key === 'usbKind' && d.source) d.source.iMaxA = usbBudgetOf(d) ?? d.source.iMaxA
  }, `source.${key}`)
</script>

<template>
  <div class="sheet-head">
    <h2>What feeds it?</h2>
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
      :fields="sourceFields(source, windowOf(plan))"
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
    <p v-if="sourceNote(source.kind)" class="small soft">{{ sourceNote(source.kind) }}</p>
  </template>
</template>
