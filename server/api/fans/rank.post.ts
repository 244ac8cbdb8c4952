import { rankSteps } from '#core/selection'
import { inPieces } from '#shared/pieces'
import { rankQuestionSchema } from '#shared/schemas/rank'
import { breathe } from '../../utils/breathe'
import { heldShelf } from '../../utils/held-shelf'
import { reportOf } from '../../utils/plan-input'
import { database } from '../../utils/store'
import { bodyOf, question } from '../../utils/reply'

/** The shelf ranked for a plan, where all its fans are; null where its air path is not complete. */
export default question('inside', async (event) => {
  const db = await database()
  const { plan, stream, options } = await bodyOf(event, rankQuestionSchema)
  const result = await reportOf(db, plan, stream)
  if (!result.ok || !result.report.path.complete) return { ranking: null }
  const shelf = await heldShelf(db, plan.job.trust)
  return { ranking: await inPieces(rankSteps(result.report.selectionContext, shelf, options), breathe) }
})
