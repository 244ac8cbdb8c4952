<script setup lang="ts">
const { plan } = useJob('log')
const base = computed(() => `/job/${plan.value.job.id}/log`)
</script>

<template>
  <StationTabs
    label="Pages of the log"
    :tabs="[
      { to: base, label: 'Runs' },
      { to: `${base}/live`, label: 'Instruments and logs' },
      { to: `${base}/import`, label: 'Import a file' },
      { to: `${base}/listen`, label: 'Listen' },
    ]"
  />
</template>
