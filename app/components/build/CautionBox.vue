<script setup lang="ts">
import type { Sitting } from '#core/build'

/** A caution where the danger is; one that holds its sitting wants another plan, or a reason with a name. */
const props = defineProps<{ caution: Sitting['cautions'][number]; who: string }>()
const emit = defineEmits<{ release: [reason: string, name: string]; hold: [] }>()
const reason = ref('')
const name = ref(props.who)
const missing = ref('')
function answer() {
  missing.value = !reason.value.trim()
    ? 'Say why it may go on.'
    : !name.value.trim()
      ? 'Say who answers for it.'
      : ''
  if (!missing.value) emit('release', reason.value.trim(), name.value.trim())
}
</script>

<template>
  <div class="caution" :class="{ holds: caution.stop && !caution.release }" role="note">
    <p>
      <StateMark :state="caution.stop && !caution.release ? 'stop' : 'note'" />
      <strong>{{ caution.say }}</strong> {{ caution.do }}
    </p>
    <template v-if="caution.stop">
      <p>{{ caution.stop }}</p>
      <p v-if="caution.release" class="small">
        {{ caution.release.who }} answers for it: {{ caution.release.reason }}
        <el-button size="small" @click="emit('hold')">Let it hold again</el-button>
      </p>
      <FoldBox v-else title="It may go on, because">
        <div class="fields tight">
          <TextField v-model="reason" label="Reason" />
          <TextField v-model="name" label="Who answers for it" />
        </div>
        <p v-if="missing" class="error small" role="alert">{{ missing }}</p>
        <el-button size="small" @click="answer">Go on</el-button>
      </FoldBox>
    </template>
  </div>
</template>

<style scoped>
.caution {
  border-left: 4px solid var(--line-strong);
  background: var(--sheet-soft);
  padding: 8px 12px;
  display: grid;
  gap: 6px;
}
.caution p :deep(svg) {
  margin-right: 6px;
}
.holds {
  border-color: var(--stop);
  background: var(--cap-soft);
}
</style>
