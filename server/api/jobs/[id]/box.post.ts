import { unkept } from '../../../db/writes'
import { boxSchema } from '#shared/schemas/log'
import { startBox } from '../../../devices/box'
import { database } from '../../../utils/store'
import { bodyOf, idOf, route } from '../../../utils/reply'

/** Puts the plan's equipment on the stand-in bench box, or tells the running one what to do. */
export default route('inside', async (event) => ({
  instrumentId: await unkept(async () =>
    startBox(await database(), idOf(event), await bodyOf(event, boxSchema)),
  ),
}))
