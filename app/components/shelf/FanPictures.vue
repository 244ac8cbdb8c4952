<script setup lang="ts">
import type { Attachment } from '#shared/api'
import { attachmentSchema, MAX_ATTACHED } from '#shared/schemas/fan'

/** Pages of the data sheet and pictures, kept with the fan. */
const props = defineProps<{ fanId: string }>()
const toast = useToast()
const list = ref<Attachment[]>([])
const problem = ref('')
async function renew() {
  const result = await api<Attachment[]>(`fans/${props.fanId}/attachments`)
  if (result.ok) list.value = result.data
  else problem.value = result.message
}
await renew()
async function attach(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const kind = attachmentSchema.shape.mediaType.safeParse(file.type)
  if (!kind.success) {
    problem.value = `${file.name}: ${kind.error.issues[0]!.message}`
    return
  }
  if (file.size > MAX_ATTACHED) {
    problem.value = `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most ${MAX_ATTACHED / 1e6} MB are kept.`
    return
  }
  const words = new URLSearchParams({ id: newId('page'), name: file.name.slice(-120), mediaType: file.type })
  const result = await sendFile<Attachment>(`fans/${props.fanId}/attachments?${words}`, file)
  problem.value = result.ok ? '' : result.message
  if (result.ok) await renew()
}
async function remove(one: Attachment) {
  const result = await api(`attachments/${one.id}`, { method: 'DELETE' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  await renew()
  toast.show(`${one.name} is put aside.`, {
    action: {
      label: 'Undo',
      run: async () => {
        await api(`attachments/${one.id}/restore`, { method: 'POST' })
        await renew()
      },
    },
  })
}
const address = (one: Attachment) => `/api/attachments/${one.id}`
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>Pages and pictures</h2>
      <label class="button small"
        >Keep one<input
          class="visually-hidden"
          type="file"
          accept="image/png,image/jpeg,image/webp,application/pdf"
          @change="attach"
      /></label>
    </div>
    <p v-if="problem" class="bad" role="alert">
      {{ problem }}
    </p>
    <p v-if="!list.length" class="small soft">
      The page of the data sheet as PNG, JPEG or PDF: it stays with the fan.
    </p>
    <ul class="pages">
      <li v-for="one in list" :key="one.id">
        <a :href="address(one)" target="_blank" rel="noopener"
          ><img v-if="one.mediaType !== 'application/pdf'" :src="address(one)" :alt="one.name" /><span v-else>{{
            one.name
          }}</span></a
        >
        <el-button text size="small" class="icon" :aria-label="`Put ${one.name} aside`" @click="remove(one)">
          ×
        </el-button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.pages {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.pages li {
  display: flex;
  align-items: start;
  gap: 2px;
}
.pages img {
  max-width: 150px;
  max-height: 110px;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
  margin: 0;
}
</style>
