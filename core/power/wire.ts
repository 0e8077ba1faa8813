import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import type { Amps, Volts, Watts } from '../quantity/watts'
import { fromMemory, published, type Source } from '../standards/source'

export type Ohms = number

/** Annealed copper at 20 degrees, and what a degree adds (IEC 60028). */
const COPPER_OHM_MM2_PER_M = 0.017241
const PER_DEGREE = 0.00393
const REFERENCE_CELSIUS = 20

export const wireSource: Source = published('IEC 60028 for copper, ASTM B258 for the gauge')

/** What a lead may lose: on the supply conductor, and on ground. */
export const ALLOWED_DROP: { supply: Volts; ground: Volts; source: Source } = {
  supply: 0.5,
  ground: 0.25,
  source: fromMemory('USB Type-C, voltage drop of a cable'),
}

/** Ground may lose half of what the supply may, and has twice its copper: a second wire or the braid (common practice). */
export const GROUND_WIRES = 2

export const THINNEST_GAUGE = 40
export const THICKEST_GAUGE = 0

/** Diameter of a gauge in millimetres (ASTM B258). */
export const gaugeDiameter = (awg: number): number => 0.127 * 92 ** ((36 - awg) / 39)

/** Ohms a metre of one conductor at a temperature in degrees Celsius. */
export function ohmsPerMetre(awg: number, celsius = REFERENCE_CELSIUS): number {
  const area = (Math.PI / 4) * gaugeDiameter(awg) ** 2
  return (COPPER_OHM_MM2_PER_M * (1 + PER_DEGREE * (celsius - REFERENCE_CELSIUS))) / area
}

export type Drop = {
  supply: Volts
  ground: Volts
  total: Volts
  watts: Watts
  /** Both conductors are within what a cable may lose. */
  allowed: boolean
}

const dropOver = (supplyOhms: Ohms, groundOhms: Ohms, amps: Amps): Drop => {
  const supply = supplyOhms * amps
  const ground = groundOhms * amps
  return {
    supply,
    ground,
    total: supply + ground,
    watts: (supply + ground) * amps,
    allowed: atMost(supply, ALLOWED_DROP.supply) && atMost(ground, ALLOWED_DROP.ground),
  }
}

export type WireRun = {
  awg: number
  length: Metres
  amps: Amps
  celsius?: number
  groundWires?: number
  supplyWires?: number
}

/**
 * Volts and watts a lead loses by its wire: gauge, length, current and temperature; several conductors in parallel share the
 * current. Refuses gauges, currents and temperatures outside what exists.
 */
export function wireDrop({
  awg,
  length,
  amps,
  celsius = REFERENCE_CELSIUS,
  groundWires = 1,
  supplyWires = 1,
}: WireRun): Parsed<Drop> {
  if (!(awg >= THICKEST_GAUGE && awg <= THINNEST_GAUGE))
    return unreadable(`A gauge lies between AWG ${THICKEST_GAUGE} and ${THINNEST_GAUGE}.`)
  if (!(amps >= 0 && amps <= 20)) return unreadable('A current lies between 0 and 20 A.')
  if (!(celsius >= -40 && celsius <= 105)) return unreadable('A temperature lies between -40 and 105 degrees.')
  const ohms = ohmsPerMetre(awg, celsius) * length
  return parsed(dropOver(ohms / supplyWires, ohms / groundWires, amps))
}

/** The same from a measured loop resistance, supply and ground together: ground has twice the copper, and so half of what the supply loses (common practice). */
export const loopDrop = (loop: Ohms, amps: Amps): Drop =>
  dropOver((loop * GROUND_WIRES) / (GROUND_WIRES + 1), loop / (GROUND_WIRES + 1), amps)

/** Loop resistance of a lead that lost `lost` volts at `amps`. */
export const loopOhms = (lost: Volts, amps: Amps): Ohms => lost / amps
