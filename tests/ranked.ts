import { rankSteps, type Ranking } from '#core/selection'

/** A ranking at one go. */
export function rankShelf(...asked: Parameters<typeof rankSteps>): Ranking {
  const steps = rankSteps(...asked)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
