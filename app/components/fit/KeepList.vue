<script setup lang="ts">
import type { KeepRow } from '#core/mount'

/** What is there already, held against the picked fan: what can stay in a line, what does not fit with its reason. */
const props = defineProps<{ keeps: KeepRow[] }>()
const { show } = useUnits()
const nameOf = ({ what, sizeM }: KeepRow) => (sizeM === null ? what : `${what} ${show(sizeM, 'length')}`)
const stays = computed(() => props.keeps.filter((k) => k.stays))
const goes = computed(() => props.keeps.filter((k) => !k.stays))
</script>

<template>
  <div class="small" role="group" aria-label="What stays with this fan">
    <p v-for="k in goes" :key="k.key" class="goes">Does not fit: {{ nameOf(k) }}, {{ k.why }}</p>
    <p v-if="stays.length" class="soft">Stays with this fan: {{ stays.map(nameOf).join(', ') }}</p>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 2px;
}
.goes {
  color: var(--amber);
  font-weight: 600;
}
</style>
