import { faceStream } from '#core/document'
import { computeReport } from '#core/plan'
import { rankSteps } from '#core/selection'
import { rankQuestionSchema } from '#shared/schemas/rank'
import { heldShelf, inPieces } from '../../utils/held-shelf'
import { planInput } from '../../utils/plan-input'
import { database } from '../../utils/store'
import { bodyOf, question } from '../../utils/reply'

/** The shelf ranked for a plan, where all its fans are; null where its air path is not complete. */
export default question(async (event) => {
  const db = await database()
  const { plan, stream, options } = await bodyOf(event, rankQuestionSchema)
  const result = computeReport(await planInput(db, faceStream(plan, stream)))
  if (!result.ok || !result.report.path.complete) return { ranking: null }
  const shelf = await heldShelf(db, plan.job.trust)
  return { ranking: await inPieces(rankSteps(result.report.selectionContext, shelf, options)) }
})
