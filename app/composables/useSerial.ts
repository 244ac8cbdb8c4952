import { readBenchLine } from '#core/measure'
import type { Receipt } from '#shared/api'

/** Rates that boards talk at. */
export const serialRates = [9600, 19200, 38400, 57600, 115200, 230400] as const
const SEND_MS = 500
/** Lines kept while the server is away: some minutes at a fast rate. */
const MAX_WAITING = 60_000

/**
 * Reads bench lines from a serial port of this computer and hands them on. Lines wait here until the server says that they
 * are safe; one that is sent twice is stored once. A board that does not number its lines is numbered here.
 */
export function useSerial(instrumentId: () => string) {
  const supported = typeof navigator !== 'undefined' && 'serial' in navigator
  const connected = ref(false)
  const problem = ref('')
  const waiting = shallowRef<string[]>([])
  let port: SerialPort | null = null
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null
  let timer: ReturnType<typeof setInterval> | undefined
  let boot = ''
  let seq = 0
  let began = 0
  let sending = false

  function take(line: string) {
    const read = readBenchLine(line)
    if (!read) return
    if ('heading' in read) {
      if (read.heading.boot) boot = read.heading.boot
      return
    }
    // a bare line of values, or one that cannot be read: the server tells what is wrong with the latter
    const text =
      'row' in read
        ? line.trim()
        : /^\S+=\S*(\s+\S+=\S*)*$/.test(line.trim())
          ? `${seq++} ${Math.round(performance.now() - began)} ${line.trim()}`
          : line.trim()
    waiting.value = [...waiting.value.slice(-MAX_WAITING), text]
  }

  async function send() {
    if (sending || !waiting.value.length) return
    sending = true
    const part = waiting.value.slice(0, 2000)
    try {
      const response = await fetch(`/api/instruments/${instrumentId()}/lines`, {
        method: 'POST',
        body: `# boot=${boot}\n${part.join('\n')}\n`,
        headers: { 'content-type': 'text/plain' },
      })
      if (response.ok) {
        ;(await response.json()) as Receipt
        waiting.value = waiting.value.slice(part.length)
        problem.value = ''
      } else
        problem.value =
          ((await response.json()) as { error?: { message?: string } }).error?.message ??
          'The server does not take the lines.'
    } catch {
      problem.value = `The server does not answer: ${waiting.value.length} lines wait here and are sent when it does.`
    }
    sending = false
  }

  async function listen(from: SerialPort) {
    const decoder = new TextDecoder()
    let rest = ''
    try {
      while (from.readable) {
        const mine = (reader = from.readable.getReader())
        for (;;) {
          const { value, done } = await mine.read()
          if (done) return
          const lines = (rest + decoder.decode(value, { stream: true })).split(/\r?\n/)
          rest = lines.pop()!.slice(-4000)
          for (const line of lines) take(line)
        }
      }
    } catch {
      problem.value =
        'The port went silent: is the board unplugged? Plug it in and connect again; what was read is kept.'
    } finally {
      reader?.releaseLock()
      reader = null
      connected.value = false
    }
  }

  async function connect(baudRate: number) {
    problem.value = ''
    try {
      port = await navigator.serial.requestPort()
      await port.open({ baudRate })
    } catch (error) {
      problem.value =
        error instanceof DOMException && error.name === 'NotFoundError'
          ? 'No port was chosen.'
          : 'The port cannot be opened: does another program hold it?'
      return
    }
    boot = `serial-${crypto.randomUUID().slice(0, 8)}`
    seq = 0
    began = performance.now()
    connected.value = true
    timer ??= setInterval(send, SEND_MS)
    void listen(port)
  }
  async function disconnect() {
    await reader?.cancel().catch(() => {})
    await port?.close().catch(() => {})
    connected.value = false
    await send()
  }
  onBeforeUnmount(() => {
    clearInterval(timer)
    void disconnect()
  })
  return { supported, connected, problem, waiting, connect, disconnect }
}
