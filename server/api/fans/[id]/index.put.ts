import { z } from 'zod'
import { fanSchema } from '#core/document'
import { Refused } from '../../../db/errors'
import { saveFan } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

const saveFanSchema = z.object({ fan: fanSchema, revision: z.number().int().min(1) })

export default route('inside', async (event) => {
  const { fan, revision } = await bodyOf(event, saveFanSchema)
  if (fan.id !== idOf(event)) throw new Refused('The data belong to another fan.', 'fan.id')
  return saveFan(await database(), fan, revision)
})
