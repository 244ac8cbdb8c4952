<script setup lang="ts">
import { knownOf, symptoms, troubleSearch, type Answer, type Symptom } from '#core/trouble'
import { placeLink } from '~/utils/place-link'

definePageMeta({ station: 'build' })

const { plan, report } = useJob('build')
const { say, show } = useUnits()
const { add } = useLogBook()
const route = useRoute()
const router = useRouter()
const isSymptom = (x: unknown): x is Symptom => typeof x === 'string' && x in symptoms
const options = Object.entries(symptoms).map(([value, label]) => ({ value: value as Symptom, label }))
const what = computed<Symptom>({
  get: () => (isSymptom(route.query.what) ? route.query.what : 'still'),
  set: (value) => void router.replace({ query: { what: value } }),
})
/** What was answered, in order, by the key of the measurement. */
const answers = ref<Record<string, Answer>>({})
watch(what, () => {
  answers.value = {}
})
const known = computed(() => knownOf(plan.value, report.value))
const search = computed(() => troubleSearch(known.value, what.value, answers.value))
const typed = ref<number | null>(null)
const problem = ref('')
/** Raised after each answer: the field begins anew. */
const turn = ref(0)
function answer(value: Answer) {
  const { next } = search.value
  if (!next) return
  answers.value = { ...answers.value, [next.key]: value }
  typed.value = null
  problem.value = ''
  turn.value++
  landIn('.ask, .found')
}
function send() {
  if (typed.value === null) problem.value = 'Type what the meter shows, or say that it cannot be measured here.'
  else answer(typed.value)
}
/** Takes an answer back, with those that came after it. */
function takeBack(key: string) {
  const keys = Object.keys(answers.value)
  answers.value = Object.fromEntries(keys.slice(0, keys.indexOf(key)).map((k) => [k, answers.value[k]!]))
}
const asked = computed(() =>
  search.value.asked.map(({ measurement: m, answer: a, band }) => ({
    key: m.key,
    title: m.title,
    value:
      a === null
        ? 'not measured'
        : typeof a === 'number' && m.quantity
          ? show(a, m.quantity)
          : (m.choices.find((c) => c.key === a)?.label ?? ''),
    untold: a !== null && !band,
  })),
)
const percent = (x: number) => `${Math.round(100 * x)} %`
/** What the bench says now of a quantity: one channel of it, else nobody knows which. */
const { instruments, renew } = useInstruments()
onMounted(() => void renew())
const STALE_S = 10
const live = computed(() => {
  const quantity = search.value.next?.quantity
  if (!quantity) return null
  const found = instruments.value.flatMap((i) =>
    i.live && i.live.ageS < STALE_S
      ? i.live.values
          .filter((c) => c.quantity === quantity && c.value !== null)
          .map((c) => ({ ...c, from: i.name }))
      : [],
  )
  return found.length === 1 ? found[0]! : null
})
const first = computed(() => search.value.causes[0] ?? null)
const noted = ref('')
watch([what, answers], () => {
  noted.value = ''
})
function note() {
  if (!first.value) return
  noted.value = add({
    kind: 'fault',
    what: `${symptoms[what.value]}: ${first.value.title}`.slice(0, 120),
    before: asked.value
      .filter((a) => a.value !== 'not measured')
      .map((a) => `${a.title}: ${a.value}`)
      .join('; ')
      .slice(0, 120),
    notes: say(first.value.fix),
  })
    ? ''
    : 'Written into the log book.'
}
</script>

<template>
  <div class="stack">
    <BuildTabs />
    <div class="layout">
      <section class="sheet stack">
        <h2>It does not do what it should</h2>
        <ChoiceField v-model="what" label="What is wrong" :options="options" />
        <ol v-if="asked.length" class="asked">
          <li v-for="a in asked" :key="a.key">
            {{ a.title }}: <strong>{{ a.value }}</strong>
            <span v-if="a.untold" class="small soft"> (the plan has no number for it)</span>
            <el-button text size="small" @click="takeBack(a.key)"
              >Again<span class="visually-hidden">: {{ a.title }}</span></el-button
            >
          </li>
        </ol>
        <form v-if="search.next" class="ask stack" :aria-label="search.next.title" @submit.prevent="send">
          <h3>{{ asked.length ? 'Then' : 'First' }}: {{ search.next.title }}</h3>
          <p>{{ say(search.next.how) }}</p>
          <template v-if="search.next.quantity">
            <div class="row">
              <QuantityField
                :key="`${search.next.key} ${turn}`"
                v-model="typed"
                label="Reading"
                :quantity="search.next.quantity"
              />
              <el-button type="primary" native-type="submit">Next</el-button>
              <el-button v-if="live" @click="answer(live.value)">
                Take {{ show(live.value, search.next.quantity) }} from the bench
              </el-button>
            </div>
            <p v-if="problem" class="error small" role="alert">{{ problem }}</p>
          </template>
          <div v-else class="row">
            <el-button v-for="c in search.next.choices" :key="c.key" @click="answer(c.key)">{{
              c.label
            }}</el-button>
          </div>
          <el-button class="skip" text size="small" @click="answer(null)">I cannot tell that here</el-button>
        </form>
        <p v-for="m in search.odd" :key="m.key" role="alert" class="small">
          <StateMark state="fix" /> None of these causes shows such a reading: “{{ m.title }}”. Read it once
          more.
        </p>
        <section v-if="first && search.end !== 'open' && !search.next" class="found stack" tabindex="-1">
          <h3>{{ search.end === 'found' ? first.title : `Most likely: ${first.title}` }}</h3>
          <p>{{ first.physics }}</p>
          <p>
            <strong>{{ say(first.fix) }}</strong>
          </p>
          <p v-if="search.end === 'likely'" class="small">
            Nothing more that is measured here would tell it apart: try this, then the next in the list.
          </p>
          <div class="row">
            <NuxtLink v-if="first.at" class="button small" :to="placeLink(plan.job.id, first.at)">{{
              stationName(first.at)
            }}</NuxtLink>
            <el-button size="small" @click="note">Write it into the log book</el-button>
            <span v-if="noted" class="small" role="status">{{ noted }}</span>
          </div>
        </section>
      </section>
      <section class="sheet stack" aria-live="polite">
        <h2>Likely causes</h2>
        <ol class="causes">
          <li v-for="c in search.causes" :key="c.key">
            <span class="name"
              >{{ c.title }} <span class="mono small soft">{{ percent(c.chance) }}</span></span
            >
            <el-progress :percentage="Math.round(100 * c.chance)" :show-text="false" :aria-label="c.title" />
            <span class="small soft">{{ c.physics }}</span>
          </li>
        </ol>
        <p class="small soft">
          How common each is, is common practice; the measurements decide. Power off before hands go in; nothing
          here is for the mains side.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.asked,
.causes {
  margin: 0;
  padding-left: 20px;
}
.causes li {
  padding: 5px 0;
}
.name {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.ask,
.found {
  background: var(--sheet-soft);
  padding: 12px;
  border-radius: var(--radius);
}
.skip {
  justify-self: start;
}
.row {
  align-items: flex-end;
  flex-wrap: wrap;
}
@media (max-width: 900px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
