<script setup lang="ts">
import { loudnessRatio } from '#core/noise'
import { traceLines, type KnownFan } from '#core/noise'
import { plannedFans, readingMean } from '#core/document'
import type { Side } from '~/composables/useListen'
import type { Heard } from '~/workers/listen.worker'

definePageMeta({ station: 'log' })

const { plan, report } = useJob('log')
const shelf = useShelfStore()
const { show } = useUnits()
const { heard, live, progress, recording, open, record, stop, tryMadeUp } = useListen()
const view = ref<'bands' | 'fine'>('bands')
const sides: { key: Side; title: string; hint: string }[] = [
  { key: 'before', title: 'Before', hint: 'the baseline' },
  { key: 'after', title: 'After', hint: 'the same spot, the same gain' },
]
function chosen(side: Side, event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) void open(side, file)
}
/** Of a side: what is heard while it is recorded, else its recording. */
const heardNow = (side: Side) => (live.value?.side === side ? live.value.heard : heard[side].heard)
const heardWords = (h: Heard) =>
  `${h.seconds.toFixed(1)} s at ${h.rate / 1000} ` +
  `kHz${h.clipped > 0.0005 ? '; it was too loud for the microphone: record with less gain' : ''}`
/** Fans whose whine is looked for: picked and old, with the speed that was read in the runs where there is one. */
const told = computed((): KnownFan[] => {
  const { job } = plan.value
  const planned = plannedFans(plan.value)
  const rpmOf = (kind: 'baseline' | 'after') => {
    const r = plan.value.runs
      .filter((x) => x.kind === kind)
      .flatMap((x) => x.readings)
      .find((x) => x.quantity === 'rotation')
    return r ? readingMean(r) : null
  }
  const list: KnownFan[] = []
  const picked = shelf.known.find((f) => f.id === planned?.groups[0]!.fanId)
  const old = shelf.known.find((f) => f.id === job.existingFanId)
  if (old)
    list.push({ name: `old ${old.model}`, blades: old.blades, rpm: rpmOf('baseline') ?? old.ratedRpm ?? 0 })
  if (picked)
    list.push({
      name: picked.model,
      blades: picked.blades,
      rpm: rpmOf('after') ?? (picked.ratedRpm ?? 0) * (report.value.selection?.candidate.speed ?? 1),
    })
  return list
})
/** What somebody typed of a fan, by its name: it stays, whatever the shelf or the plan say later. */
const typed = ref<Record<string, Partial<KnownFan>>>({})
const fans = computed(() => told.value.map((f) => ({ ...f, ...typed.value[f.name] })))
function note(name: string, what: Partial<KnownFan>) {
  typed.value = { ...typed.value, [name]: { ...typed.value[name], ...what } }
}
const usable = computed(() => fans.value.filter((f) => f.rpm > 0))
const traced = computed(() =>
  traceLines(
    [...(heard.before.heard?.lines.slice(0, 6) ?? []), ...(heard.after.heard?.lines.slice(0, 6) ?? [])],
    usable.value,
  ),
)
const difference = computed(() => {
  const [b, a] = [heard.before.heard?.level, heard.after.heard?.level]
  return b != null && a != null ? a - b : null
})
const rows = computed(() =>
  (['before', 'after'] as const).flatMap((side) =>
    (heard[side].heard?.lines.slice(0, 6) ?? []).map((line) => ({
      side,
      line,
      trace: traceLines([line], usable.value)[0] ?? null,
    })),
  ),
)
const gone = computed(() => {
  const a = heard.after.heard
  return a && heard.before.heard
    ? heard.before.heard.lines.slice(0, 6).filter((l) => !a.lines.some((x) => Math.abs(x.hz / l.hz - 1) < 0.02))
        .length
    : 0
})
</script>

