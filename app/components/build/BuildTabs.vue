<script setup lang="ts">
const { plan } = useJob('build')
const base = computed(() => `/job/${plan.value.job.id}/build`)
</script>

<template>
  <StationTabs
    label="Pages of the build"
    :tabs="[
      { to: base, label: 'Steps' },
      { to: `${base}/trouble`, label: 'Trouble' },
      { to: `${base}/labels`, label: 'Labels' },
      { to: `${base}/care`, label: 'Care' },
      { to: `${base}/book`, label: 'Log book' },
    ]"
  />
</template>
