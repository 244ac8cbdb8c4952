<script setup lang="ts">
import { convert, type Conversion, type Converted, type Inputs } from '#core/verification'

/** The fields of one calculation and its answer with the working; what may be done with the answer stands in the slot. */
const props = defineProps<{ sum: Conversion; density: number }>()
type Answer = Extract<Converted, { ok: true }>
defineSlots<{
  /** beside the answer */ default?: (scope: { result: Answer }) => unknown
  /** below it */ more?: (scope: { result: Answer; inputs: Inputs }) => unknown
}>()
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
const { inUnits } = useUnits()
const result = computed(() => convert(props.sum, { ...inputs, density: props.density }))
/** The first figure is the answer; the others help to judge it. */
const main = computed(() => (result.value.ok ? result.value.figures[0]! : null))
const others = computed(() => (result.value.ok ? result.value.figures.slice(1) : []))
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
    {{ inUnits(result.reason) }}
  </p>
  <template v-else>
    <div class="answer" role="status">
      <p class="row main">
        <span class="small soft">{{ main!.label }}</span>
        <FigureValue :figure="main!" big range />
        <slot :result="result" />
      </p>
      <p v-if="main!.note" class="small soft">{{ inUnits(main!.note) }}</p>
      <dl v-if="others.length">
        <template v-for="f in others" :key="f.key">
          <dt class="small soft">{{ f.label }}</dt>
          <dd><FigureValue :figure="f" range /></dd>
          <dd class="small soft">{{ inUnits(f.note) }}</dd>
        </template>
      </dl>
    </div>
    <p v-if="result.warning" class="row small warning">
      <StateMark state="fix" /> {{ inUnits(result.warning) }}
    </p>
    <p class="small soft">
      <span class="mono">{{ main!.formula }}</span> · {{ main!.source }}
    </p>
    <slot name="more" :result="result" :inputs="{ ...inputs, density }" />
  </template>
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
.answer {
  display: grid;
  gap: 8px;
}
.main {
  gap: 12px;
}
dl {
  display: grid;
  grid-template-columns: max-content max-content minmax(0, 1fr);
  align-items: start;
  gap: 4px 14px;
  margin: 0;
}
dd {
  margin: 0;
  text-align: right;
}
dd + dd {
  text-align: left;
}
.warning {
  flex-wrap: nowrap;
  align-items: start;
}
@media (max-width: 760px) {
  dl {
    grid-template-columns: minmax(0, 1fr) max-content;
  }
  dd + dd {
    grid-column: 1 / -1;
  }
}
</style>
