import fc from 'fast-check'
import { marked } from 'marked'
import { describe, expect, test } from 'vitest'
import { markdownText } from './markdown'

/** What a reader of Markdown shows of a text, as plain text; the reader is marked, from the registry. */
function shown(markdown: string): string {
  const html = marked.parse(markdown, { async: false }).trim()
  expect(html).toMatch(/^<p>[^]*<\/p>$/)
  const inside = html.slice(3, -4)
  expect(inside).not.toMatch(/<(?!br)/)
  return inside
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replaceAll('&amp;', '&')
}

describe('a text in Markdown', () => {
  test.each([
    '# not a heading',
    '- not a list',
    '1. not a list',
    '1) nor this',
    '> no quote',
    '**loud** and _soft_ and ~~gone~~',
    '[press](javascript:alert(1))',
    '![picture](x)',
    '<script>alert(1)</script>',
    '<img src=x onerror=alert(1)>',
    'a | b',
    '`code`',
    'C:\\new\\fan',
    '&lt;b&gt; and &#60;',
    '=== no heading',
    'about ~12 V, fan_rpm, 5 < 6 & 7 > 6',
  ])('stands as it was typed: %s', (text) => {
    expect(shown(markdownText(text))).toBe(text)
  })
  test('whatever is typed', () => {
    const signs = fc.constantFrom(...'#*_-+=~`[]()<>|!&;.\\1 ax"\'')
    fc.assert(
      fc.property(fc.array(signs, { minLength: 1, maxLength: 30 }), (parts) => {
        const text = parts.join('').trim().replaceAll(/\s+/g, ' ')
        if (text) expect(shown(markdownText(text))).toBe(text)
      }),
      { numRuns: 1000 },
    )
  })
})
