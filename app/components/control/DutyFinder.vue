<script setup lang="ts">
import { within } from '#core/document'

/** How the lowest and the start duty are found, and a form that takes what was found. */
const emit = defineEmits<{ found: [minDuty: number | null, startDuty: number | null] }>()
const { show } = useUnits()
const stopped = ref<number | null>(null)
const started = ref<number | null>(null)
/** Added to what was found: dust, cold, age. Common practice (handbook control 2). */
const POINTS = 0.05
const plus = (found: number | null) =>
  found === null ? null : Math.min(1, Math.round(100 * (found + POINTS)) / 100)
const min = computed(() => plus(stopped.value))
const start = computed(() => {
  const own = plus(started.value)
  return own === null || min.value === null ? own : Math.max(own, min.value)
})
const duty = within(0, 1)
</script>

<template>
  <FoldBox title="Find them with the fan itself">
    <ol class="small how">
      <li>Cold, at the lowest supply voltage that there will be.</li>
      <li>From full speed lower the duty by 2 % at a time, ten seconds each, until the tach stops.</li>
      <li>From rest raise it by 2 % at a time until it turns by itself.</li>
      <li>Five points are added to each; do it again after a year.</li>
    </ol>
    <div class="fields tight">
      <QuantityField v-model="stopped" label="It stopped at" quantity="ratio" :schema="duty" />
      <QuantityField v-model="started" label="It started at" quantity="ratio" :schema="duty" />
    </div>
    <p v-if="min !== null || start !== null" class="small">
      <span v-if="min !== null">Keeps turning from {{ show(min, 'ratio') }}. </span>
      <span v-if="start !== null">Starts from {{ show(start, 'ratio') }}. </span>
      <el-button size="small" @click="emit('found', min, start)">Put them in</el-button>
    </p>
  </FoldBox>
</template>

<style scoped>
.how {
  margin: 0;
  padding-left: 18px;
}
</style>
