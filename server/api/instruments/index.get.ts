import { listInstruments } from '../../db/repositories/instruments'
import { liveState } from '../../devices/intake'
import { database } from '../../utils/store'
import { route } from '../../utils/reply'

export default route('inside', async () => (await listInstruments(await database())).map((i) => liveState(i)))
