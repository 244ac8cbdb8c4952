import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { itemsOf } from './json-items'

/** A list of JSON that comes in parts. */

async function* inParts(text: string, size: number) {
  const bytes = Buffer.from(text)
  for (let from = 0; from < bytes.length; from += size) yield bytes.subarray(from, from + size)
}
async function read(text: string, size = 7, most = 1000): Promise<unknown[]> {
  const all: unknown[] = []
  for await (const item of itemsOf(inParts(text, size), 'list.json', most)) all.push(item)
  return all
}

describe('a list', () => {
  test('comes item by item as it would come at once, however it is cut', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.jsonValue({ maxDepth: 4 }), { maxLength: 8 }),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom(undefined, 1),
        async (list, size, indent) => {
          const text = JSON.stringify(list, null, indent)
          expect(await read(text, size, 1e6)).toEqual(JSON.parse(text))
        },
      ),
      { seed: 5 },
    )
  })
  test.each([
    ['{}', 'is no list'],
    ['x', 'is no list'],
    ['[1,,2]', 'is no list'],
    ['[1,2', 'was cut short'],
    ['', 'was cut short'],
    ['[1] 2', 'is no list'],
    ['[{"a":}]', 'is no JSON'],
    [`[${'['.repeat(100)}${']'.repeat(100)}]`, 'is no JSON'],
    [`["${'x'.repeat(3000)}"]`, 'larger than it can be'],
  ])('%s is refused', async (text, why) => {
    await expect(read(text)).rejects.toThrow(why)
  })
})
