<script setup lang="ts">
import { MIN_SHOWN, testFigures } from '#core/selection'
import type { Trust } from '#core/document'

/** Whose numbers the plan believes, and what the shelf's tests have shown about claims. */
const job = useJobStore()
const shelf = useShelfStore()
const { show } = useUnits()
const trust = computed({
  get: () => job.plan!.job.trust,
  set: (value: Trust) =>
    job.change((d) => {
      d.job.trust = value
    }),
})
const choices: { value: Trust; label: string }[] = [
  { value: 'claims', label: 'what the sheets claim' },
  { value: 'own', label: 'own tests where there are some' },
  { value: 'discounted', label: 'own tests, other claims less what this shelf has shown' },
]
const rows = computed(() =>
  testFigures.flatMap((figure) => {
    const told = shelf.shown?.[figure]
    if (!told) return []
    const level = figure === 'level'
    const print = (x: number) => (level ? `${x > 0 ? '+' : ''}${show(x, 'levelDifference')}` : show(x, 'ratio'))
    return [
      {
        figure,
        name: testFigureNames[figure].name,
        middle: print(told.median),
        range: told.fans > 1 ? `${print(told.low)} to ${print(told.high)}` : '',
        fans: told.fans,
      },
    ]
  }),
)
</script>

<template>
  <section class="sheet stack">
    <h2>Whose numbers</h2>
    <ChoiceField v-model="trust" label="The plan believes" :options="choices" />
    <div v-if="rows.length" class="scroll-x" tabindex="0" role="region" aria-label="Measured over claimed">
      <table class="data small blocks">
        <thead>
          <tr>
            <th>Measured over claimed</th>
            <th class="num">median</th>
            <th class="num">range</th>
            <th class="num">fans</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.figure">
            <td class="wide">{{ r.name }}</td>
            <td class="num" data-label="median">
              {{ r.middle }}
            </td>
            <td class="num" data-label="range">
              {{ r.range }}
            </td>
            <td class="num" data-label="fans">
              {{ r.fans }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="small soft">
      {{
        rows.length
          ? `A claim is discounted where at least ${MIN_SHOWN} fans were tested; the range becomes its doubt.`
          : 'Test a fan on the bench (its page on the shelf): claims are then held against what it really does.'
      }}
    </p>
  </section>
</template>
