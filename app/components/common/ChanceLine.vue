<script setup lang="ts">
/** How often the need is met when every doubted number is drawn anew. */
const doubt = useDoubtReport()
const { show, bare } = useUnits()
const percent = computed(() => (doubt.value?.chance == null ? null : Math.round(100 * doubt.value.chance)))
</script>

<template>
  <p v-if="doubt && percent !== null && doubt.flow" class="small chance">
    Meets the need in <strong class="mono">{{ percent }} %</strong> of {{ doubt.cases }} drawn cases:
    <span class="mono">{{ bare(doubt.flow.low, 'flow') }} to {{ show(doubt.flow.high, 'flow') }}</span> in nine
    of ten, by the doubt of need, path and fan.
  </p>
</template>

<style scoped>
.chance {
  color: var(--ink-soft);
}
</style>
