import type { Connector, TestFigure } from '#core/document'
import type { Quantity } from '#core/units'

/** What the ends of a fan's leads are called. */
export const connectorNames: Record<Connector, string> = {
  bare: 'bare leads',
  'header-2': 'keyed header, 2 positions',
  'header-3': 'keyed header, 3 positions',
  'header-4': 'keyed header, 4 positions',
  'small-4': 'small, 4 positions',
  peripheral: 'peripheral, 4 positions',
  barrel: 'barrel plug',
  usb: 'USB plug',
  other: 'another',
}
/** What is held against a claim on the bench. */
export const testFigureNames: Record<TestFigure, { name: string; quantity: Quantity }> = {
  rotation: { name: 'Speed', quantity: 'rotation' },
  current: { name: 'Current', quantity: 'current' },
  flow: { name: 'Free delivery', quantity: 'flow' },
  pressure: { name: 'Shut-off pressure', quantity: 'pressure' },
  level: { name: 'Sound level', quantity: 'level' },
}
