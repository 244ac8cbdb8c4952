<script setup lang="ts">
import { targetName, wantedWords } from '#core/document'
import { targetFigure, type TargetResult } from '#core/verification'
import { sureWords, verdictName } from '#core/print'

/** Target by target: wanted, measured with its range, verdict. */
defineProps<{ targets: TargetResult[] }>()
const { show } = useUnits()
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
            {{ wantedWords(t.target, show) }}
          </td>
          <td class="num" data-label="measured">
            <FigureValue
              v-if="t.measured"
              :figure="targetFigure(t)"
              :before="t.measured.upperBoundOnly ? '≤ ' : ''"
              range
            /><template v-if="t.measured && t.target.unit"> {{ t.target.unit }}</template>
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
