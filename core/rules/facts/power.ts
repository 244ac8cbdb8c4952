import { awgDiameter, converterDefaults, crimpPull, insulatedDiameter, usbUnit } from '#core/power'
import type { Converter, Source } from '#core/document'
import { connectorLimit, ledDrop, windowOf } from '#core/supply'
import type { FactSources, SiFacts } from './sources'

/** A soldered splice over its wire. Common practice, no source. */
const SPLICE = 1.5
/** Junction temperature to stay under, degC. docs/physics.md, linear regulator. */
const JUNCTION_LIMIT_C = 100
/** Current that common indicator LEDs are rated for, A. Common practice, no source. */
const LED_RATED_A = 0.02

/** The feed with its source; facts of the feed need one. */
interface Fed extends FactSources {
  source: Source
}

const setKinds: Converter['kind'][] = ['buck', 'boost', 'linear']
const isSet = (converter: Converter | null) => converter !== null && setKinds.includes(converter.kind)

function sourceFacts({ plan, source, power }: Fed): SiFacts {
  const { converter } = plan
  const window = windowOf(plan)
  return {
    'supply.kind': source.kind,
    'supply.nominalV': source.nominalV,
    'supply.vMin': window?.lowV,
    'supply.vMax': window?.highV,
    'supply.openV': source.openV,
    'supply.regulated': source.regulated,
    'supply.tap': source.tap,
    'supply.output': source.output,
    'supply.iMax': source.iMaxA,
    'supply.iPeak': source.iPeakA ?? source.iMaxA,
    'supply.transientProtected': source.transientProtected,
    'supply.reversible': source.reversible,
    'cap.ratingV': converter?.capV,
    'cap.highV': converter?.capV ? (window?.highV ?? source.nominalV) : null,
    'tap.fanA': source.tap === '7V' ? power.fanRunA : null,
    'tap.fiveLoadA': source.fiveLoadA,
  }
}

function loadFacts({ plan, power }: Fed): SiFacts {
  return {
    'load.runA': power.loadWorstA,
    'load.startA': power.loadStartA,
    'load.nonFanPresent': plan.feed.some((f) => f.kind === 'load'),
    'load.nonFanCounted': true,
  }
}

function headerFacts({ plan: { wiring }, source, power }: Fed): SiFacts {
  const header = source.kind === 'header'
  const passive = header && wiring.hub !== 'powered'
  return {
    'header.loadA': passive ? power.loadWorstA : null,
    'header.iMax': header ? source.iMaxA : null,
    'header.startA': passive ? power.loadStartA : null,
    'header.iPeak': header ? source.iPeakA : null,
    'header.mode': wiring.headerMode,
    'header.pwmSink': wiring.pwmSinkA,
  }
}

function usbFacts({ plan: { converter }, source, power }: Fed): SiFacts {
  const usb = source.kind === 'usb'
  return {
    'usb.loadA': usb ? power.loadWorstA : null,
    'usb.budgetA': usb ? source.iMaxA : null,
    'usb.unitA': usb ? usbUnit(source.usbKind ?? 'usb2-configured') : null,
    'usb.configures': usb ? false : null,
    'usb.boost': usb || source.kind === 'power-bank' ? converter?.kind === 'boost' : null,
    'usb.typeC': source.typeCPullDown === null ? null : true,
    'usb.ccPresent': source.typeCPullDown,
    'usb.wantsV': usb ? source.nominalV : null,
  }
}

/** The converter that drives the selected fans, and further ones that have to be set. */
function converterFacts({ plan, power }: Fed): SiFacts {
  const { converter } = plan
  const regulated = isSet(converter) ? converter : null
  const further = plan.feed.filter((f) => f.kind === 'converter' && f.converterKind !== 'resistor')
  return {
    'boost.inputA': converter?.kind === 'boost' ? power.loadWorstA : null,
    'conv.kind': converter ? (regulated ? regulated.kind : null) : 'none',
    'conv.vOut': regulated ? regulated.outV : converter ? power.fanV : null,
    'conv.vSet': regulated ? regulated.measuredV : null,
    'conv.outA': regulated ? power.converterOutA : null,
    'conv.iMax': converter?.iMaxA,
    'conv.dropout':
      converter?.kind === 'buck' || converter?.kind === 'linear'
        ? (converter.dropoutV ?? converterDefaults[converter.kind].dropoutV)
        : null,
    'conv.adjustable': regulated
      ? regulated.adjustable || further.length > 0
      : further.length > 0
        ? true
        : null,
    'conv.setFirst':
      regulated || further.length
        ? (!regulated || regulated.setFirst) && further.every((f) => f.setFirst === true)
        : null,
  }
}

/** What gets hot: a linear regulator's junction, a resistor. */
function dropperFacts({ plan: { job, converter }, power }: Fed): SiFacts {
  const node = power.feed.nodes.find((n) => n.id === converter?.id)
  const resistor = converter?.kind === 'resistor' ? node : undefined
  const perW = converter?.kind === 'linear' ? converter.junctionToAirKPerW : null
  const hottest = perW !== null && node ? (job.ambientMaxC ?? job.ambientC) + node.heatW * perW : null
  return {
    'reg.tj': hottest,
    'reg.tjMax': hottest === null ? null : JUNCTION_LIMIT_C,
    'reg.caps': converter?.kind === 'linear' ? converter.capsFitted : null,
    'resistor.ohm': resistor?.ohm,
    'resistor.power': resistor?.heatW,
    'resistor.rating': resistor && converter?.ratingW,
    'divider.feedsFan': converter?.kind === 'divider' ? true : null,
  }
}

