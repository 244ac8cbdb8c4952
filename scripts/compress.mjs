// Lays a compressed copy beside each file of the built pages: the server sends that one to browsers that can read it.
import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'

const [brotlied, gzipped] = [promisify(brotliCompress), promisify(gzip)]
const WORTH = /\.(js|mjs|css|svg|html|json)$/
/** Smaller ones gain nothing, bytes. */
const LEAST = 1024
/**
 * What is fetched beside the pages (layout engine, PDF writer, workers) is larger than this, bytes. There the seventh of
 * eleven steps takes a twentieth of the time of the last one and is a tenth larger; pages get the last.
 */
const BESIDE = 480_000
const quality = (size) => ({ params: { [constants.BROTLI_PARAM_QUALITY]: size > BESIDE ? 7 : 11 } })

/** @param {string} folder of the built pages */
export async function compressAssets(folder) {
  const names = (await readdir(folder, { recursive: true })).filter((name) => WORTH.test(name))
  await Promise.all(
    names.map(async (name) => {
      const file = join(folder, name)
      const bytes = await readFile(file)
      if (bytes.length < LEAST) return
      await writeFile(`${file}.br`, await brotlied(bytes, quality(bytes.length)))
      await writeFile(`${file}.gz`, await gzipped(bytes, { level: 9 }))
    }),
  )
}
