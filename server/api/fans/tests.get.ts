import { compareTests } from '#core/selection'
import { testedFans } from '../../db/repositories/fans'
import { database } from '../../utils/store'
import { route } from '../../utils/reply'

export default route('inside', async () => compareTests(await testedFans(await database())))
