import { statfsSync } from 'node:fs'
import { Refused } from '../db/errors'
import { dataDirectory } from './place'

/** Room on the disk: looked at before anything is written, so that the database never meets a full disk in the middle. */

const MB = 1e6
/** Below this nothing more is written: a log segment of the database has 16 MB, a checkpoint writes some. */
const LEAST_MB = 64
const LOOK_MS = 1000
let looked = { at: -Infinity, free: Infinity }

/** @returns bytes that may still be written; Infinity where the system does not tell */
function freeBytes(directory: string): number {
  const now = performance.now()
  if (now - looked.at > LOOK_MS) {
    try {
      const { bavail, bsize } = statfsSync(directory)
      looked = { at: now, free: bavail * bsize }
    } catch {
      looked = { at: now, free: Infinity }
    }
  }
  return looked.free
}

/** @throws Refused where the disk is nearly full */
export function checkRoom(): void {
  const least = Number(process.env.REDPOLL_LEAST_FREE_MB ?? LEAST_MB)
  const free = freeBytes(dataDirectory())
  if (free < least * MB)
    throw new Refused(
      `The disk has only ${Math.floor(free / MB)} MB left: nothing more is written before there is room. ` +
        'What is stored can still be read.',
    )
}
