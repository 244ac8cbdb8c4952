import { useEventListener } from '@vueuse/core'
import { createStore, del, entries, set } from 'idb-keyval'
import type { Attachment } from '#shared/api'

/** Photos of jobs: kept in this browser until the server has them, so that one taken without a network is not lost. */

interface Waiting {
  id: string
  jobId: string
  name: string
  mediaType: string
  blob: Blob
}
const AGAIN_MS = 4000
let kept: ReturnType<typeof createStore> | null = null
const store = () => (kept ??= createStore('redpoll-photos', 'waiting'))
/** those that the server does not have yet, with an address for showing them */
const waiting = ref(new Map<string, string>())
let timer: ReturnType<typeof setTimeout> | undefined
let sending = false

/** @returns why the server will not have it; '' where it has it; null where it does not answer */
async function send({ id, jobId, name, mediaType, blob }: Waiting): Promise<string | null> {
  const query = new URLSearchParams({ id, name: name.slice(-120), mediaType })
  const result = await sendFile<Attachment>(`jobs/${jobId}/attachments?${query}`, blob)
  if (result.ok) return ''
  return result.kind === 'offline' ? null : result.message
}
async function sendAll() {
  clearTimeout(timer)
  if (sending) return
  sending = true
  try {
    for (const [id, one] of await entries<string, Waiting>(store())) {
      if (!waiting.value.has(id)) waiting.value.set(id, URL.createObjectURL(one.blob))
      const refused = await send(one)
      if (refused === null) {
        timer = setTimeout(() => void sendAll(), AGAIN_MS)
        return
      }
      await drop(id)
      if (refused) useToast().show(`${one.name} was not kept: ${refused}`, { tone: 'bad' })
    }
  } finally {
    sending = false
  }
}
async function drop(id: string) {
  await del(id, store())
  const address = waiting.value.get(id)
  if (address) URL.revokeObjectURL(address)
  waiting.value.delete(id)
}

export function usePhotos() {
  onMounted(() => void sendAll())
  useEventListener('online', () => void sendAll())
  /** Keeps a photo of a job. @returns its id, or what is wrong with it */
  async function keep(file: File, jobId: string): Promise<{ id: string } | { message: string }> {
    const photo = await photoOf(file)
    if (!photo.ok) return { message: photo.message }
    const one: Waiting = {
      id: newId('photo'),
      jobId,
      name: file.name,
      mediaType: photo.mediaType,
      blob: photo.blob,
    }
    const refused = await send(one)
    if (refused) return { message: refused }
    if (refused === null) {
      try {
        await set(one.id, one, store())
      } catch {
        return { message: `${file.name}: the server does not answer, and this browser has no room to keep it.` }
      }
      waiting.value.set(one.id, URL.createObjectURL(one.blob))
      timer = setTimeout(() => void sendAll(), AGAIN_MS)
    }
    return { id: one.id }
  }
  const addressOf = (id: string) => waiting.value.get(id) ?? `/api/attachments/${id}`
  const waits = (id: string) => waiting.value.has(id)
  return { keep, addressOf, waits }
}
