<script setup lang="ts">
import { uncertainInputs, type UncertainInput } from '#core/document'
import type { UncertaintySource } from '#core/advice'

/** What would make the answer surer, the measurement that tells most first, each leading to where it is told. */
const job = useJobStore()
const beside = useImprovements()
const gains = [
  [0.55, 'removes over half of the uncertainty'],
  [0.45, 'removes about half of the uncertainty'],
  [0.28, 'removes about a third of the uncertainty'],
  [0.15, 'removes about a fifth of the uncertainty'],
  [0, 'removes a little of the uncertainty'],
] as const
const inputNames: Record<UncertaintySource, string> = {
  path: 'the path: measure one delivered flow',
  fan: 'the fan: its own curve, on a carton',
  supply: 'the voltage at the fan',
  heatW: 'the heat, with a wall meter',
  wallLossWK: 'the wall loss: heat the closed box',
  ambientC: 'the air at the intake',
  volumeM3: 'the volume',
  captureSpeedMs: 'the speed at the source',
  captureDistanceM: 'the distance to the source',
  waterC: 'the water’s temperature',
  crossAreaM2: 'the cross-section over the water',
  measuredRiseK: 'the rise, intake to exhaust',
  typedFlowM3s: 'the airflow now',
  insideMaxC: 'the limit inside',
  partMaxC: 'the part’s limit',
  partInnerKPerW: 'the way from the part to its fins',
  airChangesPerH: 'how many air changes it takes',
  mixing: 'how well the air mixes',
  waterKgS: 'the water released',
  co2M3s: 'the CO₂ released',
  nozzleAreaM2: 'the opening of the nozzle',
  slotLengthM: 'the length of the slot',
  leakAreaM2: 'the leaks of the box',
  workOpeningM2: 'the opening to work through',
  turnoversPerH: 'how many turnovers it takes',
  waterAreaM2: 'the water’s surface',
  surfaceSpeedMs: 'the air speed over the water',
}
const SHOWN = 4
const isInput = (source: UncertaintySource): source is UncertainInput =>
  (uncertainInputs as readonly string[]).includes(source)
function placeOf(source: UncertaintySource) {
  const { plan } = job
  const id = plan!.job.id
  if (source === 'fan') return `/shelf/${job.report?.selection?.fanArray.model.fan.id}/measure?job=${id}`
  if (source === 'path') return placeLink(id, { station: 'air-path', field: 'calibrate' })
  if (source === 'supply' || !isInput(source)) return placeLink(id, { station: 'power' })
  return placeLink(id, { station: source === 'ambientC' ? 'brief' : 'need', field: source })
}
/** A level is wanted, and the picked fan's label tells none. */
const unheard = computed(() => {
  const { plan, report } = job
  const wanted = plan?.job.goal === 'quieten' || plan?.targets.some((t) => t.kind === 'level')
  return wanted && report?.selection && !report.selection.candidate.level
})
const list = computed(() => [
  ...beside.value.sensitivity.slice(0, SHOWN).map((w) => ({
    key: w.source as string,
    name: inputNames[w.source],
    to: placeOf(w.source),
    gain: gains.find(([from]) => w.gain >= from)![1],
  })),
  ...(unheard.value
    ? [
        {
          key: 'level',
          name: 'the sound: one reading where you sit',
          to: placeLink(job.plan!.job.id, { station: 'log' }),
          gain: 'its label tells no level',
        },
      ]
    : []),
])
</script>

<template>
  <section v-if="list.length" class="surer" aria-label="What would make this surer">
    <h3>What would make this surer</h3>
    <ol>
      <li v-for="w in list" :key="w.key">
        <NuxtLink :to="w.to">{{ w.name }}</NuxtLink> <span class="small soft">{{ w.gain }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.surer {
  margin-top: 10px;
}
ol {
  margin: 4px 0 0;
  padding-left: 20px;
  line-height: 1.6;
  font-size: 14px;
}
</style>
