<script setup lang="ts">
import { targetFigure, targetNames, targetQuantity } from '../../../../core/plan'
import type { Comparison, ReadingQuantity } from '../../../../core/plan'
import type { Quantity } from '../../../../core/units'

const { plan, report, findings } = useJob('verdict')
const { show, bare, say } = useUnits()
const verdict = computed(() => report.value.verdict)
const readingNames: Record<ReadingQuantity, string> = { temperature: 'Temperature', level: 'Sound level', flow: 'Airflow', pressure: 'Pressure', rotation: 'Speed', voltage: 'Voltage', current: 'Current', power: 'Power', duration: 'Running time' }
const words = { 'met': 'met', 'not-met': 'not met', 'not-decided': 'cannot tell', 'not-measured': 'not measured' }
const marks = { 'met': 'settled', 'not-met': 'fix', 'not-decided': 'note', 'not-measured': 'not-begun' } as const
const shownAs = (c: Comparison): Quantity => c.asRise ? 'temperatureDifference' : c.quantity
const plus = (x: number) => x > 0 ? '+' : ''
function change(c: Comparison): string {
  if (c.loudness !== null) return c.difference < 0 ? `about ${(1 / c.loudness).toFixed(1)} times quieter to the ear` : `about ${c.loudness.toFixed(1)} times as loud`
  if (c.change !== null) return `${plus(c.change)}${(100 * c.change).toFixed(0)} %${c.asRise ? ' of the rise' : ''}`.replace('-', '−')
  return ''
}
const predicted = computed(() => {
  const after = verdict.value.after
  const pick = report.value.pick
  if (!after || !pick) return []
  const rows: { label: string, predicted: number | null, low: number | null, high: number | null, measured: number, quantity: Quantity }[] = []
  for (const [quantity, key] of [['flow', 'pick.flow'], ['level', 'pick.level']] as const) {
    const figure = pick.figures.find(f => f.key === key)
    const target = verdict.value.targets.find(t => t.target.kind === quantity && t.measured)
    const value = target?.measured?.value ?? after.readings.find(r => r.quantity === quantity)?.value
    if (figure?.value != null && value !== undefined) rows.push({ label: readingNames[quantity], predicted: figure.value, low: figure.low, high: figure.high, measured: value, quantity })
  }
  return rows
})
const inside = (row: { low: number | null, high: number | null, measured: number }) => row.low !== null && row.high !== null && row.measured >= row.low && row.measured <= row.high
const met = computed(() => verdict.value.targets.filter(t => t.verdict === 'met').length)
const headline = computed(() => {
  if (!plan.value.targets.length) return 'No target with a number yet: the Need station takes them.'
  if (!verdict.value.after) return 'Waiting for a run after the change.'
  if (met.value === plan.value.targets.length) return 'It worked: every target is met.'
  return `${met.value} of ${plan.value.targets.length} targets are met.`
})
</script>

