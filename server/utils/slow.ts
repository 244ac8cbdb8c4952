/**
 * Slows those who guess: each failure behind the first few makes an address wait longer before it may try again. A try is
 * counted before it is checked, so that guesses sent at once are as slow as those sent one after the other. A choice of
 * ours: a person who mistypes notices nothing, a machine gets some hundred tries a day.
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
  /** Counts a try. @returns s that this address has to wait instead; 0 where it may be checked */
  begin: (address: string, now?: number) => number
  succeeded: (address: string) => void
}

/** Whoever has one address of IPv6 has all of its network: 64 bits. RFC 4291, 2.5.4; IPv4 within it as it is. */
export function networkOf(address: string): string {
  const bare = address.replace(/^::ffff:(?=\d+\.)/i, '').replace(/%.*$/, '')
  if (!bare.includes(':')) return bare
  const [head = '', tail] = bare.split('::')
  const before = head ? head.split(':') : []
  const behind = tail ? tail.split(':') : []
  const zeros = tail === undefined ? 0 : Math.max(0, 8 - before.length - behind.length)
  return [...before, ...Array<string>(zeros).fill('0'), ...behind].slice(0, 4).join(':')
}

export function slowing(): Slowing {
  const tries = new Map<string, Tries>()
  return {
    begin(address, now = Date.now()) {
      const network = networkOf(address)
      const known = tries.get(network)
      // a clock that was set back makes nobody wait longer than the longest
      const since = known ? Math.max(0, now - known.last) : FORGOTTEN_MS
      const failed = since < FORGOTTEN_MS ? known!.failed : 0
      const wait = failed < FREE ? 0 : Math.min(LONGEST_MS, FIRST_MS * 2 ** (failed - FREE))
      if (since < wait) return Math.ceil((wait - since) / 1000)
      tries.delete(network)
      tries.set(network, { failed: failed + 1, last: now })
      if (tries.size > MOST) tries.delete(tries.keys().next().value!)
      return 0
    },
    succeeded: (address) => void tries.delete(networkOf(address)),
  }
}
