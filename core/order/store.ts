import type { Copy } from '../change/change'
import { adoptLearned, everythingLearnt, learnedOf, type ToldLearnt } from '../observe/learned'
import { type Learnt, withSeries } from '../observe/learnt'
import type { Spot } from '../observe/spot'
import type { Plan } from '../plan/plan'
import type { Cable, CableKind } from '../vocabulary/cable'

/** A shop's own store: a site without runs that keeps leads. What is free there may be laid here. */
export type Store = {
  site: string
  name: string
  cables: readonly Cable[]
  /** The kinds that these are of. */
  kinds: readonly CableKind[]
  /** What was learnt of these cables there. */
  learned: ToldLearnt
}

/** Leads of one store that are looked at, at most. */
export const MOST_STORED = 1000

/** What a site without runs has to give. */
export function storeOf({ plan }: Pick<Copy, 'plan'>): Store {
  const cables = plan.cables.filter(({ standing }) => standing === 'drawer').slice(0, MOST_STORED)
  const ids = new Set(cables.map(({ id }) => id))
  const kinds = new Set(cables.flatMap(({ kind }) => kind ?? []))
  return {
    site: plan.site.id,
    name: plan.site.name,
    cables,
    kinds: plan.kinds.filter(({ id }) => kinds.has(id)),
    learned: everythingLearnt(learnedOf(plan)).filter(([subject]) => 'cable' in subject && ids.has(subject.cable)),
  }
}

/** What a lead of a store is called here, until it is here: no id of this site looks like it. */
export const storedId = (site: string, cable: string): string => `${site}:${cable}`

/** The store and the lead there that `storedId` named; null for a lead of this site. */
export function storedAt(id: string): { site: string; cable: string } | null {
  const at = id.indexOf(':')
  return at < 0 ? null : { site: id.slice(0, at), cable: id.slice(at + 1) }
}

/** A device of a store as it is called here: what was seen in its sockets was seen elsewhere. */
export const deviceElsewhere = (site: string, device: string): string => `${site}.${device}`.slice(0, 64)

/** The plan with the leads of some stores in its drawer, to judge by. A kind is the one of its name; one that is not known here comes along and is not sold. */
export function withStores(plan: Plan, stores: readonly Store[]): Plan {
  if (stores.every(({ cables }) => cables.length === 0)) return plan
  const byName = new Map(plan.kinds.map(({ name, id }) => [name.toLowerCase(), id]))
  const kinds = [...plan.kinds]
  const cables = [...plan.cables]
  const told: (readonly [{ cable: string }, Learnt])[] = []
  for (const store of stores) {
    const kindOf = new Map<string, string>()
    for (const kind of store.kinds) {
      const known = byName.get(kind.name.toLowerCase())
      const id = known ?? storedId(store.site, kind.id)
      kindOf.set(kind.id, id)
      if (known !== undefined) continue
      kinds.push({ ...kind, id, stock: [] })
      byName.set(kind.name.toLowerCase(), id)
    }
    for (const { suppliedWith: _, kind, ...cable } of store.cables)
      cables.push({
        ...cable,
        id: storedId(store.site, cable.id),
        ...(kind === undefined ? {} : { kind: kindOf.get(kind) }),
      })
    for (const [subject, learnt] of store.learned)
      if ('cable' in subject)
        told.push([{ cable: storedId(store.site, subject.cable) }, seenElsewhere(store.site, learnt)])
  }
  const merged: Plan = { ...plan, kinds, cables, observations: [...plan.observations] }
  adoptLearned(merged, told, learnedOf(plan))
  return merged
}

/** What was learnt of a lead in another site: its sockets are none of these, its controllers may be of the same sort. */
function seenElsewhere(site: string, learnt: Learnt): Learnt {
  return withSeries(learnt, (series) => ({ ...series, spot: spotElsewhere(site, series.spot) }))
}

function spotElsewhere(site: string, { port, far, ...rest }: Spot): Spot {
  const there = (socket: string): string => {
    const at = socket.lastIndexOf('/')
    return `${deviceElsewhere(site, socket.slice(0, at))}${socket.slice(at)}`
  }
  return {
    ...rest,
    ...(port === undefined ? {} : { port: there(port) }),
    ...(far === undefined ? {} : { far: there(far) }),
  }
}
