<script setup lang="ts">
import { costPerUnit, gainCosts, type GainCost } from '#core/advice'
import type { Job } from '#core/document'
import { jobSchema } from '#core/document'

/** What the gain has cost, and what one would report of it: a change in per cent is checked before it is told. */
const { plan, report, put } = useJob('verdict')
const { show, units } = useUnits()
const cost = computed(() => report.value.selection?.candidate.cost ?? null)
const rows = computed(() => gainCosts(report.value, cost.value))
const price = (g: GainCost) => {
  const p = costPerUnit(g, units.value)
  return p ? `${show(p.money, 'money')} ${p.per}` : '–'
}
const fields: Field<keyof Job>[] = [
  { key: 'statedChange', label: 'I would report a change of', quantity: 'ratio', placeholder: '−33 %' },
  {
    key: 'statedOf',
    label: 'of the',
    options: optionsOf(
      {
        flow: 'airflow',
        level: 'sound level',
        temperature: 'temperature',
        pressure: 'pressure',
        rotation: 'speed',
        current: 'current',
        power: 'power',
      },
      'choose',
    ),
  },
  {
    key: 'rankedBy',
    label: 'Fans were ranked by',
    options: optionsOf(
      {
        'flow-per-loudness': 'air per loudness',
        'flow-per-money': 'air per money',
        'flow-per-decibel': 'air per decibel',
      },
      'not said',
    ),
  },
]
</script>

<template>
  <section class="sheet stack">
    <h2>What the gain cost</h2>
    <p v-if="!rows.length" class="soft">No gain is shown yet that a price could be put on.</p>
    <table v-else class="data">
      <tbody>
        <tr v-for="g in rows" :key="g.what">
          <td>{{ g.what }}</td>
          <td class="num">
            {{ show(g.gain, g.quantity) }}
          </td>
          <td class="num">
            {{ price(g) }}
          </td>
        </tr>
      </tbody>
    </table>
    <FoldBox :open="plan.job.statedChange !== null" title="Check what you would tell others">
      <FieldGrid tight :record="plan.job" :fields="fields" :shape="jobSchema.shape" @set="put" />
      <p class="small soft">
        A change is told from “before”. 50 to 70 is +40 %; 33 % is the symmetric difference and never the
        change. Decibels and degrees have no per cent.
      </p>
    </FoldBox>
  </section>
</template>
