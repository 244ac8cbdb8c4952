import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

/** Sets and takes away passwords of workshops under test, as a person does. */

export const SECRET = 'nine tarn lane kettles'
export const command = (script: string, args: string[], input = '') =>
  spawnSync(process.execPath, [join(import.meta.dirname, '..', '..', 'scripts', script), ...args], {
    input,
    encoding: 'utf8',
  })
export const setPassword = (data: string, password = SECRET) =>
  command('password.mjs', ['--data', data], `${password}\n`)
