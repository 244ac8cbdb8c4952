<script setup lang="ts">
import { tradeoffsOf } from '#core/advice'

/** What makers argue about, with this job's numbers on both sides. */
const job = useJobStore()
const tradeoffs = computed(() =>
  job.plan && job.report
    ? tradeoffsOf(job.plan, job.report.path.model, job.report.air, job.report.path.atFlow)
    : [],
)
</script>

<template>
  <div class="stack">
    <p v-if="!tradeoffs.length" class="soft small">
      Both sides get their numbers once the path has its sizes and a flow.
    </p>
    <table v-for="tradeoff in tradeoffs" :key="tradeoff.key" class="data">
      <caption>
        {{
          tradeoff.title
        }}
      </caption>
      <tbody>
        <tr v-for="way in tradeoff.ways" :key="way.name">
          <th scope="row">
            {{ way.name }}
          </th>
          <td>
            <div v-for="figure in way.figures" :key="figure.key" class="line">
              <span>{{ figure.label }}</span> <FigureValue v-if="figure.value !== null" :figure="figure" /><span
                v-else
                class="soft"
                >–</span
              >
            </div>
            <p class="small soft">
              {{ way.wins }}
            </p>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
caption {
  text-align: left;
  font-weight: 700;
  padding-bottom: 4px;
}
th[scope='row'] {
  white-space: normal;
  width: 30%;
  vertical-align: top;
  color: var(--ink);
  font-size: 13.5px;
}
td {
  vertical-align: top;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
</style>
