/** What one reading of a hobby instrument is worth, 95 % half-width in the reading's SI unit (relative for flow). Common practice, no source. */
export const instrumentHalfWidth = {
  /** K, thermometer board or probe */ temperature: 1,
  /** dB, phone used at a marked spot for differences */ phone: 2,
  /** dB, class 2 meter */ class2: 1.4,
  /** dB, class 1 meter */ class1: 0.7,
  /** share, small vane times area */ flow: 0.15,
  /** share */ pressure: 0.1,
  /** share */ rotation: 0.01,
  /** share, a clock */ duration: 0.01,
  /** share */ voltage: 0.01,
  /** share */ current: 0.03,
} as const
