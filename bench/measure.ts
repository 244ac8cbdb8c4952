/** Timing, and how a measurement is told. */
export const line = (what: string, value: string, target: string, ok: boolean) =>
  console.log(`${ok ? ' ok ' : 'MISS'}  ${what.padEnd(58)} ${value.padStart(14)}   ${target}`)

/** Median of repeated timings, ms. */
export function time(work: () => unknown, repeats = 15): number {
  const times: number[] = []
  for (let i = 0; i < repeats; i++) {
    const start = performance.now()
    work()
    times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[Math.floor(repeats / 2)]!
}
/** Median times of two pieces of work in turn, so that what the machine does besides falls on both, ms. */
export function timePair(one: () => unknown, other: () => unknown, repeats = 101): [number, number] {
  const [first, second]: [number[], number[]] = [[], []]
  for (let i = 0; i < repeats; i++) {
    first.push(time(one, 1))
    second.push(time(other, 1))
  }
  const median = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(repeats / 2)]!
  return [median(first), median(second)]
}
