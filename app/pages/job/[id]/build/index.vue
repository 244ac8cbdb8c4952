<script setup lang="ts">
import { useMediaQuery, useWakeLock } from '@vueuse/core'
import { type BuiltStep, buildMarkdown, LAST_LINE, notChecked, type SittingKey } from '#core/build'
import { symptoms } from '#core/trouble'

definePageMeta({ station: 'build' })

const { plan, build, who, tick, untick, annotate, release, holdAgain } = useBuild()
const chosen = ref<SittingKey | null>(null)
/** The one that is chosen, else the first with something to do. */
const sitting = computed(() => {
  const { sittings } = build.value
  return (
    sittings.find((s) => s.key === chosen.value) ??
    sittings.find((s) => s.steps.some((x) => x.state !== 'done')) ??
    sittings[0] ??
    null
  )
})
const doneOf = (steps: readonly BuiltStep[]) => steps.filter((s) => s.state === 'done').length
const minutes = computed(() => build.value.sittings.reduce((n, s) => n + s.minutesLeft, 0))
const timeWords = (m: number) => (m >= 90 ? `${(m / 60).toFixed(1)} h` : `${m} min`)

/** On a phone one step at a time. */
const phone = useMediaQuery('(max-width: 560px)')
const at = ref(0)
watch(
  () => sitting.value?.key,
  () => {
    at.value = Math.max(0, sitting.value?.steps.findIndex((s) => s.state !== 'done') ?? 0)
  },
  { immediate: true },
)
const shown = computed(() => {
  const steps = sitting.value?.steps ?? []
  return phone.value ? steps.slice(at.value, at.value + 1) : steps
})
function next() {
  const steps = sitting.value?.steps ?? []
  if (at.value < steps.length - 1) return void at.value++
  const { sittings } = build.value
  const following = sittings[sittings.findIndex((s) => s.key === sitting.value?.key) + 1]
  if (following) chosen.value = following.key
}
function back() {
  if (at.value > 0) return void at.value--
  const { sittings } = build.value
  const before = sittings[sittings.findIndex((s) => s.key === sitting.value?.key) - 1]
  if (before) chosen.value = before.key
}
/** What was refused, by the key of its step. */
const refused = ref<Record<string, string>>({})
function ticked(step: BuiltStep, value: number | null, note: string, photoId: string | null) {
  // what is ticked last stays in sight: the next sitting comes by a press
  chosen.value ??= sitting.value?.key ?? null
  refused.value = { ...refused.value, [step.key]: tick(step, value, note, photoId) }
}
const paper = useTemplateRef('paper')
const {
  sheet,
  shown: printing,
  making,
  templates,
  wired,
  name,
  print,
  pdf,
} = useBuildSheet(() => paper.value?.wiring() ?? null)
const save = () => saveText(buildMarkdown(sheet.value), `${name.value}-build.md`, 'text/markdown')
usePageKeys([{ key: 'p', what: 'Print the sheet of the build', run: print }])

/** The screen stays on while hands are dirty, where the device can. */
const wake = useWakeLock()
const awake = computed({
  get: () => wake.isActive.value,
  set: (on) => void (on ? wake.request('screen') : wake.release()),
})
const picked = computed({
  get: () => sitting.value?.key ?? 'before',
  set: (key: SittingKey) => {
    chosen.value = key
  },
})
const sittingOptions = computed(() =>
  build.value.sittings.map((s) => ({
    value: s.key,
    label: `${s.name}, ${doneOf(s.steps)} of ${s.steps.length}`,
  })),
)
const untold = computed(() => notChecked(build.value))
</script>

