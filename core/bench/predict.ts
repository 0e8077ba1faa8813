import { situationOf } from '../checks/situation'
import { endOf } from '../checks/storage-target'
import { powerLink } from '../link/power-link'
import { learnedOfOne, learntOfCable } from '../observe/learned'
import { type Learnt, NOTHING_LEARNT } from '../observe/learnt'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { ALLOWED_DROP, GROUND_WIRES, wireDrop } from '../power/wire'
import type { BitsPerSecond } from '../quantity/rate'
import type { Volts, Watts } from '../quantity/watts'
import type { LinkMode } from '../standards/link-modes'
import { pcieCeiling, predictStorage } from '../storage/storage'
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
  | { kind: 'rate'; low: BitsPerSecond; high: BitsPerSecond; unknown?: true }
  | { kind: 'watts'; watts: Watts }
  | { kind: 'picture'; fits: boolean }
  | { kind: 'volts lost'; most: Volts; expected: Volts | null }
  | { kind: 'warmth' }

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
  const { laid, data, uplink, picture } = situationOf(site, runOf(test, cable), needOf(test))
  const saysNothing = laid.leads.some(({ known }) => known.grade.value === null)
  const unknown = saysNothing && data.mode === null ? ({ unknown: true } as const) : {}
  switch (test.kind) {
    case 'link':
      return { kind: 'link', mode: data.mode, ...unknown }
    case 'write':
    case 'read': {
      if (data.mode === null) return { kind: 'rate', low: 0, high: 0, ...unknown }
      const { disk } = socketAt(index, test.to).device
      const band = predictStorage({
        mode: data.mode,
        ...endOf(disk),
        ceiling: pcieCeiling(data.mode, laid.from.port),
        overhead: index.plan.policy.storageOverhead,
      })[test.kind]
      return { kind: 'rate', low: band.low, high: band.high }
    }
    case 'watts': {
      const { watts } = powerLink(site, laid, 'down')
      return { kind: 'watts', watts: Math.min(watts, laid.to.port.takes ?? watts) }
    }
    case 'picture': {
      const [admission] = uplink.admissions
      return { kind: 'picture', fits: picture.link !== null && admission?.admitted === true }
    }
    case 'volts lost': {
      const wire =
        cable.awg === undefined
          ? null
          : wireDrop({ awg: cable.awg, length: cable.length, amps: test.amps, groundWires: GROUND_WIRES })
      return {
        kind: 'volts lost',
        most: ALLOWED_DROP.supply + ALLOWED_DROP.ground,
        expected: wire?.ok ? wire.value.total : null,
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

function needOf(test: BenchTest) {
  if (test.kind !== 'picture') return []
  const need: Need = { id: 'bench', kind: 'picture', from: test.from.device, to: test.to.device, mode: test.mode }
  return [{ need, way: 'down' as const, lastMile: true }]
}
