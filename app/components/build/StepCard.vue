<script setup lang="ts">
import type { BuiltStep } from '#core/build'
import { placeLink } from '~/utils/place-link'

/** One step: what to do with the plan's own numbers, the value that it asks for, and its tick. */
const props = defineProps<{ step: BuiltStep; held: boolean; jobId: string }>()
const emit = defineEmits<{ tick: [value: number | null, note: string]; untick: [] }>()
const refused = defineModel<string>('refused', { default: '' })
const { say, show } = useUnits()
const value = ref<number | null>(props.step.tick?.value ?? null)
const note = ref(props.step.tick?.note ?? '')
watch(
  () => props.step.tick,
  (tick) => {
    value.value = tick?.value ?? null
    note.value = tick?.note ?? ''
  },
)
const done = computed(() => props.step.state === 'done')
const wanted = ref('')
function toggle(on: unknown) {
  wanted.value = ''
  if (on !== true) return emit('untick')
  if (props.step.measure && value.value === null) {
    wanted.value = 'Type what the meter shows: it is what makes this step sure.'
    return
  }
  emit('tick', value.value, note.value)
}
function measured(found: number | null) {
  value.value = found
  wanted.value = ''
  refused.value = ''
}
/** What was typed is judged when the field is left, not at every key. */
function left() {
  const found = value.value
  if (found !== null && !props.held && found !== props.step.tick?.value) emit('tick', found, note.value)
}
const when = computed(() => {
  const { tick } = props.step
  if (!tick) return ''
  const at = new Date(tick.at)
  const two = (n: number) => String(n).padStart(2, '0')
  const date = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}`
  return [
    tick.who,
    date,
    tick.value === null || !props.step.measure ? '' : show(tick.value, props.step.measure.quantity),
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <article class="step" :class="step.state" :aria-label="step.title">
    <el-checkbox
      class="mark"
      :model-value="done"
      :disabled="held && !done"
      :aria-label="`Done: ${step.title}`"
      @change="toggle"
    />
    <div class="words">
      <h3>{{ step.title }}</h3>
      <p class="small">{{ say(step.text) }}</p>
      <p v-if="step.state === 'again'" class="small again">
        <StateMark state="fix" /> Again: the plan has changed since it was ticked.
      </p>
      <p v-if="when" class="small soft">{{ when }}</p>
      <p v-if="refused" class="small refused" role="alert"><StateMark state="stop" /> {{ refused }}</p>
      <p v-else-if="wanted" class="error small" role="alert">{{ wanted }}</p>
      <NuxtLink v-if="step.at" class="small" :to="placeLink(jobId, step.at)">
        {{ stationName(step.at) }}
      </NuxtLink>
    </div>
    <QuantityField
      v-if="step.measure"
      class="value"
      :label="`Measured: ${step.title}`"
      hide-label
      :quantity="step.measure.quantity"
      :model-value="value"
      @update:model-value="measured"
      @focusout="left"
      @keydown.enter="left"
    />
  </article>
</template>

<style scoped>
.step {
  display: flex;
  gap: 12px;
  align-items: flex-start;
  border-top: 1px solid var(--line);
  padding: 10px 0;
}
.mark {
  --el-checkbox-input-width: 24px;
  --el-checkbox-input-height: 24px;
  min-height: 32px;
  min-width: 32px;
  margin: 0;
}
.words {
  flex: 1;
  min-width: 0;
  display: grid;
  gap: 4px;
}
.value {
  width: 110px;
}
.done h3 {
  color: var(--ink-soft);
}
.refused {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 560px) {
  .step {
    flex-wrap: wrap;
  }
  .mark {
    min-width: 44px;
    min-height: 44px;
    --el-checkbox-input-width: 32px;
    --el-checkbox-input-height: 32px;
  }
  .value {
    width: 100%;
  }
}
</style>
