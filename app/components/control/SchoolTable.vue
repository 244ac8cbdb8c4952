<script setup lang="ts">
import { HEARD_DBA, type SchoolRow } from '#core/day'
import type { Control } from '#core/document'

/** The schools side by side with this job's numbers, each set as it would be for it; one is taken. */
const props = defineProps<{ rows: SchoolRow[]; planned: boolean }>()
const emit = defineEmits<{ take: [control: Control] }>()
const { show } = useUnits()
const HOUR_S = 3600
interface Line {
  row: SchoolRow
  name: string
  set: string
  peak: string
  hot: boolean
  on: string
  leq: string
  loudest: string
  energy: string
  starts: string
  life: string
  fails: string
  unsafe: boolean
}
/** What it would be set to, in short. */
function setWords({
  school,
  points,
  onC,
  offC,
  onRh,
  offRh,
  sense,
  quietDuty,
  timerOnS,
  timerEveryS,
  runOnS,
  onDuty,
}: Control): string {
  switch (school) {
    case 'slow':
      return quietDuty === null ? '' : `at ${show(quietDuty, 'ratio')}`
    case 'timer':
      return timerOnS === null || timerEveryS === null
        ? ''
        : `${show(timerOnS, 'duration')} every ${show(timerEveryS, 'duration')}`
    case 'thermostat':
      if (sense === 'light') return 'with the light'
      if (sense === 'humidity') return onRh === null ? '' : `${show(onRh, 'ratio')} / ${show(offRh, 'ratio')}`
      return onC === null ? '' : `${show(onC, 'temperature')} / ${show(offC, 'temperature')}`
    case 'curve':
    case 'host': {
      const [a, b] = [points[0], points.at(-1)]
      const end = (p: typeof a) => `${show(p!.duty, 'ratio')} at ${show(p!.temperatureC, 'temperature')}`
      return a && b ? `${end(a)} to ${end(b)}` : ''
    }
    case 'boost':
      return quietDuty === null ? 'off in between' : `quiet at ${show(quietDuty, 'ratio')}`
    case 'tool':
      return runOnS ? `runs on ${show(runOnS, 'duration')}` : ''
    case 'always':
      return onDuty === null ? 'as planned' : `at ${show(onDuty, 'ratio')}`
  }
}
const years = (y: number) => (y > 30 ? 'over 30 years' : `${y.toPrecision(2)} years`)
const bearingWords = ({ low, high }: { low: number; high: number }) =>
  low > 30 ? 'bearing over 30 years' : `bearing ${low.toPrecision(2)} to ${years(high)}`
const loud = (level: number) =>
  level >= HEARD_DBA ? show(level, 'level') : Number.isFinite(level) ? 'not heard' : 'silent'
const lines = computed((): Line[] =>
  props.rows.map((row) => {
    const { hot, usual, control, contact, bearing } = row
    const worst =
      row.failures.find((f) => f.part === 'sensor') ?? row.failures.find((f) => f.part === 'controller')
    const peak = hot?.peakC.length ? Math.max(...hot.peakC) : null
    const on = usual ? Math.max(...usual.groups.map((g) => g.onS)) : 0
    const starts = usual ? usual.groups.reduce((n, g) => n + g.starts, 0) : 0
    return {
      row,
      name: schoolNames[row.school],
      set: setWords(control),
      peak: peak === null ? '' : show(peak, 'temperature'),
      hot: row.tooHot.length > 0,
      on: usual ? `${(on / HOUR_S).toFixed(on > 10 * HOUR_S ? 0 : 1)} h` : '',
      leq: usual ? loud(usual.leqDbA) : '',
      loudest: usual ? loud(usual.loudestDbA) : '',
      energy: usual ? show(usual.energyJ, 'energy') : '',
      starts: usual ? String(starts) : '',
      life: [
        contact ? `contact ${years(contact.years)}${contact.assumed ? ' (assumed)' : ''}` : '',
        bearing ? bearingWords(bearing) : '',
        control.price === null ? '' : `parts ${show(control.price, 'money')}`,
      ]
        .filter(Boolean)
        .join(', '),
      fails: worst ? worst.happens : 'nothing to fail',
      unsafe: worst?.safe === false,
    }
  }),
)
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>The schools, with this job’s numbers</h2>
      <span class="small soft">hottest day for heat, usual day for the rest; each set as it would be here</span>
    </div>
    <div class="scroll-x" tabindex="0" role="region" aria-label="Schools of control compared">
      <table class="data blocks schools">
        <thead>
          <tr>
            <th>school</th>
            <th class="num">hottest</th>
            <th class="num">on</th>
            <th class="num">over the day</th>
            <th class="num">worst 5 min</th>
            <th class="num">energy</th>
            <th class="num">starts</th>
            <th>if its sensor or controller fails</th>
            <th><span class="visually-hidden">Take</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.row.school" :class="{ picked: l.row.taken && planned }">
            <td class="wide">
              <strong>{{ l.name }}</strong> <span class="small soft set">{{ l.set }}</span>
              <span v-if="l.life" class="small soft life">{{ l.life }}</span>
            </td>
            <template v-if="l.row.problem">
              <td class="wide soft small" colspan="7">{{ l.row.problem }}</td>
            </template>
            <template v-else>
              <td class="num" data-label="hottest">
                <StateMark v-if="l.hot" state="fix" /> {{ l.peak }}
                <span v-if="l.hot" class="visually-hidden"
                  >over the limit of {{ l.row.tooHot.join(', ') }}</span
                >
              </td>
              <td class="num" data-label="on">{{ l.on }}</td>
              <td class="num" data-label="over the day">{{ l.leq }}</td>
              <td class="num" data-label="worst 5 min">{{ l.loudest }}</td>
              <td class="num" data-label="energy">{{ l.energy }}</td>
              <td class="num" data-label="starts">{{ l.starts }}</td>
              <td class="small wide" :class="{ unsafe: l.unsafe }">{{ l.fails }}</td>
            </template>
            <td>
              <span v-if="l.row.taken && planned" class="small soft">taken</span>
              <el-button
                v-else
                size="small"
                :aria-label="`Take ${l.name}`"
                @click="emit('take', l.row.control)"
              >
                Take
              </el-button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.schools td {
  padding: 4px 6px;
  vertical-align: top;
}
.schools .num {
  white-space: nowrap;
}
.set,
.life {
  display: block;
}
.unsafe {
  color: var(--amber);
}
.picked td {
  background: var(--cap-soft);
}
.picked td:first-child {
  box-shadow: inset 4px 0 0 var(--cap);
}
</style>
