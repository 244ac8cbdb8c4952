<script setup lang="ts">
import {
  plannedFans,
  driveVolts,
  feedPartSchema,
  leadOfFans,
  setDrive,
  sourceOf,
  wiringSchema,
  type FeedPart,
  type Wiring,
} from '#core/document'
import { DROP_LIMIT, fansNodeOf, fuseFamilyOf, fuseFor } from '#core/supply'

/** The fans' own voltage, the lead that reaches them, and how its wires are joined. */
const { store, plan, report } = useJob('power')
const { show } = useUnits()
const source = computed(() => sourceOf(plan.value))
const lead = computed(() => leadOfFans(plan.value))
const parents = computed(() => (lead.value ? parentOptions(plan.value, lead.value.id) : []))
function driveAt(volts: number | null) {
  const converterId = newId('converter')
  if (volts !== null) store.change((d) => setDrive(d, { volts, converterId }), 'selection.drive')
}
const set = (key: keyof FeedPart, value: unknown) =>
  store.change((d) => assign(leadOfFans(d), key, value), `lead.${key}`)
const setWiring = (key: keyof Wiring, value: unknown) =>
  store.change((d) => assign(d.wiring, key, value), `wiring.${key}`)
const node = computed(() => fansNodeOf(plan.value, report.value.power.feed) ?? null)
/** What the lead to the fans may be, in words. */
const words = computed(() => {
  const n = node.value
  if (!n?.lead) return ''
  const { lead } = n
  const fuse = fuseFor(n, fuseFamilyOf(source.value))
  return [
    lead.ampacityA === null
      ? 'Choose a gauge: its drop and what it carries follow'
      : `It carries ${show(lead.ampacityA, 'current')}`,
    lead.longestM === null
      ? ''
      : `may be ${show(lead.longestM, 'distance')} long for a loss of ${100 * DROP_LIMIT} %`,
    lead.lengthM === null || lead.awg === null
      ? ''
      : `loses ${show(lead.dropV, 'voltage')} and ${show(lead.lossW, 'power')} now`,
    fuse === null ? '' : `fuse it with ${show(fuse, 'current')}: that carries the start and protects the wire`,
  ]
    .filter(Boolean)
    .join('; ')
})
</script>

<template>
  <div class="sheet-head">
    <h2>Lead to the fans</h2>
    <QuantityField
      v-if="plannedFans(plan)"
      class="drive"
      label="Drive voltage of the pick"
      quantity="voltage"
      required
      :schema="feedPartSchema.shape.wishV"
      :model-value="driveVolts(plan) ?? report.selection?.fanArray.model.fan.ratedV ?? null"
      @update:model-value="driveAt($event)"
    />
  </div>
  <p v-if="!lead" class="soft small">Choose what feeds it first: the lead hangs on it.</p>
  <template v-else>
    <FieldGrid
      tight
      :record="lead"
      :fields="fansLeadFields(parents)"
      :shape="feedPartSchema.shape"
      @set="set"
    />
    <p v-if="words" class="small soft">{{ words }}.</p>
    <FoldBox title="Colours, connector, how it is joined">
      <FieldGrid
        tight
        :record="plan.wiring"
        :fields="wiringFields(plan.wiring)"
        :shape="wiringSchema.shape"
        @set="setWiring"
      />
    </FoldBox>
    <FoldBox title="Tach and PWM wires">
      <FieldGrid
        tight
        :record="plan.wiring"
        :fields="controlWireFields(plan.wiring)"
        :shape="wiringSchema.shape"
        @set="setWiring"
      />
      <p class="small soft apart">
        One tach lead to one input, the others open and insulated. PWM may be shared: the driver sinks 5 mA for
        each fan. An open PWM pin is full speed, a grounded one the lowest speed or stop; 12 V on it destroys
        it.
      </p>
    </FoldBox>
  </template>
</template>

<style scoped>
.apart {
  margin-top: 10px;
}
.drive {
  width: 170px;
}
</style>
