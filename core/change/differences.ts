import { formatNeedSize } from '../needs/need-text'
import type { Entities, ListName } from '../plan/entity'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { socketName } from '../plan/site-index'
import { formatLength } from '../quantity/length'
import { type Need, needLabel } from '../vocabulary/need'
import { leadKey, type PortAddress, type RunLead } from '../vocabulary/run'
import type { Edit, What } from './change'
import { same } from './merge'
import type { ChangeName } from './words'

/** How a field is named in the history. A value that is short enough is said as well, before and after. */
type Told<T> = readonly [name: string, say?: (value: NonNullable<T>, plan: Plan) => string]
type Fields<T> = { readonly [Field in Exclude<keyof T, 'id'>]-?: Told<T[Field]> }

const asIs = (value: string | number): string => String(value)
const metres = (value: number): string => formatLength(value)
const yesOrNo = (value: boolean): string => (value ? 'yes' : 'no')
const deviceName = (id: string, plan: Plan): string => byId(plan.devices).get(id)?.name ?? id
const placeName = (id: string, plan: Plan): string => byId(plan.places).get(id)?.name ?? id
const floorName = ({ floor }: { floor: string }, plan: Plan): string => byId(plan.floors).get(floor)?.name ?? floor

const portName = (address: PortAddress, plan: Plan): string => socketName(byId(plan.devices), address)

/** What a person calls a lead: its tag, or the kind it will be one of. */
export const leadTag = ({ cables, kinds }: Plan, lead: RunLead): string =>
  ('cable' in lead ? byId(cables).get(lead.cable)?.tag : byId(kinds).get(lead.kind)?.name) ?? leadKey(lead)

/** Every field of what people change by a form: a new one has to be named here before it compiles. */
const fields: {
  readonly runs: Fields<Entities['runs']>
  readonly cables: Fields<Entities['cables']>
  readonly devices: Fields<Entities['devices']>
  readonly places: Fields<Entities['places']>
  readonly floors: Fields<Entities['floors']>
  readonly pathways: Fields<Entities['pathways']>
  /** What every need has; its figures differ by kind, and are said as its size. */
  readonly needs: Fields<Pick<Entities['needs'], 'name' | 'from' | 'to' | 'priority' | 'through' | 'variants' | 'note'>>
} = {
  runs: {
    tag: ['tag', asIs],
    name: ['name', asIs],
    from: ['host port', portName],
    to: ['device port', portName],
    leads: ['leads', (leads, plan) => leads.map((lead) => leadTag(plan, lead)).join(' and ')],
    route: ['route', ({ length }) => metres(length)],
    waits: ['lead it waits for', ({ why }) => why],
    note: ['note'],
  },
  cables: {
    tag: ['tag', asIs],
    kind: ['kind', (id, plan) => byId(plan.kinds).get(id)?.name ?? id],
    ends: ['ends'],
    oneWay: ['direction'],
    length: ['length', metres],
    construction: ['construction', asIs],
    awg: ['gauge', (awg) => `${awg} AWG`],
    thickness: ['thickness', (thickness) => `${thickness} mm`],
    feed: ['feed', asIs],
    feedEnd: ['end it is fed at', asIs],
    pair: ['pair of USB 2.0', yesOrNo],
    copper: ['copper in it', yesOrNo],
    passesBack: ['power it passes back'],
    passesOn: ['power it passes on'],
    suppliedWith: ['device it came with', deviceName],
    standing: ['standing', asIs],
    note: ['note'],
  },
  devices: {
    name: ['name', asIs],
    kind: ['kind', asIs],
    place: ['place', placeName],
    at: ['spot on the floor'],
    height: ['height', metres],
    noise: ['noise', ({ level }) => `${level} dB`],
    installed: [
      'installed versions',
      (installed) => installed.map(({ what, version }) => `${what} ${version}`).join(', '),
    ],
    screen: ['reading of its display', ({ name = '' }) => name],
    seen: ['day it was looked at', asIs],
    visits: ['seat', deviceName],
    battery: ['battery'],
    disk: ['drive'],
    decoder: ['decoder'],
    pictureOverUsb: ['pictures over USB'],
    rated: ['rated lengths'],
    drivers: ['drivers', asIs],
    pool: ['shared charging'],
    keeps: ['watts it keeps', (watts) => `${watts} W`],
    controllers: ['controllers'],
    busPowered: ['power from the bus', yesOrNo],
    ports: ['ports'],
    note: ['note'],
  },
  places: {
    name: ['name', asIs],
    mains: ['mains', (mains) => (mains === true ? 'within reach' : mains ? 'not known' : 'not within reach')],
    outlet: ['distance to an outlet', metres],
    at: ['spot on the floor', floorName],
    height: ['height', metres],
    area: ['size on the floor', ({ width, depth }) => `${metres(width)} by ${metres(depth)}`],
    quiet: ['sound it may have', (level) => `${level} dB`],
    seen: ['day it was looked at', asIs],
    photos: ['photos'],
    note: ['note'],
  },
  floors: { name: ['name', asIs], level: ['level', metres], drawing: ['drawing'], note: ['note'] },
  pathways: {
    name: ['name', asIs],
    kind: ['kind', asIs],
    points: ['course'],
    inner: ['inner diameter', (inner) => `${inner} mm`],
    free: ['free space', (free) => `${free} mm²`],
    beside: ['cables in it before'],
    through: ['surroundings'],
    closed: ['closed', yesOrNo],
    note: ['note'],
  },
  needs: {
    name: ['name', asIs],
    from: ['source', deviceName],
    to: ['target', deviceName],
    priority: ['priority', asIs],
    through: ['path', (runs, plan) => runs.map((id) => byId(plan.runs).get(id)?.tag ?? id).join(' and ')],
    variants: ['variants'],
    note: ['note'],
  },
}
type ToldList = keyof typeof fields

