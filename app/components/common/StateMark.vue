<script setup lang="ts">
import type { StationState } from '#core/plan'

/** Disc settled, ring not begun, diamond to fix, square stop: told by shape, not only by colour. */
const props = defineProps<{ state: StationState | 'note'; current?: boolean }>()
const words = {
  settled: 'settled',
  'not-begun': 'not begun',
  fix: 'something to fix',
  stop: 'stop',
  note: 'note',
}
const word = computed(() => words[props.state])
</script>

<template>
  <svg class="mark" :class="[state, { current }]" viewBox="0 0 16 16" role="img" :aria-label="word">
    <rect v-if="state === 'stop'" x="2.500" y="2.500" width="11" height="11" />
    <path v-else-if="state === 'fix'" d="M8 1 15 8 8 15 1 8z" />
    <circle v-else-if="state === 'note'" cx="8" cy="8" r="4" />
    <circle v-else cx="8" cy="8" :r="state === 'settled' ? 6 : 5" />
  </svg>
</template>

<style scoped>
.mark {
  width: 15px;
  height: 15px;
  flex: none;
}
.settled {
  fill: var(--moss-mark);
}
.not-begun {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 2;
}
.fix {
  fill: var(--amber-mark);
}
.stop {
  fill: var(--stop);
}
.note {
  fill: var(--teal);
}
</style>
