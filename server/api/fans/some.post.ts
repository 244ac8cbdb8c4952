import { someFansSchema } from '#shared/schemas/fan'
import { someFans } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { bodyOf, question } from '../../utils/reply'

export default question('inside', async (event) =>
  someFans(await database(), (await bodyOf(event, someFansSchema)).ids),
)
