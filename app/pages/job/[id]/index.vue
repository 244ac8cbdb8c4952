<script setup lang="ts">
definePageMeta({ redirect: (to) => `/job/${String(to.params.id)}/brief` })
</script>

<template>
  <div />
</template>
