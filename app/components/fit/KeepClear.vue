<script setup lang="ts">
import { keepClearSchema, newFit, type KeepClear } from '#core/document'

/** What on the panel is not to be cut: a beam, a wire, a frame, each as a rectangle from the lower left corner. */
const { plan } = useJob('fit')
const store = useJobStore()
const zones = computed(() => plan.value.fit?.keepClear ?? [])
const MOST = 12
const fields: Field<keyof KeepClear>[] = [
  { key: 'name', label: 'Keep clear', text: true, required: true },
  { key: 'leftM', label: 'From the left', quantity: 'length', required: true },
  { key: 'bottomM', label: 'From below', quantity: 'length', required: true },
  { key: 'widthM', label: 'Width', quantity: 'length', required: true },
  { key: 'heightM', label: 'Height', quantity: 'length', required: true },
]
function add() {
  store.change((d) => {
    d.fit ??= newFit(newId('fit'))
    const { panelWidthM, panelHeightM, keepClear } = d.fit
    // across the middle, a tenth high, until somebody says otherwise
    const heightM = (panelHeightM ?? 0.2) / 10
    keepClear.push({
      id: newId('clear'),
      name: 'Beam',
      leftM: 0,
      bottomM: ((panelHeightM ?? 0.2) - heightM) / 2,
      widthM: panelWidthM ?? 0.2,
      heightM,
    })
  })
  landIn('.keep-clear .zone:last-of-type')
}
const set = (id: string, key: keyof KeepClear, value: unknown) =>
  store.change(
    (d) =>
      assign(
        d.fit?.keepClear.find((z) => z.id === id),
        key,
        value,
      ),
    `clear.${id}.${key}`,
  )
function remove(zone: KeepClear) {
  store.removeWithUndo(`${zone.name} removed.`, (d) => {
    if (d.fit) d.fit.keepClear = d.fit.keepClear.filter((z) => z.id !== zone.id)
  })
  landIn('.keep-clear')
}
</script>

<template>
  <div class="keep-clear stack">
    <div v-for="z in zones" :key="z.id" class="zone row">
      <FieldGrid
        tight
        class="wide"
        :record="z"
        :fields="fields"
        :shape="keepClearSchema.shape"
        @set="(key, value) => set(z.id, key, value)"
      />
      <el-button text size="small" :aria-label="`Remove ${z.name}`" @click="remove(z)">×</el-button>
    </div>
    <div>
      <el-button size="small" :disabled="zones.length >= MOST" @click="add">+ Keep clear</el-button>
    </div>
  </div>
</template>

<style scoped>
.zone {
  align-items: flex-start;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.wide {
  flex: 1;
}
</style>
