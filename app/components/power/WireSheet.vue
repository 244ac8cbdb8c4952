<script setup lang="ts">
import { connectionOrder, partsList, wireList } from '#core/supply'

/** The same feed as a from–to table, as a safe order of work, and as a list of parts. */
const props = defineProps<{ view: 'wires' | 'order' | 'parts' }>()
const job = useJobStore()
const believed = useBelievedFans()
const stock = useStockStore()
void stock.load()
const { show, bare, symbol } = useUnits()
/** The fans of every air stream that are to be bought. */
const arrays = computed(() => job.report!.streams.flatMap((s) => (s.fanArray && !s.asIs ? [s.fanArray] : [])))
const feed = computed(() => job.report!.power.feed)
const wires = computed(() => wireList(job.plan!, feed.value))
const steps = computed(() => connectionOrder(job.plan!, feed.value))
const mounts = computed(() => job.report!.streams.flatMap((s) => (s.asIs ? [] : s.mounts)))
const parts = computed(() =>
  partsList(job.plan!, feed.value, arrays.value, believed.value, stock.parts, mounts.value),
)
const name = computed(() => fileWords(job.plan!.job.name))
async function save() {
  const { csvOf } = await import('#shared/exchange/csv')
  const n = (x: number | null, digits = 3) => (x === null ? '' : String(Number(x.toPrecision(digits))))
  const text =
    props.view === 'wires'
      ? csvOf(
          [
            'number',
            'from',
            'from pin',
            'to',
            'to pin',
            'pole',
            'AWG',
            'mm²',
            'colour',
            'length_m',
            'current_A',
            'allowed_A',
            'fuse_A',
            'strip_mm',
            'pull_N',
          ],
          wires.value.map((w) => [
            w.number,
            w.from,
            w.fromPin,
            w.to,
            w.toPin,
            w.pole,
            w.awg ?? '',
            n(w.mm2),
            w.colour,
            n(w.lengthM),
            n(w.currentA),
            n(w.ampacityA),
            n(w.fuseA),
            w.stripM === null ? '' : n(1000 * w.stripM),
            n(w.pullN),
          ]),
        )
      : props.view === 'parts'
        ? csvOf(
            ['what', 'detail', 'count', 'unit', 'price', 'owned', 'sum'],
            [
              ...parts.value.rows.map((r) => [
                r.what,
                r.detail,
                r.count,
                r.unit,
                r.price ?? '',
                r.owned ? 'yes' : 'no',
                r.sum ?? '',
              ]),
              ['total', '', '', '', '', '', Number(parts.value.total.toFixed(2))],
            ],
          )
        : steps.value.map((s, i) => `${i + 1}. ${s.text}`).join('\n')
  saveText(
    text,
    `${name.value}-${props.view}.${props.view === 'order' ? 'txt' : 'csv'}`,
    props.view === 'order' ? 'text/plain' : 'text/csv',
  )
}
</script>

<template>
  <div class="stack">
    <p v-if="!feed.nodes.length" class="empty">Choose what feeds it, below.</p>
    <div v-else-if="view === 'wires'" class="scroll-x" tabindex="0" role="region" aria-label="Wire list">
      <table class="data small">
        <thead>
          <tr>
            <th class="num">nr</th>
            <th>from</th>
            <th>to</th>
            <th>pole</th>
            <th class="num">gauge</th>
            <th>colour</th>
            <th class="num">length, {{ symbol('distance') }}</th>
            <th class="num">A, of allowed</th>
            <th class="num">fuse</th>
            <th class="num">strip</th>
            <th class="num">pull test</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="w in wires" :key="w.number">
            <td class="num">
              {{ w.number }}
            </td>
            <td>
              {{ w.from }} <span class="mono">{{ w.fromPin }}</span>
            </td>
            <td>
              {{ w.to }} <span class="mono">{{ w.toPin }}</span>
            </td>
            <td>{{ w.pole }}</td>
            <td class="num">
              {{ w.awg === null ? '' : `${w.awg} AWG, ${w.mm2!.toFixed(2)} mm²` }}
            </td>
            <td>{{ w.colour }}</td>
            <td class="num">
              {{ bare(w.lengthM, 'distance') }}
            </td>
            <td class="num">
              {{
                w.currentA === null
                  ? ''
                  : `${bare(w.currentA, 'current')}${w.ampacityA === null ? '' : ` of ${bare(w.ampacityA, 'current')}`}`
              }}
            </td>
            <td class="num">
              {{ w.fuseA === null ? '' : show(w.fuseA, 'current') }}
            </td>
            <td class="num">
              {{ w.stripM === null ? '' : show(w.stripM, 'length') }}
            </td>
            <td class="num">
              {{ w.pullN === null ? '' : `${w.pullN.toFixed(0)} N` }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <ol v-else-if="view === 'order'" class="order">
      <li v-for="s in steps" :key="s.text" :class="{ caution: s.caution }">
        {{ s.text }}
      </li>
      <li class="soft">If you are not sure, stop and ask someone licensed for it.</li>
    </ol>
    <template v-else>
      <div class="scroll-x" tabindex="0" role="region" aria-label="Parts">
        <table class="data small">
          <thead>
            <tr>
              <th>what</th>
              <th />
              <th class="num">how many</th>
              <th class="num">price</th>
              <th class="num">sum</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in parts.rows" :key="i">
              <td>{{ r.what }}</td>
              <td class="soft">
                {{ r.detail }}
              </td>
              <td class="num">{{ r.count }} {{ r.unit }}</td>
              <td class="num">
                {{ r.price === null ? 'not known' : bare(r.price, 'money') }}
              </td>
              <td class="num">
                {{ r.owned ? 'there' : r.sum === null ? '' : bare(r.sum, 'money') }}
              </td>
            </tr>
            <tr>
              <td><strong>To buy</strong></td>
              <td class="soft">
                {{ parts.unknown ? `${parts.unknown} without a price` : '' }}
              </td>
              <td />
              <td />
              <td class="num">
                <strong>{{ show(parts.total, 'money') }}</strong>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small soft">
        Prices and what is owned come from the shelf, fans and parts; where it knows none, a usual price stands,
        so that the total is no surprise.
      </p>
    </template>
    <div v-if="feed.nodes.length" class="no-print">
      <el-button size="small" @click="save"> Save {{ view === 'order' ? 'as text' : 'CSV' }} </el-button>
    </div>
  </div>
</template>

<style scoped>
.order {
  margin: 0;
  padding-left: 26px;
  display: grid;
  gap: 5px;
  max-width: 900px;
}
.caution {
  font-weight: 600;
}
.caution::marker {
  color: var(--stop);
}
</style>
