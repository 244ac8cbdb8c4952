import { copiesSchema } from '#shared/schemas/backup'
import { keepCopies } from '../../../backup/copies'
import { dataDirectory } from '../../../utils/place'
import { bodyOf, route } from '../../../utils/reply'

/** How many daily copies are kept. */
export default route('inside', async (event) =>
  keepCopies(dataDirectory(), (await bodyOf(event, copiesSchema)).keep),
)
