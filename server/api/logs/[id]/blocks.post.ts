import { getQuery } from 'h3'
import { checkBlock, MAX_BLOCK_BYTES } from '#shared/log-blocks'
import { blockQuerySchema } from '#shared/schemas/log'
import { Refused } from '../../../db/errors'
import { getLog, putBlock } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { bytesOf, checked, idOf, route } from '../../../utils/reply'

/** A part of an imported file; sent again it does no harm. */
export default route('inside', async (event) => {
  const db = await database()
  const log = await getLog(db, idOf(event))
  if (log.origin !== 'imported') throw new Refused('Only an imported log takes blocks.')
  const { seq } = checked(getQuery(event), blockQuerySchema)
  const data = await bytesOf(event, MAX_BLOCK_BYTES)
  const rows = checkBlock(data, log.channels.length)
  if (typeof rows === 'string') throw new Refused(rows)
  await putBlock(db, log.id, { seq, rows, channels: log.channels.length, data })
  return { rows }
})
