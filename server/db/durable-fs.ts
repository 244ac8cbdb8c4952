import { closeSync, fdatasyncSync, fsyncSync, openSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { NodeFS } from '@electric-sql/pglite/nodefs'

/**
 * The embedded database's files on the disk itself: what its engine asks to be flushed is flushed (fsync), its log before
 * a commit is acknowledged, its pages before a checkpoint counts. Without it a flush is answered and not made, so that a
 * power cut loses acknowledged work and tears the files.
 */

/** What the engine's file layer passes on: the parts of it that are used here. */
interface Stream {
  nfd?: number
  node: unknown
}
interface Module {
  NODEFS: { stream_ops: { fsync?: (stream: Stream) => number }; realPath: (node: unknown) => string }
}
/** Told after each flush: the file or directory that is on the disk now. */
export type Flushed = (path: string) => void

/** Flushes a directory's entries, or a file by its path. */
export function flush(path: string): void {
  const file = openSync(path, 'r')
  try {
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
}

export class DurableFs extends NodeFS {
  constructor(
    directory: string,
    private readonly flushed: Flushed = () => {},
  ) {
    super(directory)
  }

  override async init(...[pg, options]: Parameters<NodeFS['init']>): ReturnType<NodeFS['init']> {
    const { emscriptenOpts } = await super.init(pg, options)
    const told = this.flushed
    const withFlush = (module: unknown) => {
      const { NODEFS } = module as Module
      NODEFS.stream_ops.fsync = (stream) => {
        const path = NODEFS.realPath(stream.node)
        if (stream.nfd === undefined) flush(path)
        else fdatasyncSync(stream.nfd)
        told(path)
        return 0
      }
    }
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), withFlush] } }
  }
}

/** Flushes everything below a directory, deepest first: a cluster that was just made. */
export function flushTree(directory: string): void {
  for (const entry of readdirSync(directory, { withFileTypes: true })) {
    const path = join(directory, entry.name)
    if (entry.isDirectory()) flushTree(path)
    else if (entry.isFile()) flush(path)
  }
  flush(directory)
}

/** Parameters of the engine: its own, but with flushing on. */
export const durableParams = (usual: readonly string[]): string[] => [
  ...usual.filter((p) => p !== '-F'),
  ...['fsync=on', 'wal_sync_method=fsync', 'synchronous_commit=on', 'full_page_writes=on'].flatMap((p) => [
    '-c',
    p,
  ]),
]
