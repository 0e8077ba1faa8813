import type { z } from 'zod'
import { type Observation, observationSchema } from '../observe/observation'
import { sameLength } from '../quantity/length'
import { lengthOfLegs } from '../route/legs'
import { type Cable, type CableKind, cableKindSchema, cableSchema } from './cable'
import { type Device, deviceSchema } from './device'
import { foldTag } from './fields'
import { type Floor, floorSchema, type Pathway, type PathwayPoint, pathwaySchema } from './floor'
import { type Upgrade, upgradeSchema } from './growth'
import { type Need, needSchema } from './need'
import { MOST, PLAN_LISTS, type Place, type PlanList, placeSchema, type Site, siteSchema } from './plan'
import { type Policy, policySchema } from './policy'
import { type PortAddress, type Run, type RunLead, runSchema } from './run'
import { type Session, type Soak, sessionSchema, soakSchema } from './session'

/** Everything of a plan that has an id of its own and changes by itself; the site and its policy are lists of one. */
export type Entities = {
  site: Site
  policy: Policy
  floors: Floor
  places: Place
  pathways: Pathway
  devices: Device
  kinds: CableKind
  cables: Cable
  runs: Run
  needs: Need
  upgrades: Upgrade
  sessions: Session
  soaks: Soak
  observations: Observation
}
export type ListName = keyof Entities
export type Entity = Entities[ListName]
export const LIST_NAMES = ['site', 'policy', ...PLAN_LISTS] as const satisfies readonly ListName[]
export const isPlanList = (list: ListName): list is PlanList => list !== 'site' && list !== 'policy'

/** The form in which two ids of a list are one: people say most of them, and nobody says that of an observation. */
export const foldId = (list: PlanList, id: string): string => (list === 'observations' ? id : id.toLowerCase())

/** Something an entity names that must be there. */
export type Reference = { path: string } & (
  | {
      to: 'floors' | 'places' | 'pathways' | 'devices' | 'kinds' | 'cables' | 'runs' | 'sessions' | 'observations'
      id: string
    }
  | { to: 'port'; address: PortAddress }
  | { to: 'test'; session: string; id: string }
)

/** What no two entities of a list may share, in the folded form in which two are one. */
export type Key = { path: string; key: string; taken(by: string): string }

export type Fault = { path: string; reason: string }

/** What the reader, the changes and the database ask of a list of entities. A new kind of entity is one more of these. */
export type EntityList<T> = {
  schema: z.ZodType<T>
  /** Entities of the list at most. */
  most: number
  /** Its tag, where it has one: the database keeps the folded form unique as well. */
  tag?(entity: T): string
  keys?(entity: T): Iterable<Key>
  references?(entity: T): Iterable<Reference>
  /** What is wrong with the entity by itself and no schema can say. */
  faults?(entity: T): Iterable<Fault>
}

const samePoint = (one: PathwayPoint, other: PathwayPoint): boolean =>
  one.floor === other.floor && one.x === other.x && one.y === other.y && one.height === other.height

const tagKey = (tag: string): Key => ({
  path: 'tag',
  key: `tag ${foldTag(tag)}`,
  taken: () => `"${tag}" is used twice`,
})

function* portReferences(ends: { from: PortAddress; to: PortAddress }, path = ''): Iterable<Reference> {
  yield { path: `${path}from`, to: 'port', address: ends.from }
  yield { path: `${path}to`, to: 'port', address: ends.to }
}

function* repeatedIds(path: string, items: readonly { id: string }[]): Iterable<Fault> {
  const seen = new Set<string>()
  for (const [at, { id }] of items.entries()) {
    const folded = id.toLowerCase()
    if (seen.has(folded)) yield { path: `${path}[${at}].id`, reason: `"${id}" is used twice` }
    seen.add(folded)
  }
}

/** The cables among leads, each with its place in the run. */
const cablesAmong = (leads: readonly RunLead[]): [number, string][] =>
  leads.flatMap((lead, at): [number, string][] => ('cable' in lead ? [[at, lead.cable]] : []))

