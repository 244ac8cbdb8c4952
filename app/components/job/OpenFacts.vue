<script setup lang="ts">
import { factCatalogue, findingMessage, type Evaluation } from '#core/rules'

/** What could not be judged: which facts are missing, by station, each leading to its field; and what rests after a stop. */
const props = defineProps<{ evaluation: Evaluation; jobId: string }>()
const emit = defineEmits<{ went: [] }>()
const { units } = useUnits()
const order = [
  'brief',
  'need',
  'air-path',
  'line-up',
  'fit',
  'power',
  'control',
  'build',
  'log',
  'verdict',
] as const
const stations = computed(() =>
  order
    .map((station) => ({ station, facts: props.evaluation.open.filter((o) => o.at.station === station) }))
    .filter((s) => s.facts.length),
)
const checks = (n: number) => (n === 1 ? 'one check' : `${n} checks`)
const meaning = (name: keyof typeof factCatalogue) => {
  const text = factCatalogue[name].meaning
  return text.charAt(0).toUpperCase() + text.slice(1)
}
const messageOf = (id: string) => {
  const f = props.evaluation.findings.find((x) => x.id === id)
  return f ? findingMessage(f, units.value) : id
}
const rests = computed(() => props.evaluation.rests)
</script>

<template>
  <section class="stack open">
    <p v-if="rests.length" class="small">
      After “{{ messageOf(rests[0]!.after) }}” the fans do not run as planned, so {{ checks(rests.length) }} of
      airflow, level and time wait until it is mended.
    </p>
    <template v-if="stations.length">
      <h3>Not judged yet, because nobody said</h3>
      <div v-for="s in stations" :key="s.station">
        <h4 class="small">{{ stationName(s) }}</h4>
        <ul>
          <li v-for="o in s.facts" :key="o.name">
            <StateMark state="not-begun" />
            <NuxtLink :to="placeLink(jobId, o.at)" @click="emit('went')">{{ meaning(o.name) }}</NuxtLink>
            <span class="soft small">{{
              o.severity === 'stop' ? 'could be a stop' : checks(o.rules.length)
            }}</span>
          </li>
        </ul>
      </div>
    </template>
  </section>
</template>

<style scoped>
.open {
  margin-top: 16px;
}
h4 {
  margin: 6px 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  min-height: 26px;
  font-size: 14px;
}
</style>
