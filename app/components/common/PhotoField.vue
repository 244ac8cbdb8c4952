<script setup lang="ts">
/** A photo that belongs to something of a job: taken with a phone's camera, or chosen. */
const props = defineProps<{
  photoId: string | null
  jobId: string
  /** what it shows, for its button and its alternative text */
  label: string
  /** what it belonged to, once it is taken off */
  of: string
}>()
const emit = defineEmits<{ set: [id: string | null] }>()
const toast = useToast()
const { keep, addressOf, waits } = usePhotos()
const problem = ref('')
const busy = ref(false)
async function attach(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  busy.value = true
  const kept = await keep(file, props.jobId)
  busy.value = false
  problem.value = 'message' in kept ? kept.message : ''
  if ('id' in kept) emit('set', kept.id)
}
function remove() {
  const id = props.photoId
  emit('set', null)
  toast.show(`The photo no longer belongs to ${props.of}.`, {
    action: { label: 'Undo', run: () => emit('set', id) },
  })
}
</script>

<template>
  <div class="row">
    <a v-if="photoId" :href="addressOf(photoId)" target="_blank" rel="noopener"
      ><img :src="addressOf(photoId)" :alt="label"
    /></a>
    <label class="button small" :aria-busy="busy"
      >{{ photoId ? 'Another photo' : 'Photo' }}<span class="visually-hidden">: {{ label }}</span
      ><input
        class="visually-hidden"
        type="file"
        accept="image/png,image/jpeg,image/webp"
        capture="environment"
        :disabled="busy"
        @change="attach"
    /></label>
    <el-button v-if="photoId" text size="small" @click="remove">Take it off</el-button>
    <span v-if="photoId && waits(photoId)" class="small soft" role="status"
      >kept here, sent when the server answers</span
    >
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