<template>
  <div>
    <div class="stack" :class="{ 'no-print': printing }">
      <BuildTabs />
      <p v-if="!sitting" class="sheet empty">
        Nothing is planned that could be built yet: begin with the Brief.
      </p>
      <div v-else class="layout">
        <section v-if="!phone" class="sheet sittings no-print" aria-label="Sittings">
          <h2>Sittings</h2>
          <ol>
            <li v-for="s in build.sittings" :key="s.key">
              <button
                type="button"
                :class="{ chosen: s.key === sitting.key }"
                :aria-current="s.key === sitting.key ? 'step' : undefined"
                @click="chosen = s.key"
              >
                <StateMark
                  :state="
                    s.held && doneOf(s.steps) < s.steps.length
                      ? 'stop'
                      : doneOf(s.steps) === s.steps.length
                        ? 'settled'
                        : 'not-begun'
                  "
                />
                <span>
                  {{ s.name }}
                  <span class="small soft mono">{{ doneOf(s.steps) }} of {{ s.steps.length }}</span>
                </span>
              </button>
            </li>
          </ol>
          <p v-if="minutes" class="small soft">about {{ timeWords(minutes) }} left</p>
        </section>
        <section class="sheet stack">
          <div class="sheet-head">
            <h2>{{ sitting.name }}</h2>
            <div v-if="!phone" class="row no-print">
              <el-button size="small" :disabled="making" @click="print">Print</el-button>
              <el-button size="small" :disabled="making" @click="pdf">PDF</el-button>
              <el-button size="small" @click="save">Markdown</el-button>
            </div>
          </div>
          <div v-if="phone" class="hand no-print">
            <ChoiceField v-model="picked" label="Sitting" :options="sittingOptions" />
            <el-switch
              v-if="wake.isSupported.value"
              v-model="awake"
              active-text="Screen stays on"
              aria-label="Screen stays on"
            />
          </div>
          <template v-if="!phone || at === 0">
            <CautionBox
              v-for="c in sitting.cautions"
              :key="c.id"
              :caution="c"
              :who="who"
              @release="(reason, by) => release(c.id, reason, by)"
              @hold="holdAgain(c.id)"
            />
          </template>
          <el-button v-else-if="sitting.cautions.length" text size="small" @click="at = 0">
            {{
              sitting.cautions.length === 1 ? 'One caution stands' : `${sitting.cautions.length} cautions stand`
            }}
            before this sitting
          </el-button>
          <p v-if="sitting.held" class="small" role="status">
            Nothing is ticked here until the plan changes or somebody answers for what holds it, here or in a
            sitting before.
          </p>
          <div>
            <StepCard
              v-for="s in shown"
              :key="s.key"
              v-model:refused="refused[s.key]"
              :step="s"
              :held="sitting.held"
              :job-id="plan.job.id"
              @tick="(value, note, photoId) => ticked(s, value, note, photoId)"
              @untick="untick(s)"
              @annotate="annotate(s, $event)"
            />
          </div>
          <div v-if="phone" class="row pager no-print">
            <el-button size="large" @click="back">Back</el-button>
            <span class="small soft">{{ at + 1 }} of {{ sitting.steps.length }}</span>
            <el-button size="large" type="primary" @click="next">Next</el-button>
          </div>
          <div v-if="phone" class="row no-print">
            <el-button size="small" :disabled="making" @click="print">Print</el-button>
            <el-button size="small" :disabled="making" @click="pdf">PDF</el-button>
            <el-button size="small" @click="save">Markdown</el-button>
          </div>
        </section>
        <div class="stack">
          <TablePanel :sitting="sitting" />
          <section class="sheet stack no-print">
            <h2>It does not do what it should</h2>
            <ul class="links small">
              <li v-for="(words, key) in symptoms" :key="key">
                <NuxtLink :to="{ path: `/job/${plan.job.id}/build/trouble`, query: { what: key } }">{{
                  words
                }}</NuxtLink>
              </li>
            </ul>
          </section>
          <section class="sheet stack no-print">
            <TextField v-model="who" label="Who ticks" hint="stays in this browser" />
          </section>
          <section class="sheet stack">
            <h2>Not checked</h2>
            <ul class="small">
              <li v-for="t in untold" :key="t">{{ t }}</li>
            </ul>
            <p>
              <strong>{{ LAST_LINE }}</strong>
            </p>
          </section>
        </div>
      </div>
    </div>
    <SheetPrint v-if="printing" ref="paper" :sheet="sheet" :templates="templates" :wired="wired" />
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 260px;
  gap: 12px;
  align-items: start;
}
.sittings ol {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
.sittings button {
  display: flex;
  gap: 8px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  padding: 8px;
  border-radius: var(--radius);
  cursor: pointer;
}
.sittings button span span {
  display: block;
}
.links {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 10px;
}
.hand {
  display: grid;
  gap: 6px;
}
.pager .el-button {
  min-height: 48px;
  flex: 1;
}
.pager {
  justify-content: space-between;
  position: sticky;
  bottom: 0;
  z-index: 1;
  background: var(--sheet);
  padding: 8px 0;
}
.sittings .chosen {
  background: var(--cap-soft);
}
@media (max-width: 1100px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
  .sittings ol {
    display: flex;
    overflow-x: auto;
  }
  .sittings li {
    flex: none;
  }
  .sittings button {
    width: auto;
  }
}
</style>
