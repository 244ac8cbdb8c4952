/** npm run shelf-schema: writes the JSON Schema of shelf files as it is published in docs/. */
import { writeFileSync } from 'node:fs'
import { shelfJsonSchema } from '#shared/exchange/shelf-file'

writeFileSync('docs/shelf.schema.json', `${JSON.stringify(shelfJsonSchema(), null, 1)}\n`)
