import { getQuery, getRequestHeader } from 'h3'
import { instrumentByToken } from '../../db/repositories/instruments'
import { takeMessage } from '../../devices/intake'
import { database } from '../../utils/store'
import { route, textOf, WrongToken } from '../../utils/reply'

/** Where boards send to: bench lines or JSON, with their token. */
export default route(async (event) => {
  const db = await database()
  const token =
    getRequestHeader(event, 'authorization')?.replace(/^Bearer\s+/i, '') ?? String(getQuery(event).token ?? '')
  const instrument = token ? await instrumentByToken(db, token) : null
  if (!instrument) throw new WrongToken()
  return takeMessage(db, instrument, await textOf(event))
})
