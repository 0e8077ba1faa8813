import { type Prediction, predictIn } from '../bench/predict'
import { type Crossing, type Situation, situationOf } from '../checks/situation'
import { batteryCourse, drawAt } from '../headset/headset'
import { arrivesAt, powerLink } from '../link/power-link'
import { learnedElsewhere } from '../observe/learned'
import type { Spot } from '../observe/spot'
import { streamRate } from '../picture/timing'
import { portKey, type SiteIndex } from '../plan/site-index'
import type { PictureMode } from '../vocabulary/need'
import type { PortAddress, Run } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import type { RunTest } from './run-tests'

/** Whether a spot is where a run lies, with its host end in a socket. What nobody noted the socket of was seen where the run is planned. */
export const isSpotOf =
  (run: Run, socket: PortAddress) =>
  ({ port, far }: Spot): boolean =>
    (port === portKey(socket) ||
      port === `run /${run.id}` ||
      (port === undefined && portKey(socket) === portKey(run.from))) &&
    (far === undefined || far === portKey(run.to))

/** A site without what was tried of its runs as they lie, from whichever socket of their hosts. */
const asPredicted = keptWith((index: SiteIndex): SiteIndex => {
  const learned = learnedElsewhere(index.learned, (cable) => {
    const run = index.runOf.get(cable)
    if (!run) return null
    const host = `${run.from.device}/`
    const [far, unnamed] = [portKey(run.to), `run /${run.id}`]
    return (spot) => spot.port === unnamed || (spot.far === far && spot.port?.startsWith(host) === true)
  })
  return learned === index.learned ? index : { ...index, learned }
})

/** A run as Match predicts it with its host end in a socket: by all that is known but what was tried of runs as they lie. */
export function predictedSituation(
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  socket: PortAddress,
): Situation {
  const there = portKey(socket) === portKey(run.from) ? run : { ...run, from: socket }
  return situationOf(asPredicted(index), there, crossings)
}

/** What a run should do in a test. */
export function predictRun(situation: Situation, { kind, crossing, amps }: RunTest): Prediction {
  const { index, laid } = situation
  switch (kind) {
    case 'soak':
      return situation.data.mode === null && soakedPicture(situation)
        ? soakOfPictures(situation)
        : predictIn(situation, { kind: 'link' })
    case 'link':
      return predictIn(situation, { kind: 'link' })
    case 'picture': {
      const admission = situation.uplink.admissions.find(({ need }) => need.id === crossing?.need.id)
      return { kind: 'picture', fits: situation.picture.link !== null && admission?.admitted === true }
    }
    case 'battery': {
      const { battery } = laid.to.device
      const need = crossing?.need
      if (!battery || need?.kind !== 'headset') return { kind: 'battery', slope: 0, least: null }
      const { watts } = powerLink(index, laid, 'down')
      const supply = arrivesAt(powerLink(index, laid, 'down'), Math.min(watts, laid.to.port.takes ?? watts)).watts
      const draw = drawAt(battery, need.refresh)
      // within what the course calls holding it holds
      const holds = batteryCourse({ capacity: battery.wattHours, draw, supply }).course === 'holds'
      return {
        kind: 'battery',
        slope: holds ? 0 : (100 * (supply - draw)) / battery.wattHours,
        least: need.hours === undefined ? null : -100 / need.hours,
      }
    }
    case 'headset link':
      return { kind, least: crossing?.need.kind === 'headset' ? crossing.need.rate : 0 }
    case 'added delay':
      return { kind, most: crossing?.need.kind === 'audio' ? (crossing.need.delay ?? null) : null }
    case 'frames':
    case 'sight':
      return { kind }
    case 'volts lost':
      return predictIn(situation, { kind, amps })
    case 'warmth':
    case 'watts':
      return predictIn(situation, { kind })
    case 'write':
    case 'read':
      return predictIn(crossing ? { ...situation, crossings: [crossing] } : situation, { kind })
  }
}

/** The largest picture that crosses a run: a run that is no data link is watched by it. */
export function soakedPicture({ crossings }: Pick<Situation, 'crossings'>): PictureMode | null {
  const modes = crossings.flatMap(({ need, overUsb }) =>
    need.kind === 'picture' && overUsb === undefined ? [need.mode] : [],
  )
  return modes.reduce<PictureMode | null>(
    (most, mode) => (most === null || streamRate(mode) > streamRate(most) ? mode : most),
    null,
  )
}

/** All pictures at once. */
const soakOfPictures = ({ picture, uplink }: Situation): Prediction => ({
  kind: 'picture',
  fits: picture.link !== null && uplink.admissions.every(({ need, admitted }) => need.kind !== 'picture' || admitted),
})
