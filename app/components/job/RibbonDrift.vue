<script setup lang="ts">
import { paces, type Piece } from '~/charts/ribbon-layout'

/**
 * The air that drifts along the ribbon, at a pace that follows its velocity. Streaks on layers of their own are moved by
 * the compositor, so that typing never waits for them; under reduced motion they stand still.
 */
const props = defineProps<{ pieces: Piece[] }>()
/** From streak to streak, px. */
const APART = 64
const streams = computed(() => {
  const pace = paces(props.pieces.map((p) => p.segment))
  return props.pieces.flatMap((p, i) =>
    pace[i] === null || p.segment.kind === 'split'
      ? []
      : [
          {
            id: p.segment.id,
            place: { left: `${p.x}px`, width: `${p.width}px`, top: `${p.top}px`, height: `${p.height}px` },
            run: { animationDuration: `${(APART / pace[i]!).toFixed(2)}s`, left: `-${APART}px` },
          },
        ],
  )
})
</script>

<template>
  <div class="drift" aria-hidden="true">
    <div v-for="s in streams" :key="s.id" class="stream" :style="s.place">
      <div class="streaks" :style="s.run" />
    </div>
  </div>
</template>

<style scoped>
.drift {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.stream {
  position: absolute;
  overflow: hidden;
}
.streaks {
  position: absolute;
  inset: 0;
  --streak: linear-gradient(90deg, transparent, var(--drift), transparent);
  background:
    var(--streak) 6px 22% / 64px 1.5px repeat-x,
    var(--streak) 40px 50% / 64px 1.5px repeat-x,
    var(--streak) 22px 78% / 64px 1.5px repeat-x;
  animation: drift linear infinite;
}
@keyframes drift {
  to {
    transform: translateX(64px);
  }
}
@media (prefers-reduced-motion: reduce) {
  .streaks {
    animation: none;
  }
}
</style>
