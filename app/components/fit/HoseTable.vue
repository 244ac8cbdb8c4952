<script setup lang="ts">
import { adapterOf, type MountReport } from '#core/mount'
import { adapterLength, GENTLE_DEG } from '#core/fit'

/** Adapters to the usual hoses: how long each has to be, and what it costs then. */
const props = defineProps<{ mount: MountReport }>()
const { place, fit, change } = useFit()
const { show } = useUnits()
const SHOWN = 5
/** Lengths are made to whole millimetres. */
const whole = (m: number) => Math.max(0.01, Math.ceil(m * 1000) / 1000)
const holeM = computed(() => place.value.holeM ?? props.mount.wantedM)
const rows = computed(() =>
  boresNear(holeM.value, SHOWN).map((boreM) => {
    const inwards = place.value.direction === 'in'
    const widens = inwards ? boreM < holeM.value : boreM > holeM.value
    const half = widens ? GENTLE_DEG.widening : GENTLE_DEG.narrowing
    const lengthM = whole(
      Math.abs(adapterLength(Math.max(holeM.value, boreM), Math.min(holeM.value, boreM), half)),
    )
    const told = { ...fit.value, adapterFrom: null, adapterTo: null, adapterM: boreM, adapterLengthM: lengthM }
    const { fan, flowOfOne, density } = props.mount
    const adapter = adapterOf({ ...place.value, fit: told }, fan, holeM.value, flowOfOne, density)
    return { boreM, lengthM, way: widens ? 'widens' : 'narrows', dropPa: adapter?.dropPa ?? null }
  }),
)
const take = (boreM: number, lengthM: number) =>
  change(
    (f) =>
      Object.assign(f, {
        adapterTo: null,
        adapterFrom: null,
        adapterM: boreM,
        adapterLengthM: lengthM,
      }),
    'fit.adapter',
    'the adapter',
  )
</script>

<template>
  <div class="scroll-x" tabindex="0" role="region" aria-label="Adapters to usual hoses">
    <table class="data">
      <thead>
        <tr>
          <th>Hose</th>
          <th class="num">length</th>
          <th class="num">costs</th>
          <th><span class="visually-hidden">take</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.boreM">
          <td>
            {{ show(r.boreM, 'length') }} <span class="small soft">{{ r.way }}</span>
          </td>
          <td class="num">{{ show(r.lengthM, 'length') }}</td>
          <td class="num">{{ r.dropPa === null ? '–' : show(r.dropPa, 'pressure') }}</td>
          <td class="num">
            <span v-if="fit.adapterM === r.boreM && !fit.adapterTo" class="soft small">taken</span>
            <el-button
              v-else
              size="small"
              :aria-label="`Take a hose of ${show(r.boreM, 'length')}`"
              @click="take(r.boreM, r.lengthM)"
              >Take</el-button
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <p class="small soft">
    Long enough for {{ GENTLE_DEG.narrowing }}° half angle where it narrows and {{ GENTLE_DEG.widening }}° where
    it widens (common practice). Leave half a diameter straight behind the fan: its air turns.
  </p>
</template>
