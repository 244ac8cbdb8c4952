import { awgDiameter, crimpPull, insulatedDiameter, usbUnit } from '#core/power'
import { converterOf, leadOfFans, sourceOf, type Source, dutyOf, plannedFans } from '#core/document'
import { connectorLimit, fansNodeOf, pwmIdle, rootOf, signalsOf, windowOf } from '#core/supply'
import type { FactSources, SiFacts } from './sources'

/** A soldered splice over its wire. Common practice, no source. */
const SPLICE = 1.5
const batteries: Source['kind'][] = ['pack', 'house-battery', 'vehicle']

/** The feed with its source; facts of the feed need one. */
export interface Fed extends FactSources {
  source: Source
}

/** One source and what is drawn from it. */
export function sourceFacts({ plan, source, power }: Fed): SiFacts {
  const window = windowOf(plan, source)
  const mayHum = source.kind === 'adapter' || source.kind === 'rail'
  const mayReverse = source.kind !== 'usb' && source.kind !== 'power-bank' && source.kind !== 'header'
  return {
    'supply.kind': source.kind,
    'supply.nominalV': source.nominalV,
    'supply.vMin': window?.lowV,
    'supply.vMax': window?.highV,
    'batt.vFull': source.kind === 'pack' ? window?.highV : undefined,
    'supply.regulated': source.regulated ?? (mayHum ? null : undefined),
    'supply.openV': source.regulated === false ? source.openV : undefined,
    'supply.tap': source.tap ?? undefined,
    'supply.output': source.output,
    'supply.iMax': source.iMaxA,
    'supply.iPeak': source.iPeakA ?? source.iMaxA,
    'supply.transientProtected': source.kind === 'vehicle' ? source.transientProtected : undefined,
    'supply.reversible': source.reversible ?? (mayReverse ? null : undefined),
    'tap.fanA': source.tap === '7V' ? power.fanRunA : undefined,
    'tap.fiveLoadA': source.tap === '7V' ? source.fiveLoadA : undefined,
    'load.runA': power.loadWorstA,
    'load.startA': power.loadStartA,
  }
}

/** The same of a fan header. */
export function headerFacts({ plan: { wiring }, source, power }: Fed): SiFacts {
  if (source.kind !== 'header') return {}
  const passive = wiring.hub !== 'powered'
  return {
    'header.loadA': passive ? power.loadWorstA : undefined,
    'header.iMax': source.iMaxA,
    'header.startA': passive ? power.loadStartA : undefined,
    'header.iPeak': source.iPeakA ?? undefined,
  }
}

/** The same of a USB port. */
export function usbFacts({ source, power }: Fed): SiFacts {
  const usb = source.kind === 'usb'
  if (!usb && source.kind !== 'power-bank') return {}
  return {
    'usb.boost': false,
    'usb.typeC': source.typeCPullDown === null ? undefined : true,
    'usb.ccPresent': source.typeCPullDown ?? undefined,
    ...(usb
      ? {
          'usb.loadA': power.loadWorstA,
          'usb.budgetA': source.iMaxA,
          'usb.unitA': usbUnit(source.usbKind ?? 'usb2-configured'),
          'usb.wantsV': source.nominalV,
        }
      : {}),
  }
}

function wireFacts({ plan, source }: Fed): SiFacts {
  const { wiring } = plan
  const battery = batteries.includes(source.kind)
  const plugged = source.kind === 'usb' || source.kind === 'header' || source.kind === 'power-bank'
  const fused = source.fuseFitted !== false && source.fuseA !== null
  return {
    'wire.polarityChecked': source.polarityChecked ?? (plugged ? undefined : null),
    'wire.length': wiring.routeM === null ? undefined : (leadOfFans(plan)?.wireLengthM ?? null),
    'wire.route': wiring.routeM ?? undefined,
    'wire.identifiedBy': wiring.identifiedBy,
    'wire.strainRelief': wiring.strainRelief,
    'wire.reverseProtected': source.reversible === true ? wiring.reverseProtected : undefined,
    'fuse.present': battery ? source.fuseFitted : undefined,
    'fuse.rating': fused ? source.fuseA : source.fuseFitted === true ? null : undefined,
    'fuse.distance': battery && source.fuseFitted === true ? source.fuseDistanceM : undefined,
  }
}

