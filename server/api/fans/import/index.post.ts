import type { Imported } from '#shared/api'
import { importSchema } from '#shared/schemas/fan'
import { importFans } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { bodyOf, route } from '../../../utils/reply'

export default route(async (event): Promise<Imported> =>
  importFans(await database(), (await bodyOf(event, importSchema)).fans),
)
