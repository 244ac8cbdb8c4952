<script setup lang="ts">
import { preferenceSets, quantityInfo, unitSymbol, type Quantity } from '#core/units'

const settings = useSettingsStore()
const names: Partial<Record<Quantity, string>> = {
  flow: 'Airflow',
  pressure: 'Pressure',
  temperature: 'Temperature',
  temperatureDifference: 'Difference',
  length: 'Small lengths',
  distance: 'Distances',
  area: 'Areas',
  volume: 'Volumes',
  speed: 'Air speed',
  mass: 'Mass',
  altitude: 'Height',
}
const rows = computed(() =>
  (Object.keys(preferenceSets.metric) as Quantity[])
    .filter((q) => names[q])
    .map((q) => ({
      q,
      name: names[q]!,
      units: quantityInfo(q).units.map((u) => u.symbol),
      chosen: unitSymbol(q, settings.units),
    })),
)
const summary = computed(() =>
  (['flow', 'pressure', 'temperature'] as const).map((q) => unitSymbol(q, settings.units)).join(' · '),
)
const themes = [
  { value: 'system' as const, label: 'as the system' },
  { value: 'light' as const, label: 'light' },
  { value: 'dark' as const, label: 'dark' },
]
</script>

<template>
  <el-popover trigger="click" :width="330" placement="bottom-end" :persistent="false">
    <template #reference>
      <button type="button" class="tag menu mono" :aria-label="`Units and theme, now ${summary}`">
        {{ summary }}
      </button>
    </template>
    <div class="stack">
      <SegmentChoice
        label="All units"
        :options="[
          { value: 'metric', label: 'metric' },
          { value: 'imperial', label: 'imperial' },
        ]"
        :model-value="settings.system === 'own' ? null : settings.system"
        @update:model-value="settings.setSystem($event)"
      />
      <div class="grid">
        <div v-for="row in rows" :key="row.q" class="unit">
          <span aria-hidden="true">{{ row.name }}</span>
          <el-select
            :persistent="false"
            size="small"
            :aria-label="row.name"
            :model-value="row.chosen"
            @change="settings.setUnit(row.q, $event)"
          >
            <el-option v-for="u in row.units" :key="u" :value="u" :label="u" />
          </el-select>
        </div>
      </div>
      <SegmentChoice
        label="Theme"
        :options="themes"
        :model-value="settings.theme"
        @update:model-value="settings.setTheme($event)"
      />
    </div>
  </el-popover>
</template>

<style scoped>
.menu {
  cursor: pointer;
  color: inherit;
}
.menu:hover {
  background: var(--sheet-soft);
}
.grid {
  display: grid;
  gap: 6px;
}
.unit {
  display: grid;
  grid-template-columns: 1fr 120px;
  align-items: center;
  gap: 8px;
}
</style>