/** What became of one thing, a phrase for each field: "the name from Shelf disk A to Shelf disk 1", "the note". */
export function differences<List extends ToldList>(
  plan: Plan,
  list: List,
  before: Entities[List],
  after: Entities[List],
): string[] {
  const told = fields[list] as Readonly<Record<string, Told<never>>>
  const size = list === 'needs' ? sizeChanged(before as Need, after as Need) : []
  const rest = Object.entries(told).flatMap(([field, [name, say]]) => {
    const [was, is] = [before[field as keyof typeof before], after[field as keyof typeof after]]
    if (same(was, is)) return []
    const said = (value: unknown): string => (value === undefined || !say ? '' : say(value as never, plan))
    const [old, now] = [said(was), said(is)]
    if (old === now) return `the ${name}`
    if (old === '') return `the ${name} to ${now}`
    return now === '' ? `the ${name}, which was ${old}` : `the ${name} from ${old} to ${now}`
  })
  return [...size, ...rest]
}

function sizeChanged(before: Need, after: Need): string[] {
  const [old, now] = [formatNeedSize(before), formatNeedSize(after)]
  return old === now ? [] : [`the size from ${old} to ${now}`]
}

/** What a form's change of one thing is called: a new name alone is a renaming, everything else is listed before and after, with what else the change did. */
export const changedWhat =
  <List extends ToldList>(name: ChangeName, list: List, id: string, more: readonly string[] = []) =>
  (plan: Plan, edits: readonly Edit[]): What => {
    const items: readonly { id: string }[] = plan[list]
    const before = items.find((each) => each.id === id) as Entities[List] | undefined
    const after = edits.find((edit) => edit.list === list && edit.id === id)?.value as Entities[List] | undefined
    const called = calledIn(plan, list, after ?? before) ?? id
    if (!before || !after) return { name, about: [called] }
    const what = [...differences(plan, list, before, after), ...more]
    const old = calledIn(plan, list, before)
    return what.length === 1 && list !== 'needs' && old !== undefined && old !== called
      ? { name: 'rename', about: [called, old] }
      : { name, about: [called, ...what] }
  }

/** Whether what becomes of the things of a list is said field by field. */
export const isTold = (list: ListName): list is ToldList => list in fields

/** What a thing is called: its tag or name, and a need by what it is and where it flows to. */
export const calledIn = <List extends ToldList>(
  plan: Plan,
  list: List,
  entity: Entities[List] | undefined,
): string | undefined => (list === 'needs' && entity ? needLabel(entity as Need, byId(plan.devices)) : nameOf(entity))

const nameOf = (entity: object | undefined): string | undefined => {
  const { tag, name } = (entity ?? {}) as { tag?: string; name?: string }
  return tag ?? name
}
