import {
  type Entities,
  type Entity,
  type EntityList,
  entityLists,
  type Fault,
  foldId,
  isPlanList,
  LIST_NAMES,
  type ListName,
  type Reference,
} from '../plan/entity'
import { planLists } from '../plan/lists'
import { byId, planLookup } from '../plan/lookup'
import { PLAN_LISTS, type Plan, type PlanList } from '../plan/plan'
import { faultsOf, faultsOfEntity, LARGEST_GROWN_BYTES, LARGEST_PLAN_BYTES, SPARE_BYTES } from '../plan/read'
import { bytesOfEntity } from '../plan/write'
import { madeFrom } from '../work/kept'
import {
  type Applied,
  type Change,
  type Clash,
  type Conflict,
  type Copy,
  type Edit,
  entityKey,
  type Faults,
  revisionOf,
  touchedBy,
} from './change'
import { entityAt } from './copy'

/**
 * Applies a change to a copy of a site. Pure: the copy stays as it was.
 *
 * Answers the new copy at the next place, with what takes the change back; or a conflict, where an entity was changed after the place its edit was made
 * from; or faults, where the outcome would not be a plan that could be a file. Only what the change touches is read and checked, which comes to the
 * same as reading the whole plan anew.
 */
export function applyChange(copy: Copy, change: Pick<Change, 'edits' | 'undoes'>): Applied | Conflict | Faults {
  const faults: Fault[] = []
  const edits = change.edits.map((edit) => readEdit(copy, edit, faults))
  if (new Set(edits.map(({ list, id }) => entityKey(list, id))).size < edits.length)
    faults.push({ path: '(change)', reason: 'it changes one thing twice' })
  if (faults.length > 0) return { outcome: 'refused', faults }
  const clashes = edits.flatMap((edit) => clashOf(copy, edit) ?? [])
  if (clashes.length > 0) return { outcome: 'conflict', clashes }

  const { copy: after, inverse } = replay(copy, edits)
  const wrong = faultsAfter(copy, after, edits, change.undoes !== undefined)
  if (wrong.length > 0) return { outcome: 'refused', faults: wrong }
  return {
    outcome: 'applied',
    copy: after,
    edits,
    inverse,
    touched: touchedBy(edits),
  }
}

/** The edit with its value as the reader reads it; what the reader would not take becomes a fault. */
function readEdit(copy: Copy, edit: Edit, faults: Fault[]): Edit {
  const { list, id, base, value } = edit
  const path = `${list}/${id}`
  if (!LIST_NAMES.includes(list)) {
    faults.push({ path, reason: `there is no list "${list}"` })
    return edit
  }
  if (base !== null && !(Number.isInteger(base) && base >= 1 && base <= copy.place))
    faults.push({ path, reason: 'it was made from a copy of the site that there has not been' })
  if (value === null) {
    if (!isPlanList(list)) faults.push({ path, reason: 'a site has it always' })
    return edit
  }
  const read = entityLists[list].schema.safeParse(value)
  if (!read.success) {
    for (const issue of read.error.issues)
      for (const fault of faultsOf(issue)) faults.push({ ...fault, path: `${path}.${fault.path}` })
    return edit
  }
  const ownId = isPlanList(list) ? id : list === 'site' ? copy.plan.site.id : undefined
  if (ownId !== undefined && (read.data as { id?: string }).id !== ownId)
    faults.push({ path: `${path}.id`, reason: 'an id stays what it is' })
  return { ...edit, value: read.data }
}

function clashOf(copy: Copy, { list, id, base, value }: Edit): Clash | null {
  const theirs = entityAt(copy.plan, list, id)
  const clash = { list, id, fields: [], mine: value, theirs }
  if (theirs === null) return base === null ? null : clash
  return base === null || revisionOf(copy, list, id) > base ? clash : null
}

/**
 * Applies edits that are known to fit, as a copy does that catches up with its site's log.
 */
export function replay(copy: Copy, edits: readonly Edit[]): { copy: Copy; inverse: Edit[] } {
  const place = copy.place + 1
  const plan: Plan = { ...copy.plan }
  const revisions = new Map(copy.revisions)
  const inverse: Edit[] = []
  let { bytes, grown } = copy
  for (const list of LIST_NAMES) {
    const own = edits.filter((edit) => edit.list === list)
    if (own.length === 0) continue
    const { grows } = entityLists[list] as EntityList<Entity>
    for (const edit of own) {
      const was = entityAt(copy.plan, list, edit.id)
      const more = (edit.value === null ? 0 : bytesOfEntity(edit.value)) - (was === null ? 0 : bytesOfEntity(was))
      if (grows) {
        grown += more
        continue
      }
      bytes += more
      const key = entityKey(list, edit.id)
      if (edit.value === null) revisions.delete(key)
      else revisions.set(key, place)
    }
    if (isPlanList(list)) {
      const { items, back } = placed(list, plan[list], own, place)
      plan[list] = items as never
      inverse.push(...back)
    } else {
      const [edit] = own
      if (!edit?.value) continue
      inverse.push({ ...edit, base: place, value: plan[list] } as Edit)
      plan[list] = edit.value as never
    }
  }
  return { copy: { plan, place, revisions, bytes, grown }, inverse: inverse.reverse() }
}

