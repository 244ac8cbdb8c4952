<script setup lang="ts">
import { claimRows, spreadOf, type ClaimRow } from '#core/selection'
import { newTest, fanTestSchema } from '#core/document'
import type { Fan, FanTest } from '#core/document'

/** Own bench tests: what was read, held against the claim at the same voltage and speed, and how much specimens differ. */
const props = defineProps<{ fan: Fan; /** it is on the shelf: its curve can be measured */ stored: boolean }>()
const emit = defineEmits<{ update: [tests: FanTest[]] }>()
const { show } = useUnits()
const toast = useToast()
const open = ref<string | null>(null)
const fields: Field<keyof FanTest>[] = [
  { key: 'specimen', label: 'Specimen', text: true, required: true },
  { key: 'volts', label: 'Voltage at the fan', quantity: 'voltage', required: true },
  { key: 'rpm', label: 'Speed', quantity: 'rotation', hint: 'tach Hz × 30' },
  { key: 'currentA', label: 'Current', quantity: 'current' },
  { key: 'flowM3s', label: 'Free delivery', quantity: 'flow' },
  { key: 'pressurePa', label: 'Shut-off pressure', quantity: 'pressure' },
  { key: 'levelDbA', label: 'Level', quantity: 'level' },
  { key: 'levelDistanceM', label: 'at a distance of', quantity: 'distance' },
  { key: 'backgroundDbA', label: 'Level, fan off', quantity: 'level' },
  { key: 'airSpeedMs', label: 'Fastest air, axis', quantity: 'speed', hint: 'to compare only' },
  { key: 'startV', label: 'Started at', quantity: 'voltage' },
  { key: 'startA', label: 'Start current', quantity: 'current' },
  { key: 'ambientC', label: 'Room', quantity: 'temperature' },
  { key: 'notes', label: 'Notes', text: true },
]
const rows = computed(() => claimRows(props.fan))
const spreads = computed(() => spreadOf(props.fan).filter((s) => s.specimens > 1))
function add() {
  const last = props.fan.tests.at(-1)
  const test = {
    ...newTest(newId('test'), props.fan.ratedV, new Date().toISOString()),
    specimen: last?.specimen ?? 'A',
    levelDistanceM: last?.levelDistanceM ?? null,
    backgroundDbA: last?.backgroundDbA ?? null,
    ambientC: last?.ambientC ?? null,
  }
  emit('update', [...props.fan.tests, test])
  open.value = test.id
}
const set = (id: string, key: keyof FanTest, value: unknown) =>
  emit(
    'update',
    props.fan.tests.map((t) => (t.id === id ? { ...t, [key]: value } : t)),
  )
function remove(id: string) {
  const before = props.fan.tests
  emit(
    'update',
    before.filter((t) => t.id !== id),
  )
  toast.show('The test is taken away.', { action: { label: 'Undo', run: () => emit('update', before) } })
}
/** the rows of each test, in the order of the tests */
const tested = computed(() =>
  props.fan.tests
    .map((test) => ({ test, rows: rows.value.filter((r) => r.test.id === test.id) }))
    .filter((t) => t.rows.length),
)
const marks: Record<ClaimRow['flag'], 'settled' | 'note' | 'fix'> = {
  'as-claimed': 'settled',
  off: 'note',
  'far-off': 'fix',
}
const flagWords = ({ flag, side }: ClaimRow) =>
  flag === 'as-claimed' ? 'as claimed' : `${flag === 'far-off' ? 'far ' : ''}${side} the claim`
const signed = (x: number) => `${x > 0 ? '+' : ''}${show(x, 'levelDifference')}`
/** As read against the claim as printed, whatever the voltages were. */
const plainOf = (r: ClaimRow) => (r.difference === null ? show(r.plain, 'ratio') : signed(r.read - r.claim))
const ratioOf = (r: ClaimRow) => (r.difference === null ? show(r.ratio, 'ratio') : signed(r.difference))
const day = (iso: string) => iso.slice(0, 10)
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>On your own bench</h2>
      <div class="row">
        <NuxtLink v-if="stored" :to="`/shelf/${fan.id}/measure`" class="button small">
          Its curve, on a carton
        </NuxtLink>
        <el-button size="small" @click="add">Add a test</el-button>
      </div>
    </div>
    <p v-if="!fan.tests.length" class="small soft">
      Run it on a supply you can read, note what you can: every reading is held against the claim at the same
      voltage, and the plan may then believe your numbers.
    </p>
    <FoldBox v-for="t in fan.tests" :key="t.id" :open="open === t.id">
      <template #title>{{ t.specimen }}, {{ show(t.volts, 'voltage') }}, {{ day(t.takenAt) }}</template>
      <FieldGrid
        tight
        :record="t"
        :fields="fields"
        :shape="fanTestSchema.shape"
        @set="(key, value) => set(t.id, key, value)"
      />
      <el-button text size="small" @click="remove(t.id)">Take this test away</el-button>
    </FoldBox>
    <div v-if="rows.length" class="scroll-x" tabindex="0" role="region" aria-label="Claimed against measured">
      <table class="data small">
        <caption class="visually-hidden">
          Claimed against measured
        </caption>
        <thead>
          <tr>
            <th>Figure</th>
            <th class="num">read</th>
            <th class="num">claim</th>
            <th class="num">read / claim</th>
            <th class="num">at equal speed</th>
          </tr>
        </thead>
        <tbody v-for="t in tested" :key="t.test.id">
          <tr>
            <th colspan="5" class="test">
              {{ t.test.specimen }} at {{ show(t.test.volts, 'voltage') }}, {{ day(t.test.takenAt) }}
            </th>
          </tr>
          <tr v-for="r in t.rows" :key="r.figure">
            <td>{{ testFigureNames[r.figure].name }}</td>
            <td class="num">
              {{ show(r.read, testFigureNames[r.figure].quantity) }}
            </td>
            <td class="num">
              {{ show(r.claim, testFigureNames[r.figure].quantity) }}
            </td>
            <td class="num">{{ plainOf(r) }}</td>
            <td class="num">
              <span :title="r.how">{{ ratioOf(r) }}</span>
              <span class="flag"><StateMark :state="marks[r.flag]" /> {{ flagWords(r) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="rows.length" class="small soft">
      “Read / claim” is as read, at the test’s voltage. “At equal speed” brings the claim to the test first:
      speed and current to its voltage; air, pressure and level to the speed that was read, a level to its
      distance too.
    </p>
    <TestComparison v-if="fan.tests.length" :fan-id="fan.id" />
    <p v-if="spreads.length" class="small">
      <strong>Between {{ Math.max(...spreads.map((s) => s.specimens)) }} specimens:</strong>{{ ' ' }}
      <span v-for="s in spreads" :key="s.figure"
        >{{ testFigureNames[s.figure].name.toLowerCase() }}
        {{
          s.figure === 'level'
            ? `${show(s.low, 'levelDifference')} to ${show(s.high, 'levelDifference')}`
            : `${show(s.low, 'ratio')} to ${show(s.high, 'ratio')} of the claim`
        }}{{ s === spreads.at(-1) ? '.' : '; ' }}</span
      >
    </p>
  </section>
</template>

<style scoped>
.flag {
  display: block;
  white-space: nowrap;
  font-family: var(--sans);
  color: var(--ink-soft);
}
.test {
  padding-top: 10px;
}
</style>
