<script setup lang="ts">
import type { MountReport } from '#core/mount'

/** How near everything in the way comes to the fans. */
defineProps<{ things: MountReport['things'] }>()
const { show } = useUnits()
function words({ thing, roomM }: MountReport['things'][number]): string {
  if (roomM !== null)
    return roomM < 0
      ? `strikes the fan by ${show(-roomM, 'length')}`
      : `${show(roomM, 'length')} left to the fan at its nearest`
  return thing.fromPanelM === null ? 'tell how far from the panel it is' : 'tell how much nearer it comes'
}
</script>

<template>
  <ul class="plain small">
    <li v-for="t in things" :key="t.thing.id" :class="{ bad: t.roomM !== null && t.roomM < 0 }">
      {{ t.thing.name }}: {{ words(t) }}
    </li>
  </ul>
</template>

<style scoped>
.plain {
  list-style: none;
  margin: 0;
  padding: 0;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
</style>
