<script setup lang="ts">
import { changeWords } from '#core/print'
import { readingNames } from '#core/document'
import type { Comparison, FairComparison } from '#core/verification'
import type { Quantity } from '#core/units'

/** Two states against each other, and whether that is fair. */
const props = defineProps<{ comparison: FairComparison; beforeName: string; afterName: string }>()
const emit = defineEmits<{ /** the voltage was what was changed */ voltageChanged: [] }>()
const { show, say } = useUnits()
const shownAs = (c: Comparison): Quantity => (c.asRise ? 'temperatureDifference' : c.quantity)
const alone = computed(() => props.comparison.comparisons)
const refused = computed(() => alone.value.filter((c) => c.refused))
</script>

<template>
  <div class="scroll-x" tabindex="0" role="region" aria-label="Before against after">
    <table class="data blocks">
      <thead>
        <tr>
          <th>Reading</th>
          <th class="num">
            {{ beforeName }}
          </th>
          <th class="num">
            {{ afterName }}
          </th>
          <th class="num">difference</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in alone" :key="c.key" :class="{ refused: c.refused }">
          <td class="wide">
            {{ readingNames[c.quantity]
            }}<span class="small soft block">{{
              [c.place, c.asRise ? 'rise over ambient' : '', c.stage, c.source ? `${c.source} alone` : '']
                .filter(Boolean)
                .join(', ')
            }}</span>
          </td>
          <td class="num" :data-label="beforeName">
            {{ show(c.before, shownAs(c))
            }}<span v-if="c.n[0] > 1" class="small soft block">n = {{ c.n[0] }}</span>
          </td>
          <td class="num" :data-label="afterName">
            {{ show(c.after, shownAs(c))
            }}<span v-if="c.n[1] > 1" class="small soft block">n = {{ c.n[1] }}</span>
          </td>
          <td class="num diff" data-label="difference">
            <FigureValue v-if="!c.refused" :figure="c.figure" signed range />
            <span class="small soft block"
              >{{ changeWords(c)
              }}<template v-if="c.steps.length && !c.refused">; {{ c.steps.join('; ') }}</template></span
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <h3>Is it a fair comparison?</h3>
  <ul v-if="comparison.unfair.length || refused.length" class="unfair">
    <li v-for="c in refused" :key="c.key">
      <StateMark state="stop" />
      <span
        ><strong>{{ readingNames[c.quantity] }} {{ c.place }} is not compared:</strong> {{ c.refused }}.</span
      >
    </li>
    <li v-for="u in comparison.unfair" :key="u.what">
      <StateMark state="fix" />
      <span
        ><strong>{{ say(u.text) }}.</strong> {{ u.effect }}
        <el-button v-if="u.what === 'fan voltage'" size="small" @click="emit('voltageChanged')">
          The voltage was the change
        </el-button>
      </span>
    </li>
  </ul>
  <p v-else class="row">
    <StateMark state="settled" />
    {{
      comparison.notStated.length
        ? 'Nothing that was noted differs; what was not noted may.'
        : 'Fair: nothing that was noted differs.'
    }}
  </p>
  <p v-if="comparison.notStated.length" class="small soft">
    Not stated in both: {{ comparison.notStated.join(', ') }}.
  </p>
  <p v-if="comparison.unmatched.length" class="small soft">
    Read in one state only: {{ comparison.unmatched.join('; ') }}.
  </p>
</template>

<style scoped>
.block {
  display: block;
  font-family: var(--sans);
  white-space: normal;
}
.diff {
  min-width: 190px;
}
.refused td {
  color: var(--ink-soft);
}
.unfair {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
.unfair li {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 6px;
}
</style>
