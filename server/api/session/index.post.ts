import { getRequestHeader, setCookie } from 'h3'
import type { Session } from '#shared/api'
import { passwordSchema } from '#shared/schemas/settings'
import { Crowded, isPassword } from '../../utils/password'
import { addressOf, bodyOf, route, TooOften, WrongPassword } from '../../utils/reply'
import { slowing } from '../../utils/slow'
import { newTicket, TICKET, TICKET_DAYS } from '../../utils/tickets'

const guesses = slowing()
const DAY_S = 86400

/** The password is given: this browser gets a ticket that its scripts cannot read. */
export default route('anyone', async (event): Promise<Session> => {
  const { password } = await bodyOf(event, passwordSchema)
  const address = addressOf(event)
  const wait = guesses.begin(address)
  if (wait) throw new TooOften(wait)
  const right = await isPassword(password).catch((error: unknown) => {
    throw error instanceof Crowded ? new TooOften(1) : error
  })
  if (!right) throw new WrongPassword()
  guesses.succeeded(address)
  const secure = getRequestHeader(event, 'origin')?.startsWith('https:') ?? false
  setCookie(event, TICKET, await newTicket(event), {
    httpOnly: true,
    sameSite: 'strict',
    secure,
    path: '/',
    maxAge: TICKET_DAYS * DAY_S,
  })
  return { locked: true, inside: true }
})
