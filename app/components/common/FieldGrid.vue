<script setup lang="ts" generic="T extends object">
import { uncertainInputs, type Uncertainty, type UncertainInput } from '#core/document'
import type { Field, Shape } from '~/forms/field'

/**
 * The fields of a record in a grid, each checked by the schema of its key. Where `doubts` is given, a range may be
 * typed instead of a number.
 */
const props = defineProps<{
  record: T
  fields: Field<keyof T & string>[]
  shape?: Shape
  tight?: boolean
  uncertainties?: Uncertainty[]
  /** how a helper came to a value, shown while the field holds it */
  workings?: { key: string; value: number; text: string }[]
}>()
const emit = defineEmits<{
  /** label: what the person calls the field, for undo */
  set: [key: keyof T & string, value: unknown, label?: string]
  uncertainty: [uncertainty: Uncertainty | null, key: UncertainInput, value?: number]
}>()
const uncertaintyOf = (key: string) => props.uncertainties?.find((d) => d.id === key) ?? null
const mayBeUncertain = (key: string) =>
  props.uncertainties !== undefined && (uncertainInputs as readonly string[]).includes(key)
/** Typed as a range, or assumed with one: a plain number takes its place. */
const ranged = (key: string) => ['range', 'assumed'].includes(uncertaintyOf(key)?.grade ?? '')
const rangeOf = (key: string) => {
  const uncertainty = uncertaintyOf(key)
  return !mayBeUncertain(key)
    ? undefined
    : uncertainty && ranged(key) && uncertainty.low !== null && uncertainty.high !== null
      ? { low: uncertainty.low, high: uncertainty.high }
      : null
}
function typed(key: keyof T & string, value: unknown, label: string) {
  if (ranged(key)) emit('uncertainty', null, key as UncertainInput, value as number)
  else emit('set', key, value, label)
}
const workingOf = (key: keyof T & string) => {
  const working = props.workings?.find((w) => w.key === key && w.value === props.record[key])
  if (working) return { hint: `= ${working.text}` }
  return uncertaintyOf(key)?.grade === 'assumed' ? { hint: 'assumed, measure it' } : {}
}
const rows = computed(() =>
  props.fields.map((field) => {
    const { key, ...words } = field
    // what only tells the kind of field is no attribute of it
    const { text, yesNo, clock, ...bound } = words as typeof words & {
      text?: true
      yesNo?: true
      clock?: true
    }
    return {
      field,
      kind: text ? 'text' : yesNo ? 'yesNo' : clock ? 'clock' : 'quantity' in field ? 'quantity' : 'options',
      bound: { ...bound, ...workingOf(field.key) } as { label: string; quantity: never; options: never },
      value: props.record[key] as never,
    }
  }),
)
</script>

<template>
  <div class="fields" :class="{ tight }">
    <template v-for="{ field, kind, bound, value } in rows" :key="field.key">
      <QuantityField
        v-if="kind === 'quantity'"
        v-bind="bound"
        :data-field="field.key"
        :schema="shape?.[field.key]"
        :range="rangeOf(field.key)"
        :model-value="value"
        @update:model-value="typed(field.key, $event, field.label)"
        @range="
          (low, high) =>
            emit(
              'uncertainty',
              { id: field.key as UncertainInput, grade: 'range', low, high },
              field.key as UncertainInput,
              (low + high) / 2,
            )
        "
      />
      <TextField
        v-else-if="kind === 'text'"
        v-bind="bound"
        :data-field="field.key"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event, field.label)"
      />
      <YesNoField
        v-else-if="kind === 'yesNo'"
        v-bind="bound"
        :data-field="field.key"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event, field.label)"
      />
      <ClockField
        v-else-if="kind === 'clock'"
        v-bind="bound"
        :data-field="field.key"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event, field.label)"
      />
      <ChoiceField
        v-else
        v-bind="bound"
        :data-field="field.key"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event, field.label)"
      />
    </template>
    <slot />
  </div>
</template>