function wireFacts({ plan: { wiring }, source, power }: Fed): SiFacts {
  // the worst lead of the whole feed stands for all of them
  const leads = power.feed.nodes.filter((n) => n.lead?.awg && n.inA !== null)
  const worst = leads.toSorted((a, b) => b.inA! / b.lead!.ampacityA! - a.inA! / a.lead!.ampacityA!)[0]
  return {
    'wire.drop': power.wireDropV,
    'wire.lineV': power.feedV,
    'wire.current': worst?.inA ?? power.fanRunA,
    'wire.ampacity': worst?.lead?.ampacityA ?? power.wireAmpacityA,
    'wire.polarityChecked': source.polarityChecked,
    'wire.length': wiring.routeM === null ? null : source.wireLengthM,
    'wire.route': wiring.routeM,
    'wire.identifiedBy': wiring.identifiedBy,
    'wire.strainRelief': wiring.strainRelief,
    'wire.reverseProtected': wiring.reverseProtected,
    'fuse.present': source.fuseFitted,
    'fuse.rating': source.fuseFitted === false ? null : source.fuseA,
    'fuse.distance': source.fuseDistanceM,
  }
}

function jointFacts({ plan: { wiring }, source, power }: Fed): SiFacts {
  const outer = source.wireAwg === null ? null : insulatedDiameter(awgDiameter(source.wireAwg))
  const splice = outer === null ? null : { over: SPLICE * outer, under: outer }
  return {
    'connector.current': wiring.connector ? power.fanRunA : null,
    'connector.rating': wiring.connector ? connectorLimit[wiring.connector].amps : null,
    'barrel.plug': wiring.barrelPlugM,
    'barrel.jack': wiring.barrelJackM,
    'crimp.pull': wiring.crimpPullN,
    'crimp.required': wiring.crimpPullN === null || source.wireAwg === null ? null : crimpPull(source.wireAwg),
    'shrink.supplied': splice === null ? null : wiring.shrinkBoreM,
    'shrink.ratio': splice === null ? null : wiring.shrinkRatio,
    'shrink.over': splice?.over,
    'shrink.under': splice?.under,
  }
}

function switchFacts({ plan, power }: Fed): SiFacts {
  const { converter, wiring } = plan
  const chopper = converter?.kind === 'pwm' ? converter : null
  return {
    'switch.device':
      wiring.switchDcV !== null || wiring.switchDcA !== null ? 'contact' : chopper ? 'mosfet' : null,
    'switch.dcV': wiring.switchDcV,
    'switch.dcA': wiring.switchDcA,
    'switch.lineV': windowOf(plan)?.highV,
    'switch.lineA': power.loadWorstA,
    'switch.side': chopper ? chopper.switchSide : null,
    'switch.flyback': chopper ? chopper.flyback : null,
    'ctl.usesPwmWire': plan.selection ? plan.selection.duty !== null : null,
    'ctl.chopsSupply': chopper !== null,
    'ctl.pwmHz': chopper ? chopper.pwmHz : null,
    'ctl.dutyCap': chopper ? chopper.duty : null,
    'ctl.dutyMin': plan.selection?.duty,
  }
}

/** Tach and PWM wires, and what joins them. */
function signalFacts({ plan, system: { fanArray } }: Fed): SiFacts {
  const { wiring } = plan
  const wires = fanArray?.model.fan.wires ?? null
  const hub = wiring.hub === 'passive' || wiring.hub === 'powered'
  return {
    'splitter.tachJoined': wiring.tachJoined,
    'splitter.pwmInputs': plan.selection?.duty !== null && plan.selection ? fanArray?.count : null,
    'splitter.threeWire': hub && wires !== null ? (wires === 3 ? fanArray?.count : 0) : null,
    'fan.tachUsed': wiring.tachUsed,
    'fan.pwmPinV': wiring.pwmPinV,
    'fan.reversedByPolarity': fanArray ? false : null,
    'group.electricalSeries': wiring.electricalSeries ?? false,
  }
}

/** The first LED string of the feed stands for all of them. */
function ledFacts({ plan, power }: Fed): SiFacts {
  const leds = power.feed.nodes.filter((n) => plan.feed.find((f) => f.id === n.id)?.loadKind === 'led')
  const led = leds[0] && plan.feed.find((f) => f.id === leds[0]!.id)
  return {
    'led.stringV': led ? (led.ledString ?? 1) * ledDrop(led) : null,
    'led.feedV': led ? leds[0]!.lowV : null,
    'led.current':
      led && leds[0]!.ohm
        ? Math.max(0, leds[0]!.highV - (led.ledString ?? 1) * ledDrop(led)) / leds[0]!.ohm
        : null,
    'led.rated': led ? LED_RATED_A : null,
  }
}

/** The feed: source, loads, converter, leads and what joins them. */
export function powerFacts(sources: FactSources): SiFacts[] {
  const { source, selection } = sources.plan
  if (!source) return selection ? [{ 'supply.kind': 'none' }] : []
  const fed: Fed = { ...sources, source }
  return [
    sourceFacts(fed),
    loadFacts(fed),
    headerFacts(fed),
    usbFacts(fed),
    converterFacts(fed),
    dropperFacts(fed),
    wireFacts(fed),
    jointFacts(fed),
    switchFacts(fed),
    ledFacts(fed),
    signalFacts(fed),
  ]
}
