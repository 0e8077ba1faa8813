import { readNeedSize } from '../../needs/need-text'
import { byId } from '../../plan/lookup'
import type { Plan } from '../../plan/plan'
import { put } from '../../plan/put'
import type { Metres } from '../../quantity/length'
import { formatLength } from '../../quantity/length'
import type { Device } from '../../vocabulary/device'
import type { Spot } from '../../vocabulary/floor'
import type { Need } from '../../vocabulary/need'
import type { Place } from '../../vocabulary/place'
import { type Run, withLength } from '../../vocabulary/run'
import { replay } from '../apply'
import type { ChangeToMake, Edit, Faults, LogPosition } from '../change'
import { copyOf } from '../copy'
import { calledIn } from '../differences'
import { editsBetween } from '../edits-between'
import { moveSpot } from './floors'
import { deleteRun } from './run'
import { whatUses } from './survey'

/** What can be chosen many at once. */
export const MANY_LISTS = ['runs', 'devices', 'needs', 'places'] as const
export type ManyList = (typeof MANY_LISTS)[number]

/** So many things at once. */
export const MOST_MANY = 500

/** What is to become of them. */
export type ManyAction =
  | { do: 'delete' }
  | { do: 'rename'; find: string; replace: string }
  | { do: 'note'; note: string }
  | { do: 'move'; place: string }
  | { do: 'length'; length: Metres }
  | { do: 'priority'; priority: number | null }
  | { do: 'size'; size: string }
  | { do: 'mains'; mains: Place['mains'] }
  | { do: 'shift'; right: Metres; down: Metres }

/** What can be done with the things of each list, the most usual first. */
export const MANY_ACTIONS = {
  runs: ['length', 'note', 'rename', 'delete'],
  devices: ['move', 'rename', 'note', 'delete'],
  needs: ['size', 'priority', 'rename', 'note', 'delete'],
  places: ['shift', 'mains', 'rename', 'note', 'delete'],
} as const satisfies Record<ManyList, readonly ManyAction['do'][]>

type Thing = Run | Device | Need | Place
const refused = (path: string, reason: string): Faults => ({ outcome: 'refused', faults: [{ path, reason }] })

/**
 * One change of many things of a list, in the order of the plan; what would stay as it is is no part of it. Refused where one of them cannot be so, and where
 * nothing would change.
 */
export function changeMany(
  plan: Plan,
  base: LogPosition,
  list: ManyList,
  ids: ReadonlySet<string>,
  action: ManyAction,
): ChangeToMake | Faults {
  const chosen = (plan[list] as readonly Thing[]).filter(({ id }) => ids.has(id))
  const made = edited(plan, base, list, chosen, action)
  if ('outcome' in made) return made
  const { edits, did } = made
  if (edits.length === 0) return refused(list, 'nothing would change')
  const changed = new Set(edits.map(({ id }) => id))
  const names = chosen
    .filter(({ id }) => changed.has(id))
    .map((thing) => calledIn(plan, list, thing as never) ?? thing.id)
  return { what: { name: 'change many', about: [did, ...names] }, edits }
}

type Made = { edits: readonly Edit[]; did: string }

