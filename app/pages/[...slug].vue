<script setup lang="ts">
throw createError({
  statusCode: 404,
  statusMessage: 'Not found',
  message: 'There is no page at this address.',
  fatal: true,
})
</script>

<template>
  <div />
</template>
