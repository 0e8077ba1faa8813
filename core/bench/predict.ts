import { type Crossing, type Situation, situationOf } from '../checks/situation'
import { bandOf } from '../checks/storage-target'
import { powerLink } from '../link/power-link'
import { learnedOfOne, learntOfCable } from '../observe/learned'
import { type Learnt, NOTHING_LEARNT } from '../observe/learnt'
import type { SiteIndex } from '../plan/site-index'
import { ALLOWED_DROP, GROUND_WIRES, wireDrop } from '../power/wire'
import type { BitsPerSecond } from '../quantity/rate'
import type { Amps, Volts, Watts } from '../quantity/watts'
import type { LinkMode } from '../standards/link-modes'
import type { Limit } from '../storage/storage'
import type { Cable } from '../vocabulary/cable'
import type { Need } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'
import type { BenchTest } from '../vocabulary/session'
import { fitsTest } from './setup'

/** What was said of a lead, without what was tried. */
const withoutBench = ({ grade, amps, volts, unmarked, chip }: Learnt): Learnt => ({
  ...NOTHING_LEARNT,
  grade,
  amps: { ...amps, measured: undefined },
  volts: { ...volts, measured: undefined },
  unmarked,
  chip,
})

/** What a cable should do in a test, by all that is known of it without this test. */
export type Prediction =
  | { kind: 'does not fit' }
  /** `unknown`: nothing says what the lead carries, so nothing is promised and nothing it does is wrong. */
  | { kind: 'link'; mode: LinkMode | null; unknown?: true }
  | { kind: 'rate'; low: BitsPerSecond; high: BitsPerSecond; limitedBy?: Limit; unknown?: true }
  | { kind: 'watts'; watts: Watts }
  | { kind: 'picture'; fits: boolean }
  /** At the current that is asked. */
  | { kind: 'volts lost'; amps: Amps; most: Volts; expected: Volts | null }
  | { kind: 'warmth' }
  /** Percent an hour; `least` is what still lasts the hours that are asked. */
  | { kind: 'battery'; slope: number; least: number | null }
  /** Milliseconds that may be added; null: nobody said. */
  | { kind: 'added delay'; most: number | null }
  | { kind: 'frames' }
  | { kind: 'headset link'; least: BitsPerSecond }
  | { kind: 'sight' }

/**
 * What a cable should do between the two ports of a test: the mode that comes up, the band of MB/s, the watts negotiated, whether the picture
 * fits, the volts it may lose. It is the run's own arithmetic on a run of this one cable, without what the session itself has measured:
 * otherwise a bad reading would be what is expected of the cable.
 */
export function predict(index: SiteIndex, test: BenchTest, tested: Cable): Prediction {
  if (!fitsTest(index, tested, test)) return { kind: 'does not fit' }
  const cable = tested
  const learnt = learntOfCable(index.learned, cable.id)
  const site: SiteIndex = {
    ...index,
    cables: new Map([[cable.id, cable]]),
    learned: learnedOfOne(cable.id, learnt && withoutBench(learnt)),
  }
  return predictIn(situationOf(site, runOf(test, cable), crossingOf(site, test)), test)
}

/** What is measured of a lead or a run, whatever it is called among tests. */
export type Measured =
  | { kind: 'link' }
  | { kind: 'write' | 'read' }
  | { kind: 'watts' }
  | { kind: 'picture' }
  | { kind: 'volts lost'; amps: Amps }
  | { kind: 'warmth' }

/** What a run should do by itself: of its first crossing where that is a copy, a picture or power. */
export function predictIn(situation: Situation, test: Measured): Prediction {
  const { index, laid, data, uplink, picture, crossings } = situation
  const saysNothing = laid.leads.some(({ known }) => known.grade.value === null)
  const unknown = saysNothing && data.mode === null ? ({ unknown: true } as const) : {}
  switch (test.kind) {
    case 'link':
      return { kind: 'link', mode: data.mode, ...unknown }
    case 'write':
    case 'read': {
      if (data.mode === null) return { kind: 'rate', low: 0, high: 0, ...unknown }
      const crossing = crossings.find(({ need }) => need.kind === 'storage')
      const bands = crossing ? bandOf(situation, crossing) : null
      if (!bands) return { kind: 'rate', low: 0, high: 0, ...unknown }
      return { kind: 'rate', ...bands[test.kind] }
    }
    case 'watts': {
      const way = crossings.find(({ need }) => need.kind === 'power')?.way ?? 'down'
      const { watts } = powerLink(index, laid, way)
      const takes = (way === 'down' ? laid.to : laid.from).port.takes
      return { kind: 'watts', watts: Math.min(watts, takes ?? watts) }
    }
    case 'picture': {
      const [admission] = uplink.admissions
      return { kind: 'picture', fits: picture.link !== null && admission?.admitted === true }
    }
    case 'volts lost': {
      const drops = laid.leads.map(({ cable: { awg, length } }) =>
        awg === undefined ? null : wireDrop({ awg, length, amps: test.amps, groundWires: GROUND_WIRES }),
      )
      const known = drops.flatMap((drop) => (drop?.ok ? drop.value.total : []))
      return {
        kind: 'volts lost',
        amps: test.amps,
        most: ALLOWED_DROP.supply + ALLOWED_DROP.ground,
        expected: known.length === drops.length ? known.reduce((sum, volts) => sum + volts, 0) : null,
      }
    }
    case 'warmth':
      return { kind: 'warmth' }
  }
}

const runOf = (test: BenchTest, cable: Cable): Run => ({
  id: 'bench',
  tag: 'bench',
  from: test.from,
  to: test.to,
  leads: [{ cable: cable.id, reversed: false }],
  route: { length: Math.min(cable.length, 0.01) },
})

/** What a test asks of the run it makes: its picture, or a copy to the disk at its end. */
function crossingOf({ devices }: SiteIndex, test: BenchTest): Crossing[] {
  const every = { id: 'bench', from: test.from.device, to: test.to.device }
  const across = (need: Need): Crossing[] => [{ need, way: 'down', lastMile: true, disk: devices.get(every.to)?.disk }]
  if (test.kind === 'picture') return across({ ...every, kind: 'picture', mode: test.mode })
  return test.kind === 'write' || test.kind === 'read' ? across({ ...every, kind: 'storage', rate: 1 }) : []
}
