<script setup lang="ts" generic="T extends object">
import type { Field, Shape } from '../../composables/useFields'

/** The fields of a record in a grid, each checked by the schema of its key. */
const props = defineProps<{ record: T, fields: Field<keyof T & string>[], shape?: Shape, tight?: boolean }>()
const emit = defineEmits<{ set: [key: keyof T & string, value: unknown] }>()
const rows = computed(() => props.fields.map((field) => {
  const { key, ...words } = field
  // what only tells the kind of field is no attribute of it
  const { text, yesNo, ...bound } = words as typeof words & { text?: true, yesNo?: true }
  return { field, kind: text ? 'text' : yesNo ? 'yesNo' : 'quantity' in field ? 'quantity' : 'options', bound: bound as { label: string, quantity: never, options: never }, value: props.record[key] as never }
}))
</script>

<template>
  <div
    class="fields"
    :class="{ tight }"
  >
    <template
      v-for="{ field, kind, bound, value } in rows"
      :key="field.key"
    >
      <QuantityField
        v-if="kind === 'quantity'"
        v-bind="bound"
        :schema="shape?.[field.key]"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event)"
      />
      <TextField
        v-else-if="kind === 'text'"
        v-bind="bound"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event)"
      />
      <YesNoField
        v-else-if="kind === 'yesNo'"
        v-bind="bound"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event)"
      />
      <ChoiceField
        v-else
        v-bind="bound"
        :model-value="value"
        @update:model-value="emit('set', field.key, $event)"
      />
    </template>
    <slot />
  </div>
</template>
