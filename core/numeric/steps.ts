/**
 * Work that is written in steps, done without a pause.
 * @param steps a generator that yields wherever other work could go on
 * @returns what it returns at its end
 */
export function atOnce<T>(steps: Generator<void, T>): T {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
