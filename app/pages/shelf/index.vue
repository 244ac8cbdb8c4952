<script setup lang="ts">
import type { Fan } from '../../../core/plan/document'

useHead({ title: 'Shelf · Redpoll' })
const shelf = useShelfStore()
await shelf.load(true)
const { bare, editable, symbol, show } = useUnits()
const search = ref('')
const size = ref<number | null>(null)
const volts = ref<number | null>(null)
const owned = ref(false)
const searchBox = ref<HTMLInputElement>()

const options = (values: number[], print: (v: number) => string) => [{ value: null as number | null, label: 'any' }, ...[...new Set(values)].sort((a, b) => a - b).map(v => ({ value: v as number | null, label: print(v) }))]
const sizes = computed(() => options(shelf.fans.map(f => f.frameM), v => show(v, 'length')))
const voltages = computed(() => options(shelf.fans.map(f => f.ratedV), v => `${v} V`))
const list = computed(() => shelf.fans.filter(f =>
  (!search.value || `${f.maker} ${f.model} ${f.kind} ${f.notes}`.toLowerCase().includes(search.value.trim().toLowerCase()))
  && (size.value === null || f.frameM === size.value) && (volts.value === null || f.ratedV === volts.value) && (!owned.value || f.owned)))
const bases: Record<Fan['curveBasis'], string> = { curve: 'data sheet', measured: 'measured', claim: 'claim', estimated: 'estimated' }
async function exportAs(kind: 'csv' | 'json') {
  const { writeCsv, writeJson } = await import('../../../shared/exchange/shelf-file')
  const text = kind === 'csv' ? writeCsv(shelf.fans) : writeJson(shelf.fans)
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
      <NuxtLink
        to="/shelf/import"
        class="button"
      >
        Import
      </NuxtLink>
      <button
        type="button"
        class="button"
        @click="exportAs('csv')"
      >
        Export CSV
      </button>
      <button
        type="button"
        class="button"
        @click="exportAs('json')"
      >
        Export JSON
      </button>
      <NuxtLink
        to="/shelf/new"
        class="button primary"
      >
        New fan
      </NuxtLink>
    </AppHeader>
    <main class="shelf">
      <section class="sheet">
        <div class="filters">
          <div class="field">
            <label for="shelf-search">Search</label>
            <input
              id="shelf-search"
              ref="searchBox"
              v-model="search"
              class="text-input"
              type="search"
              placeholder="maker, model, note"
            >
          </div>
          <ChoiceField
            v-model="size"
            label="Frame"
            :options="sizes"
          />
          <ChoiceField
            v-model="volts"
            label="Voltage"
            :options="voltages"
          />
          <label class="check"><input
            v-model="owned"
            type="checkbox"
          > I own it</label>
          <span class="soft small">{{ list.length }} of {{ shelf.fans.length }} fans</span>
        </div>
        <p
          v-if="shelf.problem"
          role="alert"
        >
          {{ shelf.problem }}
        </p>
        <p
          v-else-if="!shelf.fans.length"
          class="empty"
        >
          The shelf is empty. Type a fan in from its data sheet: size, voltage, current, airflow and pressure are enough to begin.
        </p>
        <p
          v-else-if="!list.length"
          class="empty"
        >
          No fan matches. Loosen a filter.
        </p>
        <div
          v-else
          class="scroll"
          tabindex="0"
          role="region"
          aria-label="Fans"
        >
          <table class="data">
            <thead>
              <tr>
                <th>Fan</th>
                <th class="num">
                  frame, {{ symbol('length') }}
                </th>
                <th class="num">
                  V
                </th>
                <th class="num">
                  A
                </th>
                <th class="num">
                  free delivery, {{ symbol('flow') }}
                </th>
                <th class="num">
                  shut-off, {{ symbol('pressure') }}
                </th>
                <th class="num">
                  dB(A)
                </th>
                <th class="num">
                  price
                </th>
                <th>curve from</th>
                <th><span class="visually-hidden">Actions</span></th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="fan in list"
                :key="fan.id"
              >
                <td>
                  <NuxtLink :to="`/shelf/${fan.id}`">
                    {{ fan.maker }} {{ fan.model }}
                  </NuxtLink>
                  <span class="aside">{{ [fan.kind === 'blower' ? 'blower' : '', fan.owned ? 'owned' : ''].filter(Boolean).join(', ') }}</span>
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
                <td>{{ bases[fan.points.length ? fan.curveBasis : 'estimated'] }}</td>
                <td class="tools">
                  <NuxtLink
                    :to="`/shelf/new?like=${fan.id}`"
                    class="button quiet small"
                    :aria-label="`Duplicate ${fan.model}`"
                  >
                    Duplicate
                  </NuxtLink>
                  <button
                    type="button"
                    class="button quiet small icon"
                    :aria-label="`Delete ${fan.model}`"
                    @click="shelf.remove(fan)"
                  >
                    ×
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.shelf { padding: 0 20px 20px; }
.filters { display: flex; gap: 14px; align-items: end; flex-wrap: wrap; margin-bottom: 10px; }
.filters .field { min-width: 130px; }
.filters .field:first-child { min-width: 240px; }
.check { display: inline-flex; gap: 6px; align-items: center; min-height: 34px; }
.filters > .soft { margin-left: auto; padding-bottom: 6px; }
.scroll { overflow: auto; max-height: calc(100vh - 170px); }
thead th { position: sticky; top: 0; background: var(--sheet); z-index: 1; }
.tools { white-space: nowrap; text-align: right; }
table.data td { padding: 4px 8px; }
@media (max-width: 760px) { .shelf { padding: 0 10px 16px; } .scroll { max-height: none; } }
</style>