function jointFacts({ plan, power }: Fed): SiFacts {
  const { wiring } = plan
  const awg = leadOfFans(plan)?.wireAwg ?? null
  const outer = awg === null ? null : insulatedDiameter(awgDiameter(awg))
  const shrink = wiring.shrinkBoreM === null ? {} : shrinkFacts(outer, wiring.shrinkBoreM, wiring.shrinkRatio)
  const barrel = wiring.connector === 'barrel'
  return {
    'connector.current': wiring.connector ? power.fanRunA : undefined,
    'connector.rating': wiring.connector ? connectorLimit[wiring.connector].amps : undefined,
    'barrel.plug': wiring.barrelPlugM ?? (barrel ? null : undefined),
    'barrel.jack': wiring.barrelJackM ?? (barrel ? null : undefined),
    'crimp.pull': wiring.crimpPullN ?? undefined,
    'crimp.required': awg === null ? null : crimpPull(awg),
    ...shrink,
  }
}

const shrinkFacts = (outer: number | null, bore: number, ratio: number | null): SiFacts => ({
  'shrink.supplied': bore,
  'shrink.ratio': ratio,
  'shrink.over': outer === null ? null : SPLICE * outer,
  'shrink.under': outer,
})

function switchFacts({ plan, power }: Fed): SiFacts {
  const converter = converterOf(plan)
  const chopper = converter?.converterKind === 'pwm' ? converter : null
  return {
    'switch.device': chopper ? 'mosfet' : undefined,
    'switch.lineV': windowOf(plan)?.highV,
    'switch.lineA': power.loadWorstA,
    'switch.side': chopper ? chopper.switchSide : undefined,
    'switch.flyback': chopper ? chopper.flyback : undefined,
    'ctl.usesPwmWire': plannedFans(plan) ? dutyOf(plan) !== null : undefined,
    'ctl.chopsSupply': chopper !== null,
    'ctl.pwmHz': chopper ? chopper.pwmHz : undefined,
    'ctl.dutyCap': chopper ? (chopper.duty ?? undefined) : undefined,
    'ctl.dutyMin': dutyOf(plan) ?? undefined,
  }
}

/** Tach and PWM wires, and what joins them. */
function signalFacts({ plan, source, power, system: { fanArray } }: Fed): SiFacts {
  const { wiring } = plan
  if (!fanArray) return {}
  const { wires } = fanArray.model.fan
  const several = fanArray.count > 1
  const hub = wiring.hub === 'passive' || wiring.hub === 'powered'
  const onPwm = dutyOf(plan) !== null
  const { feed } = power
  const node = fansNodeOf(plan, feed)
  const signals = node ? signalsOf(plan, feed, node) : null
  const root = node ? plan.sources.find((s) => s.id === rootOf(feed, node).id) : source
  const onHeader = root?.kind === 'header'
  const steering = signals?.header != null || (onHeader && !pwmIdle(wiring))
  return {
    'splitter.tachJoined': several && wires !== null && wires > 2 ? wiring.tachJoined : undefined,
    'splitter.pwmInputs': onPwm ? fanArray.count : undefined,
    'header.mode': steering ? wiring.headerMode : undefined,
    'header.pwmSink': onPwm && (steering || wiring.pwmFrom === 'controller') ? wiring.pwmSinkA : undefined,
    'pwm.undriven':
      onPwm && (wiring.pwmFrom !== null || !onHeader) ? wiring.pwmFrom && pwmIdle(wiring) : undefined,
    'hub.onHeader': wiring.hub === 'powered' ? onHeader : undefined,
    'signal.groundsJoined': signals?.apart ? wiring.groundsJoined : undefined,
    'splitter.threeWire': hub && wires !== null ? (wires === 3 ? fanArray.count : 0) : undefined,
    'fan.tachUsed': wiring.tachTo ? wiring.tachTo !== 'open' : wires !== null && wires > 2 ? null : undefined,
    'fan.pwmPinV': wiring.pwmPinV ?? (onPwm ? null : undefined),
    // one fan cannot be in series with itself
    'group.electricalSeries': several ? wiring.electricalSeries : false,
  }
}

/** The feed as a whole: source, what all loads draw, what joins them. */
export function powerFacts(sources: FactSources): SiFacts[] {
  const source = sourceOf(sources.plan)
  // a source that was not chosen yet is no fault
  if (!source) return []
  const fed: Fed = { ...sources, source }
  return [
    sourceFacts(fed),
    headerFacts(fed),
    usbFacts(fed),
    wireFacts(fed),
    jointFacts(fed),
    switchFacts(fed),
    signalFacts(fed),
  ]
}
