import { describe, expect, test } from 'vitest'
import { complaintsOf } from './compare'
import { countWorlds, goals } from './worlds'

/** A smaller draw of what npm run check:truth looks at in full. */
const PLANS = 80
const WORLD_PLANS = 120
const WORLDS = 12
/** A smaller draw scatters more: what the goals may be missed by here, points. */
const SCATTER = 2

describe('random plans', () => {
  test(`${PLANS} of them agree with the slow solver and with what physics demands`, () => {
    const complaints = Array.from({ length: PLANS }, (_, i) => complaintsOf(5001 + i)).flat()
    expect(complaints).toEqual([])
  })
})

describe('true worlds', () => {
  test.each(['stated', 'claims'] as const)('%s: ranges keep their word', (delivery) => {
    const t = countWorlds(delivery, WORLD_PLANS, WORLDS, 7001)
    const share = (part: number, of: number) => (100 * part) / of
    for (const held of [t.flow, t.inside, t.level]) {
      expect(share(held, t.worlds)).toBeGreaterThan(goals.stated[0] - SCATTER)
      expect(share(held, t.worlds)).toBeLessThan(goals.stated[1] + SCATTER)
    }
    expect(share(t.drawn, t.drawnOf)).toBeGreaterThan(goals.drawn[0] - SCATTER)
    expect(share(t.drawn, t.drawnOf)).toBeLessThan(goals.drawn[1] + SCATTER)
  })
})
