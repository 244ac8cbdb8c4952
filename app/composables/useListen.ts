import { proxy, transfer, wrap, type Remote } from 'comlink'
import { madeFans, madeRecording, type KnownFan, type Sound } from '#core/noise'
import type { Heard, ListenWorker } from '~/workers/listen.worker'

export type Side = 'before' | 'after'
/** Larger recordings are not opened, bytes. */
const MAX_BYTES = 120e6
/** How long the browser records, s. */
const RECORD_S = 20
/** While it is recorded the last so many seconds are heard, every second. */
const LIVE_S = 1.5
/** Collects what the microphone gives, as it is. */
const COLLECTOR =
  'class Collector extends AudioWorkletProcessor { process(inputs) { if (inputs[0][0]) ' +
  "this.port.postMessage(inputs[0][0].slice()); return true } } registerProcessor('collector', " +
  'Collector)'

function joined(parts: readonly Float32Array[]): Float32Array<ArrayBuffer> {
  const samples = new Float32Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    samples.set(p, at)
    at += p.length
  }
  return samples
}

/** Two recordings, from files or the microphone, each heard in a worker. */
export function useListen() {
  const thread = new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<ListenWorker> = wrap<ListenWorker>(thread)
  const heard = reactive<
    Record<Side, { name: string; heard: Heard | null; problem: string; from: 'file' | 'microphone' | null }>
  >({
    before: { name: '', heard: null, problem: '', from: null },
    after: { name: '', heard: null, problem: '', from: null },
  })
  const progress = ref<number | null>(null)
  const recording = ref<{ side: Side; seconds: number } | null>(null)
  /** what was heard in the last moments, while it is recorded */
  const live = shallowRef<{ side: Side; heard: Heard } | null>(null)
  let stop: (() => void) | null = null
  const tell = proxy((share: number) => {
    progress.value = share
  })

  async function hear(side: Side, name: string, source: ArrayBuffer | Sound, from: 'file' | 'microphone') {
    progress.value = 0
    const result = await remote
      .hear(
        source instanceof ArrayBuffer ? transfer(source, [source]) : transfer(source, [source.samples.buffer]),
        tell,
      )
      .catch(() => 'The recording cannot be read.')
    progress.value = null
    heard[side] = {
      name,
      from,
      heard: typeof result === 'string' ? null : markRaw(result),
      problem: typeof result === 'string' ? result : '',
    }
  }
  async function open(side: Side, file: File) {
    if (file.size > MAX_BYTES) {
      heard[side] = { ...heard[side], problem: `This recording is too large: ${MAX_BYTES / 1e6} MB at most.` }
      return
    }
    await hear(side, file.name, await file.arrayBuffer(), 'file')
  }
  /** Two recordings made up on the spot: a fan that whines, and the one that took its place; those of the job where known. */
  async function tryMadeUp(fans: readonly KnownFan[]) {
    for (const side of ['before', 'after'] as const) {
      const own = fans.at(side === 'before' ? 0 : -1)
      const known = own?.blades && own.rpm > 0 && fans.length > 1 ? { blades: own.blades, rpm: own.rpm } : {}
      await hear(side, 'made up, no measurement', madeRecording({ ...madeFans[side], ...known }), 'file')
    }
  }
  /** The end of what was recorded up to now. */
  async function hearLive(side: Side, parts: readonly Float32Array[], rate: number) {
    const many = Math.min(parts.length, Math.ceil((LIVE_S * rate) / (parts[0]?.length ?? 1)))
    const samples = joined(parts.slice(-many))
    const told = await remote
      .hear(
        { rate, samples },
        proxy(() => {}),
      )
      .catch(() => '')
    if (typeof told !== 'string' && recording.value?.side === side) live.value = { side, heard: markRaw(told) }
  }
  async function record(side: Side) {
    let stream: MediaStream
    try {
      // whatever makes speech pleasant spoils a comparison
      stream = await navigator.mediaDevices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      })
    } catch {
      heard[side] = {
        ...heard[side],
        problem: 'The microphone may not be used: allow it in the browser, or open a WAV file.',
      }
      return
    }
    const context = new AudioContext()
    const url = URL.createObjectURL(new Blob([COLLECTOR], { type: 'text/javascript' }))
    await context.audioWorklet.addModule(url)
    URL.revokeObjectURL(url)
    const parts: Float32Array[] = []
    const node = new AudioWorkletNode(context, 'collector')
    node.port.onmessage = (event: MessageEvent<Float32Array>) => {
      parts.push(event.data)
      const seconds = (parts.length * event.data.length) / context.sampleRate
      if (recording.value && Math.floor(seconds) !== recording.value.seconds) {
        recording.value = { side, seconds: Math.floor(seconds) }
        void hearLive(side, parts, context.sampleRate)
      }
      if (seconds >= RECORD_S) stop?.()
    }
    context.createMediaStreamSource(stream).connect(node)
    recording.value = { side, seconds: 0 }
    stop = () => {
      stop = null
      recording.value = null
      live.value = null
      node.disconnect()
      for (const track of stream.getTracks()) track.stop()
      const rate = context.sampleRate
      void context.close()
      void hear(side, 'recorded here', { rate, samples: joined(parts) }, 'microphone')
    }
  }
  onBeforeUnmount(() => {
    stop?.()
    thread.terminate()
  })
  return { heard, live, progress, recording, open, record, tryMadeUp, stop: () => stop?.() }
}
