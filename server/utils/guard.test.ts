import { describe, expect, test } from 'vitest'
import { nameOf, namesOf, policyOf, refusalOf, unknownKind, type Asked } from './guard'

/** Who may ask. */

const names = namesOf('127.0.0.1')
const asked = (more: Partial<Asked> = {}): Asked => ({
  method: 'PUT',
  host: 'localhost:3000',
  origin: undefined,
  site: undefined,
  ...more,
})
const code = (more: Partial<Asked>) => refusalOf(asked(more), names)?.code ?? ''

describe('names', () => {
  test.each([
    ['localhost:3000', 'localhost'],
    ['[::1]:3000', '::1'],
    ['127.0.0.1', '127.0.0.1'],
    ['Redpoll.Local.:80', 'redpoll.local'],
    ['localhost:', 'localhost'],
    ['localhost:evil', ''],
    ['[localhost]', ''],
    ['[::1].evil', ''],
    ['me@localhost', ''],
  ])('%s is %s', (host, name) => expect(nameOf(host)).toBe(name))
  test('a wildcard takes this machine’s own names and addresses, and no others', () => {
    const all = namesOf('0.0.0.0', ['fans.example'])
    expect(all).toContain('localhost')
    expect(all).toContain('fans.example')
    expect(all).not.toContain('evil.example')
    expect(all.size).toBeGreaterThan(4)
  })
})

describe('a request', () => {
  test.each([
    ['from its own page', { origin: 'http://localhost:3000', site: 'same-origin' }, ''],
    ['from no page at all', {}, ''],
    ['from a page of another place', { origin: 'https://evil.example', site: 'cross-site' }, 'foreign-page'],
    ['from a page at another port', { origin: 'http://localhost:8080', site: 'same-site' }, 'foreign-page'],
    ['from a page without a place', { origin: 'null' }, 'foreign-page'],
    ['that hides its page', { site: 'cross-site' }, 'foreign-page'],
    ['by another name', { host: 'evil.example:3000' }, 'unknown-host'],
    ['by another name, only reading', { method: 'GET', host: 'evil.example' }, 'unknown-host'],
    ['of a foreign page that only reads', { method: 'GET', origin: 'https://evil.example' }, ''],
    ['of the program itself', { host: undefined }, ''],
  ] as [string, Partial<Asked>, string][])('%s', (_, more, wanted) => expect(code(more)).toBe(wanted))
})

test('a page may run its own files and the scripts that were counted, nothing else', () => {
  const policy = policyOf(['abc='])
  expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval' 'sha256-abc='")
  expect(/script-src[^;]*unsafe-inline|'unsafe-eval'/.test(policy)).toBe(false)
  expect(policy).toContain("frame-ancestors 'none'")
})

test.each([
  ['application/json', false, true],
  ['application/octet-stream', false, true],
  [undefined, false, true],
  ['application/x-www-form-urlencoded', false, false],
  ['text/plain;charset=UTF-8', false, false],
  ['text/plain;charset=UTF-8', true, true],
  ['text/html', true, false],
] as const)('a body of the kind %s, lines taken %s: %s', (kind, lines, taken) =>
  expect(unknownKind('POST', kind, lines) === null).toBe(taken),
)