type Item = { id: string }

/** The list after its edits, made from the one before, and the edits that take them back, in the order of the edits. */
function placed(
  list: PlanList,
  before: readonly Item[],
  edits: readonly Edit[],
  place: number,
): { items: readonly Item[]; back: Edit[] } {
  const ids = byId<Item>(before)
  const back: Edit[] = []
  const inPlace = new Map<string, Item>()
  const removed: Item[] = []
  const added: Item[] = []
  const moving: Edit[] = []
  for (const edit of edits) {
    const was = ids.get(edit.id)
    const value = edit.value as Item | null
    if (was && value && edit.before === undefined) {
      inPlace.set(edit.id, value)
      back.push({ list, id: edit.id, base: place, value: was as never })
      continue
    }
    moving.push(edit)
    if (was && !value) removed.push(was)
    if (!was && value) added.push(value)
  }
  const items = inPlace.size > 0 ? before.map((item) => inPlace.get(item.id) ?? item) : [...before]
  const replaced = Array.from(inPlace, ([id, is]): [Item, Item] => [ids.get(id) as Item, is])
  let reordered = false
  for (const edit of moving) {
    const was = ids.get(edit.id) ?? null
    const at = was === null ? -1 : items.findIndex(({ id }) => id === edit.id)
    const next = at < 0 ? null : (items[at + 1]?.id ?? null)
    if (at >= 0) items.splice(at, 1)
    if (edit.value !== null) {
      const anchor = edit.before ? items.findIndex(({ id }) => id === edit.before) : -1
      if (anchor < 0) items.push(edit.value as Item)
      else items.splice(anchor, 0, edit.value as Item)
      reordered ||= was !== null || anchor >= 0
      if (was) replaced.push([was, edit.value as Item])
    }
    back.push({
      list,
      id: edit.id,
      base: edit.value === null ? null : place,
      value: was as never,
      ...(was === null ? {} : { before: next }),
    })
  }
  return { items: madeFrom<Item, readonly Item[]>(before, items, { replaced, added, removed, reordered }), back }
}

/** Everything that keeps the outcome from being a plan that could be a file. */
function faultsAfter(before: Copy, after: Copy, edits: readonly Edit[], undo: boolean): Fault[] {
  const faults: Fault[] = []
  const lookup = planLookup(after.plan, 'either')
  for (const list of new Set(edits.map((edit) => edit.list))) {
    if (isPlanList(list)) faults.push(...tooMany(list, before.plan, after.plan, edits))
  }
  for (const edit of edits) {
    if (!isPlanList(edit.list) || edit.value === null) continue
    for (const { path, reason } of faultsOfEntity(edit.list, edit.value as never, lookup))
      faults.push({ path: `${edit.list}/${edit.id}.${path}`, reason })
  }
  faults.push(...sameButForCase(before.plan, edits))
  faults.push(...leftDangling(before.plan, after.plan, edits))
  faults.push(...whatGrowsStays(before.plan, edits, undo))
  faults.push(...whatIsFrozenStays(edits, undo))
  if (after.bytes > LARGEST_PLAN_BYTES && after.bytes > before.bytes)
    faults.push({
      path: '(site)',
      reason: `the site would be larger than ${LARGEST_PLAN_BYTES / 1e6} MB without what was seen, the most there may be`,
    })
  const retracts = edits.every(({ value }) => value === null || ('kind' in value && value.kind === 'retraction'))
  if (after.grown > LARGEST_GROWN_BYTES + (retracts ? SPARE_BYTES : 0) && after.grown > before.grown)
    faults.push({
      path: '(site)',
      reason: `what was seen would be larger than ${LARGEST_GROWN_BYTES / 1e6} MB, the most there may be`,
    })
  return faults
}

/** More than a site may have of a list; what there is always room for, such as taking something back, has room of its own. */
function* tooMany<List extends PlanList>(
  list: List,
  before: Plan,
  after: Plan,
  edits: readonly Edit[],
): Iterable<Fault> {
  const { most, spare } = entityLists[list] as EntityList<Entities[List]>
  const count = after[list].length
  if (count <= most || count <= before[list].length) return
  const spared =
    spare !== undefined &&
    edits.every((edit) => edit.list !== list || edit.value === null || spare.isSpare(edit.value as Entities[List]))
  if (!spared || count > most + spare.room) yield { path: list, reason: `a site has at most ${most} ${list}` }
}

