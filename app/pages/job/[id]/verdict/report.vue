<script setup lang="ts">
import { printMarkdown, printReportOf } from '#core/print'
import { drawChart } from '~/charts/print-chart'

definePageMeta({ station: 'verdict' })

const { plan, report } = useJob('verdict')
const { units } = useUnits()
const toast = useToast()
const today = new Date().toISOString().slice(0, 10)
const printed = computed(() => printReportOf(plan.value, report.value, units.value, today))
const name = computed(() => fileWords(printed.value.title))
const making = ref(false)
async function pdf() {
  making.value = true
  await savePdf(printed.value, `${name.value}.pdf`).catch((error: unknown) =>
    toast.show(`The PDF could not be made: ${error instanceof Error ? error.message : 'unknown reason'}`, {
      tone: 'bad',
    }),
  )
  making.value = false
}
const markdown = () => saveText(printMarkdown(printed.value, drawChart), `${name.value}.md`, 'text/markdown')
const photos = computed(() =>
  [report.value.verdict.before, report.value.verdict.after].filter((r) => r?.photoId),
)
const print = () => window.print()
usePageKeys([{ key: 'p', what: 'Print the report', run: print }])
</script>

<template>
  <div class="stack">
    <VerdictTabs />
    <div class="row no-print">
      <el-button type="primary" @click="print">Print</el-button>
      <el-button :disabled="making" @click="pdf">
        {{ making ? 'Making the PDF…' : 'PDF' }}
      </el-button>
      <el-button @click="markdown">Markdown</el-button>
      <span class="small soft">In your own units, with the numbers as they stand now.</span>
    </div>
    <article class="sheet paper" aria-label="Report">
      <h2 class="title">
        {{ printed.title }}
      </h2>
      <p class="soft">
        {{ printed.subtitle }}
      </p>
      <template v-for="(b, i) in printed.blocks" :key="i">
        <h3 v-if="b.kind === 'heading'">
          {{ b.text }}
        </h3>
        <p v-else-if="b.kind === 'text'">
          {{ b.text }}
        </p>
        <ul v-else-if="b.kind === 'list'">
          <li v-for="item in b.items" :key="item">
            {{ item }}
          </li>
        </ul>
        <PrintDrawing v-else-if="b.kind === 'chart'" :svg="drawChart(b.chart)" />
        <div v-else class="scroll-x" tabindex="0" role="region" :aria-label="b.head.join(', ')">
          <table class="data">
            <thead>
              <tr>
                <th v-for="(h, k) in b.head" :key="k" :class="{ num: b.numbers.includes(k) }">
                  {{ h }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(r, n) in b.rows" :key="n">
                <td v-for="(text, k) in r" :key="k" :class="{ num: b.numbers.includes(k) }">
                  {{ text }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
      <div v-if="photos.length" class="row">
        <img
          v-for="run in photos"
          :key="run!.id"
          :src="`/api/attachments/${run!.photoId}`"
          :alt="`Set-up of ${run!.name}`"
        />
      </div>
    </article>
  </div>
</template>

<style scoped>
.paper {
  display: grid;
  gap: 8px;
  max-width: 900px;
  grid-template-columns: minmax(0, 1fr);
}
.title {
  font-size: 20px;
}
h3 {
  margin-top: 8px;
  font-size: 15px;
}
ul {
  margin: 0;
  padding-left: 20px;
}
table.data td {
  white-space: normal;
  vertical-align: top;
}
img {
  max-height: 200px;
  border-radius: 4px;
}
@media print {
  .paper {
    max-width: none;
    padding: 0;
  }
}
</style>