<template>
  <div class="stack">
    <LogTabs />
    <div class="layout">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>Two recordings, one spot</h2>
          <SegmentChoice
            v-model="view"
            label="What is drawn"
            :options="[
              { value: 'bands', label: 'Bands' },
              { value: 'fine', label: 'Fine lines' },
            ]"
          />
        </div>
        <div class="pair">
          <div v-for="side in sides" :key="side.key" class="stack one" role="group" :aria-label="side.title">
            <p>
              <strong>{{ side.title }}</strong>&ensp;
              <span class="small soft">{{ heard[side.key].name || side.hint }}</span>
            </p>
            <div class="row">
              <label class="button small"
                >Open a WAV<input
                  class="visually-hidden"
                  type="file"
                  :aria-label="`Open a WAV: ${side.title}`"
                  accept=".wav,audio/wav,audio/x-wav"
                  @change="chosen(side.key, $event)"
              /></label>
              <el-button v-if="recording?.side === side.key" size="small" type="primary" @click="stop">
                ■ Stop, {{ recording.seconds }} s
              </el-button>
              <el-button v-else size="small" :disabled="!!recording" @click="record(side.key)">
                ● Record 20 s
              </el-button>
            </div>
            <p v-if="heard[side.key].problem" class="bad small" role="alert">
              {{ heard[side.key].problem }}
            </p>
            <p v-else-if="heard[side.key].heard" class="small soft">
              {{ heardWords(heard[side.key].heard!) }}
            </p>
          </div>
        </div>
        <progress v-if="progress !== null" :value="progress" aria-label="Listening" />
        <SpectrumChart
          v-if="heard.before.heard || heard.after.heard"
          :before="heard.before.heard"
          :after="heard.after.heard"
          :traced="traced"
          :view="view"
        />
        <p v-else class="soft">
          Record or open 20 s before and 20 s after: same phone, same marked spot, same gain, off the air
          stream, everything else in the room quiet.
          <el-button size="small" @click="tryMadeUp(usable)">Try it with two made-up recordings</el-button>
        </p>
        <p class="small soft">
          Dashed or grey is before, red is after. A recording that was not calibrated gives differences only,
          never a level.
        </p>
      </section>
      <div class="stack">
        <section class="sheet stack">
          <h2>What changed</h2>
          <template v-if="difference !== null">
            <p class="big mono">{{ difference > 0 ? '+' : '' }}{{ show(difference, 'levelDifference') }}</p>
            <p>
              {{
                Math.abs(difference) < 1
                  ? 'Within what the ear and the set-up can tell.'
                  : difference < 0
                    ? `About ${(1 / loudnessRatio(difference)).toFixed(1)} times quieter to the ear, A-weighted.`
                    : `About ${loudnessRatio(difference).toFixed(1)} times as loud to the ear, A-weighted.`
              }}
            </p>
            <p v-if="gone" class="small">
              {{ gone === 1 ? 'One narrow line of before is' : `${gone} narrow lines of before are` }} gone.
            </p>
          </template>
          <p v-else class="soft">Both recordings are wanted.</p>
          <table v-if="rows.length" class="data">
            <thead>
              <tr>
                <th>Line</th>
                <th class="num">stands out</th>
                <th>comes from</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in rows" :key="r.side + r.line.hz">
                <td class="mono">
                  {{ r.line.hz.toFixed(r.line.hz < 100 ? 1 : 0) }} Hz
                  <span class="small soft">{{ r.side }}</span>
                </td>
                <td class="num">{{ r.line.above.toFixed(0) }} dB</td>
                <td>{{ r.trace ? `${r.trace.fan}: ${r.trace.what}` : '–' }}</td>
              </tr>
            </tbody>
          </table>
          <p v-else-if="heard.before.heard || heard.after.heard" class="small soft">
            No narrow lines: it is hiss, not whine.
          </p>
        </section>
        <section v-if="sides.some((s) => heardNow(s.key))" class="sheet stack">
          <h2>How fast it turns</h2>
          <template v-for="side in sides" :key="side.key">
            <SpeedHeard
              v-if="heardNow(side.key)"
              :side="side.key"
              :heard="heardNow(side.key)!"
              :fans="usable"
            />
          </template>
          <p class="small soft">
            From the blades passing: their line and its multiples, not the loudest line alone. It wants the
            number of blades, below.
          </p>
        </section>
        <section class="sheet stack">
          <h2>Fans that may whine</h2>
          <p v-if="!fans.length" class="soft">Neither an old fan nor a picked one is known.</p>
          <div v-for="f in fans" :key="f.name" class="fan">
            <span>{{ f.name }}</span>
            <QuantityField
              :label="`Speed of ${f.name}`"
              hide-label
              quantity="rotation"
              :model-value="f.rpm || null"
              @update:model-value="note(f.name, { rpm: $event ?? f.rpm })"
            />
            <QuantityField
              :label="`Blades of ${f.name}`"
              hide-label
              quantity="number"
              placeholder="blades"
              :model-value="f.blades"
              @update:model-value="note(f.name, { blades: $event })"
            />
          </div>
          <p class="small soft">
            Blade pass is blades × turns a second; a line within 4 % of it, of its multiples, or of the turn
            itself is marked.
          </p>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(260px, 1fr);
  gap: 12px;
  align-items: start;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.one {
  background: var(--sheet-soft);
  border-radius: 6px;
  padding: 10px;
  gap: 6px;
}
.big {
  font-size: 22px;
  font-weight: 600;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
.fan {
  display: grid;
  grid-template-columns: 1fr 105px 80px;
  gap: 8px;
  align-items: center;
}
label.button {
  position: relative;
}
progress {
  width: 100%;
  accent-color: var(--teal);
}
@media (max-width: 900px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 480px) {
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
