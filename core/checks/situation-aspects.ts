import { factsOf, knownOf, socketInUse } from '../link/lay'
import { cordOf, needsMains } from '../link/mains'
import { type KnownCable, spotsSeen, wasTried } from '../observe/known'
import { runRecords } from '../observe/learned'
import { devicesByPlace, leadCable, portKey, type SiteIndex } from '../plan/site-index'
import { atMost } from '../quantity/limit'
import type { Construction } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import { bookReach, type LeadShape, printedLength } from '../standards/reach'
import type { Run } from '../vocabulary/run'
import { keptWith } from '../work/kept'
import { type Aspect, either, endsOf, laidIn, neighbours, runsAt, withKind } from './aspect'

/** The run itself: its tag, its leads and which way round they lie. */
const itself: Aspect = { name: 'the run itself', bears: { run: (_, id) => [id], runSeen: (_, id) => [id] } }

/** The ports at both ends as they are in use, and what sort of device each is of. */
const ends: Aspect = {
  name: 'ends',
  ofRun: ({ index, run }) =>
    [run.from, run.to].map((address) => {
      const { device, port } = socketInUse(index, address)
      return [{ ...port, id: '', name: '' }, device.kind]
    }),
  bears: {
    device: either(runsAt),
    // ports of a pool give each other what they do not use
    joined: either((index, id) =>
      neighbours(index, id).filter((run) => endsOf(index, run).some(({ device }) => device.pool !== undefined)),
    ),
  },
}

/** Mains where a run ends, and whether the devices there need it: leads are fed there. */
export const mains: Aspect = {
  name: 'mains',
  ofRun: ({ index, run }) =>
    endsOf(index, run).map(({ device }) => [
      device.place ? index.places.get(device.place)?.mains : null,
      needsMains(device),
      // it is told by its place where it has one
      device.place === undefined,
    ]),
  bears: {
    place: either((index, id) =>
      (devicesByPlace(index.plan.devices).get(id) ?? []).flatMap((device) => runsAt(index, device.id)),
    ),
  },
}

/** How far the cords of fed leads reach, and how far the outlets are. */
export const cords: Aspect = {
  name: 'cords',
  ofRun: ({ index, run }) => endsOf(index, run).map(({ device }) => index.places.get(device.place ?? '')?.outlet),
  ofLead: (index, cable) => cordOf(index, cable),
  bears: {
    place: either((index, id) =>
      (devicesByPlace(index.plan.devices).get(id) ?? []).flatMap((device) => runsAt(index, device.id)),
    ),
    kind: either(withKind),
  },
}

/** What crosses the run. Which needs do is worked out with their paths. */
const crossings: Aspect = {
  name: 'crossings',
  ofRun: ({ run, crossed }) =>
    crossed.map(({ need, ...crossing }) => [
      { ...need, id: '', name: '', note: '', from: '', to: '', through: '' },
      [run.from.device, run.to.device].indexOf(need.to),
      crossing,
    ]),
}

/** What a lead is and what is known of it, with the limits of its reach that its length lies between. */
const leads: Aspect = {
  name: 'leads',
  ofLead(index, cable) {
    const { known, shape, reach } = factsOf(index, cable)
    const { fed, unfed } = reach
    const limits = [...fed.data, ...unfed.data, ...unfed.displayport, ...unfed.hdmi].map((row) => row.reach)
    return [
      cable.ends,
      cable.oneWay,
      cable.construction,
      cable.feed,
      cable.feedEnd,
      cable.pair,
      cable.copper,
      cable.passesBack,
      cable.passesOn,
      cable.standing,
      likenessOf(known),
      limitsBeyond(cable.length, limits),
      // what was tried counts up to a length that no row of its own grade tells
      wasTried(known) ? limitsBeyond(cable.length, booksOf(cable.construction, shape)) : null,
    ]
  },
  bears: { cable: either(laidIn), kind: either(withKind) },
}

/** What is known of a lead, without when: of instants a verdict asks only which of them came first. And without the names of what says so. */
const likenessOf = keptWith((known: KnownCable): string => {
  const instants = new Set<unknown>()
  JSON.stringify(known, (key, value) => {
    if (isInstant(key, value)) instants.add(value)
    return value
  })
  const places = new Map([...instants].sort().map((instant, place) => [instant, place]))
  return JSON.stringify(known, (key, value) =>
    isInstant(key, value) ? places.get(value) : key === 'id' ? undefined : value,
  )
})
const isInstant = (key: string, value: unknown): boolean => (key === 'at' || key === 'first') && value !== null

/** How many limits a length is beyond. */
const limitsBeyond = (length: number, limits: readonly number[]): number =>
  limits.filter((limit) => !atMost(printedLength(length), limit)).length

const FEEDINGS = ['fed', 'unfed'] as const

/** How long a lead of a build may be for each mode, whatever grade it turns out to be. */
const booksOf = (construction: Construction, shape: LeadShape): number[] =>
  LINK_MODES.flatMap((mode) => FEEDINGS.map((feeding) => bookReach(construction, shape, feeding, mode)))

/** What was seen of leads in these very sockets, and of this very run; what else is plugged in and installed there, where somebody noted it. */
const seenHere: Aspect = {
  name: 'what was seen here',
  ofRun: ({ index, run, spots }) =>
    endsOf(index, run).map(({ device }) => [
      spots.setup ? device.installed : null,
      spots.alone ? runsAt(index, device.id).some(({ id }) => id !== run.id) : null,
    ]),
  *leadsUnlike({ index, run, spots }) {
    for (const end of [run.from, run.to]) yield* spots.byPort.get(portKey(end)) ?? []
    for (const record of runRecords(index.learned, run.id)) yield* record.leads
  },
  bears: { joined: either((index, id) => neighbours(index, id).filter((run) => wasSeenAlone(index, run))) },
}

/** Something of a run or its leads was seen with all else unplugged. */
const wasSeenAlone = (index: SiteIndex, run: Run): boolean =>
  [
    ...runRecords(index.learned, run.id).map(({ learnt }) => learnt),
    ...run.leads.map((lead) => knownOf(index, leadCable(index, lead))),
  ].some((seen) => spotsSeen(seen).some(({ alone }) => alone === true))

/** How far extenders are rated: their cable is held against that, and not against what its sort has in general. */
const rated: Aspect = {
  name: 'rated',
  isRunUnlike: (index, run) => endsOf(index, run).some(({ device }) => device.rated !== undefined),
}

/** What every situation is made of. */
export const SITUATION: readonly Aspect[] = [itself, ends, mains, crossings, leads, seenHere, rated]
