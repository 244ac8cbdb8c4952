<script setup lang="ts">
import { wholeWith } from '#core/plan'
import { candidateFigures, meritOf, type Candidate } from '#core/selection'

/** The rows of the line-up: each says why it is there or why it fails. */
const props = defineProps<{
  rows: Candidate[]
  picked: Candidate | null
  compared: Candidate[]
  columns: RankColumn[]
}>()
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

/** Why it fails or is doubtful: the weightiest, of the pick two; the findings tell the rest once it is picked. */
const whyOf = (c: Candidate) =>
  [...c.reasons]
    .sort((a, b) => Number(b.verdict === 'fail') - Number(a.verdict === 'fail'))
    .slice(0, c === props.picked ? 2 : 1)
    .map((r) => say(r.text))
    .join('; ')
/** What is worth a word of one that suffices: that it is a fan for more voltage, run slowly. */
function meritWords(c: Candidate): string {
  const fanArray = candidateArray(c, believed.value)
  const merit = fanArray && meritOf(context.value, fanArray, c)
  return merit && merit.length > 1 ? say(merit.slice(1)).replace(/^; /, '') : ''
}
const aboutOf = (c: Candidate) =>
  [c.maker, c.owned ? 'owned' : '', arrangementWords(c), meritWords(c)].filter(Boolean).join(', ')
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
/** All fans of the machine together, with this choice in the place of the pick. */
const wholeOf = (c: Candidate) => wholeWith(job.report!.sound, job.plan!.stream, c.level?.exact ?? null)
/** Figures that open to their working, and plain values. */
const cells = computed(() =>
  [
    { key: 'flow', head: symbol('flow'), figure: 'selection.flow' },
    { key: 'pressure', head: symbol('pressure'), figure: 'selection.pressure' },
    { key: 'level', head: 'dB(A)', figure: 'selection.level' },
    ...(job.report!.streams.length > 1
      ? [{ key: 'level', head: 'all, dB(A)', text: (c: Candidate) => bare(wholeOf(c), 'level') }]
      : []),
    { key: 'margin', head: 'vs need', figure: 'selection.margin' },
    { key: 'current', head: symbol('current'), text: (c: Candidate) => bare(c.currentA, 'current') },
    { key: 'power', head: symbol('power'), text: (c: Candidate) => bare(c.powerW, 'power') },
    {
      key: 'thickness',
      head: `deep, ${symbol('length')}`,
      text: (c: Candidate) => bare(c.thicknessM, 'length'),
    },
    { key: 'cost', head: 'cost, €', text: (c: Candidate) => bare(c.cost, 'money') },
  ].filter((cell) => props.columns.includes(cell.key as RankColumn)),
)
/** Up and down go from row to row, c compares the one that has the focus. */
function key(event: KeyboardEvent, c: Candidate) {
  const row = event.currentTarget as HTMLElement
  const to =
    event.key === 'ArrowDown'
      ? row.nextElementSibling
      : event.key === 'ArrowUp'
        ? row.previousElementSibling
        : null
  if (to) {
    event.preventDefault()
    to.querySelector<HTMLElement>('.take')?.focus()
  } else if (event.key === 'c' && c !== props.picked) emit('compare', c, !props.compared.includes(c))
}
</script>

<template>
  <div class="scroll-x" tabindex="0" role="region" aria-label="Line-up">
    <table class="data ranks blocks">
      <thead>
        <tr>
          <th><span class="visually-hidden">Compare</span></th>
          <th>Fan and drive</th>
          <th v-for="cell in cells" :key="cell.head" class="num">{{ cell.head }}</th>
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
          @keydown="key($event, c)"
        >
          <td class="check">
            <el-checkbox
              v-if="c !== picked"
              :model-value="compared.includes(c)"
              :aria-label="`Compare ${candidateName(c)}`"
              @change="emit('compare', c, Boolean($event))"
            />
          </td>
          <td class="who">
            <strong>{{ candidateName(c) }}</strong>&ensp;<span class="drive mono">{{
              driveLevelWords(c, show)
            }}</span>
            <span class="why small" :class="c.reasons.length ? c.verdict : ''"
              >{{ aboutOf(c) }}<span v-if="c.reasons.length" class="reason"> · {{ whyOf(c) }}</span></span
            >
          </td>
          <td v-for="cell in cells" :key="cell.head" class="num" :data-label="cell.head">
            <template v-if="cell.text">{{ cell.text(c) }}</template>
            <FigureValue
              v-else-if="figures.get(c)?.[cell.figure!]"
              :figure="figures.get(c)![cell.figure!]!"
              :signed="cell.key === 'margin'"
              bare
            />
          </td>
          <td class="last">
            <el-button
              v-if="c !== picked"
              class="take"
              size="small"
              :aria-label="`Pick ${c.ofOneKind ? `${c.count} × ` : ''}${c.maker} ${c.model} at ${show(c.driveV, 'voltage')}`"
              @click="emit('pick', c)"
            >
              Pick
            </el-button>
            <el-button
              v-else
              class="take"
              size="small"
              text
              aria-label="Give up the pick"
              @click="emit('unpick')"
            >
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
@media (max-width: 760px) {
  .ranks .who {
    flex: 1 1 calc(100% - 50px);
  }
}
.drive {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.why {
  display: block;
  color: var(--ink-soft);
}
.why.fail .reason {
  color: var(--stop);
}
.why.warn .reason {
  color: var(--amber);
}
tr.picked td {
  background: var(--cap-soft);
}
tr.picked td:first-child {
  box-shadow: inset 4px 0 0 var(--cap);
}
</style>
