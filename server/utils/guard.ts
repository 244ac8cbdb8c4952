import { isIPv6 } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'

/**
 * Who may ask: the names under which this server is meant to be reached, and its own pages. A page of another place that
 * is open in the same browser must neither write nor read here, whatever it calls this computer.
 */

export interface Asked {
  method: string
  /** as the request says; undefined where it comes from this program itself */
  host: string | undefined
  origin: string | undefined
  /** what the browser says of where the request comes from (Fetch Metadata, W3C) */
  site: string | undefined
}
export interface Refusal {
  status: number
  code: string
  message: string
}

const LOOPBACK = ['localhost', '127.0.0.1', '::1']
/** Whether a server that listens there is reached from this computer only. */
export const isAlone = (listens: string): boolean => LOOPBACK.includes(listens)
const ANY = ['0.0.0.0', '::', '']

/** A Host header: a name or an address, with or without a port. RFC 9110, 7.2; RFC 3986, 3.2.2. */
const HOST = /^(?:\[([0-9a-f:.]+)\]|([^\s:[\]/@]+))(?::\d{0,5})?$/i

/** The name of a Host header, without its port and brackets; '' where it is none. */
export function nameOf(host: string): string {
  const [, address, name] = HOST.exec(host) ?? []
  if (address !== undefined) return isIPv6(address) ? address.toLowerCase() : ''
  return name?.toLowerCase().replace(/\.$/, '') ?? ''
}

/**
 * The names by which a server may be called.
 * @param listens host that it listens on @param more further names, of a proxy before it
 */
export function namesOf(listens: string, more: readonly string[] = []): Set<string> {
  const own = ANY.includes(listens)
    ? [
        hostname(),
        `${hostname()}.local`,
        ...Object.values(networkInterfaces()).flatMap((i) => (i ?? []).map((a) => a.address)),
      ]
    : [listens]
  const all = [...LOOPBACK, ...own, ...more].map((n) => nameOf(n.includes(':') ? `[${n}]` : n))
  return new Set(all.filter((name) => name !== ''))
}

export const WRITES: readonly string[] = ['POST', 'PUT', 'PATCH', 'DELETE']
/** Kinds of bodies that are taken; plain text only where boards, or a page for them, send their lines. */
const KINDS = ['application/json', 'application/octet-stream']
/** Why a body's kind is refused; null where it is taken. */
export function unknownKind(method: string, contentType: string | undefined, lines: boolean): Refusal | null {
  const kind = contentType?.split(';')[0]!.trim().toLowerCase()
  if (!WRITES.includes(method) || !kind || KINDS.includes(kind) || (kind === 'text/plain' && lines)) return null
  return {
    status: 415,
    code: 'unknown-kind',
    message: `A body of the kind ${kind.slice(0, 60)} is not taken here: JSON is wanted.`,
  }
}

/** Why a request is refused; null where it may pass. */
export function refusalOf(asked: Asked, names: ReadonlySet<string>): Refusal | null {
  const { method, host, origin, site } = asked
  if (host !== undefined && !names.has(nameOf(host)))
    return {
      status: 421,
      code: 'unknown-host',
      message: 'This Redpoll is not called by that name. Start it with --host and that name, if it is yours.',
    }
  if (!WRITES.includes(method)) return null
  const foreign = {
    status: 403,
    code: 'foreign-page',
    message: 'Only Redpoll’s own pages may change something here.',
  }
  if (origin !== undefined && (!host || origin !== `http://${host}`) && origin !== `https://${host}`)
    return foreign
  if (origin === undefined && site !== undefined && site !== 'same-origin' && site !== 'none') return foreign
  return null
}

/** What those are told who did not give the password. */
export const OUTSIDE: Refusal = {
  status: 401,
  code: 'password',
  message: 'This workshop asks for its password first.',
}

/** What every answer says to the browser. */
export const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
} as const

/**
 * What a page may load: from here only, no script that stands in it but those whose hashes are given. W3C Content Security
 * Policy 3.
 * @param hashes of its inline scripts, base64 of SHA-256
 */
export const policyOf = (hashes: readonly string[]): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'wasm-unsafe-eval' ${hashes.map((h) => `'sha256-${h}'`).join(' ')}`.trim(),
    // the library of parts sets sizes and places in style attributes
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ')
