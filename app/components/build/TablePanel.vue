<script setup lang="ts">
import { toolNames, type Sitting, type SittingKey } from '#core/build'
import { partsList, type PartUse } from '#core/supply'

/** What lies on the table for a sitting: its tools, and the parts that it needs, those of the drawer marked. */
const props = defineProps<{ sitting: Sitting }>()
const { store, plan, report } = useJob('build')
const believed = useBelievedFans()
const stock = useStockStore()
void stock.load()
/** Which parts a sitting needs. */
const uses: Partial<Record<SittingKey, readonly PartUse[]>> = {
  before: ['fan'],
  cutting: ['place'],
  wiring: ['wiring'],
}
const rows = computed(() => {
  const wanted = uses[props.sitting.key] ?? []
  if (!store.report || !wanted.length) return []
  const own = report.value.streams.filter((s) => !s.asIs)
  const { rows: all } = partsList(
    plan.value,
    report.value.power.feed,
    own.flatMap((s) => s.fanArray ?? []),
    believed.value,
    stock.parts,
    own.flatMap((s) => s.mounts),
  )
  return all.filter((r) => wanted.includes(r.use))
})
</script>

<template>
  <section v-if="sitting.tools.length || rows.length" class="sheet stack">
    <h2>On the table</h2>
    <ul v-if="sitting.tools.length" class="small">
      <li v-for="t in sitting.tools" :key="t">{{ toolNames[t] }}</li>
    </ul>
    <ul v-if="rows.length" class="small parts">
      <li v-for="(r, i) in rows" :key="i">
        {{ r.count }}{{ r.unit ? ` ${r.unit}` : '' }} × {{ r.what
        }}<span v-if="r.detail" class="soft">, {{ r.detail }}</span>
        <span v-if="r.owned" class="tag">in the drawer</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
