<script setup lang="ts">
import words from '../../docs/words.md?raw'

/** The plain word and the standard term side by side. */
useHead({ title: 'What the words mean · Redpoll' })
</script>

<template>
  <div>
    <AppHeader title="What the words mean">
      <NuxtLink to="/guide" class="button small quiet">Guide</NuxtLink>
    </AppHeader>
    <main id="main" class="page">
      <DocText :text="words" />
    </main>
  </div>
</template>

<style scoped>
.page {
  padding: 0 20px 20px;
}
@media (max-width: 760px) {
  .page {
    padding: 0 10px 20px;
  }
}
</style>
