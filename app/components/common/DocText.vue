<script setup lang="ts">
import { marked } from 'marked'

/** A text of ours from docs/, as it stands there; its links go through the app. */
const props = defineProps<{ text: string }>()
/** Without its first heading, which is the page's. */
const html = computed(() => marked.parse(props.text.replace(/^# .*\n/, ''), { async: false }))
function follow(event: MouseEvent) {
  const link = (event.target as HTMLElement).closest('a')
  const to = link?.getAttribute('href')
  if (!to?.startsWith('/') || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  void navigateTo(to)
}
</script>

<template>
  <!-- our own text, shipped with the app: nothing that a person typed -->
  <!-- eslint-disable-next-line vue/no-v-html -->
  <article class="sheet text" @click="follow" v-html="html" />
</template>

<style scoped>
.text {
  max-width: 820px;
}
.text :deep(h2) {
  margin: 18px 0 6px;
}
.text :deep(h2:first-child) {
  margin-top: 0;
}
.text :deep(p),
.text :deep(ul) {
  margin: 0 0 10px;
}
.text :deep(table) {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 8px;
}
.text :deep(th),
.text :deep(td) {
  text-align: left;
  vertical-align: top;
  padding: 5px 10px 5px 0;
  border-bottom: 1px solid var(--line);
}
.text :deep(th) {
  font-size: 13px;
  color: var(--ink-soft);
}
@media (max-width: 480px) {
  .text :deep(td:nth-child(2)),
  .text :deep(th:nth-child(2)) {
    overflow-wrap: anywhere;
  }
}
</style>
