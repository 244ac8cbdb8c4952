import type { Session } from '#shared/api'
import { isLocked } from '../../utils/password'
import { isInside } from '../../utils/tickets'
import { route } from '../../utils/reply'

/** Whether this workshop asks for a password, and whether this browser gave it. */
export default route('anyone', async (event): Promise<Session> => ({
  locked: isLocked(),
  inside: await isInside(event),
}))
