<script setup lang="ts">
import { candidateFigures } from '#core/selection'
import { meritOf, type Candidate } from '#core/selection'

/** The rows of the line-up: each says why it is there or why it fails. */
const props = defineProps<{ rows: Candidate[]; picked: Candidate | null; compared: Candidate[] }>()
const emit = defineEmits<{
  pick: [candidate: Candidate]
  unpick: []
  compare: [candidate: Candidate, on: boolean]
  light: [key: string | null]
}>()
const job = useJobStore()
const believed = useBelievedFans()
const { bare, say, show, symbol } = useUnits()
const context = computed(() => job.report!.selectionContext)

/** The weightiest two; the findings tell the rest once it is picked. */
function whyOf(c: Candidate): string {
  if (!c.reasons.length) {
    const fanArray = candidateArray(c, believed.value)
    const merit = fanArray && meritOf(context.value, fanArray, c)
    return merit ? say(merit) : ''
  }
  return [...c.reasons]
    .sort((a, b) => Number(b.verdict === 'fail') - Number(a.verdict === 'fail'))
    .slice(0, 2)
    .map((r) => say(r.text))
    .join('; ')
}
/** Each row's figures, so that they open to their working. */
const figures = computed(
  () =>
    new Map(
      props.rows.map((c) => {
        const fanArray = candidateArray(c, believed.value)
        const list = fanArray ? candidateFigures(context.value, c, fanArray) : []
        return [c, Object.fromEntries(list.map((f) => [f.key, f]))]
      }),
    ),
)
const cells = ['selection.flow', 'selection.pressure', 'selection.level', 'selection.margin'] as const
</script>

<template>
  <div class="scroll-x" tabindex="0" role="region" aria-label="Line-up">
    <table class="data ranks">
      <thead>
        <tr>
          <th><span class="visually-hidden">Compare</span></th>
          <th>Fan and drive</th>
          <th class="num">
            {{ symbol('flow') }}
          </th>
          <th class="num">
            {{ symbol('pressure') }}
          </th>
          <th class="num">dB(A)</th>
          <th class="num">vs need</th>
          <th class="num">cost, €</th>
          <th><span class="visually-hidden">Pick</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="c in rows"
          :key="candidateKey(c) + (c === picked ? '-pick' : '')"
          :class="[c.verdict, { picked: c === picked }]"
          @mouseenter="emit('light', candidateKey(c))"
          @mouseleave="emit('light', null)"
          @focusin="emit('light', candidateKey(c))"
          @focusout="emit('light', null)"
        >
          <td class="check">
            <el-checkbox
              v-if="c !== picked"
              :model-value="compared.includes(c)"
              :aria-label="`Compare ${candidateName(c)}`"
              @change="emit('compare', c, Boolean($event))"
            />
          </td>
          <td>
            <strong>{{ candidateName(c) }}</strong>
            <span class="drive mono">{{ driveWords(c, show) }}</span>
            <span class="drive"> · {{ c.maker }}<template v-if="c.owned">, owned</template></span>
            <span v-if="whyOf(c)" class="why small" :class="c.verdict">{{ whyOf(c) }}</span>
          </td>
          <td v-for="key in cells" :key="key" class="num">
            <FigureValue
              v-if="figures.get(c)?.[key]"
              :figure="figures.get(c)![key]!"
              :signed="key === 'selection.margin'"
              bare
            />
          </td>
          <td class="num">
            {{ bare(c.cost, 'money') }}
          </td>
          <td>
            <el-button
              v-if="c !== picked"
              size="small"
              :aria-label="`Pick ${c.secondId ? '' : `${c.count} × `}${c.maker} ${c.model} at ${show(c.driveV, 'voltage')}`"
              @click="emit('pick', c)"
            >
              Pick
            </el-button>
            <el-button v-else size="small" text aria-label="Give up the pick" @click="emit('unpick')">
              picked
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.ranks td:nth-child(2) {
  line-height: 1.25;
}
.ranks td,
.ranks th {
  padding: 4px 5px;
}
.ranks .check {
  padding: 4px 0;
  width: 24px;
}
.check input {
  width: 24px;
  height: 24px;
  margin: 0;
}
.ranks strong {
  display: block;
}
.drive {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.why {
  display: block;
  color: var(--ink-soft);
}
.why.fail {
  color: var(--stop);
}
.why.warn {
  color: var(--amber);
}
tr.picked td {
  background: var(--cap-soft);
}
tr.picked td:first-child {
  box-shadow: inset 4px 0 0 var(--cap);
}
</style>
