<script setup lang="ts">
definePageMeta({ redirect: (to) => ({ name: 'job-id-brief', params: to.params as { id: string } }) })
</script>

<template>
  <div />
</template>