<template>
  <div class="two">
    <div class="stack">
      <section class="sheet stack">
        <h2>Did it work?</h2>
        <p class="headline">
          {{ headline }}
        </p>
        <div class="scroll-x">
          <table
            v-if="verdict.targets.length"
            class="data"
          >
            <thead>
              <tr>
                <th>Target</th>
                <th class="num">
                  wanted
                </th>
                <th class="num">
                  measured
                </th>
                <th>verdict</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="t in verdict.targets"
                :key="t.target.id"
              >
                <td>{{ targetNames[t.target.kind] }}<span class="small soft block">{{ t.target.place }}</span></td>
                <td class="num">
                  {{ t.target.kind === 'flow' || t.target.kind === 'runtime' ? '≥' : '≤' }} {{ show(t.target.limit, targetQuantity[t.target.kind]) }}
                </td>
                <td class="num">
                  <FigureValue
                    v-if="t.measured"
                    :figure="targetFigure(t)"
                    :before="t.measured.upperBoundOnly ? '≤ ' : ''"
                    range
                  />
                  <template v-else>
                    –
                  </template>
                </td>
                <td>
                  <span class="row state"><StateMark :state="marks[t.verdict]" /> {{ words[t.verdict] }}</span>
                  <span class="small soft">{{ t.why }}<template v-if="t.measured?.steps.length"> {{ t.measured.steps.join('; ') }}.</template></span>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <NuxtLink
          v-if="!plan.targets.length"
          :to="`/job/${plan.job.id}/need`"
        >
          Write a target
        </NuxtLink>
        <NuxtLink
          v-else-if="!verdict.after"
          :to="`/job/${plan.job.id}/log`"
        >
          Log a run
        </NuxtLink>
      </section>
      <section
        v-if="predicted.length"
        class="sheet stack"
      >
        <h2>Prediction against measurement</h2>
        <div class="scroll-x">
          <table class="data">
            <thead>
              <tr>
                <th>Quantity</th>
                <th class="num">
                  predicted
                </th>
                <th class="num">
                  measured
                </th>
                <th>what it teaches</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="row in predicted"
                :key="row.label"
              >
                <td>{{ row.label }}</td>
                <td class="num">
                  ~{{ show(row.predicted, row.quantity) }}
                  <span
                    v-if="row.low !== null"
                    class="small soft block"
                  >{{ bare(row.low, row.quantity) }} to {{ bare(row.high, row.quantity) }}</span>
                </td>
                <td class="num">
                  {{ show(row.measured, row.quantity) }}
                </td>
                <td>{{ inside(row) ? 'Within the range: plan and measurement agree.' : row.quantity === 'level' ? 'Outside: look for a mount that rings, a grille close to the blades, or another source.' : 'Outside: look at the filter’s and openings’ values, or the way it was measured.' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </div>
    <div class="stack">
      <section class="sheet stack">
        <h2>Before against after</h2>
        <p
          v-if="!verdict.comparisons.length"
          class="soft"
        >
          {{ !verdict.before || !verdict.after ? 'It takes a baseline and a run after the change.' : 'The two runs share no reading of the same kind at the same place.' }}
        </p>
        <div
          v-else
          class="scroll-x"
        >
          <table class="data">
            <thead>
              <tr>
                <th>Reading</th>
                <th class="num">
                  before
                </th>
                <th class="num">
                  after
                </th>
                <th class="num">
                  difference
                </th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="c in verdict.comparisons"
                :key="c.quantity + c.place"
              >
                <td>{{ readingNames[c.quantity] }}<span class="small soft block">{{ c.place }}{{ c.asRise ? ', rise over ambient' : '' }}</span></td>
                <td class="num">
                  {{ show(c.before, shownAs(c)) }}
                </td>
                <td class="num">
                  {{ show(c.after, shownAs(c)) }}
                </td>
                <td class="num">
                  <FigureValue
                    :figure="c.figure"
                    signed
                  />
                  <span class="small soft block">{{ c.shown ? change(c) : 'within the noise of measuring' }}</span>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <template v-if="verdict.comparisons.length">
          <h3>Is it a fair comparison?</h3>
          <ul
            v-if="verdict.unfair.length"
            class="unfair"
          >
            <li
              v-for="u in verdict.unfair"
              :key="u.what"
            >
              <StateMark state="fix" /> <span><strong>{{ say(u.text) }}.</strong> {{ u.effect }}</span>
            </li>
          </ul>
          <p
            v-else
            class="row"
          >
            <StateMark state="settled" /> No stated condition differs.
          </p>
          <p
            v-if="verdict.notStated.length"
            class="small soft"
          >
            Not stated in both runs: {{ verdict.notStated.join(', ') }}.
          </p>
        </template>
        <FindingList :findings="findings" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.headline { font-size: 17px; font-weight: 650; }
.state { gap: 6px; flex-wrap: nowrap; }
.block { display: block; font-family: var(--sans); white-space: normal; }
.unfair { list-style: none; padding: 0; margin: 0; display: grid; gap: 6px; }
.unfair li { display: grid; grid-template-columns: 18px 1fr; gap: 6px; }
</style>
