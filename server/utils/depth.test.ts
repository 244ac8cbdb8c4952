import { expect, test } from 'vitest'
import { isTooDeep } from './depth'

/** How deep a text goes, before it is read. */

const bytes = (text: string) => new TextEncoder().encode(text)
test.each([
  ['[[[]]]', 3, false],
  ['[[[]]]', 2, true],
  ['{"a":[{"b":{}}]}', 4, false],
  ['{"a":[{"b":{}}]}', 3, true],
  ['[[],[],[],[[]]]', 3, false],
  ['["[[[[[["]', 1, false],
  ['["\\"[[[["]', 1, false],
  ['["\\\\",[[]]]', 2, true],
  ['', 1, false],
])('%s is deeper than %d: %s', (text, deepest, deep) => expect(isTooDeep(bytes(text), deepest)).toBe(deep))
test('fifty thousand levels are found at once, and no document of ours is too deep', () => {
  expect(isTooDeep(bytes('['.repeat(50_000)))).toBe(true)
  expect(isTooDeep(bytes('{"a":'.repeat(30)))).toBe(false)
})
