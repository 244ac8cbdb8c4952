<script setup lang="ts">
/** What can be done with the ribbon: further away, closer, saved as a picture, read as text. */
defineProps<{ furthest: boolean; closest: boolean; asText: boolean }>()
const emit = defineEmits<{ zoom: [step: -1 | 1]; save: []; text: [] }>()
const tools = [
  { key: 'further', sign: '−', name: 'further away', run: () => emit('zoom', -1) },
  { key: 'closer', sign: '+', name: 'closer', run: () => emit('zoom', 1) },
  { key: 'save', sign: '⤓', name: 'save as SVG', run: () => emit('save') },
  { key: 'text', sign: '≡', name: 'read as text', run: () => emit('text') },
] as const
const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)
</script>

<template>
  <div class="tools">
    <button
      v-for="tool in tools"
      :key="tool.key"
      type="button"
      class="tool"
      :disabled="(tool.key === 'further' && furthest) || (tool.key === 'closer' && closest)"
      :aria-pressed="tool.key === 'text' ? asText : undefined"
      :aria-label="`Ribbon: ${tool.name}`"
      :title="capital(tool.name)"
      @click="tool.run"
    >
      {{ tool.sign }}
    </button>
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  align-content: center;
  justify-items: center;
  border-left: 1px solid var(--line);
}
.tool {
  border: 0;
  background: none;
  color: var(--ink-soft);
  width: 28px;
  height: 26px;
  cursor: pointer;
  border-radius: 4px;
  line-height: 1;
}
.tool:hover:not([disabled]) {
  background: var(--sheet-soft);
  color: var(--ink);
}
.tool[disabled] {
  opacity: 0.4;
  cursor: default;
}
</style>
