/** Longest that others wait for a piece of work, ms. */
const PIECE_MS = 12

/**
 * Does steps of a generator with other work in between.
 * @param steps work that yields wherever it may be left for a moment
 * @param breathe lets what waits come in; resolves when it is this work's turn again
 */
export async function inPieces<T>(steps: Generator<void, T>, breathe: () => Promise<void>): Promise<T> {
  let since = performance.now()
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (performance.now() - since < PIECE_MS) continue
    await breathe()
    since = performance.now()
  }
}
