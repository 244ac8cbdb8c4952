/** The invented drawer of the Tarn Lane Workshop: what feeds and holds fans. */
import type { StockPart } from '#core/document'

const part = (kind: StockPart['kind'], name: string, rest: Partial<StockPart> = {}): StockPart => ({
  id: `part-${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}`,
  kind,
  name,
  volts: null,
  amps: null,
  price: null,
  owned: false,
  notes: '',
  ...rest,
})

export const demoStock: StockPart[] = [
  part('supply', 'Wall adapter 12 V 1 A', { volts: 12, amps: 1, price: 8, owned: true }),
  part('supply', 'Wall adapter 12 V 1.5 A', { volts: 12, amps: 1.5, price: 9.5, owned: true }),
  part('supply', 'Wall adapter 24 V 1 A', { volts: 24, amps: 1, price: 14 }),
  part('converter', 'Small step-down module', {
    amps: 2,
    price: 2.2,
    owned: true,
    notes: 'a bag of five; plan with 1.4 A',
  }),
  part('converter', 'Step-up module', { amps: 1, price: 2.8 }),
  part('battery', 'Pack of three Li-ion cells', {
    volts: 11.1,
    amps: 5,
    price: 24,
    owned: true,
    notes: '2.6 Ah, with protection board',
  }),
  part('battery', 'Power bank 10 Ah', { volts: 5, amps: 2, price: 17, owned: true }),
  part('fuse', 'Blade fuse and holder, 1 A', { amps: 1, price: 1.4, owned: true }),
  part('wire', 'Wire 22 AWG', { price: 0.4, owned: true, notes: 'two colours, twenty metres' }),
  part('wire', 'Wire 24 AWG', { price: 0.3 }),
  ...[35, 44, 57, 68, 76, 86, 102].map((size) => part('saw', `Hole saw ${size} mm`, { price: 6, owned: true })),
  part('saw', 'Hole saw 114 mm', { price: 12 }),
  part('screw', 'M4 × 16 mm', { price: 0.1, owned: true }),
  part('screw', 'M4 × 45 mm', { price: 0.12, owned: true }),
  part('guard', 'Guard 92 mm', { price: 1.2 }),
  part('guard', 'Guard 120 mm', { price: 1.5, owned: true }),
  part('gasket', 'Foam gasket 92 mm', { price: 0.8, owned: true }),
  part('grommet', 'Grommet 8 mm', { price: 0.2, owned: true }),
  part('filter', 'Pleated filter', { price: 6.5 }),
  part('connector', 'Two-pole power plug', { amps: 15, price: 0.9, owned: true }),
]
