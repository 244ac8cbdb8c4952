<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { conversions } from '#core/verification'
import { placesFor, sums, type Place, type Sum } from '#core/sums'
import type { Figure } from '#core/figure'

/** Quick sums: what stands alone is worked out here, each with its working; `?sum=` leads to one. */
useHead({ title: 'Quick sums · Redpoll' })
const route = useRoute()
const { show } = useUnits()
const clipboard = useClipboard({ legacy: true })
/** Dry air at 20 °C and sea level, kg/m3, for the sums that need one. */
const DENSITY = 1.2
const UNITS = 'units'
const everything: Sum[] = [
  ...sums,
  ...conversions.map((c) => ({ ...c, group: 'From what an instrument shows' })),
]
const search = ref('')
const groups = computed(() => {
  const wanted = search.value.trim().toLowerCase()
  const found = everything.filter((s) => `${s.title} ${s.group}`.toLowerCase().includes(wanted))
  return [...new Set(found.map((s) => s.group))].map((title) => ({
    title,
    sums: found.filter((s) => s.group === title),
  }))
})
const chosen = computed(
  () => everything.find((s) => s.key === route.query.sum) ?? (route.query.sum === UNITS ? null : sums[0]!),
)
async function copy(figure: Figure) {
  const text = show(figure.value, figure.quantity)
  await clipboard.copy(text)
  useToast().show(`Copied: ${text}`)
}
/** The job that was open last takes a result, where it has a place for it. */
const job = useJobStore()
const placesOf = (figure: Figure) => (job.plan ? placesFor(job.plan, figure, () => newId('target')) : [])
function put(place: Place, figure: Figure) {
  const { plan } = job
  if (!plan || figure.value === null) return
  const text = `${chosen.value?.title ?? 'a sum'}: ${figure.formula}`
  const refused = job.change((d) => place.put(d, figure.value!, text))
  if (!refused)
    useToast().show(`${show(figure.value, figure.quantity)} is in ${plan.job.name}: ${place.label}.`, {
      action: { label: 'Undo', run: job.undo },
    })
}
const searchBox = useTemplateRef('searchBox')
usePageKeys([{ key: '/', what: 'Search the sums', run: () => searchBox.value?.focus() }])
</script>

<template>
  <div>
    <AppHeader title="Quick sums" />
    <main id="main" class="sums">
      <section class="sheet list" aria-label="Which sum">
        <el-input
          ref="searchBox"
          v-model="search"
          clearable
          placeholder="Search: dew, wire, fan laws"
          aria-label="Search the sums"
        />
        <nav aria-label="Sums">
          <template v-for="g in groups" :key="g.title">
            <h2 class="group">{{ g.title }}</h2>
            <ul>
              <li v-for="s in g.sums" :key="s.key">
                <NuxtLink
                  :to="{ query: { sum: s.key } }"
                  :aria-current="s.key === chosen?.key ? 'page' : undefined"
                  >{{ s.title }}</NuxtLink
                >
              </li>
            </ul>
          </template>
          <h2 class="group">Units</h2>
          <ul>
            <li>
              <NuxtLink :to="{ query: { sum: UNITS } }" :aria-current="chosen === null ? 'page' : undefined"
                >One value in every unit</NuxtLink
              >
            </li>
          </ul>
        </nav>
        <p v-if="!groups.length" class="empty">No sum is called that: try one word less.</p>
      </section>
      <section class="sheet stack">
        <h2>{{ chosen?.title ?? 'One value in every unit' }}</h2>
        <SumForm v-if="chosen" :key="chosen.key" :sum="chosen" :density="DENSITY">
          <template #default="{ result }">
            <el-button size="small" @click="copy(result.figures[0]!)">Copy the result</el-button>
            <el-dropdown
              v-if="placesOf(result.figures[0]!).length"
              trigger="click"
              @command="put($event, result.figures[0]!)"
            >
              <el-button size="small">Put into {{ job.plan?.job.name }}</el-button>
              <template #dropdown>
                <el-dropdown-menu>
                  <el-dropdown-item v-for="p in placesOf(result.figures[0]!)" :key="p.key" :command="p">{{
                    p.label
                  }}</el-dropdown-item>
                </el-dropdown-menu>
              </template>
            </el-dropdown>
          </template>
          <template #more="{ result, inputs }">
            <SumSweep :sum="chosen" :inputs="inputs" :figure="result.figures[0]!" />
          </template>
        </SumForm>
        <UnitTable v-else />
        <p v-if="chosen" class="small soft">
          Press a figure for its formula and what was put in; the address of this page leads back to this sum.
        </p>
      </section>
    </main>
  </div>
</template>

<style scoped>
/* the list is walked by itself: the sum stays in sight */
.list {
  position: sticky;
  top: 0;
  max-height: 100vh;
  overflow-y: auto;
}
.sums {
  display: grid;
  grid-template-columns: minmax(240px, 320px) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
  padding: 0 20px 20px;
}
.group {
  font-size: 14px;
  margin: 12px 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
nav a {
  display: block;
  padding: 4px 8px;
  border-radius: 5px;
  color: var(--ink);
  text-decoration: none;
}
nav a:hover {
  background: var(--sheet-soft);
}
nav a[aria-current] {
  background: var(--cap-soft);
  color: var(--cap);
  font-weight: 600;
}
@media (max-width: 760px) {
  .sums {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 10px 20px;
  }
  .sums > .stack {
    order: -1;
  }
  .list {
    position: static;
    max-height: none;
  }
}
</style>
