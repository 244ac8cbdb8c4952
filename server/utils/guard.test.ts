import { describe, expect, test } from 'vitest'
import { nameOf, namesOf, policyOf, refusalOf, type Asked } from './guard'

/** Who may ask. */

const names = namesOf('127.0.0.1')
const asked = (more: Partial<Asked> = {}): Asked => ({
  method: 'PUT',
  path: '/api/settings',
  host: 'localhost:3000',
  origin: undefined,
  site: undefined,
  contentType: 'application/json',
  ...more,
})
const code = (more: Partial<Asked>) => refusalOf(asked(more), names)?.code ?? ''

describe('names', () => {
  test.each([
    ['localhost:3000', 'localhost'],
    ['[::1]:3000', '::1'],
    ['127.0.0.1', '127.0.0.1'],
    ['Redpoll.Local.:80', 'redpoll.local'],
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
    ['with a form', { contentType: 'application/x-www-form-urlencoded' }, 'unknown-kind'],
    ['with plain text', { contentType: 'text/plain;charset=UTF-8' }, 'unknown-kind'],
    ['of a board', { method: 'POST', path: '/api/instruments/readings', contentType: 'text/plain' }, ''],
    ['with a picture', { method: 'POST', contentType: 'application/octet-stream' }, ''],
    ['of the program itself', { host: undefined }, ''],
  ] as [string, Partial<Asked>, string][])('%s', (_, more, wanted) => expect(code(more)).toBe(wanted))
})

test('a page may run its own files and the scripts that were counted, nothing else', () => {
  const policy = policyOf(['abc='])
  expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval' 'sha256-abc='")
  expect(/script-src[^;]*unsafe-inline|'unsafe-eval'/.test(policy)).toBe(false)
  expect(policy).toContain("frame-ancestors 'none'")
})
