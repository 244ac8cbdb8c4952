<script setup lang="ts">
/** The head of pages outside a job. */
defineProps<{ title: string }>()
</script>

<template>
  <header class="head">
    <NuxtLink to="/" class="brand">
      <img src="/mark.svg" alt="" width="18" height="18" />
      Redpoll
    </NuxtLink>
    <nav aria-label="Main">
      <NuxtLink to="/"> Bench </NuxtLink>
      <NuxtLink to="/shelf"> Shelf </NuxtLink>
      <NuxtLink to="/sums"> Quick sums </NuxtLink>
      <NuxtLink to="/backup"> Backup </NuxtLink>
    </nav>
    <h1>{{ title }}</h1>
    <div class="right">
      <slot />
      <UnitMenu />
      <button type="button" class="tag help" aria-label="Find or do anything, key k" @click="openPalette()">
        Find
      </button>
      <button type="button" class="tag help" aria-label="Help and keys" @click="openKeys()">?</button>
    </div>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 10px 20px;
  flex-wrap: wrap;
}
.brand {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  font-weight: 700;
  font-size: 17px;
  color: var(--ink);
  text-decoration: none;
}
nav {
  display: flex;
  gap: 4px;
}
nav a {
  color: var(--ink-soft);
  text-decoration: none;
  padding: 4px 10px;
  border-radius: 5px;
}
nav a.router-link-exact-active {
  color: var(--cap);
  background: var(--cap-soft);
  font-weight: 600;
}
h1 {
  margin-right: auto;
}
.right {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.help {
  cursor: pointer;
  color: inherit;
  min-width: 28px;
  justify-content: center;
}
@media (max-width: 760px) {
  .head {
    padding: 10px 12px;
    gap: 8px 12px;
  }
}
</style>
