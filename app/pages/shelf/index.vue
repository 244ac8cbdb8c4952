<script setup lang="ts">
import type { Fan } from '#core/document'
import type { ShelfFacets } from '#shared/api'

useHead({ title: 'Shelf · Redpoll' })
const shelf = useShelfStore()
const { bare, editable, symbol, show } = useUnits()
const text = ref('')
const frame = ref<number | null>(null)
const volts = ref<number | null>(null)
const owned = ref(false)
const sort = ref('frame')
const searchBox = ref<{ focus: () => void }>()
const ROW_HEIGHT = 36
const query = computed(() => ({
  text: text.value,
  frameM: String(frame.value ?? ''),
  ratedV: String(volts.value ?? ''),
  owned: owned.value ? 'true' : '',
  sort: sort.value,
}))
const { total, problem, rows, refresh, scrolled, before, after } = useShelfPages(query, ROW_HEIGHT)
const facets = ref<ShelfFacets>({ frames: [], volts: [], total: 0 })
/** The rows first; what they may be narrowed to follows. */
async function renew() {
  await refresh()
  void api<ShelfFacets>('fans/facets').then((told) => {
    if (told.ok) facets.value = told.data
  })
}
await renew()
watch(() => shelf.changed, renew)
const optionsFor = (values: number[], print: (v: number) => string) => [
  { value: null as number | null, label: 'any' },
  ...values.map((v) => ({ value: v as number | null, label: print(v) })),
]
const frames = computed(() => optionsFor(facets.value.frames, (v) => show(v, 'length')))
const voltages = computed(() => optionsFor(facets.value.volts, (v) => `${v} V`))
const orders = [
  { value: 'frame', label: 'frame' },
  { value: 'name', label: 'name' },
  { value: 'flow', label: 'most air' },
  { value: 'pressure', label: 'most pressure' },
  { value: 'level', label: 'quietest' },
  { value: 'price', label: 'cheapest' },
]
const bases: Record<Fan['curveBasis'], string> = {
  curve: 'data sheet',
  measured: 'measured',
  claim: 'claim',
  estimated: 'estimated',
}
async function exportAs(kind: 'csv' | 'json') {
  const fans = await shelf.whole()
  const { writeCsv, writeJson } = await import('#shared/exchange/shelf-file')
  const text = kind === 'csv' ? writeCsv(fans) : writeJson(fans)
  saveText(text, `redpoll-shelf.${kind}`, kind === 'csv' ? 'text/csv' : 'application/json')
}
usePageKeys([
  { key: '/', what: 'Search the shelf', run: () => searchBox.value?.focus() },
  { key: 'n', what: 'New fan', run: () => navigateTo('/shelf/new') },
])
</script>

