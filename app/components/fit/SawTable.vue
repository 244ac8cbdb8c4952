<script setup lang="ts">
import { chainDrilling, holeSaw, LEAST_SHARE, MOST_OVER_M, ringDrilling, usualSaws } from '#core/fit'
import { fitSchema, sawsOf } from '#core/document'
import { holeOption, leastWeb, screwHoleOf, type HoleOption } from '#core/mount'
import { hubDiameter } from '#core/system'

/** What to cut the hole with: the saws of the drawer and the next usual ones, each with what it costs. */
const { plan, fit, mount: shown, set: setFit, setPlace } = useFit()
const stock = useStockStore()
const { show } = useUnits()
onMounted(() => stock.load())
const mount = computed(() => shown.value!)
const owned = computed(() =>
  sawsOf(stock.parts)
    .filter((s) => s.owned)
    .map((s) => s.diameterM),
)
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
const least = computed(() => leastWeb(plan.value.place.fit?.material))
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
  const saw = holeSaw(wantedM, sizes)
  const at = saw === null ? -1 : sizes.indexOf(saw)
  const near = sizes.filter(
    (s, i) => Math.abs(i - at) <= BESIDE || (owned.value.includes(s) && Math.abs(s / wantedM - 1) < OWN),
  )
  const made = near.map((diameterM) => {
    const option = holeOption(
      { wantedM, spacingM, screwHoleM: screwHoleOf(plan.value.place, fan) },
      diameterM,
      mount.value.flowOfOne,
      mount.value.density,
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
/** None of the saws that are owned is one that would do. */
const noneFits = computed(() => owned.value.length > 0 && !rows.value.some((r) => r.yours && !r.verdict))
const holeM = computed(() => plan.value.place.holeM ?? mount.value.wantedM)
/** What a way without a saw comes to. */
const wayWords = computed(() => {
  const { cutWay, drillM } = fit.value
  if (cutWay === 'jig-saw')
    return 'Drill a starting hole inside the line, saw beside it, file up to it: a millimetre each way.'
  if (cutWay === 'fly-cutter')
    return 'Any size, in wood and plastic up to its depth; slowly, in a drill stand, the work clamped.'
  if (cutWay !== 'chain' && cutWay !== 'ring') return ''
  if (drillM === null) return 'Tell the drill.'
  if (cutWay === 'chain') {
    const chain = chainDrilling(holeM.value, drillM)
    return chain
      ? `${chain.count} holes on a circle of ${show(chain.diameterM, 'length')}; break the rest out and file up to the line.`
      : 'That drill is too large for a chain in this hole: take a smaller one.'
  }
  const grille = ringDrilling(holeM.value, hubDiameter(mount.value.fan), drillM)
  return grille
    ? `${grille.count} holes in ${grille.rings.length} rings, ${(100 * grille.share).toFixed(0)} % of what the ` +
        'blades sweep: count it as a perforated guard.'
    : 'That drill is too large for rings over these blades: take a smaller one.'
})
const take = (diameterM: number) => setPlace('holeM', diameterM, 'the hole')
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
              <span v-if="plan.place.holeM === r.diameterM" class="soft small">taken</span>
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
    <p v-if="noneFits" class="small warn">
      None of your saws fits: take the nearest of the table, or cut another way.
    </p>
    <FieldGrid tight :record="fit" :fields="cutFields(fit)" :shape="fitSchema.shape" @set="setFit" />
    <p v-if="wayWords" class="small">{{ wayWords }}</p>
    <p class="small soft">
      Pilot drill of the saw first, a board clamped behind, slowly. What a hole costs is the loss of a plate at
      the flow of one fan; saws cut 0.3 to 0.8 mm over.
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
