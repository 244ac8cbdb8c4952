import {
  inOwnUnits,
  printBare,
  printEditable,
  printField,
  printQuantity,
  sayIn,
  unitSymbol,
  type Quantity,
  type Sentence,
} from '#core/units'

/** Printing in the person's own units, everywhere at once. */
export function useUnits() {
  const settings = useSettingsStore()
  return {
    units: computed(() => settings.units),
    show: (value: number | null | undefined, quantity: Quantity) =>
      printQuantity(value, quantity, settings.units),
    bare: (value: number | null | undefined, quantity: Quantity) => printBare(value, quantity, settings.units),
    editable: (value: number | null | undefined, quantity: Quantity) =>
      printEditable(value, quantity, settings.units),
    fieldText: (value: number | null | undefined, quantity: Quantity) =>
      printField(value, quantity, settings.units),
    say: (sentence: Sentence) => sayIn(sentence, settings.units),
    /** one of Redpoll's own sentences, with the metric values in it in the person's units */
    inUnits: (text: string) => inOwnUnits(text, settings.units),
    symbol: (quantity: Quantity) => unitSymbol(quantity, settings.units),
  }
}
