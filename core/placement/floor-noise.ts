import type { Place, Plan } from '../plan/plan'
import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { pointOf } from '../route/follow'
import type { Device } from '../vocabulary/device'
import type { Spot } from '../vocabulary/floor'
import { addLevels, type Decibels, distanceFor, levelAt } from './sound'

/** A box that makes noise, and how far from it each of the levels wanted here is kept. */
export type NoiseSource = { device: Device; at: Spot; rings: { wanted: Decibels; radius: Metres }[] }
/** A chair, with what is heard at it and what is wanted there. */
export type Chair = {
  place: Place
  heard: Decibels | null
  wanted: Decibels
  /** Where it is too loud: the loudest box at it, how far that is and how far it would have to be; null where moving it alone is not enough. */
  move: { device: Device; from: Metres; to: Metres } | null
}

/** Nearer than this the law of distance does not hold. */
const NEAREST: Metres = 0.1
/** Drawn where no chair on the floor says what it wants: a quiet office (common practice). */
const USUAL_WANTED: Decibels = 40

/**
 * The noise on a floor: around each box that was measured the distance at which the levels wanted at its chairs are kept, and at each chair the sum of them
 * all. In the open, over the plan of the floor: walls make it louder and doors quieter.
 */
export function noiseOn(
  plan: Pick<Plan, 'devices' | 'places'>,
  floor: string,
): { sources: NoiseSource[]; chairs: Chair[] } {
  const seats = plan.places.filter(({ at, quiet }) => at?.floor === floor && quiet !== undefined)
  const wanted = [...new Set(seats.map(({ quiet }) => quiet as Decibels))].sort((one, other) => one - other)
  const loud = plan.devices.flatMap((device) => {
    const at = device.noise ? pointOf(plan, device.id) : null
    return at?.floor === floor && device.noise ? [{ device, at, noise: device.noise }] : []
  })
  return {
    sources: loud.map(({ device, at, noise }) => ({
      device,
      at,
      rings: (wanted.length > 0 ? wanted : [USUAL_WANTED]).map((each) => ({
        wanted: each,
        radius: distanceFor(loudest(noise), noise.distance, each),
      })),
    })),
    chairs: seats.map((place) => ({
      place,
      wanted: place.quiet as Decibels,
      move: moveFor(loud, place.at as Spot, place.quiet as Decibels),
      heard:
        loud.length === 0
          ? null
          : addLevels(
              loud.map(({ at, noise }) => levelAt(loudest(noise), noise.distance, apart(at, place.at as Spot))),
            ),
    })),
  }
}

type Loud = { device: Device; at: Spot; noise: NonNullable<Device['noise']> }

/** How far the loudest box at a chair would have to be for the level wanted there, with the others where they stand. */
function moveFor(loud: readonly Loud[], chair: Spot, wanted: Decibels): Chair['move'] {
  const heard = loud
    .map((each) => ({ ...each, from: apart(each.at, chair) }))
    .map((each) => ({ ...each, level: levelAt(loudest(each.noise), each.noise.distance, each.from) }))
    .sort((one, other) => other.level - one.level)
  const [first, ...others] = heard
  if (!first || atMost(addLevels(heard.map(({ level }) => level)), wanted)) return null
  const left = 10 ** (wanted / 10) - others.reduce((sum, { level }) => sum + 10 ** (level / 10), 0)
  if (left <= 0) return null
  return {
    device: first.device,
    from: first.from,
    to: distanceFor(loudest(first.noise), first.noise.distance, 10 * Math.log10(left)),
  }
}

/** What has to be kept away is the noise under load. */
export const loudest = ({ level, loaded = level }: NonNullable<Device['noise']>): Decibels => Math.max(level, loaded)

const apart = (one: Spot, other: Spot): Metres => Math.max(NEAREST, Math.hypot(one.x - other.x, one.y - other.y))
