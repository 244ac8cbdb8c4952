<script setup lang="ts">
import { lastFlow, pressureAt, type FanCurve } from '#core/fan'
import { modelFan } from '#core/system'
import type { CurveSeries } from '~/components/lineup/CurveChart.vue'

/** A fan measured on a carton, led from the rig to its own curve. */
const route = useRoute('shelf-id-measure')
const shelf = useShelfStore()
const stored = await shelf.fetchOne(route.params.id)
if (!stored)
  throw createError({
    statusCode: 404,
    statusMessage: 'Not found',
    message: 'There is no fan at this address. It may have been deleted.',
    fatal: true,
  })
const job = typeof route.query.job === 'string' ? route.query.job : ''
const {
  fan,
  carton,
  chosen,
  curve,
  claim,
  next,
  problem,
  saved,
  isKept,
  begin,
  removeCarton,
  setCarton,
  takeReading,
  removeReading,
  keep,
  backToSheet,
  standIn,
  retry,
} = useMeasure(stored, job, route.query.draft && shelf.draft?.id === stored.fan.id ? shelf.draft : null)
const { show, bare } = useUnits()
const title = computed(() => `Measure ${fan.value.maker} ${fan.value.model}`.trim())
useHead({ title: () => `${title.value} · Redpoll` })

const open = ref(0)
const refused = ref('')
const start = () => {
  refused.value = begin()
}
const readStandIn = (holes: number | 'leak', volts: number, misCut: boolean) => {
  refused.value = standIn(holes, volts, misCut)
}
const rigs = computed(() =>
  fan.value.cartons.map((c, i) => ({
    value: c.id,
    label: `${i + 1}: ${c.specimen}, ${c.takenAt.slice(0, 10)}, ${c.readings.length} readings`,
  })),
)
const POINTS = 60
const sampled = (c: FanCurve) => {
  const last = lastFlow(c)
  return Array.from({ length: POINTS + 1 }, (_, i) => {
    const flow = (last * i) / POINTS
    return { flow, pressure: pressureAt(c, Math.min(flow, last)) ?? 0 }
  })
}
/** The fan with the measured curve, as the plan would take it. */
const own = computed(() => {
  const points = curve.value?.curve ?? []
  const made = points.length ? modelFan({ ...fan.value, points, curveBasis: 'measured' }) : null
  return made?.ok ? made.model : null
})
const series = computed((): CurveSeries[] => [
  ...(claim.value
    ? [
        {
          id: 'claim',
          label: 'the sheet',
          points: sampled(claim.value.curves.middle),
          tone: 'other' as const,
          operating: null,
        },
      ]
    : []),
  ...(own.value
    ? [
        {
          id: 'measured',
          label: 'measured',
          points: sampled(own.value!.curves.middle),
          tone: 'pick' as const,
          operating: null,
        },
      ]
    : []),
])
const measured = computed(() =>
  (curve.value?.points ?? []).map((p) => ({
    label: p.reading.open === 0 ? 'closed' : `${p.reading.open} open`,
    flow: p.flow,
    pressure: p.pressure,
    odd: p.odd !== '',
  })),
)
/** Free delivery measured over that of the sheet. */
const against = computed(() => {
  const free = curve.value?.free
  return free && claim.value ? free.value / lastFlow(claim.value.curves.middle) - 1 : null
})
const back = computed(() => (job ? `/job/${job}/line-up` : `/shelf/${fan.value.id}`))
</script>

