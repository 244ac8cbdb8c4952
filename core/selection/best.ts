/** What is put in order: the smaller key is the better one, of equal ones that which came first. */
export interface Ranked {
  /** those that fail stand behind all others */
  fails: boolean
  key: number
  /** its number in the order in which it came */
  at: number
}
const compare = (a: Ranked, b: Ranked) => Number(a.fails) - Number(b.fails) || a.key - b.key || a.at - b.at

/** The best so many of a stream, exactly those that sorting all of them would put first. */
export interface Best<T extends Ranked> {
  /** whether one of this rank would be among them */
  wants: (rank: Ranked) => boolean
  add: (item: T) => void
  /** the best first */
  sorted: () => T[]
}

/**
 * Keeps the best of a stream in a heap whose top is the worst of them.
 * @param most how many, 1 or more
 */
export function keepBest<T extends Ranked>(most: number): Best<T> {
  const heap: T[] = []
  const worse = (i: number, j: number) => compare(heap[i]!, heap[j]!) > 0
  const swap = (i: number, j: number) => {
    ;[heap[i], heap[j]] = [heap[j]!, heap[i]!]
  }
  function rise(from: number) {
    for (let i = from; i > 0;) {
      const above = (i - 1) >> 1
      if (!worse(i, above)) return
      swap(i, above)
      i = above
    }
  }
  function sink() {
    for (let i = 0; ;) {
      const left = 2 * i + 1
      const right = left + 1
      let worst = i
      if (left < heap.length && worse(left, worst)) worst = left
      if (right < heap.length && worse(right, worst)) worst = right
      if (worst === i) return
      swap(i, worst)
      i = worst
    }
  }
  const wants = (rank: Ranked) => heap.length < most || compare(rank, heap[0]!) < 0
  return {
    wants,
    add(item) {
      if (heap.length < most) {
        heap.push(item)
        rise(heap.length - 1)
      } else if (wants(item)) {
        heap[0] = item
        sink()
      }
    },
    sorted: () => heap.toSorted(compare),
  }
}
