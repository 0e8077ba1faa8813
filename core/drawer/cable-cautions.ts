import { type KnownCable, markedWatts, wasTried } from '../observe/known'
import { isLegacyUsb } from '../standards/connectors'
import type { Cable } from '../vocabulary/cable'
import type { Instant } from '../vocabulary/fields'

/** What to take care of with a cable wherever it is used (common practice). */
export type CableCaution =
  | { code: 'ran-hot'; at: Instant }
  | { code: 'retired' }
  | { code: 'two-supplies' }
  | { code: 'type-c-extension' }
  | { code: 'charge-only' }
  | { code: 'unknown' }
  | { code: 'one-way' }
  | { code: 'needs-supply'; required: boolean }
  | { code: 'no-power' }
  | { code: 'thin-wire'; amps: number; awg: number }

/** Five amperes want supply conductors at least this thick (common practice). */
const THINNEST_FOR_5_A = 22

/** Every caution a cable deserves by itself, the gravest first. */
export function* cautionsOf(cable: Cable, known: KnownCable): Iterable<CableCaution> {
  const { ends, standing, construction, oneWay, feed, awg } = cable
  if (known.hot) yield { code: 'ran-hot', at: known.hot.at }
  if (standing === 'retired') yield { code: 'retired' }
  if (ends.every((end) => end.connector === 'type-a' && end.gender === 'plug')) yield { code: 'two-supplies' }
  if (ends.some((end) => end.connector === 'type-c' && end.gender === 'socket')) yield { code: 'type-c-extension' }
  if (known.grade.value === 'charge-only') yield { code: 'charge-only' }
  if (known.grade.value === null && !wasTried(known)) yield { code: 'unknown' }
  if (oneWay) yield { code: 'one-way' }
  if (feed !== 'bus') yield { code: 'needs-supply', required: feed === 'required' }
  const usb = ends.every((end) => end.connector === 'type-c' || isLegacyUsb(end.connector))
  if (usb && construction === 'optical' && markedWatts(known) === 0) yield { code: 'no-power' }
  if (awg !== undefined && awg > THINNEST_FOR_5_A && known.amps.value === 5)
    yield { code: 'thin-wire', amps: known.amps.value, awg }
}

export function cautionSentence(caution: CableCaution): string {
  switch (caution.code) {
    case 'ran-hot':
      return `Its plug ran hot on ${caution.at.slice(0, 10)}. A hot plug can start a fire: unplug it, and do not put it back in use.`
    case 'retired':
      return 'It is retired. Cut it or mark it so that nobody picks it up again.'
    case 'two-supplies':
      return 'Both ends are type-A plugs: it joins two supplies, which can feed each other and damage both computers. Never use it between two hosts.'
    case 'type-c-extension':
      return 'It extends type-C, which the standard does not allow: nothing tells the ports how long the whole has become.'
    case 'charge-only':
      return 'It has no data wires. It fits and charges, and looks like any other.'
    case 'unknown':
      return 'Nothing is known of what it carries. Do not promise anything of it before it is tested.'
    case 'one-way':
      return 'It carries one way only. The end marked host goes to the computer or source.'
    case 'needs-supply':
      return caution.required
        ? 'It carries nothing without a supply of its own at the far end.'
        : 'It reaches its full length only with a supply of its own at the far end.'
    case 'no-power':
      return 'It is optical and carries no power: the device at its far end needs a supply there.'
    case 'thin-wire':
      return `It is marked for ${caution.amps} A, and its supply wires are AWG ${caution.awg}: feel its plugs under full load before you trust it.`
  }
}