<template>
  <div>
    <AppHeader :title="title">
      <NuxtLink :to="back" class="button small">{{ job ? 'Back to the job' : 'Back to the fan' }}</NuxtLink>
    </AppHeader>
    <main id="main" class="lab">
      <p v-if="problem" class="bad wide" role="alert">
        {{ problem }} What you typed is still here.
        <el-button size="small" @click="retry">Save again</el-button>
      </p>
      <p v-if="refused" class="bad wide" role="alert">{{ refused }}</p>
      <section v-if="!carton" class="sheet stack wide">
        <h2>Its true curve, from a carton</h2>
        <p>
          A carton, a card with holes, tape and a pressure gauge are enough to measure what this fan really
          does, to about five per cent in airflow. The rig is designed for this fan: its size, and holes that
          spread the readings over the whole curve. You are led through the readings one by one, and the curve
          grows as you take them.
        </p>
        <p class="soft">
          Without a carton at hand it can all be tried: a stand-in rig ships with Redpoll and reads like a real
          one.
        </p>
        <div><el-button type="primary" @click="start">Design the rig for this fan</el-button></div>
      </section>
      <template v-else>
        <div class="stack">
          <CartonReadings
            v-if="curve"
            :key="carton.id"
            :carton="carton"
            :curve="curve"
            :next="next"
            :rated-v="fan.ratedV"
            @take="takeReading"
            @remove="removeReading"
            @set="setCarton"
            @stand-in="readStandIn"
            @open="open = $event"
          />
          <CartonRig :carton="carton" :fan="fan" :open="open" @set="setCarton" />
        </div>
        <div class="stack">
          <section v-if="curve" class="sheet stack">
            <h2>Its curve</h2>
            <p v-if="curve.problem && carton.readings.length" class="bad" role="alert">{{ curve.problem }}</p>
            <p v-else-if="curve.problem" class="soft">{{ curve.problem }}</p>
            <CurveChart
              :series="series"
              :path="[]"
              :need="null"
              :design="null"
              :height="230"
              plain
              :names="{ pick: 'measured', other: 'the sheet' }"
              :measured="measured"
            />
            <dl class="figures">
              <div v-if="curve.shutOff">
                <dt>Shut-off pressure</dt>
                <dd class="mono">
                  {{ show(curve.shutOff.value, 'pressure') }}
                  <span class="soft small"
                    >{{ bare(curve.shutOff.low, 'pressure') }} to
                    {{ bare(curve.shutOff.high, 'pressure') }}</span
                  >
                </dd>
              </div>
              <div v-if="curve.free">
                <dt>Free delivery, drawn on</dt>
                <dd class="mono">
                  {{ show(curve.free.value, 'flow') }}
                  <span class="soft small"
                    >{{ bare(curve.free.low, 'flow') }} to {{ bare(curve.free.high, 'flow') }}</span
                  >
                </dd>
              </div>
              <div v-if="against !== null">
                <dt>Against the sheet</dt>
                <dd class="mono">{{ against > 0 ? '+' : '' }}{{ Math.round(100 * against) }} %</dd>
              </div>
              <div v-if="curve.share !== null">
                <dt>Airflow is known to</dt>
                <dd class="mono">±{{ show(curve.share, 'ratio') }}</dd>
              </div>
            </dl>
            <p v-for="w in curve.warnings" :key="w" class="small told"><StateMark state="note" /> {{ w }}</p>
            <div class="row">
              <span v-if="isKept" class="row small"
                ><StateMark state="settled" /> This is the fan’s own curve now.</span
              >
              <el-button v-else type="primary" :disabled="curve.curve.length < 3" @click="keep">
                Make it the fan’s own curve
              </el-button>
              <el-button v-if="fan.curveBasis === 'measured'" size="small" text @click="backToSheet">
                Back to the sheet’s curve
              </el-button>
              <span v-if="!isKept && curve.curve.length < 3" class="small soft"
                >From three readings on, the last two falling.</span
              >
            </div>
          </section>
          <section class="sheet row">
            <ChoiceField v-if="rigs.length > 1" v-model="chosen" label="Rig" :options="rigs" />
            <el-button size="small" @click="start">Another rig</el-button>
            <el-button size="small" text @click="removeCarton">Take this rig away</el-button>
            <span class="small soft">{{ saved ? 'saved with the fan' : 'saving' }}</span>
          </section>
        </div>
      </template>
    </main>
  </div>
</template>

<style scoped>
.lab {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 12px;
  padding: 0 20px 20px;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
  margin: 0;
}
.figures dd {
  margin: 0;
}
.figures .small {
  display: block;
}
.told {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 900px) {
  .lab {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 10px 16px;
  }
}
</style>
