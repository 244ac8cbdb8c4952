<script setup lang="ts">
/** Part of a page that is made when those before it stand, so that a page comes up in short tasks. */
const shown = ref(false)
onBeforeUnmount(
  inTurn(() => {
    shown.value = true
  }),
)
</script>

<template>
  <slot v-if="shown" />
</template>
