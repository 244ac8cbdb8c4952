import { getQuery, setResponseHeader } from 'h3'
import { z } from 'zod'
import { joinBlocks } from '#shared/log-blocks'
import { getLog, readLogBlocks } from '../../../db/repositories/logs'
import { database } from '../../../utils/store'
import { checked, idOf, route } from '../../../utils/reply'

const querySchema = z.object({ after: z.coerce.number().int().min(-1).default(-1) })
/** About as many bytes as one answer has. */
const PART_BYTES = 2_000_000

/** Samples behind a block's number, as blocks; `x-more` says whether to ask again. */
export default route('inside', async (event) => {
  const db = await database()
  const { id } = await getLog(db, idOf(event))
  const { blocks, more } = await readLogBlocks(db, id, checked(getQuery(event), querySchema).after, PART_BYTES)
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  setResponseHeader(event, 'x-more', more ? '1' : '0')
  return Buffer.from(joinBlocks(blocks))
})
