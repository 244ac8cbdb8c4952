<script setup lang="ts">
import { convert, type Conversion, type Converted, type Inputs } from '#core/verification'

/** The fields of one calculation and its answer with the working; what may be done with the answer stands in the slot. */
const props = defineProps<{ sum: Conversion; density: number }>()
defineSlots<{ default?: (scope: { result: Extract<Converted, { ok: true }> }) => unknown }>()
const inputs = reactive<Inputs>({ n: {}, lists: {}, choice: {}, density: 1.2 })
watch(
  () => props.sum,
  (s) => {
    inputs.n = Object.fromEntries(s.fields.filter((f) => !f.list).map((f) => [f.key, f.usual]))
    inputs.lists = Object.fromEntries(s.fields.filter((f) => f.list).map((f) => [f.key, []]))
    inputs.choice = Object.fromEntries((s.choices ?? []).map((x) => [x.key, x.options[0]!.value]))
  },
  { immediate: true },
)
const result = computed(() => convert(props.sum, { ...inputs, density: props.density }))
</script>

<template>
  <div class="fields tight">
    <ChoiceField
      v-for="choice in sum.choices ?? []"
      :key="choice.key"
      v-model="inputs.choice[choice.key]!"
      :label="choice.label"
      :options="choice.options"
    />
    <template v-for="f in sum.fields" :key="sum.key + f.key">
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
    <p class="row answer" role="status">
      <template v-for="(f, i) in result.figures" :key="f.key">
        <span class="small soft">{{ f.label }}</span>
        <FigureValue :figure="f" :big="i === 0" :range="i === 0" />
      </template>
      <slot :result="result" />
    </p>
    <p class="small soft">
      <span class="mono">{{ result.figures[0]!.formula }}</span> · {{ result.figures[0]!.source }}
    </p>
    <p v-if="result.warning" class="row small"><StateMark state="fix" /> {{ result.warning }}</p>
  </template>
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
.answer {
  gap: 12px;
}
</style>
