import {
  newCalibration,
  newConverter,
  newElement,
  newFan,
  newFeedPart,
  newPlan,
  newRun,
  newSource,
} from './defaults'
import type { ElementKind, PathElement } from './document'
import type { RunKind } from './run'
import { newReading } from './run'

type Loose = Record<string, unknown>
const isObject = (x: unknown): x is Loose => typeof x === 'object' && x !== null && !Array.isArray(x)
const list = (x: unknown): Loose[] => (Array.isArray(x) ? x.filter(isObject) : [])

/**
 * Fills what an older plan file or draft does not have yet with "not known". Nothing that stands in it is changed or
 * checked: the schema does that afterwards.
 * @param raw a parsed JSON value that should be a plan document
 */
export function completePlan(raw: unknown): unknown {
  if (!isObject(raw) || !isObject(raw.job)) return raw
  const blank = newPlan('', '')
  return {
    ...blank,
    ...raw,
    job: { ...blank.job, ...raw.job },
    targets: list(raw.targets).map((t) => ({ setBy: '', ...t })),
    path: list(raw.path).map((e): Partial<PathElement> => ({
      ...newElement('', (e.kind ?? 'custom') as ElementKind),
      ...blankOf(e),
      ...e,
    })),
    selection: isObject(raw.selection) ? { secondFanId: null, duty: null, ...raw.selection } : null,
    source: isObject(raw.source) ? { ...newSource('', 'none'), usbKind: null, ...raw.source } : null,
    converter: isObject(raw.converter) ? { ...newConverter('', 5), ...raw.converter } : null,
    wiring: { ...blank.wiring, ...(isObject(raw.wiring) ? raw.wiring : {}) },
    feed:
      raw.feed === undefined
        ? list(raw.loads).map((l) => oldLoad(l, raw.converter))
        : list(raw.feed).map((f) => ({ ...newFeedPart('', 'load', null), ...f })),
    runs: list(raw.runs).map((r) => ({
      ...newRun('', (r.kind ?? 'baseline') as RunKind, ''),
      ...r,
      readings: list(r.readings).map((x) => ({ ...newReading('', 'temperature', '', 0), ...x })),
    })),
    calibration: isObject(raw.calibration) ? { ...newCalibration(''), ...raw.calibration } : null,
  }
}

/** A load of an older plan as a part of the feed. */
function oldLoad({ afterConverter, ...load }: Loose, converter: unknown): Loose {
  return {
    ...newFeedPart('', 'load', null),
    ...load,
    name: load.name || 'Load',
    parentId: afterConverter === true && isObject(converter) ? converter.id : null,
  }
}

/** A new element brings usual values; an old one that lacks a field does not know it. */
const blankOf = (e: Loose): Loose =>
  Object.fromEntries(
    Object.keys(newElement('', 'custom'))
      .filter((k) => !(k in e) && k !== 'points')
      .map((k) => [k, null]),
  )

/** The same for a fan of an older shelf file. */
export const completeFan = (raw: unknown): unknown => (isObject(raw) ? { ...newFan(''), ...raw } : raw)
