/** npm run file-schemas: writes the JSON Schemas of shelf and plan files as they are published in docs/. */
import { writeFileSync } from 'node:fs'
import { shelfJsonSchema } from '#shared/exchange/shelf-file'
import { planJsonSchema } from '#shared/schemas/plan'

const write = (name: string, schema: object) =>
  writeFileSync(`docs/${name}.schema.json`, `${JSON.stringify(schema, null, 1)}\n`)
write('shelf', shelfJsonSchema())
write('plan', planJsonSchema())
