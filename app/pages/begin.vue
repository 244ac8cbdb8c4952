<script setup lang="ts">
import { sizesOf, type PathSizes } from '#core/begin'
import { fanSchema, jobSchema } from '#core/document'
import type { JobSummary } from '#shared/api'

/** A new job from a few answers: what must become better, what is known, the way of the air, the fan; the answer beside it. */
useHead({ title: 'New job · Redpoll' })
const {
  answers,
  problem,
  assumptions,
  first,
  open,
  change,
  set,
  setRange,
  setGoal,
  copyFrom,
  begin,
  beginEmpty,
} = useBeginning()
const shelf = useShelfStore()
void shelf.load()
const { show, editable } = useUnits()
const job = computed(() => answers.value.job)
const range = (low: number, high: number, quantity: Parameters<typeof show>[1]) =>
  `${editable(low, quantity)} to ${show(high, quantity)}`
const facts = computed(() => beginFields(job.value.goal, assumptions.value, range))
const sizes = computed(() => sizesOf[answers.value.shape].map((key) => ({ key, ...sizeFields[key] })))
const setSize = (key: keyof PathSizes, value: number | null) =>
  change({ sizes: { ...answers.value.sizes, [key]: value } })

const jobs = shallowRef<JobSummary[]>([])
onMounted(async () => {
  void landIn('.pictures')
  const result = await api<JobSummary[]>('jobs?soon=1')
  if (result.ok) jobs.value = result.data
})
const shapesThere = computed(() => shapeCards.filter((s) => s.value !== 'like' || jobs.value.length > 0))
const jobOptions = computed(() => [
  { value: null, label: 'choose the job' },
  ...jobs.value.map((j) => ({ value: j.id, label: j.name })),
])

const now = computed(() => job.value.goal === 'quieten')
const ways = computed(() => [
  { value: 'label' as const, label: now.value ? 'It is in it: its label' : 'I have one: its label' },
  { value: 'usual' as const, label: now.value ? 'I cannot read it' : 'None yet: a usual one' },
  ...(shelf.names.length
    ? [
        { value: 'known' as const, label: 'One of my shelf' },
        ...(now.value ? [] : [{ value: 'shelf' as const, label: 'Rank my shelf' }]),
      ]
    : []),
])
const labelFields = [
  { key: 'frameM', label: 'Frame, side', quantity: 'length', placeholder: '80 mm' },
  { key: 'ratedV', label: 'Voltage', quantity: 'voltage', placeholder: '12 V' },
  { key: 'ratedA', label: 'Current', quantity: 'current', placeholder: '0.15 A' },
  { key: 'ratedRpm', label: 'Speed', quantity: 'rotation', placeholder: 'often not printed' },
] as const
const fanOptions = useFanOptions('choose the fan')
const fallback = computed(() => goalCards.find((g) => g.value === job.value.goal)!.name)
const answer = computed(() => {
  const { report } = first.value
  return report
    ? [report.need.flow, ...(report.selection ? [report.selection.served] : [])].filter((f) => f.value !== null)
    : []
})
const meets = computed(() => {
  const { report } = first.value
  const need = report?.need.flow
  const served = report?.selection?.served
  // a job to quieten begins with the fan that is in it: it gives what it gives
  if (!need?.value || !served?.value || now.value) return null
  const surely = (served.low ?? served.value) >= (need.high ?? need.value)
  const never = (served.high ?? served.value) < (need.low ?? need.value)
  return surely
    ? { state: 'settled' as const, text: 'Enough air, whatever is true of the guesses.' }
    : never
      ? { state: 'fix' as const, text: 'Not enough air: the line-up shows what would be.' }
      : { state: 'note' as const, text: 'May be enough: the line-up says what to measure first.' }
})
const assumedWords = computed(() => {
  const of = facts.value.filter((f) => open.value.facts.some((a) => a.key === f.key)).map((f) => f.label)
  const fan = answers.value.way === 'label' && answers.value.label.frameM === null ? ['size of the fan'] : []
  return [...of, ...fan, ...open.value.sizes.map((key) => sizeFields[key].label)].map((w) => w.toLowerCase())
})
</script>

