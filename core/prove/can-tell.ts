import type { Prediction } from '../bench/predict'
import type { Situation } from '../checks/situation'
import { portModes } from '../link/port-modes'
import { powerLink } from '../link/power-link'
import { streamRate } from '../picture/timing'
import { givenWatts } from '../power/negotiate'
import { atLeast } from '../quantity/limit'
import { formatBytesPerSecond, formatRate, MEGABYTE_PER_SECOND } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { bestMode, linkModeFacts } from '../standards/link-modes'
import { predictStorage } from '../storage/storage'
import type { RunTest } from './run-tests'

/** What a test can tell before it is run: which part will be the limit, what a pass proves, what it cannot, and what to borrow so that it proves more. */
export type CanTell = { limit: string; proves: string; cannot: string; borrow: string | null }

/** What a test of a run can tell with the equipment that is there. */
export function canTell(situation: Situation, test: RunTest, prediction: Prediction): CanTell {
  const { laid, data, picture } = situation
  switch (test.kind) {
    case 'write':
    case 'read': {
      if (prediction.kind !== 'rate' || data.mode === null) return nothing('the link')
      const { low, limitedBy } = prediction
      const open = predictStorage({ mode: data.mode, overhead: situation.policy.storageOverhead })[test.kind]
      const disk = limitedBy === 'drive' || limitedBy === 'pcie'
      return {
        limit: disk ? 'the disk' : limitedBy === 'share' ? 'what else goes over the link' : 'the link',
        proves: `The run carries at least ${formatBytesPerSecond(low)}.`,
        cannot: disk
          ? `What it carries beyond that: this disk is slower than the link.`
          : 'Which part is to blame, if it is less.',
        borrow: disk ? `a disk of ${formatBytesPerSecond(roundUp(open.high))} or more` : null,
      }
    }
    case 'watts':
    case 'warmth': {
      const way = test.crossing?.way ?? 'down'
      const { limit, giver, taker, watts } = powerLink(situation.index, laid, way)
      const given = givenWatts(giver.port)
      const names: Partial<Record<typeof limit, string>> = {
        lead: 'the lead',
        plug: 'the plug',
        supply: giver.device.name,
        device: taker.device.name,
        pool: `the ports that share ${giver.device.name}`,
      }
      const held = limit === 'supply' || limit === 'device' || limit === 'pool'
      return {
        limit: names[limit] ?? 'what feeds it',
        proves:
          test.kind === 'warmth' ? `It stays cool at ${formatWatts(watts)}.` : `${formatWatts(watts)} get through.`,
        cannot: held
          ? 'What the lead passes beyond that.'
          : 'What another charger with another device gives: a ceiling may belong to a pair.',
        borrow: held && given < 100 ? `a charger of ${given < 60 ? 60 : 100} W and a laptop that takes it` : null,
      }
    }
    case 'picture': {
      const need = test.crossing?.need
      const room = picture.link?.payload ?? 0
      const sent = need?.kind === 'picture' ? streamRate(need.mode) : 0
      const spare = room > 0 && !atLeast(sent, room * 0.9)
      return {
        limit: spare ? 'the mode that is asked' : 'the picture link',
        proves: `${formatRate(sent)} of picture get through.`,
        cannot: spare
          ? `The rest of the ${formatRate(room)} that the link should carry.`
          : 'Which part is to blame, if it stays black.',
        borrow: spare ? 'a display with a larger mode or a higher refresh' : null,
      }
    }
    case 'link':
    case 'soak': {
      if (test.kind === 'soak' && prediction.kind === 'picture')
        return {
          limit: 'how long it is watched',
          proves: 'The pictures stay up for as long as it is watched.',
          cannot: 'What a longer soak would find.',
          borrow: null,
        }
      const ends = [laid.from, laid.to].map(({ device, port }) => ({ device, best: bestMode([...portModes(port)]) }))
      const carried = data.mode === null ? 0 : linkModeFacts[data.mode].line
      const held = ends.find(({ best }) => best !== null && linkModeFacts[best].line <= carried)
      return {
        limit: held ? held.device.name : 'the leads',
        proves:
          data.mode === null
            ? 'Nothing: no link is expected.'
            : test.kind === 'soak'
              ? `${linkModeFacts[data.mode].name} holds for as long as it is watched, with all that goes on.`
              : `It comes up as ${linkModeFacts[data.mode].name}. "Works" at USB 2.0 is a failure.`,
        cannot: test.kind === 'soak' ? 'What a longer soak would find.' : 'That it stays up: only a soak tells.',
        borrow: held && carried < linkModeFacts['usb4-40'].line ? 'a computer and a disk that link faster' : null,
      }
    }
    case 'volts lost':
      return {
        limit: 'the wire',
        proves: 'Its resistance, and with it what it loses at any current.',
        cannot: 'What it carries as data or picture.',
        borrow: 'a load with several steps',
      }
    case 'battery':
      return {
        limit: 'what arrives against what is drawn',
        proves: 'Whether it gains, holds or drains in that use.',
        cannot: 'A harder use, or a higher refresh.',
        borrow: null,
      }
    case 'headset link':
      return {
        limit: "the headset's own test",
        proves: 'The rate that its own test saw.',
        cannot: 'That the test is right: run it on a lead you know as well.',
        borrow: 'the lead that came with the headset',
      }
    case 'frames':
      return {
        limit: 'the computer as much as the run',
        proves: 'That every frame comes through this run.',
        cannot: 'Who is to blame, if some do not: try the lead that came with it first.',
        borrow: null,
      }
    case 'added delay':
      return {
        limit: 'how far repeats scatter',
        proves: 'What the path adds, within the scatter of the repeats.',
        cannot: 'Differences smaller than that.',
        borrow: null,
      }
    case 'sight':
      return { limit: 'the eye', proves: 'That it looks right now.', cannot: 'What comes and goes.', borrow: null }
  }
}

const nothing = (limit: string): CanTell => ({
  limit,
  proves: 'Nothing: no link is expected here.',
  cannot: 'Anything.',
  borrow: null,
})

/** Up to the next hundred MB/s: nobody lends a disk of 1,058. */
const roundUp = (rate: number): number => Math.ceil(rate / (100 * MEGABYTE_PER_SECOND)) * 100 * MEGABYTE_PER_SECOND