function edited(
  plan: Plan,
  base: LogPosition,
  list: ManyList,
  chosen: readonly Thing[],
  action: ManyAction,
): Made | Faults {
  const each = (did: string, become: (thing: Thing) => Thing): Made => {
    const after = chosen.reduce((now, thing) => put(now, list, become(thing) as never), plan)
    return { did, edits: editsBetween(plan, after, base) }
  }
  switch (action.do) {
    case 'delete':
      return deleted(plan, base, list, chosen)
    case 'rename': {
      const { find, replace } = action
      if (find === '') return refused(list, 'say what is to be replaced')
      const names = chosen.map((thing) => renamed(thing, find, replace))
      const empty = names.find((thing) => written(thing)?.trim() === '')
      if (empty) return refused(list, `a name would be empty`)
      return each(`replaced “${find}” with “${replace}”`, (thing) => renamed(thing, find, replace))
    }
    case 'note': {
      const note = action.note.trim()
      return each(note === '' ? 'removed the notes' : 'noted the same', ({ note: _, ...thing }) =>
        note === '' ? thing : ({ ...thing, note } as Thing),
      )
    }
    case 'move': {
      const place = byId(plan.places).get(action.place)
      if (!place) return refused('place', 'choose where they stand')
      return each(`moved to ${place.name}`, (thing) => {
        const { at: _, ...rest } = thing as Device
        return { ...rest, place: place.id }
      })
    }
    case 'length':
      return each(`set the route to ${formatLength(action.length)}`, (thing) => {
        const run = thing as Run
        return { ...run, route: withLength(run.route, action.length) }
      })
    case 'priority': {
      const { priority } = action
      return each(priority === null ? 'removed the priority' : `set the priority to ${priority}`, (thing) => {
        const { priority: _, ...rest } = thing as Need
        return (priority === null ? rest : { ...rest, priority }) as Need
      })
    }
    case 'size': {
      for (const thing of chosen) {
        const size = readNeedSize((thing as Need).kind, action.size)
        if (!size.ok) return refused('size', `${calledIn(plan, list, thing as never)}: ${size.problem}`)
      }
      return each(`set the size to ${action.size.trim()}`, (thing) => sized(thing as Need, action.size))
    }
    case 'mains': {
      const { mains } = action
      const words = mains === true ? 'within reach' : mains ? 'not known' : 'not within reach'
      return each(`set mains to ${words}`, (thing) => ({ ...(thing as Place), mains }))
    }
    case 'shift':
      return shifted(plan, base, chosen as readonly Place[], action)
  }
}

/** The name that is written on a thing; a need may have none. */
const written = (thing: Thing): string | undefined => ('tag' in thing ? thing.tag : thing.name)

function renamed(thing: Thing, find: string, replace: string): Thing {
  const name = written(thing)?.replaceAll(find, () => replace)
  if (name === undefined) return thing
  return 'tag' in thing ? { ...thing, tag: name } : ({ ...thing, name } as Thing)
}

/** The need at another size: what its size said before is gone, what else was said of it stays. */
function sized(need: Need, text: string): Need {
  const size = readNeedSize(need.kind, text)
  if (!size.ok) return need
  const { said: _, ...rest } = need
  const fields = rest as Record<string, unknown>
  for (const field of ['mode', 'rate', 'back', 'watts']) delete fields[field]
  return { ...fields, ...size.value } as Need
}

function deleted(plan: Plan, base: LogPosition, list: ManyList, chosen: readonly Thing[]): Made | Faults {
  if (list === 'runs') {
    const after = chosen.reduce((copy, run) => {
      const { edits } = deleteRun(copy.plan, base, run as Run)
      return replay(copy, edits).copy
    }, copyOf(plan))
    return { did: 'deleted', edits: editsBetween(plan, after.plan, base) }
  }
  const held = list === 'devices' ? chosen.flatMap((device) => whatUses(plan, device as Device)) : []
  const peopled =
    list === 'places'
      ? chosen.flatMap(({ id }) => {
          const standing = plan.devices.filter(({ place }) => place === id).length
          const name = byId(plan.places).get(id)?.name ?? id
          return standing > 0 ? { path: 'places', reason: `${name} still has devices (${standing})` } : []
        })
      : []
  const faults = [...held, ...peopled]
  if (faults.length > 0) return { outcome: 'refused', faults }
  return { did: 'deleted', edits: chosen.map(({ id }): Edit => ({ list, id, base, value: null })) }
}

/** Places moved over their floor by so much, with whatever is joined to them, each spot once. */
function shifted(
  plan: Plan,
  base: LogPosition,
  places: readonly Place[],
  { right, down }: { right: Metres; down: Metres },
): Made | Faults {
  const spots = new Map<string, Spot>()
  for (const { at } of places) if (at) spots.set(JSON.stringify(at), at)
  if (spots.size === 0) return refused('places', 'none of these places is on a floor yet')
  // the foremost goes first, so that none moves onto one that has yet to move
  const order = [...spots.values()].sort((one, other) => right * (other.x - one.x) + down * (other.y - one.y))
  const after = order.reduce((copy, spot) => {
    const { edits } = moveSpot(copy.plan, base, spot, { ...spot, x: spot.x + right, y: spot.y + down })
    return replay(copy, edits).copy
  }, copyOf(plan))
  const did = [
    right && `${formatLength(Math.abs(right))} ${right > 0 ? 'right' : 'left'}`,
    down && `${formatLength(Math.abs(down))} ${down > 0 ? 'down' : 'up'}`,
  ]
  return { did: `moved ${did.filter(Boolean).join(' and ')}`, edits: editsBetween(plan, after.plan, base) }
}
