<script setup lang="ts">
import { boltCircle, tapDrill, threadOf } from '#core/fit'
import type { MountReport } from '#core/mount'

/** What follows for how the fans are held: sizes to plan for, drills, soft mounts, grommet and lead. */
const props = defineProps<{ mount: MountReport }>()
const { show, bare } = useUnits()
const { fit } = useFit()
const length = (m: number | null) => (m === null ? '–' : show(m, 'length'))
const drillWords = computed(() => {
  const { screw } = props.mount
  const thread = screw && threadOf(screw.thread)
  if (!screw || !thread) return ''
  const { spacingM } = props.mount
  const circle =
    spacingM === null ? '' : `The four holes stand on a circle of ${length(boltCircle(spacingM))}. `
  return (
    circle +
    `Drill for M${screw.thread}: ${length(thread.clearanceM)} to pass (ISO 273, medium), ` +
    `${length(tapDrill(screw.thread, thread.pitchM))} where the panel itself is threaded. ` +
    (screw.nuts
      ? 'Snug, a quarter turn past touching: a frame bends.'
      : 'Stop when the head touches: plastic strips.')
  )
})
const softWords = computed(() => {
  const { soft } = props.mount
  if (!soft || fit.value.sinkM !== null) return ''
  const give = length(soft.wantedSinkM)
  return `Soft mounts help at this speed from a give of ${give} under the fan on; stiffer ones pass the shaking on.`
})
const cableWords = computed(() => {
  const { grommet, neededM } = props.mount.cable
  const hole = grommet
    ? `Grommet: a hole of ${length(grommet.holeM)}, bore ${length(grommet.boreM)}; ` +
      'hold the cable within 5 cm of it, so that a pull does not reach the plug.'
    : ''
  return [hole, neededM === null ? '' : `The lead wants ${show(neededM, 'distance')}, bends counted.`]
    .filter(Boolean)
    .join(' ')
})
</script>

<template>
  <div class="stack">
    <div class="scroll-x" tabindex="0" role="region" aria-label="Sizes of the fan">
      <table class="data">
        <thead>
          <tr>
            <th>Size</th>
            <th class="num">named</th>
            <th class="num">measured</th>
            <th class="num">between</th>
            <th class="num">pocket</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in mount.sizes" :key="s.key">
            <td>{{ s.name }}</td>
            <td class="num">{{ length(s.nominalM) }}</td>
            <td class="num">{{ length(s.measuredM) }}</td>
            <td class="num">{{ bare(s.lowM, 'length') }} to {{ length(s.highM) }}</td>
            <td class="num">{{ length(s.pocketM) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="mount.measuredProblem" class="small bad">{{ mount.measuredProblem }}</p>
    <p v-for="words in [drillWords, softWords, cableWords].filter(Boolean)" :key="words" class="small soft">
      {{ words }}
    </p>
  </div>
</template>

<style scoped>
.bad {
  color: var(--amber);
  font-weight: 600;
}
</style>
