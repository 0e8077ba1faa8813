import { isWornInArea } from '../headset/area'
import { isOddlySlow } from '../link/copied'
import { factsOf, knownOf, socketInUse } from '../link/lay'
import { needsMains } from '../link/mains'
import { besideWatts, drawnBy, fedBy } from '../link/power-link'
import { ranHotOfKind, tellsOfKind } from '../link/record'
import { wasTried } from '../observe/known'
import { learntOfCable, runRecords } from '../observe/learned'
import { pairOf } from '../observe/spot'
import {
  cablesSuppliedWith,
  devicesByPlace,
  leadCable,
  portKey,
  portsInUse,
  type SiteIndex,
  type Socket,
  sharesSection,
  socketAt,
} from '../plan/site-index'
import { atMost } from '../quantity/limit'
import { conditionsAlong } from '../route/fill'
import type { Construction } from '../standards/grades'
import { LINK_MODES } from '../standards/link-modes'
import { bookReach, type LeadShape, printedLength } from '../standards/reach'
import type { Cable } from '../vocabulary/cable'
import type { Device } from '../vocabulary/device'
import type { Run } from '../vocabulary/run'
import type { Crossing } from './situation'
import type { Spots } from './spots'

/** A run with what crosses it, of which a verdict is asked with one lead or another. */
export type RunToJudge = { index: SiteIndex; run: Run; crossed: readonly Crossing[]; spots: Spots }

/** A site before a change and after it. */
export type Between = { before: SiteIndex; after: SiteIndex }

/** Tells which runs are judged again when a thing changed, by its id. */
type Bears = (site: Between, id: string) => Iterable<string>

/**
 * Something that verdicts follow from. Ranking takes from it which runs and which leads are judged alike, and reassessing which runs a change bears on: both
 * ask every aspect that a check reads, so neither knows the checks.
 */
export type Aspect = {
  name: string
  /** What of a run it is: runs that agree in all aspects are judged alike. Left out: nothing of a run. */
  ofRun?(asked: RunToJudge): unknown
  /** What of a lead it is: leads that agree in all aspects are judged alike. Left out: nothing of a lead. */
  ofLead?(index: SiteIndex, cable: Cable): unknown
  /** The lead is like no other. */
  isLeadUnlike?(index: SiteIndex, cable: Cable): boolean
  /** The run is like no other. */
  isRunUnlike?(index: SiteIndex, run: Run): boolean
  /** Leads that are like no other in this run. */
  leadsUnlike?(asked: RunToJudge): Iterable<string>
  /** It is compared for each run with each lead, and never taken as alike. */
  isPairwise?: true
  /** What changes it: a run in any way, a run's ends or its turn among others, what was seen of a run, a device, a place, a pathway, a kind, a cable, a need. */
  bears?: Partial<
    Record<'run' | 'joined' | 'runSeen' | 'device' | 'place' | 'pathway' | 'kind' | 'cable' | 'need', Bears>
  >
}

const endsOf = (index: SiteIndex, { from, to }: Run): Socket[] => [from, to].map((address) => socketAt(index, address))
const idsOf = (runs: Iterable<Run> | undefined): string[] => Array.from(runs ?? [], ({ id }) => id)

/** The runs that a question about either state of a site comes to. */
const either = (ask: (index: SiteIndex, id: string) => Iterable<Run>): Bears =>
  function* ({ before, after }, id) {
    yield* idsOf(ask(before, id))
    yield* idsOf(ask(after, id))
  }

const runsAt = (index: SiteIndex, device: string): readonly Run[] => index.runsAt.get(device) ?? []

/** The runs at both devices of a run. */
const neighbours = (index: SiteIndex, id: string): Run[] => {
  const run = index.runs.get(id)
  return run ? [run.from, run.to].flatMap(({ device }) => runsAt(index, device)) : []
}

const laidIn = (index: SiteIndex, cable: string): Run[] => {
  const run = index.runOf.get(cable)
  return run ? [run] : []
}

/** The runs with a cable of a kind in them, or one of it yet to be bought. */
const withKind = (index: SiteIndex, kind: string): Run[] => [
  ...(index.cablesOfKind.get(kind) ?? []).flatMap(({ id }) => laidIn(index, id)),
  ...(index.runsOfKind.get(kind) ?? []),
]

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

/** Devices that live on what others bring them: whoever hangs on one hears of what feeds it, and of what else does. */
const passesPower = (index: SiteIndex, id: string): boolean => {
  const device = index.devices.get(id)
  return device?.busPowered === true || device?.keeps !== undefined
}

