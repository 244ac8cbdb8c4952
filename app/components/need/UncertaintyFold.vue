<script setup lang="ts">
import {
  uncertainInputs,
  type Uncertainty,
  type UncertaintyGrade,
  type UncertainInput,
  type Job,
} from '#core/document'
import { inputRange } from '#core/requirement'

/** How sure each number is: a grade for each; a range is typed into the field itself ("50 to 70 W"). */
const props = defineProps<{ job: Job; fields: Field<keyof Job>[]; uncertainties: Uncertainty[] }>()
const emit = defineEmits<{ set: [uncertainty: Uncertainty | null, key: UncertainInput] }>()
const { show, bare } = useUnits()
const usual = { measured: 'measured', nameplate: 'a label’s most', estimate: 'a guess' }
const words: Record<UncertaintyGrade, string> = {
  measured: 'measured',
  'good-guess': 'good guess',
  'rough-guess': 'rough guess',
  range: 'the range typed',
  assumed: 'assumed, nobody said',
}
const rows = computed(() =>
  props.fields.flatMap((field) => {
    const key = field.key as UncertainInput
    if (
      !(uncertainInputs as readonly string[]).includes(key) ||
      !('quantity' in field) ||
      props.job[key] === null
    )
      return []
    const uncertainty = props.uncertainties.find((d) => d.id === key) ?? null
    const range = inputRange(props.job, props.uncertainties, key)
    const options = [
      { value: null, label: key === 'heatW' ? usual[props.job.heatBasis] : 'taken as sure' },
      ...(Object.keys(words) as UncertaintyGrade[])
        .filter((g) => (g !== 'range' && g !== 'assumed') || uncertainty?.grade === g)
        .map((g) => ({ value: g, label: words[g] })),
    ]
    return [
      {
        key,
        label: field.label,
        grade: uncertainty?.grade ?? null,
        options,
        range: range ? `${bare(range[0], field.quantity)} to ${show(range[1], field.quantity)}` : '',
      },
    ]
  }),
)
const graded = computed(() => rows.value.filter((r) => r.grade !== null).length)
const choose = (key: UncertainInput, grade: UncertaintyGrade | null) =>
  emit('set', grade && { id: key, grade, low: null, high: null }, key)
</script>

<template>
  <FoldBox v-if="rows.length">
    <template #title>
      How sure are these numbers?<span class="aside">{{
        graded ? `${graded} graded` : 'or type a range, such as 50 to 70 W'
      }}</span>
    </template>
    <ul class="doubts">
      <li v-for="row in rows" :key="row.key">
        <span>{{ row.label }}</span>
        <ChoiceField
          hide-label
          :label="`How sure: ${row.label}`"
          :options="row.options"
          :model-value="row.grade"
          @update:model-value="choose(row.key, $event)"
        />
        <span class="mono small soft">{{ row.range }}</span>
      </li>
    </ul>
  </FoldBox>
</template>

<style scoped>
.doubts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.doubts li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px minmax(90px, 0.8fr);
  gap: 10px;
  align-items: center;
  font-size: 14px;
}
@media (max-width: 480px) {
  .doubts li {
    grid-template-columns: minmax(0, 1fr) 140px;
  }
}
</style>
