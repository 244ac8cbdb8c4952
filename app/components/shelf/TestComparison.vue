<script setup lang="ts">
import { TEST_DISTANCE_M, type TestRow } from '#core/selection'

/** Every test of the shelf side by side: what each fan gives for its loudness and its price. */
defineProps<{ fanId: string }>()
const { show, symbol } = useUnits()
const rows = shallowRef<TestRow[] | null>(null)
const problem = ref('')
const per = ref<'loudness' | 'money'>('loudness')
const choices = [
  { value: 'loudness' as const, label: 'per loudness' },
  { value: 'money' as const, label: 'per money' },
]
async function load() {
  const result = await api<TestRow[]>('fans/tests')
  problem.value = result.ok ? '' : result.message
  if (result.ok) rows.value = result.data
}
const opened = () => {
  if (!rows.value) void load()
}
const money = computed(() => symbol('money'))
const share = (x: number | null, quantity: 'pressure' | 'speed' | 'flow') =>
  x === null ? '–' : show(x, quantity)
const values = (r: TestRow) =>
  per.value === 'loudness'
    ? { flow: r.flowPerLoudness, pressure: r.pressurePerLoudness, speed: r.speedPerLoudness }
    : { flow: r.flowPerMoney, pressure: r.pressurePerMoney, speed: r.speedPerMoney }
const unitWord = computed(() => (per.value === 'loudness' ? 'per times as loud' : `per ${money.value}`))
</script>

<template>
  <FoldBox title="Against every other test on the shelf" @opened="opened">
    <p v-if="problem" class="error" role="alert">
      {{ problem }} <el-button size="small" @click="load">Try again</el-button>
    </p>
    <p v-else-if="!rows" class="small soft">Reading the tests…</p>
    <p v-else-if="!rows.length" class="small soft">No fan of the shelf was tested yet.</p>
    <template v-else>
      <SegmentChoice v-model="per" label="Air, pressure and speed" :options="choices" />
      <div class="scroll-x" tabindex="0" role="region" aria-label="Tests of the shelf compared">
        <table class="data small">
          <caption class="visually-hidden">
            Tests of the shelf compared
          </caption>
          <thead>
            <tr>
              <th>Fan</th>
              <th class="num">at</th>
              <th class="num">level</th>
              <th class="num">loudness</th>
              <th class="num">air</th>
              <th class="num">pressure</th>
              <th class="num">air speed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.fanId + r.test.id" :class="{ mine: r.fanId === fanId }">
              <td>
                <NuxtLink :to="`/shelf/${r.fanId}`">{{ r.fan }}</NuxtLink>, {{ r.test.specimen }}
              </td>
              <td class="num">{{ show(r.test.volts, 'voltage') }}</td>
              <td class="num">
                {{ r.levelDbA === null ? '–' : show(r.levelDbA, 'level')
                }}<span v-if="r.nearField" class="soft block">near field</span>
              </td>
              <td class="num">{{ r.loudness === null ? '–' : `× ${r.loudness.toFixed(1)}` }}</td>
              <td class="num">{{ share(values(r).flow, 'flow') }}</td>
              <td class="num">{{ share(values(r).pressure, 'pressure') }}</td>
              <td class="num">{{ share(values(r).speed, 'speed') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small soft">
        Levels without their background at {{ show(TEST_DISTANCE_M, 'distance') }}; loudness against the
        quietest of them, doubled every 10 dB; air, pressure and speed {{ unitWord }}. Readings nearer than 0.3
        m are in the near field: they are shown as read and held against each other only.
      </p>
    </template>
  </FoldBox>
</template>

<style scoped>
.mine td {
  background: var(--cap-soft);
}
.block {
  display: block;
  font-family: var(--sans);
}
</style>