/** Ids that a person says are told apart by more than their case. */
function* sameButForCase(plan: Plan, edits: readonly Edit[]): Iterable<Fault> {
  for (const list of PLAN_LISTS) {
    const fresh = edits.filter((edit) => edit.list === list && edit.base === null && edit.value !== null)
    if (fresh.length === 0 || foldId(list, 'A') === 'A') continue
    const gone = new Set(edits.filter((edit) => edit.list === list && edit.value === null).map(({ id }) => id))
    const taken = new Set<string>()
    for (const { id } of plan[list]) if (!gone.has(id)) taken.add(foldId(list, id))
    for (const { id } of fresh) {
      if (taken.has(foldId(list, id))) yield { path: `${list}/${id}.id`, reason: `"${id}" is used twice` }
      taken.add(foldId(list, id))
    }
  }
}

/** What names something that the change took away: the entity, a port of a device, a test of a session. */
function* leftDangling(before: Plan, after: Plan, edits: readonly Edit[]): Iterable<Fault> {
  const gone = new Set<string>()
  for (const { list, id, value } of edits) {
    if (value === null) gone.add(`${list} ${id}`)
    for (const part of partsLost(list, entityAt(before, list, id), value)) gone.add(part)
  }
  if (gone.size === 0) return
  for (const list of PLAN_LISTS) {
    const { references } = entityLists[list] as { references?(entity: Entity): Iterable<Reference> }
    if (!references) continue
    for (const entity of after[list] as readonly (Entity & Item)[]) {
      for (const reference of references(entity)) {
        if (namesOf(reference).some((name) => gone.has(name)))
          yield { path: `${list}/${entity.id}.${reference.path}`, reason: stillNamed(list, entity) }
      }
    }
  }
}

function partsLost(list: ListName, was: Entity | null, now: Entity | null): string[] {
  if (was === null || now === null) return []
  if (list === 'devices') {
    const ports = new Set((now as Entities['devices']).ports.map(({ id }) => id))
    const { id, ports: had } = was as Entities['devices']
    return had.filter((port) => !ports.has(port.id)).map((port) => `port ${id}/${port.id}`)
  }
  if (list === 'sessions') {
    const tests = new Set((now as Entities['sessions']).tests.map(({ id }) => id))
    const { id, tests: had } = was as Entities['sessions']
    return had.filter((test) => !tests.has(test.id)).map((test) => `test ${id}/${test.id}`)
  }
  return []
}

const namesOf = (reference: Reference): string[] =>
  reference.to === 'port'
    ? [`devices ${reference.address.device}`, `port ${reference.address.device}/${reference.address.port}`]
    : reference.to === 'test'
      ? [`sessions ${reference.session}`, `test ${reference.session}/${reference.id}`]
      : [`${reference.to} ${reference.id}`]

const stillNamed = (list: PlanList, entity: Entity & Item): string => {
  const name = 'tag' in entity ? entity.tag : 'name' in entity && entity.name ? entity.name : entity.id
  return `${planLists[list].noun} "${name}" still needs it`
}
/** What a list only grows by is never changed; it goes only with what it is about, or with the change that wrote it down. */
function* whatGrowsStays(before: Plan, edits: readonly Edit[], undo: boolean): Iterable<Fault> {
  const removed = new Set(edits.filter(({ value }) => value === null).map(({ list, id }) => entityKey(list, id)))
  for (const { list, id, base, value } of edits) {
    const { grows, noun } = entityLists[list] as EntityList<Entity>
    if (!grows) continue
    if (value !== null && base !== null)
      yield { path: `${list}/${id}`, reason: `an ${noun} is never changed; retract it and write another` }
    if (value !== null || undo) continue
    const was = entityAt(before, list, id)
    const about = was && grows(was)
    if (!about || !removed.has(entityKey(about.list as ListName, about.id)))
      yield { path: `${list}/${id}`, reason: `an ${noun} is not taken away; retract it and say why` }
  }
}

/** What is frozen is never changed, and goes only with the undo of the change that made it. */
function* whatIsFrozenStays(edits: readonly Edit[], undo: boolean): Iterable<Fault> {
  for (const { list, id, base, value } of edits) {
    const { frozen, noun } = entityLists[list] as EntityList<Entity>
    if (frozen && base !== null && (value !== null || !undo))
      yield { path: `${list}/${id}`, reason: `a ${noun} is never changed; make another` }
  }
}
