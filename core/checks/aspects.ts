import { isWornInArea } from '../headset/area'
import { isOddlySlow } from '../link/copied'
import { knownOf } from '../link/lay'
import { outcomesOfCable } from '../link/outcomes'
import { ranHotOfKind, tellsOfKind } from '../link/record'
import { isCopies } from '../observe/figures'
import { learntOfCable } from '../observe/learned'
import { pairOf } from '../observe/spot'
import { cablesSuppliedWith, portKey, type SiteIndex, sharesSection, socketAt } from '../plan/site-index'
import { conditionsAlong } from '../route/fill'
import type { Device } from '../vocabulary/device'
import type { Run } from '../vocabulary/run'
import { type Aspect, either, endsOf, idsOf, laidIn, withKind } from './aspect'

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

const goesByBench = ({ plan }: SiteIndex): boolean => plan.policy.length === 'bench'

/** What came of a cable wherever it was tried, as it compares. */
function outcomesText(index: SiteIndex, id: string): string {
  const cable = index.cables.get(id)
  return cable ? JSON.stringify(outcomesOfCable(index, cable)) : ''
}

/** What was tried of other cables of the same kind. A change bears on a run only where the record that is told there is another. */
export const kindRecord: Aspect = {
  name: 'record of the kind',
  ofLead: (index, { kind, length }) => (goesByBench(index) ? [kind, length] : kind),
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
        // by the bench what one of a kind and length did speaks for the others
        if (goesByBench(after) && outcomesText(before, id) !== outcomesText(after, id))
          yield* idsOf(withKind(after, kind))
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
        for (const { measure, spot } of learntOfCable(learned, id)?.figures.filter(isCopies) ?? [])
          for (const [rival] of learned.copied.get(`${measure} ${pairOf(spot)}`) ?? []) {
            const laid = runOf.get(rival)
            if (laid) yield laid.id
          }
    },
    // the disk that was copied to tells whether it held the copy back
    *device({ before, after }, id) {
      for (const { learned, runOf } of [before, after])
        for (const { subject, learnt } of learned.bySubject.values()) {
          const laid = 'cable' in subject ? runOf.get(subject.cable) : undefined
          if (laid && learnt.figures.some(({ spot }) => spot.far?.startsWith(`${id}/`))) yield laid.id
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
