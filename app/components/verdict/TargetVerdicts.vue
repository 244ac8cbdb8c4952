<script setup lang="ts">
import { targetName, targetNumber, wantedRange, type Target } from '#core/document'
import { targetFigure, type TargetResult } from '#core/verification'
import { sureWords, verdictName } from '#core/print'

/** Target by target: wanted, measured with its range, verdict. */
defineProps<{ targets: TargetResult[] }>()
const { show } = useUnits()
/** What was wanted, as short as a column of numbers asks. */
function wantedSigns(target: Target): string {
  const { low, high } = wantedRange(target)
  const of = (value: number) => targetNumber(target, value, show)
  if (low !== null && high !== null) return `${of(low)} to ${of(high)}`
  return low !== null ? `≥ ${of(low)}` : `≤ ${of(high!)}`
}
const marks = { met: 'settled', 'not-met': 'fix', 'not-decided': 'note', 'not-measured': 'not-begun' } as const
</script>

<template>
  <div class="scroll-x" tabindex="0" role="region" aria-label="Targets">
    <table class="data blocks">
      <thead>
        <tr>
          <th>Target</th>
          <th class="num">wanted</th>
          <th class="num">measured</th>
          <th>verdict</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in targets" :key="t.target.id">
          <td class="wide">
            {{ targetName(t.target)
            }}<span class="small soft block">{{
              [t.target.place, t.target.stage].filter(Boolean).join(', ')
            }}</span>
          </td>
          <td class="num" data-label="wanted">
            {{ wantedSigns(t.target) }}
          </td>
          <td class="num" data-label="measured">
            <template v-if="t.measured">
              <FigureValue
                :figure="targetFigure(t)"
                :before="t.measured.upperBoundOnly ? '≤ ' : ''"
                range
              /><template v-if="t.target.unit"> {{ t.target.unit }}</template>
            </template>
            <template v-else> – </template>
          </td>
          <td class="wide">
            <span class="row state"
              ><StateMark :state="t.looks.length ? 'note' : marks[t.verdict]" /> {{ verdictName(t) }}</span
            >
            <span class="small soft"
              >{{ t.why }} {{ sureWords(t)
              }}<template v-if="t.measured?.steps.length"> {{ t.measured.steps.join('; ') }}.</template></span
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.state {
  gap: 6px;
  flex-wrap: nowrap;
}
.block {
  display: block;
  font-family: var(--sans);
  white-space: normal;
}
</style>
