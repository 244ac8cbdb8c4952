import { getInstrument } from '../../../db/repositories/instruments'
import { takeMessage } from '../../../devices/intake'
import { database } from '../../../utils/store'
import { idOf, linesRoute, textOf } from '../../../utils/reply'

/** Lines that this page read from a serial port. */
export default linesRoute('inside', async (event) => {
  const db = await database()
  return takeMessage(db, await getInstrument(db, idOf(event)), await textOf(event))
})
