// node scripts/count-parts.mjs: Element Plus parts against native elements in the templates, and where the native ones are.
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { root } from './lib.mjs'

const native = ['button', 'input', 'select', 'textarea', 'table', 'details']
const files = readdirSync(join(root, 'app'), { recursive: true })
  .filter((f) => f.endsWith('.vue'))
  .map((f) => join(root, 'app', f))
const parts = new Map()
const left = new Map(native.map((tag) => [tag, []]))
for (const file of files) {
  const template = readFileSync(file, 'utf8').replace(/<script[\s\S]*?<\/script>|<style[\s\S]*?<\/style>/g, '')
  for (const [, part] of template.matchAll(/<(el-[a-z-]+)/g)) parts.set(part, (parts.get(part) ?? 0) + 1)
  for (const [, tag] of template.matchAll(/<(button|input|select|textarea|table|details)\b/g))
    left.get(tag).push(relative(root, file))
}
const sum = (values) => [...values].reduce((a, b) => a + b, 0)
console.log(`Element Plus: ${sum(parts.values())} uses of ${parts.size} parts`)
for (const [part, n] of [...parts].sort((a, b) => b[1] - a[1])) console.log(`  ${part} ${n}`)
console.log(`Native: ${sum([...left.values()].map((l) => l.length))}`)
for (const [tag, list] of left) {
  const where = [...new Set(list)].map((f) => f.replace('app/', ''))
  console.log(`  ${tag} ${list.length}${where.length ? `: ${where.join(', ')}` : ''}`)
}
