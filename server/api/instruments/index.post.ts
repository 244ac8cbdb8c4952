import { unkept } from '../../db/writes'
import { newInstrumentSchema } from '#shared/schemas/log'
import { createInstrument } from '../../db/repositories/instruments'
import { database } from '../../utils/store'
import { bodyOf, route } from '../../utils/reply'

/** The token is told once, here. */
export default route('inside', async (event) => {
  const { id, name, kind } = await bodyOf(event, newInstrumentSchema)
  const db = await database()
  return unkept(() => createInstrument(db, id, name, kind))
})
