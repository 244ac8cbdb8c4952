<script setup lang="ts">
/** How often the need is met when every doubted number is drawn anew. */
const uncertainty = useUncertaintyReport()
const { show, bare } = useUnits()
/** In words first; the share of drawn cases stands behind them. */
const words = [
  [0.95, 'Almost certain to move enough air'],
  [0.75, 'Likely to move enough air'],
  [0.25, 'May move enough air or not'],
  [0.05, 'Unlikely to move enough air'],
  [0, 'Almost certain not to move enough air'],
] as const
const chance = computed(() => uncertainty.value?.chance ?? null)
const said = computed(() => words.find(([from]) => chance.value !== null && chance.value >= from)?.[1])
</script>

<template>
  <p v-if="uncertainty && chance !== null && uncertainty.flow" class="small chance">
    <strong>{{ said }}</strong> (in {{ Math.round(chance * uncertainty.cases) }} of
    {{ uncertainty.cases }} cases with need, path and fan drawn within their doubt). Likely range (9 in 10):
    <span class="mono"
      >{{ bare(uncertainty.flow.low, 'flow') }} to {{ show(uncertainty.flow.high, 'flow') }}</span
    >.
  </p>
</template>

<style scoped>
.chance {
  color: var(--ink-soft);
}
</style>
