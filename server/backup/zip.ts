import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import { fromBuffer, open, type Entry, type ZipFile as Opened } from 'yauzl'
import { ZipFile } from 'yazl'
import { Refused } from '../db/errors'

/**
 * Zip files piece by piece: read from the disk or written to a stream, of any size, in the memory of one piece. What a file
 * says of itself is looked at before anything in it is unfolded, and holds while it is.
 */

export const NO_BACKUP = 'This file is no backup of Redpoll, or it was cut short: nothing was changed.'
const TOO_LARGE = 'This file is larger than any workshop: nothing was changed.'

/** Files in a backup, and what all of them may become, bytes. */
const MOST_FILES = 50_000
const MOST_UNPACKED = 4_000_000_000
/** Deflate makes at most a thousandth of a file; measurements and texts become a twentieth. Smaller files may. */
const MOST_RATIO = 200
const RATIO_FROM = 5_000_000

export interface Packed {
  has: (name: string) => boolean
  sizeOf: (name: string) => number
  /** @throws Refused where it is not there, or not as it says */
  read: (name: string) => AsyncGenerator<Buffer>
  close: () => void
}

const opened = (from: string | Uint8Array) =>
  new Promise<Opened>((resolve, reject) => {
    const options = { lazyEntries: true, autoClose: false, strictFileNames: true }
    const done = (error: Error | null, zip?: Opened) => (error ? reject(error) : resolve(zip!))
    if (typeof from === 'string') open(from, options, done)
    else fromBuffer(Buffer.from(from.buffer, from.byteOffset, from.byteLength), options, done)
  })

/**
 * Opens a zip file and looks at what it says of its files; none of them is unfolded yet.
 * @param from its path, or its bytes
 * @param mostOf how large a file of that name may be, bytes
 * @throws Refused where it is none, or larger than it may be
 */
export async function openZip(from: string | Uint8Array, mostOf: (name: string) => number): Promise<Packed> {
  const zip = await opened(from).catch(() => {
    throw new Refused(NO_BACKUP)
  })
  try {
    const entries = new Map<string, Entry>()
    let size = 0
    if (zip.entryCount > MOST_FILES) throw new Refused(TOO_LARGE)
    for await (const entry of zip.eachEntry()) {
      const { fileName, compressedSize, uncompressedSize } = entry
      size += uncompressedSize
      const unfolds = uncompressedSize / Math.max(1, compressedSize)
      if (size > MOST_UNPACKED || entries.size > MOST_FILES) throw new Refused(TOO_LARGE)
      if (uncompressedSize > mostOf(fileName))
        throw new Refused(`${fileName} in this file is larger than it can be: nothing was changed.`)
      if (uncompressedSize > RATIO_FROM && unfolds > MOST_RATIO)
        throw new Refused(
          `${fileName} in this file unfolds to ${Math.round(unfolds)} times its size: nothing was changed.`,
        )
      if (entries.has(fileName)) throw new Refused(NO_BACKUP)
      entries.set(fileName, entry)
    }
    return {
      has: (name) => entries.has(name),
      sizeOf: (name) => entries.get(name)?.uncompressedSize ?? 0,
      async *read(name) {
        const entry = entries.get(name)
        if (!entry) throw new Refused(`This backup is damaged: ${name} is missing in it. Nothing was changed.`)
        const stream = await zip.openReadStreamPromise(entry).catch(() => null)
        if (!stream) throw new Refused(NO_BACKUP)
        try {
          for await (const part of stream) yield part as Buffer
        } catch {
          // a checksum, a size or a code that is not what it says
          throw new Refused(`This backup is damaged: ${name} cannot be unpacked. Nothing was changed.`)
        } finally {
          stream.destroy()
        }
      },
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error instanceof Refused ? error : new Refused(NO_BACKUP)
  }
}

export type Content = string | Uint8Array | AsyncIterable<string | Uint8Array>

/** A zip file that is made while it is sent: one file after the other, packed beside this program’s own work. */
export function packing() {
  const zip = new ZipFile()
  const sums: Record<string, string> = {}
  let failed: (error: unknown) => void = () => {}
  const failure = new Promise<never>((_, reject) => {
    failed = reject
  })
  failure.catch(() => {})
  zip.on('error', failed)
  return {
    sums,
    out: zip.outputStream as Readable,
    /**
     * Adds a file; resolves when it has been read to its end.
     * @param packed pictures are packed already
     */
    async add(name: string, content: Content, packed = false): Promise<void> {
      const sum = createHash('sha256')
      async function* counted() {
        const parts = typeof content === 'string' || content instanceof Uint8Array ? [content] : content
        for await (const part of parts) {
          const bytes = typeof part === 'string' ? Buffer.from(part) : part
          sum.update(bytes)
          yield bytes
        }
      }
      const stream = Readable.from(counted(), { objectMode: false })
      const read = new Promise<void>((resolve, reject) => stream.once('end', resolve).once('error', reject))
      zip.addReadStream(stream, name, { compress: !packed, mode: 0o100600 })
      await Promise.race([read, failure])
      sums[name] = sum.digest('hex')
    },
    end: () => zip.end(),
    fail: failed,
  }
}
