import {
  beginLearning,
  type Copy,
  type Figure,
  type FigureName,
  type Learning,
  type Learnt,
  NOTHING_LEARNT,
  type PictureTried,
  type Tally,
  type WattsSeen,
} from './learnt'
import { type Observation, teach } from './observation'
import { spotKey } from './spot'
import { type Trial, withoutRepeats } from './trials'

/** Folds what counts of one cable or run, oldest first. What later observations say as well is left out, so that what is kept does not grow with how often it was seen. */
export function learn(counted: readonly Observation[]): Learnt {
  if (counted.length === 0) return NOTHING_LEARNT
  const learning: Learning = beginLearning()
  for (const observation of counted) teach(learning, observation)
  const { trials, copies, pictures, watts, figures, counted: others, ...rest } = learning
  return {
    ...rest,
    trials: withoutRepeats(trials),
    tallies: talliesOf(trials),
    copies: latestAndMost(
      copies,
      ({ way, limit, spot }) => `${way} ${limit} ${spotKey(spot)}`,
      ({ rate }) => rate,
    ),
    pictures: lastWord(pictures),
    watts: latestAndMost(
      watts,
      ({ limit, least, spot }) => `${limit} ${least} ${spotKey(spot)}`,
      (seen) => seen.watts,
    ),
    figures: latestFigures(figures),
    // of each who counted, the latest word on a mode
    counted: [...new Map(others.map((each) => [`${each.from} ${each.mode}`, each])).values()],
  }
}

/** Of most figures more is better; of these less is. */
const LESS_IS_BETTER: ReadonlySet<FigureName> = new Set(['added delay', 'frames', 'warmth', 'volts lost'])

/** The latest of each in each place; of one moment the worse. */
function latestFigures(figures: readonly Figure[]): Figure[] {
  const latest = new Map<string, Figure>()
  for (const figure of figures) {
    const key = `${figure.measure} ${spotKey(figure.spot)}`
    const last = latest.get(key)
    const isWorse = last && (LESS_IS_BETTER.has(figure.measure) ? figure.value > last.value : figure.value < last.value)
    if (!last || last.at < figure.at || isWorse) latest.set(key, figure)
  }
  return [...latest.values()]
}

/** Of readings that are alike the latest and the highest, in the order of their moments. */
function latestAndMost<Reading extends Copy | WattsSeen>(
  readings: readonly Reading[],
  likeness: (reading: Reading) => string,
  figure: (reading: Reading) => number,
): Reading[] {
  const latest = new Map<string, Reading>()
  const most = new Map<string, Reading>()
  for (const reading of readings) {
    const key = likeness(reading)
    const [last, best] = [latest.get(key), most.get(key)]
    // of one moment the lower counts
    if (!last || last.at < reading.at || figure(reading) < figure(last)) latest.set(key, reading)
    if (!best || figure(reading) >= figure(best)) most.set(key, reading)
  }
  const kept = new Set([...latest.values(), ...most.values()])
  return readings.filter((reading) => kept.has(reading))
}

/** Pictures of which a later one in the same place says as much are left out. */
function lastWord(pictures: readonly PictureTried[]): PictureTried[] {
  return pictures.filter(
    (picture, at) =>
      !pictures.some(
        (other, place) =>
          other.held === picture.held &&
          spotKey(other.spot) === spotKey(picture.spot) &&
          (picture.held ? other.rate >= picture.rate : other.rate <= picture.rate) &&
          (other.seconds ?? 0) >= (picture.seconds ?? 0) &&
          (other.at > picture.at || (other.at === picture.at && place > at)),
      ),
  )
}

function talliesOf(trials: readonly Trial[]): Tally[] {
  const tallies = new Map<string, Tally>()
  for (const { tried: mode, cameUp, spot, at, seconds = 0, drops = 0 } of trials) {
    const controller = spot.controller ?? null
    const key = `${mode} ${controller}`
    const tally = tallies.get(key) ?? { mode, controller, passed: 0, tried: 0, seconds: 0, drops: 0, last: at }
    tally.tried += 1
    tally.passed += Number(cameUp === mode)
    tally.seconds += seconds
    tally.drops += drops
    if (at > tally.last) tally.last = at
    tallies.set(key, tally)
  }
  return [...tallies.values()].sort((one, other) =>
    `${one.mode} ${one.controller}` < `${other.mode} ${other.controller}` ? -1 : 1,
  )
}
