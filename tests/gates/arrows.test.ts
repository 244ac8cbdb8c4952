import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ESLint } from 'eslint'
import { describe, expect, test } from 'vitest'
import ROOMS from '../../core/rooms.json'

/** The lint rule that holds the arrows between rooms and folders: each forbidden import is refused where it would stand. */

const root = join(import.meta.dirname, '..', '..')
const eslint = new ESLint({ cwd: root })
/** What the rule says of a file that imports one thing. */
async function refused(file: string, from: string): Promise<string[]> {
  const [result] = await eslint.lintText(`import { x } from '${from}'\n\nexport const y = x\n`, {
    filePath: join(root, file),
  })
  return result!.messages.filter((m) => m.ruleId === 'no-restricted-imports').map((m) => m.message)
}

describe('inside the core', () => {
  test.each(ROOMS.map((room, i) => [room, i] as const))('%s', async (room, i) => {
    const file = `core/${room}/made-for-the-test.ts`
    const above = ROOMS[i + 1]
    for (const from of [`#core/${room}`, ...(above ? [`#core/${above}`] : []), `#core/${ROOMS.at(-1)}`])
      expect(await refused(file, from), from).toEqual([expect.stringContaining('An arrow up')])
    const other = ROOMS[(i + 1) % ROOMS.length]!
    for (const from of [`../${other}`, `../${other}/file`])
      expect(await refused(file, from), from).toEqual([expect.stringContaining('by its name')])
    for (const from of ['vue', 'node:fs', '#shared/api', '../../server/db/database', '~/utils/steady'])
      expect(await refused(file, from), from).toEqual([expect.stringContaining('The core is pure')])
    const below = ROOMS[i - 1]
    for (const from of [...(below ? [`#core/${below}`] : []), './beside'])
      expect(await refused(file, from)).toEqual([])
  })
  test('only the document knows the schema library', async () => {
    expect(await refused('core/document/made.ts', 'zod')).toEqual([])
    expect(await refused('core/system/made.ts', 'zod')).toHaveLength(1)
  })
})

test.each([
  ['app/utils/made.ts', '../../server/db/database'],
  ['app/utils/made.ts', '../../demo/fans'],
  ['app/components/job/Made.vue', '../../../server/db/database'],
  ['server/utils/made.ts', '../../app/utils/steady'],
  ['server/utils/made.ts', '../../demo/fans'],
  ['shared/made.ts', '../server/db/database'],
  ['shared/made.ts', '../app/utils/steady'],
])('%s does not import %s', async (file, from) => {
  if (!file.endsWith('.vue')) expect(await refused(file, from)).toHaveLength(1)
  else {
    const [result] = await eslint.lintText(
      `<script setup lang="ts">\nimport { x } from '${from}'\n</script>\n\n<template><p>{{ x }}</p></template>\n`,
      { filePath: join(root, file) },
    )
    expect(result!.messages.map((m) => m.ruleId)).toContain('no-restricted-imports')
  }
})

describe('the rooms', () => {
  const folders = readdirSync(join(root, 'core'), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map((entry) => entry.name)
  test('of the list are the folders of the core', () => {
    expect([...ROOMS].toSorted()).toEqual(folders.toSorted())
  })
  test('stand in the table of docs/architecture.md, in the order of the list', () => {
    const [, table] = /## The rooms of the core\n([\s\S]*?)\n## /.exec(
      readFileSync(join(root, 'docs/architecture.md'), 'utf8'),
    )!
    const named = table!
      .split('\n')
      .filter((line) => line.startsWith('| `'))
      .flatMap((line) => [...line.split('|')[1]!.matchAll(/`(\w+)`/g)].map(([, name]) => name!))
    expect(named).toEqual(ROOMS)
  })
})
