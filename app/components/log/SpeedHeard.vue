<script setup lang="ts">
import { followSpeed, speedFromLines, type HeardSpeed, type KnownFan } from '#core/noise'
import { newReading } from '#core/document'
import type { Side } from '~/composables/useListen'
import type { Heard } from '~/workers/listen.worker'

/** How fast a fan turns, from the recording of it: told or refused, followed through the recording, into a run at a press. */
const props = defineProps<{ side: Side; heard: Heard; fans: KnownFan[] }>()
const { store, plan } = useJob('log')
const { show, bare } = useUnits()
const toast = useToast()
const title = computed(() => (props.side === 'before' ? 'Before' : 'After'))
const named = ref(props.fans.at(props.side === 'before' ? 0 : -1)?.name ?? '')
const fan = computed(() => props.fans.find((f) => f.name === named.value) ?? props.fans[0] ?? null)
const options = computed(() => props.fans.map((f) => ({ value: f.name, label: f.name })))
/** A fan runs at a fifth of its speed at the least, and hardly above it. Common practice, no source. */
const RANGE = [0.2, 1.25] as const
const sought = computed(
  () =>
    fan.value && {
      blades: fan.value.blades ?? 0,
      lowRpm: RANGE[0] * fan.value.rpm,
      highRpm: RANGE[1] * fan.value.rpm,
    },
)
const found = computed(() =>
  sought.value ? speedFromLines(props.heard.lines, props.heard.step, props.heard.clipped, sought.value) : null,
)
/** The speed over the recording, where it changes. */
const followed = computed(() => {
  if (!sought.value) return null
  const path = followSpeed(props.heard.frames, props.heard.frameStep, sought.value)
  if (path.length < 4) return null
  const speeds = path.map((p) => p.rpm).sort((a, b) => a - b)
  const [low, high] = [speeds[Math.floor(0.05 * speeds.length)]!, speeds[Math.ceil(0.95 * speeds.length) - 1]!]
  return high / low > 1.03 ? { path, low, high } : null
})
const W = 220
const H = 46
const drawn = computed(() => {
  const f = followed.value
  if (!f) return ''
  const end = f.path.at(-1)!.t
  return f.path
    .map(
      (p, i) =>
        `${i ? 'L' : 'M'}${((p.t / end) * W).toFixed(1)} ${(H - 3 - ((p.rpm - f.low) / (f.high - f.low)) * (H - 6)).toFixed(1)}`,
    )
    .join('')
})
const heardWords = ({ harmonics }: HeardSpeed) =>
  harmonics.length === 1 ? 'one line' : `${harmonics.length} lines: × ${harmonics.join(', × ')}`
const run = computed(() =>
  plan.value.runs.filter((r) => r.kind === (props.side === 'before' ? 'baseline' : 'after')).at(-1),
)
function intoRun(speed: HeardSpeed) {
  const { value: at } = run
  if (!at) return
  store.change((d) => {
    d.runs
      .find((r) => r.id === at.id)
      ?.readings.push({
        ...newReading(newId('reading'), 'rotation', 'fan', Math.round(speed.rpm)),
        source: fan.value?.name ?? '',
      })
  })
  toast.show(`${show(Math.round(speed.rpm), 'rotation')} is in the run “${at.name || at.kind}”.`, {
    action: { label: 'Undo', run: () => store.undo() },
  })
}
</script>

<template>
  <div class="stack heard" role="group" :aria-label="`Speed, ${title.toLowerCase()}`">
    <div class="row">
      <strong>{{ title }}</strong>
      <ChoiceField
        v-if="fans.length > 1"
        v-model="named"
        label="Fan that is heard"
        hide-label
        :options="options"
      />
      <span v-else-if="fan" class="small soft">{{ fan.name }}</span>
    </div>
    <p v-if="!fan" class="small soft">
      No fan is known here: pick one in the Line-up, or name the old one in the Brief.
    </p>
    <p v-else-if="found && !found.ok" class="small">{{ found.reason }}</p>
    <template v-else-if="found?.ok">
      <div v-for="(speed, i) in found.fans" :key="i" class="row">
        <span
          ><span class="mono big">{{ show(Math.round(speed.rpm), 'rotation') }}</span>
          <span class="small soft block"
            >{{ bare(speed.low, 'rotation') }} to {{ bare(speed.high, 'rotation') }}; {{ heardWords(speed)
            }}{{ i ? ', a second fan' : '' }}</span
          ></span
        >
        <el-button v-if="run" size="small" @click="intoRun(speed)">Into the run</el-button>
        <span v-else class="small soft">Log a run, then it goes in.</span>
      </div>
      <p v-if="found.beatHz !== null" class="small">
        Two fans almost alike beat {{ found.beatHz.toFixed(1) }} times a second: set their speeds 3 to 5 %
        apart, or equal.
      </p>
    </template>
    <figure v-if="followed" class="follow">
      <svg
        :viewBox="`0 0 ${W} ${H}`"
        role="img"
        :aria-label="`Speed over the recording, ${bare(followed.low, 'rotation')} to ${show(followed.high, 'rotation')}`"
      >
        <path :d="drawn" />
      </svg>
      <figcaption class="small soft">
        over the recording: {{ bare(Math.round(followed.low), 'rotation') }} to
        {{ show(Math.round(followed.high), 'rotation') }}
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.heard {
  gap: 4px;
}
.big {
  font-size: 18px;
  font-weight: 600;
}
.block {
  display: block;
}
.follow {
  margin: 0;
}
.follow svg {
  width: 100%;
  max-height: 60px;
  background: var(--sheet-soft);
  border-radius: 4px;
}
.follow path {
  fill: none;
  stroke: var(--teal);
  stroke-width: 2;
}
</style>
