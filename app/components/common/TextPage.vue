<script setup lang="ts">
/** A page of text: its title, what leads on from it, and the text. */
const props = defineProps<{ title: string; text: string }>()
useHead({ title: () => `${props.title} · Redpoll` })
</script>

<template>
  <div>
    <AppHeader :title="title"><slot /></AppHeader>
    <main id="main" class="page">
      <DocText :text="text" />
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
