<script setup lang="ts">
import { wallLoss, walls } from '#core/need'
import type { Uncertainty } from '#core/document'

/** Wall loss of a box from its material and outer sides. */
const emit = defineEmits<{ use: [conductance: number, uncertainty: Uncertainty, working: string] }>()
const { show } = useUnits()
const material = ref(walls[0]!.key)
const placement = ref<'free-standing' | 'wall'>('free-standing')
const height = ref<number | null>(null)
const width = ref<number | null>(null)
const depth = ref<number | null>(null)
const options = walls.map((w) => ({ value: w.key, label: w.name }))
const loss = computed(() =>
  height.value && width.value && depth.value
    ? wallLoss(
        walls.find((w) => w.key === material.value)!,
        height.value,
        width.value,
        depth.value,
        placement.value,
      )
    : null,
)
const drawer = ref<{ close: () => void }>()
function use() {
  const { value, low, high } = loss.value!
  const sides = [height.value, width.value, depth.value].map((v) => show(v, 'distance')).join(' × ')
  const wall = walls.find((w) => w.key === material.value)!.name
  emit('use', value, { id: 'wallLossWK', grade: 'range', low, high }, `${wall}, ${sides}`)
  drawer.value?.close()
}
</script>

<template>
  <HelperDrawer ref="drawer" title="Work the wall loss out">
    <div class="fields">
      <ChoiceField v-model="material" label="Walls of" :options="options" />
      <ChoiceField
        v-model="placement"
        label="It stands"
        :options="[
          { value: 'free-standing', label: 'free on all sides' },
          { value: 'wall', label: 'with its back to a wall' },
        ]"
      />
      <QuantityField v-model="height" label="Outer height" quantity="distance" />
      <QuantityField v-model="width" label="Outer width" quantity="distance" />
      <QuantityField v-model="depth" label="Outer depth" quantity="distance" />
      <el-button :disabled="!loss" @click="use">
        {{ loss ? `Use ${show(loss.value, 'thermalConductance')}` : 'Use this loss' }}
      </el-button>
    </div>
    <p class="small soft">
      Heat passage by material is common practice, effective area after the enclosure temperature-rise method.
      Better than any table: heat the closed box with a known power and read the rise.
    </p>
  </HelperDrawer>
</template>

<style scoped>
.fields .el-button {
  align-self: end;
  justify-content: center;
}
</style>
