<script setup lang="ts">
import { useTimeout } from '@vueuse/core'

const { ready, doing } = useStartup()
/** a server that is ready answers sooner: no flash of a page that is not needed */
const late = useTimeout(300)
useTheme()
useGlobalKeys()
</script>

<template>
  <div class="app">
    <template v-if="ready">
      <NuxtPage />
      <KeysHelp />
      <ToastList />
    </template>
    <StartingPage v-else-if="late" :doing="doing" />
  </div>
</template>

<style scoped>
.app {
  min-height: 100%;
}
</style>
