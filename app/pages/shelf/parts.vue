<script setup lang="ts">
import { stockKinds, type StockKind, type StockPart } from '#core/document'
import { readStock, writeStock } from '#shared/exchange/stock-table'
import { stockPartSchema } from '#core/document'

/** Supplies, converters, batteries, filters, guards: what one owns or could buy. */
useHead({ title: 'Parts · Redpoll' })
const stock = useStockStore()
await stock.load(true)
const toast = useToast()
const kind = ref<StockKind | null>(null)
const list = computed(() => stock.parts.filter((p) => kind.value === null || p.kind === kind.value))
const names: Record<StockKind, string> = {
  supply: 'supply',
  converter: 'converter',
  battery: 'battery',
  fuse: 'fuse',
  wire: 'wire, a metre',
  connector: 'connector',
  guard: 'guard',
  filter: 'filter',
  saw: 'hole saw',
  screw: 'screws',
  gasket: 'gasket',
  grommet: 'grommet',
  other: 'other',
}
const kinds = stockKinds.map((k) => ({ value: k, label: names[k] }))
const fields: Field<keyof StockPart>[] = [
  { key: 'kind', label: 'Kind', options: kinds },
  { key: 'name', label: 'Name', text: true, required: true },
  { key: 'volts', label: 'Voltage', quantity: 'voltage' },
  { key: 'amps', label: 'Current', quantity: 'current' },
  { key: 'price', label: 'Price', quantity: 'money' },
  { key: 'owned', label: 'I own it', yesNo: true },
  { key: 'notes', label: 'Notes', text: true },
]
const open = ref<string | null>(null)
async function set(part: StockPart, key: keyof StockPart, value: unknown) {
  const checked = stockPartSchema.safeParse({ ...part, [key]: key === 'owned' ? value === true : value })
  if (checked.success) await stock.save([checked.data])
}
async function add() {
  const part: StockPart = {
    id: newId('part'),
    kind: kind.value ?? 'supply',
    name: 'New part',
    volts: null,
    amps: null,
    price: null,
    owned: true,
    notes: '',
  }
  if (await stock.save([part])) open.value = part.id
}
async function remove(part: StockPart) {
  if (await stock.archive([part.id], true))
    toast.show(`${part.name} is off the shelf.`, {
      action: { label: 'Undo', run: () => stock.archive([part.id], false) },
    })
}
function exportCsv() {
  saveText(writeStock(stock.parts), 'redpoll-parts.csv', 'text/csv')
}
const issues = ref<string[]>([])
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const rows = readStock(await file.text())
  if (typeof rows === 'string') {
    issues.value = [rows]
    return
  }
  issues.value = rows
    .filter((r) => r.message)
    .slice(0, 8)
    .map((r) => `Row ${r.line}: ${r.message}`)
  const good = rows.flatMap((r) => r.part ?? [])
  const before = stock.parts
  if (!good.length || !(await stock.save(good))) return
  toast.show(`${good.length} parts taken.`, {
    action: {
      label: 'Undo',
      run: async () => {
        const known = new Set(before.map((p) => p.id))
        await stock.archive(
          good.map((p) => p.id).filter((id) => !known.has(id)),
          true,
        )
        const back = before.filter((p) => good.some((g) => g.id === p.id))
        if (back.length) await stock.save(back)
      },
    },
  })
}
const { show } = useUnits()
usePageKeys([{ key: 'n', what: 'New part', run: add }])
</script>

<template>
  <div>
    <AppHeader title="Shelf: parts">
      <NuxtLink to="/shelf" class="button"> Fans </NuxtLink>
      <label class="button"
        >Import CSV<input class="visually-hidden" type="file" accept=".csv,text/csv,text/plain" @change="take"
      /></label>
      <el-button @click="exportCsv">Export CSV</el-button>
      <el-button type="primary" @click="add">New part</el-button>
    </AppHeader>
    <main id="main" class="parts">
      <section class="sheet stack">
        <div class="row">
          <ChoiceField
            v-model="kind"
            label="Kind"
            hide-label
            :options="[{ value: null, label: 'every kind' }, ...kinds]"
          />
          <span class="soft small"
            >{{ list.length }} of {{ stock.parts.length }} parts: the parts list of a job takes prices and what
            is owned from here</span
          >
        </div>
        <ul v-if="issues.length || stock.problem" class="bad" role="alert">
          <li v-for="i in [...issues, ...(stock.problem ? [stock.problem] : [])]" :key="i">
            {{ i }}
          </li>
        </ul>
        <p v-if="!stock.parts.length" class="empty">
          Nothing here yet. Put in what lies in the drawer: adapters, converters, batteries, wire by the metre.
        </p>
        <FoldBox v-for="p in list" :key="p.id" :open="open === p.id">
          <template #title>
            {{ p.name
            }}<span class="aside">{{
              [
                names[p.kind],
                p.volts === null ? '' : show(p.volts, 'voltage'),
                p.amps === null ? '' : show(p.amps, 'current'),
                p.price === null ? '' : show(p.price, 'money'),
                p.owned ? 'owned' : '',
              ]
                .filter(Boolean)
                .join(' · ')
            }}</span>
          </template>
          <FieldGrid
            tight
            :record="p"
            :fields="fields"
            :shape="stockPartSchema.shape"
            @set="(key, value) => set(p, key, value)"
          />
          <el-button text size="small" @click="remove(p)"> Take {{ p.name }} off the shelf </el-button>
        </FoldBox>
      </section>
    </main>
  </div>
</template>

<style scoped>
.parts {
  padding: 0 20px 20px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
  margin: 0;
}
@media (max-width: 760px) {
  .parts {
    padding: 0 10px 16px;
  }
}
</style>