<template>
  <div>
    <AppHeader title="Shelf">
      <NuxtLink to="/shelf/parts" class="button"> Parts </NuxtLink>
      <NuxtLink to="/shelf/import" class="button"> Import </NuxtLink>
      <el-button @click="exportAs('csv')">Export CSV</el-button>
      <el-button @click="exportAs('json')">Export JSON</el-button>
      <NuxtLink to="/shelf/new" class="button primary"> New fan </NuxtLink>
    </AppHeader>
    <main id="main" class="shelf">
      <section class="sheet">
        <div class="filters">
          <div class="field">
            <label for="shelf-search">Search</label>
            <el-input
              id="shelf-search"
              ref="searchBox"
              v-model="text"
              type="search"
              placeholder="maker, model, note"
            />
          </div>
          <ChoiceField v-model="frame" label="Frame" :options="frames" />
          <ChoiceField v-model="volts" label="Voltage" :options="voltages" />
          <el-checkbox v-model="owned">I own it</el-checkbox>
          <ChoiceField v-model="sort" label="Order" :options="orders" />
          <span class="soft small" role="status">{{
            shelf.progress === null
              ? `${total ?? 0} of ${facets.total || total || 0} fans`
              : `fetching the shelf, ${Math.round(100 * shelf.progress)} %`
          }}</span>
        </div>
        <p v-if="problem" role="alert">
          {{ problem }}
        </p>
        <p v-else-if="total === 0 && !facets.total" class="empty">
          The shelf is empty. Type a fan in from its data sheet: size, voltage, current, airflow and pressure
          are enough to begin.
        </p>
        <p v-else-if="total === 0" class="empty">No fan matches. Loosen a filter.</p>
        <div v-else class="scroll" tabindex="0" role="region" aria-label="Fans" @scroll.passive="scrolled">
          <table class="data" :aria-rowcount="(total ?? 0) + 1">
            <thead>
              <tr>
                <th>Fan</th>
                <th class="num">frame, {{ symbol('length') }}</th>
                <th class="num">V</th>
                <th class="num">A</th>
                <th class="num">free delivery, {{ symbol('flow') }}</th>
                <th class="num">shut-off, {{ symbol('pressure') }}</th>
                <th class="num">dB(A)</th>
                <th class="num">price</th>
                <th>wires</th>
                <th>curve from</th>
                <th class="num">tests</th>
                <th><span class="visually-hidden">Actions</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-if="before" aria-hidden="true">
                <td colspan="12" :style="{ height: `${before}px`, padding: 0 }" />
              </tr>
              <tr v-for="{ at, stored } in rows" :key="at" :aria-rowindex="at + 2" class="line">
                <td v-if="!stored" colspan="12" class="soft">…</td>
                <template v-for="fan in stored ? [stored.fan] : []" :key="fan.id">
                  <td>
                    <NuxtLink :to="`/shelf/${fan.id}`"> {{ fan.maker }} {{ fan.model }} </NuxtLink>
                    <span class="aside">{{
                      [fan.kind === 'blower' ? 'blower' : '', fan.owned ? 'owned' : '']
                        .filter(Boolean)
                        .join(', ')
                    }}</span>
                  </td>
                  <td class="num">
                    {{ editable(fan.frameM, 'length') }} × {{ editable(fan.thicknessM, 'length') }}
                  </td>
                  <td class="num">
                    {{ fan.ratedV }}
                  </td>
                  <td class="num">
                    {{ bare(fan.ratedA, 'current') }}
                  </td>
                  <td class="num">
                    {{ bare(fan.maxFlowM3s ?? fan.points.at(-1)?.flowM3s, 'flow') }}
                  </td>
                  <td class="num">
                    {{ bare(fan.maxPressurePa ?? fan.points[0]?.pressurePa, 'pressure') }}
                  </td>
                  <td class="num">
                    {{ bare(fan.noiseDbA, 'level') }}
                  </td>
                  <td class="num">
                    {{ bare(fan.price, 'money') }}
                  </td>
                  <td>{{ fan.wires ?? '' }}</td>
                  <td>
                    {{ bases[fan.points.length ? fan.curveBasis : 'estimated']
                    }}{{ fan.curves.length ? `, ${fan.curves.length + 1} voltages` : '' }}
                  </td>
                  <td class="num">
                    {{ fan.tests.length || '' }}
                  </td>
                  <td class="tools">
                    <NuxtLink
                      :to="`/shelf/new?like=${fan.id}`"
                      class="button quiet small"
                      :aria-label="`Duplicate ${fan.model}`"
                    >
                      Duplicate
                    </NuxtLink>
                    <el-button
                      text
                      size="small"
                      class="icon"
                      :aria-label="`Delete ${fan.model}`"
                      @click="shelf.remove(fan, renew)"
                    >
                      ×
                    </el-button>
                  </td>
                </template>
              </tr>
              <tr v-if="after" aria-hidden="true">
                <td colspan="12" :style="{ height: `${after}px`, padding: 0 }" />
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.shelf {
  padding: 0 20px 20px;
}
.filters {
  display: flex;
  gap: 14px;
  align-items: end;
  flex-wrap: wrap;
  margin-bottom: 10px;
}
.filters .field {
  min-width: 130px;
}
.filters .field:first-child {
  min-width: 240px;
}
.check {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 34px;
}
.filters > .soft {
  margin-left: auto;
  padding-bottom: 6px;
}
.scroll {
  position: relative;
  overflow: auto;
  max-height: calc(100vh - 170px);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 1;
}
.tools {
  white-space: nowrap;
  text-align: right;
}
table.data td {
  padding: 2px 8px;
  white-space: nowrap;
}
.line {
  height: 36px;
}
@media (max-width: 760px) {
  .shelf {
    padding: 0 10px 16px;
  }
  .scroll {
    max-height: none;
  }
}
</style>
