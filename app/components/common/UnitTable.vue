<script setup lang="ts">
import { fromSi, quantities, quantityInfo, type Quantity } from '#core/units'

/** One value in every unit that Redpoll knows for it. */
const convertible = (Object.keys(quantities) as Quantity[]).filter((q) => quantityInfo(q).units.length > 1)
const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)
const options = convertible
  .map((value) => ({ value, label: capital(quantityInfo(value).article.replace(/^an? /, '')) }))
  .sort((a, b) => a.label.localeCompare(b.label))
const quantity = ref<Quantity>('flow')
const value = ref<number | null>(null)
watch(quantity, () => {
  value.value = null
})
const rows = computed(() =>
  value.value === null
    ? []
    : quantityInfo(quantity.value)
        .units.filter((u) => u.symbol)
        .map((u) => ({
          symbol: u.symbol,
          text: String(Number(fromSi(value.value!, u).toPrecision(4))),
        })),
)
</script>

<template>
  <div class="fields tight">
    <ChoiceField v-model="quantity" label="It is" :options="options" />
    <QuantityField
      :key="quantity"
      v-model="value"
      label="Value with its unit"
      :quantity="quantity"
      :hint="`such as ${quantityInfo(quantity).example}`"
    />
  </div>
  <table v-if="rows.length" class="data units">
    <tbody>
      <tr v-for="row in rows" :key="row.symbol">
        <td class="num">{{ row.text }}</td>
        <td class="mono">{{ row.symbol }}</td>
      </tr>
    </tbody>
  </table>
  <p v-else class="small soft" role="status">Type a value: it appears here in every unit.</p>
</template>

<style scoped>
.data.units {
  width: auto;
  min-width: 240px;
}
</style>
