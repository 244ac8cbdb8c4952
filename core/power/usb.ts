export type UsbKind =
  | 'usb2-unconfigured'
  | 'usb2-configured'
  | 'usb3-unconfigured'
  | 'usb3-configured'
  | 'bc12'
  | 'typec-1A5'
  | 'typec-3A'
  | 'pd-15W'
  | 'pd-27W'
  | 'pd-45W'
  | 'pd-100W'

/** Current a port kind gives at 5 V, A. Reference: USB-IF specifications (table from memory). */
export const usbBudget: Record<UsbKind, number> = {
  'usb2-unconfigured': 0.1,
  'usb2-configured': 0.5,
  'usb3-unconfigured': 0.15,
  'usb3-configured': 0.9,
  bc12: 1.5,
  'typec-1A5': 1.5,
  'typec-3A': 3,
  'pd-15W': 3,
  'pd-27W': 3,
  'pd-45W': 3,
  'pd-100W': 5,
}
/**
 * What a device that never negotiates may take, A.
 * Reference: USB specifications (from memory)
 */
export const usbUnit = (kind: UsbKind) =>
  kind.startsWith('usb3') ? 0.15 : kind.startsWith('usb2') ? 0.1 : usbBudget[kind]
/** Fixed voltages that a PD source must offer as its power grows, V; 12 V is not among them. Reference: USB PD (from memory). */
export const usbMandatoryVoltages = { standard: [5, 9, 15, 20], extended: [28, 36, 48] } as const
/** Steps that a contract of a power must offer, V. From memory: up to 15 W 5 V, to 27 W 9 V, to 45 W 15 V, above 20 V. */
const contractSteps: Partial<Record<UsbKind, number>> = { 'pd-15W': 1, 'pd-27W': 2, 'pd-45W': 3, 'pd-100W': 4 }

/**
 * Voltages that a port surely offers, V: 5 V, and the steps of its power contract. 12 V is not among them.
 * Reference: USB Power Delivery (from memory)
 */
export const usbVoltages = (kind: UsbKind): readonly number[] =>
  usbMandatoryVoltages.standard.slice(0, contractSteps[kind] ?? 1)

/** Pull-down that a lead shows on each CC pin so that a Type-C source turns on, ohm. Reference: USB Type-C. */
export const USB_SINK_OHM = 5100
