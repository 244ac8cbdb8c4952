import { getRequestHeader, setCookie } from 'h3'
import type { Session } from '#shared/api'
import { passwordSchema } from '#shared/schemas/settings'
import { isPassword, newTicket, TICKET_MS } from '../utils/password'
import { TICKET } from '../utils/guard'
import { addressOf, bodyOf, route, TooOften, WrongPassword } from '../utils/reply'
import { slowing } from '../utils/slow'

const guesses = slowing()

/** The password is given: this browser gets a ticket that its scripts cannot read. */
export default route(async (event): Promise<Session> => {
  const address = addressOf(event)
  const wait = guesses.waitS(address)
  if (wait) throw new TooOften(wait)
  const { password } = await bodyOf(event, passwordSchema)
  if (!(await isPassword(password))) {
    guesses.failed(address)
    throw new WrongPassword()
  }
  guesses.succeeded(address)
  const secure = getRequestHeader(event, 'origin')?.startsWith('https:') ?? false
  setCookie(event, TICKET, newTicket(), {
    httpOnly: true,
    sameSite: 'strict',
    secure,
    path: '/',
    maxAge: TICKET_MS / 1000,
  })
  return { locked: true, inside: true }
})
