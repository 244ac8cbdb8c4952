<script setup lang="ts">
import { hasRemedies, type Remedy } from '#core/advice'
import { findingMessage, type Finding } from '#core/rules'

/** What stands behind a finding: why, what else the same cause raises, where it is mended, and what takes it away. */
const props = defineProps<{ finding: Finding }>()
const emit = defineEmits<{ went: [] }>()
const job = useJobStore()
const { units, show, inUnits } = useUnits()
const remediesOf = useRemedies()
const jobId = computed(() => job.plan?.job.id ?? '')
const also = computed(() =>
  props.finding.also.map((f) => {
    const text = findingMessage(f, units.value)
    return {
      key: `${f.id}.${f.subject?.id}`,
      at: f.at,
      text: f.subject?.name ? `${f.subject.name}: ${text}` : text,
    }
  }),
)
const remedies = shallowRef<Remedy[] | null>(null)
const mayTry = computed(() => hasRemedies(props.finding.id))
let asked = 0
watch(
  () => props.finding,
  async (finding) => {
    if (!mayTry.value) return
    const mine = ++asked
    const found = await remediesOf(finding)
    if (mine === asked) remedies.value = found
  },
  { immediate: true },
)
const effect = ({ flow, level }: Remedy) =>
  [flow === null ? '' : show(flow, 'flow'), level === null ? '' : show(level, 'level')]
    .filter(Boolean)
    .join(', ')
function attempt(remedy: Remedy) {
  job.replace(remedy.plan)
  useToast().show(`Tried: ${remedy.label}.`, { action: { label: 'Undo', run: job.undo } })
}
</script>

<template>
  <div class="more small">
    <p><strong>Why:</strong> {{ inUnits(finding.why) }}</p>
    <template v-if="also.length">
      <p><strong>The same cause shows as:</strong></p>
      <ul class="also">
        <li v-for="a in also" :key="a.key">
          <NuxtLink :to="placeLink(jobId, a.at)" @click="emit('went')">{{ a.text }}</NuxtLink>
        </li>
      </ul>
    </template>
    <ul v-if="remedies?.length" class="try" aria-label="Takes it away">
      <li v-for="r in remedies" :key="r.key">
        <span
          >{{ inUnits(r.label) }}<span v-if="effect(r)" class="mono soft"> → {{ effect(r) }}</span></span
        >
        <el-button size="small" :aria-label="`Try: ${r.label}`" @click="attempt(r)">Try</el-button>
      </li>
    </ul>
    <p v-else-if="mayTry && remedies === null" class="soft">Looking for what takes it away…</p>
    <p v-else-if="mayTry" class="soft">No single change that is computed here takes it away.</p>
    <div class="row">
      <NuxtLink :to="placeLink(jobId, finding.at)" @click="emit('went')">
        Go to {{ stationName(finding.at) }}
      </NuxtLink>
      <span class="soft"
        >Rule <span class="mono">{{ finding.id }}</span>, source {{ finding.source }}</span
      >
      <KnownForm :finding="finding" />
    </div>
  </div>
</template>

<style scoped>
.more {
  display: grid;
  gap: 4px;
  padding: 2px 2px 6px;
}
.more p {
  margin: 0;
}
.also {
  margin: 0;
  padding-left: 18px;
}
.try {
  list-style: none;
  margin: 0;
  padding: 0;
}
.try li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  min-height: 30px;
  border-bottom: 1px solid var(--line);
}
a {
  display: inline-block;
  min-height: 24px;
}
</style>
