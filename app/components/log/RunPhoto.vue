<script setup lang="ts">
import type { Run } from '#core/document'
import type { Attachment } from '#shared/api'
import { attachmentSchema, MAX_ATTACHED } from '#shared/schemas/fan'

/** A picture of the set-up: the next run is taken the same way. */
const props = defineProps<{ run: Run; jobId: string }>()
const emit = defineEmits<{ set: [id: string | null] }>()
const toast = useToast()
const problem = ref('')
async function attach(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const kind = attachmentSchema.shape.mediaType.safeParse(file.type)
  problem.value = !kind.success
    ? `${file.name}: ${kind.error.issues[0]!.message}`
    : file.size > MAX_ATTACHED
      ? `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most ${MAX_ATTACHED / 1e6} MB are kept.`
      : ''
  if (problem.value) return
  const query = new URLSearchParams({ id: newId('photo'), name: file.name.slice(-120), mediaType: file.type })
  const result = await sendFile<Attachment>(`jobs/${props.jobId}/attachments?${query}`, file)
  if (result.ok) emit('set', result.data.id)
  else problem.value = result.message
}
function remove() {
  const id = props.run.photoId
  emit('set', null)
  toast.show('The picture no longer belongs to this run.', {
    action: { label: 'Undo', run: () => emit('set', id) },
  })
}
</script>

<template>
  <div class="row">
    <a v-if="run.photoId" :href="`/api/attachments/${run.photoId}`" target="_blank" rel="noopener"
      ><img :src="`/api/attachments/${run.photoId}`" :alt="`Set-up of ${run.name}`"
    /></a>
    <label class="button small"
      >{{ run.photoId ? 'Another picture' : 'Picture of the set-up'
      }}<input
        class="visually-hidden"
        type="file"
        accept="image/png,image/jpeg,image/webp"
        capture="environment"
        @change="attach"
    /></label>
    <el-button v-if="run.photoId" text size="small" @click="remove">Take it off</el-button>
    <span v-if="problem" class="bad" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
img {
  max-height: 96px;
  max-width: 180px;
  border: 1px solid var(--line);
  border-radius: 4px;
  display: block;
}
.bad {
  color: var(--stop);
  font-weight: 500;
}
.row {
  position: relative;
}
</style>
