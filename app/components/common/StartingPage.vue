<script setup lang="ts">
/** What is seen while the server opens its database: a first start takes some seconds. */
defineProps<{ doing: string }>()
</script>

<template>
  <main class="starting">
    <img src="/mark.svg" alt="" width="40" height="40" />
    <h1>Redpoll is starting</h1>
    <p role="status" aria-live="polite">{{ doing || 'asking the server' }}</p>
    <p class="small soft">This page goes on by itself.</p>
  </main>
</template>

<style scoped>
.starting {
  min-height: 100vh;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 8px;
  padding: 24px;
  text-align: center;
}
</style>
