<script setup lang="ts">
/** The pages of one station. */
defineProps<{ label: string; tabs: { to: string; label: string }[] }>()
const route = useRoute()
</script>

<template>
  <nav class="segments tabs" :aria-label="label">
    <NuxtLink
      v-for="tab in tabs"
      :key="tab.to"
      :to="tab.to"
      :aria-current="route.path === tab.to ? 'page' : undefined"
    >
      {{ tab.label }}
    </NuxtLink>
  </nav>
</template>

<style scoped>
.tabs {
  justify-self: start;
  max-width: 100%;
  flex-wrap: wrap;
}
a {
  padding: 4px 13px;
  min-height: 30px;
  font-size: 14px;
  color: var(--ink);
  background: var(--sheet);
  text-decoration: none;
  border-left: 1px solid var(--line);
  white-space: nowrap;
}
a:first-child {
  border-left: 0;
}
a:hover {
  background: var(--sheet-soft);
}
a[aria-current] {
  background: var(--ink);
  color: var(--sheet);
}
a:focus-visible {
  outline-offset: -3px;
}
</style>
