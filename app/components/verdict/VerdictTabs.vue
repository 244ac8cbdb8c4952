<script setup lang="ts">
const { plan } = useJob('verdict')
const base = computed(() => `/job/${plan.value.job.id}/verdict`)
</script>

<template>
  <StationTabs
    label="Pages of the verdict"
    :tabs="[
      { to: base, label: 'Verdict' },
      { to: `${base}/compare`, label: 'Compare runs' },
      { to: `${base}/ladder`, label: 'Noise ladder' },
      { to: `${base}/report`, label: 'Report' },
    ]"
  />
</template>
