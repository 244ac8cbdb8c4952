<script setup lang="ts">
import { convert, conversions, type Inputs } from '#core/verification'
import type { FlowMethod, ReadingQuantity } from '#core/document'

export interface TakenHow {
  method: FlowMethod | null
  points: number | null
  /** 95 % half-width, in the reading's SI unit */
  halfWidth: number | null
}

/** From what the instrument shows to the reading, with its working. */
const emit = defineEmits<{
  take: [quantity: ReadingQuantity, value: number, how: TakenHow]
}>()
const job = useJobStore()
const { show } = useUnits()
const key = ref(conversions[0]!.key)
const options = conversions.map((c) => ({ value: c.key, label: c.title }))
const conversion = computed(() => conversions.find((c) => c.key === key.value)!)
const inputs = reactive<Inputs>({ n: {}, lists: {}, choice: {}, density: 1.2 })
watch(
  conversion,
  (c) => {
    inputs.n = Object.fromEntries(c.fields.filter((f) => !f.list).map((f) => [f.key, f.usual]))
    inputs.lists = Object.fromEntries(c.fields.filter((f) => f.list).map((f) => [f.key, []]))
    inputs.choice = Object.fromEntries((c.choices ?? []).map((x) => [x.key, x.options[0]!.value]))
  },
  { immediate: true },
)
const result = computed(() => convert(conversion.value, { ...inputs, density: job.report?.air.density ?? 1.2 }))
function take() {
  const r = result.value
  if (!r.ok || !conversion.value.gives || r.figures[0]!.value === null) return
  const { value, low, high } = r.figures[0]!
  if (value === null) return
  emit('take', conversion.value.gives, value, {
    method: r.method ?? null,
    points: r.points ?? null,
    halfWidth: low === null || high === null ? null : Math.max(high - value, value - low),
  })
}
</script>

<template>
  <div class="stack convert">
    <ChoiceField v-model="key" label="Work out" :options="options" />
    <div class="fields tight">
      <ChoiceField
        v-for="choice in conversion.choices ?? []"
        :key="choice.key"
        v-model="inputs.choice[choice.key]!"
        :label="choice.label"
        :options="choice.options"
      />
      <template v-for="f in conversion.fields" :key="conversion.key + f.key">
        <QuantityListField
          v-if="f.list"
          v-model="inputs.lists[f.key]!"
          class="wide"
          :label="f.label"
          :quantity="f.quantity"
          :hint="f.hint"
          placeholder="2.1 2.3 1.9"
        />
        <QuantityField
          v-else
          v-model="inputs.n[f.key]!"
          :label="f.label"
          :quantity="f.quantity"
          :hint="f.hint ?? (f.optional ? 'may stay empty' : '')"
        />
      </template>
    </div>
    <p v-if="!result.ok" class="small soft" role="status">
      {{ result.reason }}
    </p>
    <template v-else>
      <p class="row answer">
        <template v-for="(f, i) in result.figures" :key="f.key">
          <span class="small soft">{{ f.label }}</span>
          <FigureValue :figure="f" :big="i === 0" :range="i === 0" />
        </template>
        <el-button v-if="conversion.gives" type="primary" size="small" @click="take">
          Use {{ show(result.figures[0]!.value, result.figures[0]!.quantity) }} as the reading
        </el-button>
      </p>
      <p v-if="result.warning" class="row small"><StateMark state="fix" /> {{ result.warning }}</p>
    </template>
  </div>
</template>

<style scoped>
.convert {
  background: var(--sheet-soft);
  border-radius: 6px;
  padding: 10px;
}
.wide {
  grid-column: 1 / -1;
}
.answer {
  gap: 12px;
}
</style>
