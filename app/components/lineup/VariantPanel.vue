<script setup lang="ts">
import { wholePlan } from '#core/document'
import type { StoredPlan, VariantSummary } from '#shared/api'

/** The job and its variants side by side. */
const job = useJobStore()
const { show } = useUnits()
const variants = ref<VariantSummary[]>([])
const id = computed(() => job.plan?.job.id ?? '')
async function load() {
  const result = await api<VariantSummary[]>(`jobs/${id.value}/variants`)
  if (result.ok) variants.value = result.data
}
watch([id, variantsChanged, () => job.saveState === 'saved'], load, { immediate: true })
async function keepAsIs() {
  const name = `${job.plan!.job.name}, copy`.slice(0, 120)
  const result = await api<StoredPlan>(`jobs/${id.value}/variants`, {
    method: 'POST',
    body: { name, plan: job.plan && wholePlan(toRaw(job.plan)) },
  })
  if (!result.ok) return useToast().show(result.message, { tone: 'bad' })
  variantsChanged.value++
}
const percent = (x: number | null) =>
  x === null ? '–' : `${x > 0 ? '+' : ''}${Math.round(100 * x)} %`.replace('-', '−')
</script>

<template>
  <section id="variants" class="sheet">
    <div class="sheet-head">
      <h2>Variants side by side</h2>
      <el-button size="small" @click="keepAsIs">Keep a copy beside</el-button>
    </div>
    <p v-if="variants.length < 2" class="soft small">
      Save a copy to compare: it stands here beside this one, and can be changed at will.
    </p>
    <div v-else class="scroll-x">
      <table class="data blocks">
        <thead>
          <tr>
            <th>Variant</th>
            <th class="num">gives</th>
            <th class="num">vs need</th>
            <th class="num">level</th>
            <th class="num">power</th>
            <th class="num">cost</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="v in variants" :key="v.id" :class="{ here: v.id === id }">
            <td class="wide">
              <span v-if="v.id === id"
                ><strong>{{ v.name }}</strong> <span class="small soft">this one</span></span
              >
              <NuxtLink v-else :to="`/job/${v.id}/line-up`">
                {{ v.name }}
              </NuxtLink>
              <span class="small soft block"
                >{{ v.fan || 'nothing picked'
                }}<template v-if="v.driveV !== null">, {{ show(v.driveV, 'voltage') }}</template
                ><template v-if="v.stops">, {{ v.stops }} stop</template></span
              >
            </td>
            <td class="num" data-label="gives">
              {{ show(v.flow, 'flow') }}
            </td>
            <td class="num" data-label="vs need">
              {{ percent(v.margin) }}
            </td>
            <td class="num" data-label="level">
              {{ show(v.level, 'level') }}
            </td>
            <td class="num" data-label="power">
              {{ show(v.powerW, 'power') }}
            </td>
            <td class="num" data-label="cost">
              {{ show(v.cost, 'money') }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.here td {
  background: var(--cap-soft);
}
.block {
  display: block;
}
</style>
