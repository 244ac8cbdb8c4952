<script setup lang="ts">
const settings = useSettingsStore()
await settings.load()
useTheme()
useGlobalKeys()
</script>

<template>
  <div class="app">
    <NuxtPage />
    <KeysHelp />
    <ToastList />
  </div>
</template>

<style scoped>
.app {
  min-height: 100%;
}
</style>