/** The runs at some devices, and on through those that live on what they are fed. */
function fedTogether(index: SiteIndex, devices: Iterable<string>): Run[] {
  const seen = new Set<string>()
  const runs = new Set<Run>()
  const waiting = [...devices]
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    if (seen.has(at)) continue
    seen.add(at)
    for (const run of runsAt(index, at)) {
      runs.add(run)
      for (const { device } of [run.from, run.to])
        if (passesPower(index, at) || passesPower(index, device)) waiting.push(device)
    }
  }
  return [...runs]
}
const fedBeside = (index: SiteIndex, runs: Iterable<Run | undefined>): Run[] =>
  fedTogether(
    index,
    [...runs].flatMap((run) => (run ? [run.from.device, run.to.device] : [])),
  )

/** What devices feed: the runs at them, and at whatever they are joined to, which may have another supply. */
const fedFrom = (index: SiteIndex, devices: readonly string[]): Run[] =>
  fedBeside(
    index,
    devices.flatMap((id) => runsAt(index, id)),
  )

/** What feeds the devices at both ends beside the run: a hub that has no supply, and a second charger. */
export const feeds: Aspect = {
  name: 'feeds',
  ofRun: ({ index, run, crossed }) => [
    ...[run.from, run.to].map(({ device }) => {
      const hub = passesPower(index, device) ? index.devices.get(device) : undefined
      return hub ? [hub.keeps, hub.busPowered, fedBy(index, run, hub), drawnBy(index, hub)] : null
    }),
    crossed.map(({ need }) => (need.kind === 'power' ? besideWatts(index, run, need.to) : null)),
    endsOf(index, run).map((end) => [needsMains(end.device), portsBeside(index, end)]),
  ],
  bears: {
    run: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    runSeen: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    joined: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    device: either((index, id) => fedFrom(index, [id])),
    place: either((index, id) =>
      fedFrom(
        index,
        (devicesByPlace(index.plan.devices).get(id) ?? []).map((device) => device.id),
      ),
    ),
    cable: either((index, id) => fedBeside(index, [index.runOf.get(id)])),
    kind: either((index, id) => fedBeside(index, withKind(index, id))),
    need: either((index, id) => {
      const need = index.needs.get(id)
      return need ? fedTogether(index, [need.from, need.to]) : []
    }),
  },
}

/** The names of the ports that share a pool with one. */
const portsBeside = (index: SiteIndex, { device }: Socket): unknown =>
  device.pool ? portsInUse(index, device).map(({ name }) => name) : null

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
      known,
      limitsBeyond(cable.length, limits),
      // what was tried counts up to a length that no row of its own grade tells
      wasTried(known) ? limitsBeyond(cable.length, booksOf(cable.construction, shape)) : null,
    ]
  },
  bears: { cable: either(laidIn), kind: either(withKind) },
}

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
  ].some(({ trials, copies, pictures, watts }) =>
    [...trials, ...copies, ...pictures, ...watts].some(({ spot }) => spot.alone === true),
  )

/** How far extenders are rated: their cable is held against that, and not against what its sort has in general. */
const rated: Aspect = {
  name: 'rated',
  isRunUnlike: (index, run) => endsOf(index, run).some(({ device }) => device.rated !== undefined),
}

/** What every situation is made of. */
export const SITUATION: readonly Aspect[] = [itself, ends, mains, crossings, leads, seenHere, rated]

/** Who else has a run in the same ports. */
export const takenPorts: Aspect = {
  name: 'taken ports',
  ofRun: ({ index, run }) => [run.from, run.to].map((end) => (index.runsIn.get(portKey(end))?.length ?? 0) > 1),
  bears: { run: either(sharers) },
}

function sharers(index: SiteIndex, id: string): Run[] {
  const run = index.runs.get(id)
  return run ? [run.from, run.to].flatMap((end) => index.runsIn.get(portKey(end)) ?? []) : []
}

/** How far a lead spans the route, with the slack the site keeps. */
export const span: Aspect = { name: 'span', isPairwise: true }

/** What is said of the route itself: what it passes, its bends and its conduit. */
export const route: Aspect = {
  name: 'route',
  ofRun: ({ run: { route } }) => [route.through, route.bend, route.conduit],
}

