<script setup lang="ts">
import type { BuiltStep } from '#core/build'
import { placeLink } from '~/utils/place-link'

/** One step: what to do with the plan's own numbers, the value that it asks for, note, photo, and its tick. */
const props = defineProps<{ step: BuiltStep; held: boolean; jobId: string }>()
const emit = defineEmits<{
  tick: [value: number | null, note: string, photoId: string | null]
  untick: []
  annotate: [more: { note?: string; photoId?: string | null }]
}>()
const refused = defineModel<string>('refused', { default: '' })
const { say, show } = useUnits()
const value = ref<number | null>(props.step.tick?.value ?? null)
const note = ref(props.step.tick?.note ?? '')
const photoId = ref<string | null>(props.step.tick?.photoId ?? null)
const noting = ref(false)
watch(
  () => props.step.tick,
  (tick) => {
    value.value = tick?.value ?? null
    note.value = tick?.note ?? ''
    photoId.value = tick?.photoId ?? null
  },
)
const done = computed(() => props.step.state === 'done')
const wanted = ref('')
const send = () => emit('tick', value.value, note.value, photoId.value)
function toggle(on: unknown) {
  wanted.value = ''
  if (on !== true) return emit('untick')
  if (props.step.look) return look(0)
  if (props.step.measure && value.value === null) {
    wanted.value = 'Type what the meter shows: it is what makes this step sure.'
    return
  }
  send()
}
/** What was seen: the first one is right, the others are told what they mean. */
function look(at: number) {
  const wrong = props.step.look?.wrong[at - 1]
  refused.value = wrong ? wrong.means : ''
  if (wrong) {
    if (props.step.tick) emit('untick')
    return
  }
  value.value = 0
  send()
}
function measured(found: number | null) {
  value.value = found
  wanted.value = ''
  refused.value = ''
}
/** What was typed is judged when the field is left, not at every key. */
function left() {
  const found = value.value
  if (found !== null && !props.held && found !== props.step.tick?.value) send()
}
function noted(text: string) {
  note.value = text
  if (props.step.tick) emit('annotate', { note: text })
}
/** A photo is evidence: of a step that asks for no value it is the tick. */
function photographed(id: string | null) {
  photoId.value = id
  if (props.step.tick) emit('annotate', { photoId: id })
  else if (id && !props.step.measure && !props.step.look && !props.held) send()
}
const when = computed(() => {
  const { tick } = props.step
  if (!tick) return ''
  return [
    tick.who,
    localTime(tick.at),
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
      <TextField
        v-if="noting || note"
        class="note"
        :label="`Note: ${step.title}`"
        hide-label
        placeholder="Note"
        :maxlength="400"
        :model-value="note"
        @update:model-value="noted"
      />
      <div v-if="step.look && !done && !held" class="row no-print">
        <el-button
          v-for="(words, i) in [step.look.right, ...step.look.wrong.map((w) => w.label)]"
          :key="words"
          size="small"
          @click="look(i)"
          >{{ words }}<span class="visually-hidden">: {{ step.title }}</span></el-button
        >
      </div>
      <div class="row no-print">
        <NuxtLink v-if="step.at" class="small" :to="placeLink(jobId, step.at)">
          {{ stationName(step.at) }}
        </NuxtLink>
        <el-button v-if="!noting && !note" text size="small" @click="noting = true"
          >Note<span class="visually-hidden">: {{ step.title }}</span></el-button
        >
        <PhotoField
          v-if="!held && (step.photo || photoId)"
          :photo-id="photoId"
          :job-id="jobId"
          :label="step.title"
          of="this step"
          @set="photographed"
        />
      </div>
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
.row a {
  display: inline-flex;
  align-items: center;
  min-width: 28px;
  min-height: 28px;
}
.mark {
  min-height: 32px;
  min-width: 32px;
  margin: 0;
}
.mark :deep(.el-checkbox__inner) {
  width: 24px;
  height: 24px;
}
.mark :deep(.el-checkbox__inner::after) {
  width: 5px;
  height: 11px;
  border-width: 0 2px 2px 0;
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
  }
  .value {
    width: 100%;
  }
  .mark :deep(.el-checkbox__inner) {
    width: 32px;
    height: 32px;
  }
}
</style>
