/** Samples of a recording, -1..1, one channel (several are averaged). */
export interface Sound {
  rate: number
  samples: Float32Array
}

/**
 * Formats of a WAV file's samples.
 * Reference: IBM and Microsoft, Multimedia Programming Interface and Data Specifications 1.0; extensible format
 */
const PCM = 1
const FLOAT = 3
const EXTENSIBLE = 0xfffe
const tag = (view: DataView, at: number) =>
  String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3))

/** How one sample is read. */
function reader(view: DataView, format: number, bits: number): ((at: number) => number) | null {
  if (format === FLOAT)
    return bits === 32
      ? (at) => view.getFloat32(at, true)
      : bits === 64
        ? (at) => view.getFloat64(at, true)
        : null
  if (format !== PCM) return null
  if (bits === 8) return (at) => (view.getUint8(at) - 128) / 128
  if (bits === 16) return (at) => view.getInt16(at, true) / 32768
  if (bits === 24)
    return (at) => (view.getUint8(at) | (view.getUint8(at + 1) << 8) | (view.getInt8(at + 2) << 16)) / 8388608
  return bits === 32 ? (at) => view.getInt32(at, true) / 2147483648 : null
}

/**
 * Reads a WAV file: whole numbers of 8 to 32 bits or floats, any number of channels. A data part longer than the file is
 * read as far as it goes.
 * @returns a sentence that says what is wrong where it cannot be read
 * Reference: IBM and Microsoft, Multimedia Programming Interface and Data Specifications 1.0
 */
export function readWav(bytes: ArrayBuffer): Sound | string {
  const view = new DataView(bytes)
  if (bytes.byteLength < 44 || tag(view, 0) !== 'RIFF' || tag(view, 8) !== 'WAVE') return 'This is no WAV file.'
  let format = 0
  let channels = 0
  let rate = 0
  let bits = 0
  for (let at = 12; at + 8 <= bytes.byteLength;) {
    const name = tag(view, at)
    const size = view.getUint32(at + 4, true)
    const body = at + 8
    if (name === 'fmt ' && body + 16 <= bytes.byteLength) {
      format = view.getUint16(body, true)
      channels = view.getUint16(body + 2, true)
      rate = view.getUint32(body + 4, true)
      bits = view.getUint16(body + 14, true)
      if (format === EXTENSIBLE && size >= 26) format = view.getUint16(body + 24, true)
    }
    if (name === 'data') {
      const read = reader(view, format, bits)
      if (!read || !channels || !(rate >= 4000 && rate <= 400000))
        return `A WAV of this kind cannot be read (format ${format}, ${bits} bits, ${rate} Hz): save it as 16 or 24 bit PCM.`
      const step = bits / 8
      const frames = Math.floor(Math.min(size, bytes.byteLength - body) / (step * channels))
      const samples = new Float32Array(frames)
      for (let i = 0; i < frames; i++) {
        let sum = 0
        for (let c = 0; c < channels; c++) sum += read(body + (i * channels + c) * step)
        if (!Number.isFinite(sum))
          return `The recording holds a sample that is no number, ${(i / rate).toFixed(2)} s from its start: export it again.`
        samples[i] = sum / channels
      }
      return { rate, samples }
    }
    at = body + size + (size % 2)
  }
  return 'The WAV file has no sound in it.'
}

/**
 * A 16 bit WAV file of one channel.
 * Reference: IBM and Microsoft, Multimedia Programming Interface and Data Specifications 1.0
 */
export function writeWav({ rate, samples }: Sound): ArrayBuffer {
  const bytes = new ArrayBuffer(44 + 2 * samples.length)
  const view = new DataView(bytes)
  const put = (at: number, text: string) => [...text].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)))
  put(0, 'RIFF')
  view.setUint32(4, 36 + 2 * samples.length, true)
  put(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, PCM, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, 2 * rate, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  put(36, 'data')
  view.setUint32(40, 2 * samples.length, true)
  samples.forEach((s, i) => view.setInt16(44 + 2 * i, Math.round(32767 * Math.max(-1, Math.min(1, s))), true))
  return bytes
}
