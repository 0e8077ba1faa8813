import { atLeast } from '../quantity/limit'
import type { Amps, Volts, Watts } from '../quantity/watts'
import { carriesUsb } from '../standards/connectors'
import { fromMemory, published, type Source } from '../standards/source'
import type { Port } from '../vocabulary/device'

/** One fixed supply level a charger offers. */
export type Level = { volts: Volts; amps: Amps }

const powerRules = fromMemory('USB Power Delivery, power rules')
const usbDefaults = published('USB 2.0, USB 3.2 and USB Type-C default current')

/** What a host port gives where its data sheet does not say: 0.5 A beside USB 2.0, 0.9 A beside a faster link, at 5 V. */
export function givenWatts(port: Port): Watts {
  if (port.levels) return Math.max(0, ...port.levels.map((level) => level.volts * level.amps))
  if (port.gives !== undefined) return port.gives
  if (port.role === 'device' || !carriesUsb(port.connector)) return 0
  if (port.usb === undefined && port.usb4 === undefined && port.thunderbolt === undefined) return 0
  return port.usb === 'usb2' ? 2.5 : 4.5
}

/**
 * The fixed levels of a port: those on its plate, or those that follow from its rating. Type-C follows the power rules: 5 V to 15 W, 9 V above 15, 15 V above
 * 27, 20 V above 45, then 28, 36 and 48 V of the extended range above 100, 140 and 180 W; each at 3 A, at 5 A from 20 V on, or
 * at rating / V where that is less. Any other connector gives 5 V.
 */
export function levelsOf(port: Port): readonly Level[] {
  if (port.levels) return port.levels
  const found = known.get(port)
  if (found) return found
  const levels = levelsByRating(port)
  known.set(port, levels)
  return levels
}

/** Ports are asked again and again; a plan's ports do not change. */
const known = new WeakMap<Port, readonly Level[]>()

function levelsByRating(port: Port): Level[] {
  const rating = givenWatts(port)
  if (rating === 0) return []
  if (port.connector !== 'type-c') return [{ volts: 5, amps: rating / 5 }]
  const steps: [Volts, Amps, Watts][] = [
    [5, 3, 0],
    [9, 3, 15],
    [15, 3, 27],
    [20, 5, 45],
    [28, 5, 100],
    [36, 5, 140],
    [48, 5, 180],
  ]
  return steps
    .filter(([, , above]) => rating > above)
    .map(([volts, amps]) => ({ volts, amps: Math.min(amps, rating / volts) }))
}

export type Supply = {
  watts: Watts
  level: Level | null
  /** What the supply would give through a lead without limits. */
  offered: Watts
  /** What keeps it from being more; `plug`: an older plug on the way, over which nothing is negotiated. */
  limit: 'supply' | 'lead' | 'plug' | 'device'
  source: Source
}

/** What of a lead bears on what is agreed: its marks, and whether one of its plugs is an older one. */
export type Wire = { amps: Amps; volts: Volts; olderPlug?: boolean }

/** Over an A or B plug 5 V come, and nothing is negotiated (common practice). */
const WITHOUT_NEGOTIATION: Volts = 5

/**
 * The highest watts that the supply's levels, the weakest lead and the voltages the device accepts all allow; what it then draws
 * is its own affair. A device that says nothing accepts every level. An older plug anywhere passes 5 V alone (common practice).
 */
export function negotiate(port: Port, leads: readonly Wire[], accepts?: readonly Volts[]): Supply {
  const amps = Math.min(5, ...leads.map((lead) => lead.amps))
  const older = leads.some(({ olderPlug }) => olderPlug)
  const volts = older ? WITHOUT_NEGOTIATION : Math.min(50, ...leads.map((lead) => lead.volts))
  const levels = levelsOf(port)
  const source = port.connector === 'type-c' && givenWatts(port) > 15 ? powerRules : usbDefaults
  const offered = Math.max(0, ...levels.map((level) => level.volts * level.amps))
  let best: Level | null = null
  let refused = 0
  for (const level of levels) {
    const allowed = { volts: level.volts, amps: Math.min(level.amps, amps) }
    if (level.volts > volts || allowed.amps === 0) continue
    if (accepts && !accepts.includes(level.volts)) {
      refused = Math.max(refused, allowed.volts * allowed.amps)
      continue
    }
    if (!best || allowed.volts * allowed.amps > best.volts * best.amps) best = allowed
  }
  const watts = best ? best.volts * best.amps : 0
  return {
    watts,
    level: best,
    offered,
    limit: refused > watts ? 'device' : atLeast(watts, offered) ? 'supply' : older ? 'plug' : 'lead',
    source,
  }
}
