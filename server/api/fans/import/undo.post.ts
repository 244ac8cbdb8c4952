import { undoImportSchema } from '#shared/schemas/fan'
import { undoImport } from '../../../db/repositories/fans'
import { database } from '../../../utils/store'
import { bodyOf, route } from '../../../utils/reply'

export default route('inside', async (event) =>
  undoImport(await database(), await bodyOf(event, undoImportSchema)),
)
