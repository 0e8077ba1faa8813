import type { Instant } from '../vocabulary/fields'
import type { Search, StopName, TryName } from '../vocabulary/search'

/** What has to be dealt with before anything is tried, and what it forbids. */
type StopFacts = {
  title: string
  /** What to do now, in order. */
  steps: readonly string[]
  /** What somebody has to say before the search goes on. */
  says: string
  /** Tries that it forbids until somebody has said so. */
  until: 'all' | readonly TryName[]
  /** Tries that are not made any more after that either. */
  forGood: readonly TryName[]
}

/** Tries that use the very lead again that got hot. */
const WITH_THE_SAME_LEAD = ['reseat', 'turn round', 'part by part', 'feel the plugs', 'lower picture'] as const

export const stopFacts: Readonly<Record<StopName, StopFacts>> = {
  smoke: {
    title: 'It smokes or smells burnt',
    steps: [
      'Switch the mains off. Do not pull a plug that is hot.',
      'Get people away from it, and air the room. Where it burns, follow the rules of the house.',
      'Do not open equipment connected to mains. Do not switch it on again to look.',
      'Have it looked at by somebody licensed. Mark it so that nobody uses it.',
    ],
    says: 'What smoked is off the mains, and marked so that nobody uses it',
    until: 'all',
    forGood: WITH_THE_SAME_LEAD,
  },
  hot: {
    title: 'A plug or a lead is hot',
    steps: [
      'Unplug at the supply first, not at the hot plug.',
      'Let it cool. Do not try it again.',
      'Retire the lead, so that nobody picks it again.',
    ],
    says: 'It is unplugged and cool, and the lead is out of the run for good',
    until: 'all',
    forGood: WITH_THE_SAME_LEAD,
  },
  format: {
    title: 'A disk asks to be formatted',
    steps: [
      'Do not confirm the message. Nothing that writes comes before its data is safe.',
      'Take the disk off, and read it on a computer that knows its file system.',
      'Copy everything off it. Where it cannot be read, leave it, and ask somebody who rescues data.',
      'Only then go on with this disk.',
    ],
    says: 'Its data is safe: copied off, or not needed',
    until: 'all',
    forGood: [],
  },
  'both black': {
    title: 'Both screens are black',
    steps: [
      'Pull the lead of the second display. The first comes back by itself, or after a restart.',
      'Set the computer to show on both, before the second display goes in again.',
      'Never choose "second display only" before the second is known to show.',
    ],
    says: 'The first screen shows a picture again',
    until: 'all',
    forGood: [],
  },
  'dead supply': {
    title: 'A supply is dark',
    steps: [
      'Take it off the mains. Do not open it.',
      'Look at the socket with something that works there.',
      'Replace it by an approved supply of the stated voltage and polarity, and the amperes at least.',
    ],
    says: 'It has a supply again, of the stated voltage and polarity',
    until: ['power cycle', 'feed', 'other charger', 'restart', 'part by part', 'firmware', 'read the watts'],
    forGood: [],
  },
}

/** Worst first. */
const ORDER: readonly StopName[] = ['smoke', 'hot', 'format', 'both black', 'dead supply']

/** A stop that was met: since when, why, and how somebody dealt with it. */
export type Stop = {
  name: StopName
  since: Instant
  why: string
  cleared: NonNullable<Search['cleared']>[number] | null
}

/** What raised a stop, and when. */
export type Raised = { stop: StopName; at: Instant; why: string }

/** The stops of a search, the worst first: each with the latest that raised it, and cleared only by what was said after that. */
export function stopsOf(search: Search, raised: readonly Raised[]): Stop[] {
  return ORDER.flatMap((name): Stop[] => {
    const latest = raised
      .filter(({ stop }) => stop === name)
      .reduce<Raised | null>((last, each) => (last && last.at >= each.at ? last : each), null)
    if (!latest) return []
    const cleared = search.cleared?.findLast(({ stop, at }) => stop === name && at >= latest.at) ?? null
    return [{ name, since: latest.at, why: latest.why, cleared }]
  })
}

/** Whether a stop forbids a try as things stand. */
export const forbids = ({ name, cleared }: Stop, attempt: TryName): boolean => {
  const { until, forGood } = stopFacts[name]
  if (forGood.includes(attempt)) return true
  return cleared === null && (until === 'all' || until.includes(attempt))
}
