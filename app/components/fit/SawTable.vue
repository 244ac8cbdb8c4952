<script setup lang="ts">
import { MOST_OVER_M, LEAST_SHARE, usualSaws } from '#core/fit'
import { sawsOf } from '#core/document'
import { holeOption, leastWeb, screwHoleOf, type HoleOption } from '#core/mount'

/** What to cut the hole with: the saws of the drawer and the next usual ones, each with what it costs. */
const { plan, report, set } = useJob('fit')
const stock = useStockStore()
const { show } = useUnits()
onMounted(() => stock.load())
const mount = computed(() => report.value.mount!)
const owned = computed(() =>
  sawsOf(stock.parts)
    .filter((s) => s.owned)
    .map((s) => s.diameterM),
)
const flow = computed(() => {
  const { selection } = report.value
  if (!selection?.candidate.flow) return null
  const { arrangement, count } = selection.fanArray
  return selection.candidate.flow / (arrangement === 'parallel' ? count : 1)
})
interface Row extends HoleOption {
  yours: boolean
  price: number | null
  verdict: string
  best: boolean
}
/** So many sizes beside the wanted one are shown on either side. */
const BESIDE = 1
/** A saw of one’s own is shown this far from the wanted size, share. */
const OWN = 0.1
const least = computed(() => leastWeb(plan.value.fit?.material))
function verdictOf(o: HoleOption, wantedM: number): string {
  if (o.webM !== null && o.webM < 0) return 'runs into the screw holes'
  if (o.webM !== null && o.webM < least.value) return 'too little left to the screws'
  if (o.diameterM > wantedM + MOST_OVER_M) return 'too large: a step at the blade tips'
  if (o.diameterM < LEAST_SHARE * wantedM) return 'too small: file out, or cut another way'
  return ''
}
const rows = computed((): Row[] => {
  const { wantedM, spacingM, fan } = mount.value
  const sizes = [...new Set([...owned.value, ...usualSaws])].toSorted((a, b) => a - b)
  const at = sizes.findLastIndex((s) => s <= wantedM + 0.0005)
  const near = sizes.filter(
    (s, i) => Math.abs(i - at) <= BESIDE || (owned.value.includes(s) && Math.abs(s / wantedM - 1) < OWN),
  )
  const made = near.map((diameterM) => {
    const option = holeOption(
      { wantedM, spacingM, screwHoleM: screwHoleOf(plan.value, fan) },
      diameterM,
      flow.value,
      report.value.air.density,
    )
    const part = sawsOf(stock.parts).find((s) => s.diameterM === diameterM)
    return {
      ...option,
      yours: owned.value.includes(diameterM),
      price: part?.price ?? null,
      verdict: verdictOf(option, wantedM),
      best: false,
    }
  })
  const good = made.filter((r) => !r.verdict)
  const off = (r: Row) => Math.abs(r.diameterM - wantedM)
  const best = good.toSorted((a, b) => Number(b.yours) - Number(a.yours) || off(a) - off(b))[0]
  return made.map((r) => ({ ...r, best: r === best }))
})
const take = (diameterM: number) => set('holeM', 'the hole')(diameterM)
const share = (r: Row) => `${r.share >= 1 ? '+' : '−'}${Math.abs(100 * (r.share - 1)).toFixed(0)} %`
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>What to cut with</h2>
      <span class="small soft">wanted {{ show(mount.wantedM, 'length') }}</span>
    </div>
    <div class="scroll-x" tabindex="0" role="region" aria-label="Saws for this hole">
      <table class="data">
        <thead>
          <tr>
            <th>Saw</th>
            <th class="num">area</th>
            <th class="num">costs</th>
            <th class="num">to the screws</th>
            <th><span class="visually-hidden">take</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.diameterM" :class="{ best: r.best }">
            <td>
              <strong>{{ show(r.diameterM, 'length') }}</strong><span class="small soft">{{
                r.yours ? ', yours' : ''
              }}</span>
              <span v-if="r.verdict" class="small block warn">{{ r.verdict }}</span>
            </td>
            <td class="num">{{ share(r) }}</td>
            <td class="num">{{ r.dropPa === null ? '–' : show(r.dropPa, 'pressure') }}</td>
            <td class="num">{{ r.webM === null ? '–' : show(r.webM, 'length') }}</td>
            <td class="num">
              <span v-if="plan.job.holeM === r.diameterM" class="soft small">taken</span>
              <el-button
                v-else
                size="small"
                :aria-label="`Take ${show(r.diameterM, 'length')}`"
                @click="take(r.diameterM)"
                >Take</el-button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="small soft">
      Pilot drill of the saw first, a board clamped behind, slowly. A jig saw or fly cutter reaches any size.
      What a hole costs is the loss of a plate at the flow of one fan; saws cut 0.3 to 0.8 mm over.
      <NuxtLink to="/shelf/parts">Saws of the drawer</NuxtLink>
    </p>
  </section>
</template>

<style scoped>
@media (max-width: 480px) {
  table.data th,
  table.data td {
    padding-inline: 3px;
    font-size: 13px;
  }
}
.best {
  background: var(--cap-soft);
}
.block {
  display: block;
}
.warn {
  color: var(--amber);
}
</style>
