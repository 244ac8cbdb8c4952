<script setup lang="ts">
/** How often the need is met when every doubted number is drawn anew. */
const uncertainty = useUncertaintyReport()
const { show, bare } = useUnits()
const percent = computed(() =>
  uncertainty.value?.chance == null ? null : Math.round(100 * uncertainty.value.chance),
)
</script>

<template>
  <p v-if="uncertainty && percent !== null && uncertainty.flow" class="small chance">
    Meets the need in <strong class="mono">{{ percent }} %</strong> of {{ uncertainty.cases }} drawn cases:
    <span class="mono"
      >{{ bare(uncertainty.flow.low, 'flow') }} to {{ show(uncertainty.flow.high, 'flow') }}</span
    >
    in nine of ten, by the doubt of need, path and fan.
  </p>
</template>

<style scoped>
.chance {
  color: var(--ink-soft);
}
</style>
