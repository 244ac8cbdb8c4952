<script setup lang="ts">
import { LABEL_SHARE } from '#core/need'
import type { Uncertainty, HeatBasis } from '#core/document'

/** From what a maker can read to the heat inside: a wall meter, a label, a battery's voltage and current. */
const emit = defineEmits<{
  use: [watts: number, basis: HeatBasis, uncertainty: Uncertainty | null, working: string]
}>()
const { show } = useUnits()
type Way = 'meter' | 'label' | 'battery'
const way = ref<Way>('meter')
const watts = ref<number | null>(null)
const volts = ref<number | null>(null)
const amps = ref<number | null>(null)
const share = ref<number | null>(null)
const ways: { value: Way; label: string }[] = [
  { value: 'meter', label: 'a wall meter' },
  { value: 'label', label: 'the supply’s label' },
  { value: 'battery', label: 'volts and amps at a battery' },
]
const power = computed(() =>
  way.value === 'meter'
    ? watts.value
    : volts.value !== null && amps.value !== null
      ? volts.value * amps.value
      : null,
)
/** What of it becomes heat inside. */
const usual = computed(() => (way.value === 'label' ? LABEL_SHARE.value : 1))
const heat = computed(() => (power.value === null ? null : power.value * (share.value ?? usual.value)))
const drawer = ref<{ close: () => void }>()
function use() {
  if (heat.value === null || power.value === null) return
  const read =
    way.value === 'meter'
      ? `${show(power.value, 'power')} at the wall meter`
      : `${show(volts.value, 'voltage')} × ${show(amps.value, 'current')} ${way.value === 'label' ? 'on the label' : 'at the battery'}`
  const part = share.value ?? (way.value === 'label' ? LABEL_SHARE.value : null)
  const working = part === null ? read : `${read} × ${show(part, 'ratio')}`
  if (way.value !== 'label') emit('use', heat.value, 'measured', null, working)
  else if (share.value !== null) emit('use', heat.value, 'estimate', null, working)
  else
    emit(
      'use',
      heat.value,
      'estimate',
      {
        id: 'heatW',
        grade: 'range',
        low: power.value * LABEL_SHARE.low,
        high: power.value * LABEL_SHARE.high,
      },
      working,
    )
  drawer.value?.close()
}
</script>

<template>
  <HelperDrawer ref="drawer" title="Work the heat out">
    <div class="fields">
      <ChoiceField v-model="way" label="I can read" :options="ways" />
      <QuantityField v-if="way === 'meter'" v-model="watts" label="The meter shows" quantity="power" />
      <template v-else>
        <QuantityField
          v-model="volts"
          :label="way === 'label' ? 'Output voltage on it' : 'Voltage at it'"
          quantity="voltage"
        />
        <QuantityField
          v-model="amps"
          :label="way === 'label' ? 'Output current on it' : 'Current drawn'"
          quantity="current"
        />
      </template>
      <QuantityField
        v-model="share"
        label="Share that stays inside as heat"
        quantity="ratio"
        :hint="
          way === 'label'
            ? 'empty: 25 to 70 %, as labels give the most'
            : 'less what leaves as light, charge or motion; empty: all'
        "
      />
      <el-button :disabled="heat === null" @click="use">
        {{ heat === null ? 'Use this heat' : `Use ${show(heat, 'power')}` }}
      </el-button>
    </div>
  </HelperDrawer>
</template>

<style scoped>
.fields .el-button {
  align-self: end;
  justify-content: center;
}
</style>
