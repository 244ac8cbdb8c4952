<script setup lang="ts">
import { labelsOf } from '#core/print'

definePageMeta({ station: 'build' })

const { plan, report } = useJob('build')
const { say } = useUnits()
const toast = useToast()
const date = computed(() => {
  const ticks = plan.value.build?.ticks.map((t) => t.at).toSorted() ?? []
  return (ticks.at(-1) ?? new Date().toISOString()).slice(0, 10)
})
const labels = computed(() => labelsOf(plan.value, report.value, date.value))
/** Labels that are left out of the print, by their keys. */
const without = ref<string[]>([])
const wanted = computed(() => labels.value.filter((l) => !without.value.includes(l.key)))
function choose(key: string, on: unknown) {
  without.value = on === true ? without.value.filter((k) => k !== key) : [...without.value, key]
}
const making = ref(false)
async function pdf() {
  making.value = true
  await saveLabelPdf(wanted.value, say, `${fileWords(plan.value.job.name)}-labels.pdf`).catch(
    (error: unknown) =>
      toast.show(`The PDF could not be made: ${error instanceof Error ? error.message : 'unknown reason'}`, {
        tone: 'bad',
      }),
  )
  making.value = false
}
const print = () => window.print()
usePageKeys([{ key: 'p', what: 'Print the labels', run: print }])
</script>

<template>
  <div class="stack">
    <BuildTabs />
    <section class="sheet stack">
      <div class="sheet-head no-print">
        <h2>Labels</h2>
        <div class="row">
          <el-button type="primary" @click="print">Print</el-button>
          <el-button :disabled="making || !wanted.length" @click="pdf">PDF</el-button>
        </div>
      </div>
      <p class="small soft no-print">
        Cut them apart; clear tape over them. A screw that must not be turned, a plug that fits two ways, a
        fuse: whoever opens it next reads it there.
      </p>
      <ul class="labels">
        <li v-for="l in labels" :key="l.key" :class="{ out: without.includes(l.key) }">
          <el-checkbox
            class="no-print pick"
            :model-value="!without.includes(l.key)"
            :aria-label="`Print: ${say(l.big)}, ${say(l.lines[0] ?? [])}`"
            @change="choose(l.key, $event)"
          />
          <p class="big">
            {{ say(l.big) }}
            <svg v-if="l.arrow" viewBox="0 0 44 18" width="44" height="18" aria-label="arrow" role="img">
              <path d="M0 9H34M30 2L43 9L30 16Z" stroke="currentColor" stroke-width="3" fill="currentColor" />
            </svg>
          </p>
          <p v-for="(line, i) in l.lines" :key="i">{{ say(line) }}</p>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.labels {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 8px;
}
li {
  position: relative;
  min-width: 0;
  overflow-wrap: anywhere;
  border: 1px dashed var(--line-strong);
  padding: 10px 36px 10px 12px;
  break-inside: avoid;
  font-size: 14px;
}
.pick {
  position: absolute;
  top: 6px;
  right: 8px;
  margin: 0;
  min-width: 26px;
  min-height: 26px;
}
.big {
  font-size: 22px;
  font-weight: 700;
  display: flex;
  gap: 10px;
  align-items: center;
}
.out {
  color: var(--ink-soft);
}
@media print {
  .labels {
    grid-template-columns: repeat(3, 1fr);
    gap: 0;
  }
  .out {
    display: none;
  }
  li {
    padding: 8px;
  }
}
</style>