export const entityLists: { readonly [List in ListName]: EntityList<Entities[List]> } = {
  site: { schema: siteSchema, most: 1 },
  policy: { schema: policySchema, most: 1 },
  floors: { schema: floorSchema, most: MOST.floors },
  places: {
    schema: placeSchema,
    most: MOST.places,
    *references({ at }) {
      if (at) yield { path: 'at.floor', to: 'floors', id: at.floor }
    },
  },
  pathways: {
    schema: pathwaySchema,
    most: MOST.pathways,
    *references({ points }) {
      for (const [at, { floor }] of points.entries()) yield { path: `points[${at}].floor`, to: 'floors', id: floor }
    },
    *faults({ points }) {
      for (const [at, point] of points.entries()) {
        const before = points[at - 1]
        if (before && samePoint(before, point))
          yield { path: `points[${at}]`, reason: 'a pathway goes on from point to point; two of its points are one' }
      }
    },
  },
  devices: {
    schema: deviceSchema,
    most: MOST.devices,
    *references({ at, place, visits }) {
      if (at) yield { path: 'at.floor', to: 'floors', id: at.floor }
      if (place) yield { path: 'place', to: 'places', id: place }
      if (visits) yield { path: 'visits', to: 'devices', id: visits }
    },
    *faults({ id, ports, visits }) {
      yield* repeatedIds('ports', ports)
      if (visits === id) yield { path: 'visits', reason: 'a device cannot visit itself' }
    },
  },
  kinds: { schema: cableKindSchema, most: MOST.kinds },
  cables: {
    schema: cableSchema,
    most: MOST.cables,
    tag: ({ tag }) => tag,
    keys: ({ tag }) => [tagKey(tag)],
    *references({ kind, suppliedWith }) {
      if (kind) yield { path: 'kind', to: 'kinds', id: kind }
      if (suppliedWith) yield { path: 'suppliedWith', to: 'devices', id: suppliedWith }
    },
  },
  runs: {
    schema: runSchema,
    most: MOST.runs,
    tag: ({ tag }) => tag,
    *keys({ tag, leads }) {
      yield tagKey(tag)
      for (const [at, cable] of cablesAmong(leads))
        yield {
          path: `leads[${at}].cable`,
          key: `lead ${cable}`,
          taken: (by) => `cable "${cable}" already lies in run "${by}"`,
        }
    },
    *references(run) {
      yield* portReferences(run)
      for (const [at, lead] of run.leads.entries())
        yield 'cable' in lead
          ? { path: `leads[${at}].cable`, to: 'cables', id: lead.cable }
          : { path: `leads[${at}].kind`, to: 'kinds', id: lead.kind }
      for (const [at, { pathway }] of (run.route.legs ?? []).entries())
        if (pathway) yield { path: `route.legs[${at}].pathway`, to: 'pathways', id: pathway }
    },
    *faults({ id, from, to, leads, route }) {
      if (route.legs && !sameLength(route.length, lengthOfLegs(route.legs)))
        yield { path: 'route.length', reason: 'the length of a route is the sum of its legs' }
      if (from.device === to.device && from.port === to.port)
        yield { path: 'to', reason: 'a run cannot end at the port it starts from' }
      const seen = new Set<string>()
      for (const [at, cable] of cablesAmong(leads)) {
        if (seen.has(cable))
          yield { path: `leads[${at}].cable`, reason: `cable "${cable}" already lies in run "${id}"` }
        seen.add(cable)
      }
    },
  },
  needs: {
    schema: needSchema,
    most: MOST.needs,
    *references({ from, to, through = [] }) {
      yield { path: 'from', to: 'devices', id: from }
      yield { path: 'to', to: 'devices', id: to }
      for (const [at, id] of through.entries()) yield { path: `through[${at}]`, to: 'runs', id }
    },
    *faults({ from, to }) {
      if (from === to) yield { path: 'to', reason: 'a need flows between two devices' }
    },
  },
  upgrades: {
    schema: upgradeSchema,
    most: MOST.upgrades,
    *references({ growth }) {
      for (const [at, each] of growth.entries())
        if (each.what === 'display') yield { path: `growth[${at}].at`, to: 'devices', id: each.at }
    },
  },
  sessions: {
    schema: sessionSchema,
    most: MOST.sessions,
    *references({ cables, tests }) {
      for (const [at, id] of cables.entries()) yield { path: `cables[${at}]`, to: 'cables', id }
      for (const [at, test] of tests.entries()) yield* portReferences(test, `tests[${at}].`)
    },
    faults: ({ tests }) => repeatedIds('tests', tests),
  },
  soaks: {
    schema: soakSchema,
    most: MOST.soaks,
    keys: ({ session, cable }) => [
      { path: 'cable', key: `soak ${session} ${cable}`, taken: () => `cable "${cable}" already soaks in this session` },
    ],
    *references({ session, test, cable }) {
      yield { path: 'session', to: 'sessions', id: session }
      yield { path: 'test', to: 'test', session, id: test }
      yield { path: 'cable', to: 'cables', id: cable }
    },
  },
  observations: {
    schema: observationSchema,
    most: MOST.observations,
    *references(observation) {
      const { subject } = observation
      if ('cable' in subject) yield { path: 'subject.cable', to: 'cables', id: subject.cable }
      else if ('run' in subject) yield { path: 'subject.run', to: 'runs', id: subject.run }
      else if ('kind' in subject) yield { path: 'subject.kind', to: 'kinds', id: subject.kind }
      else if ('controller' in subject) yield { path: 'subject.device', to: 'devices', id: subject.device }
      else if (subject.port === undefined) yield { path: 'subject.device', to: 'devices', id: subject.device }
      else yield { path: 'subject', to: 'port', address: { device: subject.device, port: subject.port } }
      if (observation.kind === 'retraction') yield { path: 'retracts', to: 'observations', id: observation.retracts }
    },
  },
}
