/**
 * Slows those who guess: each failure behind the first few makes an address wait longer before it may try again. A choice
 * of ours: a person who mistypes notices nothing, a machine gets some hundred tries a day.
 */
const FREE = 5
const FIRST_MS = 1000
const LONGEST_MS = 60_000
/** Without a failure for so long an address begins anew. */
const FORGOTTEN_MS = 15 * 60_000
/** Addresses that are remembered; the oldest go first. */
const MOST = 10_000

interface Tries {
  failed: number
  last: number
}

export interface Slowing {
  /** @returns s that this address still has to wait; 0 where it may try */
  waitS: (address: string, now?: number) => number
  failed: (address: string, now?: number) => void
  succeeded: (address: string) => void
}

export function slowing(): Slowing {
  const tries = new Map<string, Tries>()
  const of = (address: string, now: number) => {
    const known = tries.get(address)
    return known && now - known.last < FORGOTTEN_MS ? known : { failed: 0, last: now }
  }
  return {
    waitS(address, now = Date.now()) {
      const { failed, last } = of(address, now)
      if (failed < FREE) return 0
      const wait = Math.min(LONGEST_MS, FIRST_MS * 2 ** (failed - FREE))
      return Math.max(0, Math.ceil((last + wait - now) / 1000))
    },
    failed(address, now = Date.now()) {
      const { failed } = of(address, now)
      tries.delete(address)
      tries.set(address, { failed: failed + 1, last: now })
      if (tries.size > MOST) tries.delete(tries.keys().next().value!)
    },
    succeeded: (address) => void tries.delete(address),
  }
}
