import { hostname, networkInterfaces } from 'node:os'

/**
 * Who may ask: the names under which this server is meant to be reached, and its own pages. A page of another place that
 * is open in the same browser must neither write nor read here, whatever it calls this computer.
 */

export interface Asked {
  method: string
  path: string
  /** as the request says; undefined where it comes from this program itself */
  host: string | undefined
  origin: string | undefined
  /** what the browser says of where the request comes from (Fetch Metadata, W3C) */
  site: string | undefined
  contentType: string | undefined
}
export interface Refusal {
  status: number
  code: string
  message: string
}

const LOOPBACK = ['localhost', '127.0.0.1', '::1']
const ANY = ['0.0.0.0', '::', '']

/** The name of a Host header, without its port and brackets. */
export function nameOf(host: string): string {
  const name = host.startsWith('[') ? host.slice(1, host.indexOf(']')) : host.replace(/:\d*$/, '')
  return name.toLowerCase().replace(/\.$/, '')
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
  return new Set([...LOOPBACK, ...own, ...more].map((n) => nameOf(n.includes(':') ? `[${n}]` : n)))
}

const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE']
/** Kinds of bodies that are taken; plain text only where boards send their lines. */
const KINDS = ['application/json', 'application/octet-stream']
const takesText = (path: string) => /^\/api\/instruments\/([^/]+\/lines|readings)$/.test(path)

/** Why a request is refused; null where it may pass. */
export function refusalOf(asked: Asked, names: ReadonlySet<string>): Refusal | null {
  const { method, path, host, origin, site, contentType } = asked
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
  const kind = contentType?.split(';')[0]!.trim().toLowerCase()
  if (kind && !KINDS.includes(kind) && !(kind === 'text/plain' && takesText(path)))
    return {
      status: 415,
      code: 'unknown-kind',
      message: `A body of the kind ${kind.slice(0, 60)} is not taken here: JSON is wanted.`,
    }
  return null
}

/** The cookie of those who gave the password. */
export const TICKET = 'redpoll-ticket'
/** What may be asked without it: whether the server is there, the door itself, and boards, which have tokens of their own. */
const FREE = ['/api/health', '/api/startup', '/api/session', '/api/instruments/readings']
/** Whether a path is for those inside only; the pages themselves hold nobody's data. */
export const isInside = (path: string): boolean => path.startsWith('/api/') && !FREE.includes(path)
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