/** The pathways that a run follows, and what lies in them. */
export const pathways: Aspect = {
  name: 'pathways',
  ofRun: ({ index, run }) => conditionsAlong(index, run),
  bears: {
    pathway: either((index, id) => index.runsAlong.get(id) ?? []),
    run: either((index, id) => beside(index, index.runs.get(id))),
    cable: either((index, id) => beside(index, index.runOf.get(id))),
  },
}

const beside = (index: SiteIndex, run: Run | undefined): Run[] => (run ? sharesSection(index, run) : [])

/** How thick a lead is. */
export const thickness: Aspect = { name: 'thickness', ofLead: (_, cable) => cable.thickness }

/** The wire in a lead: every centimetre of it counts. */
export const wire: Aspect = { name: 'wire', isLeadUnlike: (_, { awg }) => awg !== undefined }

/** Which device a lead came with, on a site that holds to that. */
export const suppliedWith: Aspect = {
  name: 'supplied with',
  ofRun: ({ index, run }) => (holdsToSupplied(index) ? [run.from.device, run.to.device] : null),
  ofLead: (index, { suppliedWith }) => (holdsToSupplied(index) ? suppliedWith : null),
  bears: {
    // it is told by the name of the device
    device: either((index, id) =>
      holdsToSupplied(index)
        ? (cablesSuppliedWith(index.plan.cables).get(id) ?? []).flatMap((cable) => laidIn(index, cable.id))
        : [],
    ),
  },
}

const holdsToSupplied = ({ plan }: SiteIndex): boolean => plan.policy.cables === 'supplied'

/** What was tried of other cables of the same kind. A change bears on a run only where the record that is told there is another. */
export const kindRecord: Aspect = {
  name: 'record of the kind',
  ofLead: (_, { kind }) => kind,
  bears: {
    *cable({ before, after }, id) {
      const kinds = new Set([before, after].flatMap((index) => index.cables.get(id)?.kind ?? []))
      for (const kind of kinds) {
        const gotHot = ranHotOfKind(before, kind) !== ranHotOfKind(after, kind)
        const tells = new Map<string | undefined, boolean>()
        for (const index of [before, after])
          for (const run of withKind(index, kind)) {
            const { controller } = socketAt(index, run.from).port
            const told = tells.get(controller) ?? (gotHot || tellsOfKind(before, after, id, kind, controller))
            tells.set(controller, told)
            if (told) yield run.id
          }
      }
    },
  },
}

/** What other cables copied between the same two sockets: a lead is the limit where another does clearly better. */
export const rivals: Aspect = {
  name: 'rivals',
  // a disk somewhere else may be changed while nothing of the lead is
  isLeadUnlike: (index, cable) => knownOf(index, cable).copies.some(isOddlySlow),
  bears: {
    *cable({ before, after }, id) {
      for (const { learned, runOf } of [before, after])
        for (const { way, spot } of learntOfCable(learned, id)?.copies ?? [])
          for (const [rival] of learned.copied.get(`${way} ${pairOf(spot)}`) ?? []) {
            const laid = runOf.get(rival)
            if (laid) yield laid.id
          }
    },
    // the disk that was copied to tells whether it held the copy back
    *device({ before, after }, id) {
      for (const { learned, runOf } of [before, after])
        for (const { subject, learnt } of learned.bySubject.values()) {
          const laid = 'cable' in subject ? runOf.get(subject.cable) : undefined
          if (laid && learnt.copies.some(({ spot }) => spot.far?.startsWith(`${id}/`))) yield laid.id
        }
    },
  },
}

/** Something of the devices at both ends. */
const ofDevices = (name: string, pick: (device: Device) => unknown): Aspect => ({
  name,
  ofRun: ({ index, run }) => endsOf(index, run).map(({ device }) => pick(device)),
})
export const batteries = ofDevices('batteries', ({ battery }) => battery)
export const disks = ofDevices('disks', ({ disk }) => disk)
export const busPower = ofDevices('bus power', ({ busPowered }) => busPowered)
export const drivers = ofDevices('drivers', (device) => device.drivers)
export const screens = ofDevices('screens', ({ screen }) => screen)
export const otherInputs = ofDevices('other inputs', ({ ports }) =>
  ports.some(({ displayport }) => displayport?.direction === 'in'),
)

/** The play area that a headset is worn in: each centimetre of its lead counts. */
export const playArea: Aspect = {
  name: 'play area',
  isRunUnlike: (index, run) => endsOf(index, run).some(({ device }) => isWornInArea(index, device)),
}
