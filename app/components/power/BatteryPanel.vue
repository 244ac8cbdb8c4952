<script setup lang="ts">
import { batterySource, newBattery, newSun, batterySchema, sunSchema, withNominal } from '#core/document'
import { packNominal } from '#core/supply'
import type { Battery, Sun } from '#core/document'

/** How long the battery lasts, how big it must be, and whether the sun keeps up month by month. */
const job = useJobStore()
const { show, bare, symbol } = useUnits()
const plan = computed(() => job.plan!)
const kind = computed(() => batterySource(plan.value)!.kind)
const runtime = computed(() => job.report!.runtime)
const begin = () =>
  job.change((d) => {
    d.battery = newBattery(newId('battery'), kind.value)
    if (kind.value === 'solar') d.sun = newSun(newId('sun'))
  })
const set = (key: keyof Battery, value: unknown) =>
  job.change((d) => {
    assign(d.battery, key, value)
    const volts = d.battery && packNominal(d.battery)
    // the source is these cells: its voltage follows their number
    const source = batterySource(d)
    if (volts && source?.kind === 'pack' && (key === 'cells' || key === 'chemistry'))
      Object.assign(source, withNominal(source, volts), { lowV: null, highV: null })
  }, `battery.${key}`)
const setSun = (key: keyof Sun, value: unknown) => job.change((d) => assign(d.sun, key, value), `sun.${key}`)
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
function setHours(i: number, text: string) {
  const value = Number(text.replace(',', '.'))
  if (Number.isFinite(value) && value >= 0 && value <= 16)
    job.change((d) => d.sun && (d.sun.sunHours[i] = value), `sun.hours.${i}`)
}
const highest = computed(() =>
  Math.max(1, ...runtime.value.months.map((m) => m.harvestJ), runtime.value.dailyJ ?? 0),
)
const addSun = () =>
  job.change((d) => {
    d.sun = newSun(newId('sun'))
  })
const dropSun = () =>
  job.removeWithUndo('The panel is taken away.', (d) => {
    d.sun = null
  })
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>Battery{{ plan.sun ? ' and sun' : '' }}</h2>
      <el-button v-if="plan.battery && !plan.sun" size="small" @click="addSun"> + Solar panel </el-button>
    </div>
    <template v-if="!plan.battery">
      <p class="soft small">Its capacity and the wished hours: how long it lasts, how big it must be.</p>
      <div>
        <el-button @click="begin">Work out the running time</el-button>
      </div>
    </template>
    <template v-else>
      <FieldGrid
        tight
        :record="plan.battery"
        :fields="batteryFields(plan.battery, kind)"
        :shape="batterySchema.shape"
        @set="set"
      />
      <table class="data">
        <tbody>
          <tr v-for="f in runtime.figures.filter((x) => x.value !== null)" :key="f.key">
            <td>{{ f.label }}</td>
            <td class="num">
              <FigureValue :figure="f" range />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="runtime.keepAlive" class="small">
        The bank would switch itself off: a keep-alive resistor of
        <strong class="mono">{{ runtime.keepAlive.ohm }} Ω</strong> across its output burns
        {{ show(runtime.keepAlive.watts, 'power') }}; or an always-on mode, or a second fan.
      </p>
      <template v-if="plan.sun">
        <FieldGrid tight :record="plan.sun" :fields="sunFields" :shape="sunSchema.shape" @set="setSun" />
        <div class="scroll-x" tabindex="0" role="region" aria-label="Energy balance by month">
          <table class="data small months">
            <caption class="visually-hidden">
              Energy balance by month
            </caption>
            <thead>
              <tr>
                <th>Month</th>
                <th v-for="m in months" :key="m" class="num">
                  {{ m }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th>Sun, peak hours</th>
                <td v-for="(m, i) in months" :key="m">
                  <el-input
                    class="mono"
                    size="small"
                    inputmode="decimal"
                    :model-value="String(plan.sun.sunHours[i])"
                    :aria-label="`Peak-sun hours in ${m}`"
                    @change="setHours(i, $event)"
                  />
                </td>
              </tr>
              <tr v-if="runtime.months.length">
                <th>Comes in, {{ symbol('energy') }}</th>
                <td v-for="m in runtime.months" :key="m.month" class="num">
                  <span
                    class="bar"
                    :class="{ short: m.balanceJ < 0 }"
                    :style="{ height: `${(40 * m.harvestJ) / highest}px` }"
                  />
                  {{ bare(m.harvestJ, 'energy') }}
                </td>
              </tr>
              <tr v-if="runtime.months.length">
                <th>Left over</th>
                <td v-for="m in runtime.months" :key="m.month" class="num" :class="{ short: m.balanceJ < 0 }">
                  {{ bare(m.balanceJ, 'energy') }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="small soft">
          {{
            runtime.recoveryDays === null
              ? runtime.months.length
                ? 'In the worst month the sun never fills it again.'
                : 'Type the panel’s watts.'
              : `Emptied, the worst month fills it again in ${runtime.recoveryDays.toFixed(1)} days.`
          }}
          The hours are a guess for a middle latitude: put in those of the place.
          <el-button text size="small" @click="dropSun">Without sun</el-button>
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.months td {
  padding: 2px 3px;
  vertical-align: bottom;
}
.months input {
  width: 44px;
  min-height: 28px;
  padding: 2px 4px;
  text-align: right;
}
.bar {
  display: block;
  background: var(--moss-mark);
  border-radius: 2px 2px 0 0;
  min-height: 1px;
}
.bar.short {
  background: var(--amber-mark);
}
td.short {
  color: var(--stop);
  font-weight: 600;
}
</style>
