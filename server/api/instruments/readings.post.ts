import { getQuery, getRequestHeader } from 'h3'
import { instrumentByToken } from '../../db/repositories/instruments'
import { takeMessage } from '../../devices/intake'
import { slowing } from '../../utils/slow'
import { database } from '../../utils/store'
import { addressOf, linesRoute, textOf, TooOften, WrongToken } from '../../utils/reply'

const guesses = slowing()

/** Where boards send to: bench lines or JSON, with their token. */
export default linesRoute('board', async (event) => {
  const db = await database()
  const token =
    getRequestHeader(event, 'authorization')?.replace(/^Bearer\s+/i, '') ?? String(getQuery(event).token ?? '')
  const instrument = token ? await instrumentByToken(db, token) : null
  // a board with a good token is not held up by another one at its address
  if (!instrument) {
    const address = addressOf(event)
    const wait = guesses.begin(address)
    if (wait) throw new TooOften(wait)
    throw new WrongToken()
  }
  return takeMessage(db, instrument, await textOf(event))
})
