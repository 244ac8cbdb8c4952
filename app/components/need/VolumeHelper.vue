<script setup lang="ts">
import { boxVolume, cylinderVolume, roofVolume } from '#core/need'

/** Volume from the sides of a box, the space under a gable roof, or a round tank. */
const emit = defineEmits<{ use: [volume: number, working: string] }>()
const { show } = useUnits()
type Form = 'box' | 'roof' | 'round'
const form = ref<Form>('box')
const forms: { value: Form; label: string }[] = [
  { value: 'box', label: 'a box or room' },
  { value: 'roof', label: 'a space under a gable roof' },
  { value: 'round', label: 'a round tank or tub' },
]
const first = ref<number | null>(null)
const second = ref<number | null>(null)
const height = ref<number | null>(null)
const filled = ref<number | null>(null)
const volume = computed(() => {
  if (!first.value || !height.value || (form.value !== 'round' && !second.value)) return null
  const whole =
    form.value === 'round'
      ? cylinderVolume(first.value, height.value)
      : form.value === 'roof'
        ? roofVolume(first.value, second.value!, height.value)
        : boxVolume(first.value, second.value!, height.value)
  return whole * (1 - (filled.value ?? 0))
})
const drawer = ref<{ close: () => void }>()
function use() {
  const sides = (
    form.value === 'round' ? [first.value, height.value] : [first.value, second.value, height.value]
  )
    .map((v) => show(v, 'distance'))
    .join(' × ')
  const less = filled.value ? `, less ${show(filled.value, 'ratio')}` : ''
  const shape = form.value === 'roof' ? 'half of ' : form.value === 'round' ? 'round, Ø × height ' : ''
  emit('use', volume.value!, `${shape}${sides}${less}`)
  drawer.value?.close()
}
</script>

<template>
  <HelperDrawer ref="drawer" title="Work the volume out">
    <div class="fields">
      <ChoiceField v-model="form" label="It is" :options="forms" />
      <QuantityField
        v-model="first"
        :label="form === 'round' ? 'Diameter' : 'Inside length'"
        quantity="distance"
      />
      <QuantityField
        v-if="form !== 'round'"
        v-model="second"
        :label="form === 'roof' ? 'Width at the floor' : 'Inside width'"
        quantity="distance"
      />
      <QuantityField
        v-model="height"
        :label="form === 'roof' ? 'Height to the ridge' : 'Inside height'"
        quantity="distance"
      />
      <QuantityField v-model="filled" label="Filled with things" quantity="ratio" hint="empty: nothing" />
      <el-button :disabled="volume === null" @click="use">
        {{ volume === null ? 'Use this volume' : `Use ${show(volume, 'volume')}` }}
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