<template>
  <div>
    <AppHeader title="New job" />
    <main id="main">
      <form class="begin" @submit.prevent="begin(fallback)">
        <div class="stack">
          <section class="sheet stack">
            <h2 id="better">What must become better?</h2>
            <PictureChoice
              label="What must become better"
              :options="goalCards"
              :model-value="job.goal"
              @update:model-value="setGoal"
            />
          </section>
          <div class="pair">
            <section class="sheet stack">
              <h2>What is known of it?</h2>
              <p class="small soft">A range is welcome: 20 to 60 W. What you do not know, leave empty.</p>
              <FieldGrid
                :record="job"
                :fields="facts"
                :shape="jobSchema.shape"
                :uncertainties="answers.uncertainties"
                @set="set"
                @uncertainty="setRange"
              >
                <QuantityField
                  v-if="now"
                  label="At most this loud there"
                  quantity="level"
                  hint="empty: as quiet as it gets"
                  :model-value="answers.levelDbA"
                  @update:model-value="change({ levelDbA: $event })"
                />
              </FieldGrid>
            </section>
            <section class="sheet stack">
              <h2>{{ now ? 'The fan in it now' : 'The fan' }}</h2>
              <ChoiceField
                :label="now ? 'What is known of it' : 'Is there one?'"
                hide-label
                :options="ways"
                :model-value="answers.way"
                @update:model-value="change({ way: $event })"
              />
              <div v-if="answers.way === 'label'" class="fields">
                <QuantityField
                  v-for="f in labelFields"
                  :key="f.key"
                  :label="f.label"
                  :quantity="f.quantity"
                  :placeholder="f.placeholder"
                  :schema="fanSchema.shape[f.key]"
                  :model-value="answers.label[f.key]"
                  @update:model-value="change({ label: { ...answers.label, [f.key]: $event } })"
                />
              </div>
              <ChoiceField
                v-else-if="answers.way === 'known'"
                label="Fan of the shelf"
                :options="fanOptions"
                :model-value="answers.fanId"
                @update:model-value="change({ fanId: $event })"
              />
              <p v-else class="small soft">
                {{
                  answers.way === 'usual'
                    ? 'A usual 12 V fan stands in for it, estimated from its size: put the label in when you have one.'
                    : 'The line-up ranks every fan that you own or know.'
                }}
              </p>
            </section>
          </div>
          <section class="sheet stack">
            <h2>Which way does the air take?</h2>
            <PictureChoice
              label="Which way the air takes"
              :options="shapesThere"
              :model-value="answers.shape"
              @update:model-value="change({ shape: $event })"
            />
            <div v-if="sizes.length || answers.shape === 'like'" class="fields">
              <QuantityField
                v-for="s in sizes"
                :key="s.key"
                :label="s.label"
                :quantity="s.quantity"
                :hint="s.hint"
                :model-value="answers.sizes[s.key]"
                @update:model-value="setSize(s.key, $event)"
              />
              <ChoiceField
                v-if="answers.shape === 'like'"
                label="Its air path is like that of"
                :options="jobOptions"
                :model-value="answers.copied?.id ?? null"
                @update:model-value="copyFrom($event)"
              />
            </div>
          </section>
        </div>
        <aside class="sheet stack answer" aria-label="First answer">
          <h2>First answer</h2>
          <dl v-if="answer.length" class="figures">
            <div v-for="(figure, i) in answer" :key="figure.key">
              <dt>{{ figure.label }}</dt>
              <dd><FigureValue :figure="figure" :big="i === 0" range /></dd>
            </div>
          </dl>
          <p v-if="first.report && first.report.need.missing" class="small">
            To work this out, give {{ first.report.need.missing }}.
          </p>
          <p v-if="meets" class="meets small">
            <StateMark :state="meets.state" /> <span>{{ meets.text }}</span>
          </p>
          <p v-if="first.made && answers.way === 'usual'" class="small">
            Picked for now: {{ first.made.model }}, the smallest usual size that may do.
          </p>
          <p v-if="assumedWords.length" class="small soft">Assumed for now: {{ assumedWords.join(', ') }}.</p>
          <TextField
            label="Name of the job"
            :placeholder="fallback"
            :model-value="answers.name"
            @update:model-value="change({ name: $event })"
          />
          <p v-if="problem" class="bad small" role="alert">{{ problem }}</p>
          <el-button type="primary" native-type="submit">Begin</el-button>
          <el-button text size="small" @click="beginEmpty(fallback)">Begin with an empty plan</el-button>
        </aside>
      </form>
    </main>
  </div>
</template>

<style scoped>
.begin {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(260px, 320px);
  gap: 12px;
  align-items: start;
  padding: 0 20px 20px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
}
.answer {
  position: sticky;
  top: 12px;
}
.answer .figures {
  display: grid;
  gap: 8px;
  margin: 0;
}
.answer dd {
  display: grid;
  justify-items: start;
  margin: 0;
}
.meets {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr);
  gap: 6px;
  align-items: start;
}
.meets svg {
  margin-top: 2px;
}
@media (max-width: 900px) {
  .begin,
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
  .begin {
    padding: 0 10px 20px;
  }
  .answer {
    position: static;
  }
}
</style>
