import { observationsOf } from '../../observe/learned'
import type { Observation } from '../../observe/observation'
import { freeIds, slugOf } from '../../plan/free-id'
import { byId } from '../../plan/lookup'
import { nextTag } from '../../plan/next-tag'
import type { Plan } from '../../plan/plan'
import type { Cable, CableKind } from '../../vocabulary/cable'
import { foldTag } from '../../vocabulary/fields'
import type { PortAddress, RunLead } from '../../vocabulary/run'
import { isBenchSoak } from '../../vocabulary/session'
import type { ChangeToMake, Edit, LogPosition } from '../change'
import { type DecidedOrder, takeOrder } from './orders'

/** Leads that leave a site for another: with what was observed of them, and out of the sessions they were sorted in. Its log keeps all of it. */
export function sendCables(plan: Plan, base: LogPosition, cables: readonly Cable[]): ChangeToMake {
  const gone = new Set(cables.map(({ id }) => id))
  return {
    what: { name: 'send cables', about: cables.map(({ tag }) => tag) },
    edits: [
      ...plan.sessions.flatMap((session): Edit[] => {
        const left = session.cables.filter((id) => !gone.has(id))
        if (left.length === session.cables.length) return []
        // one that nothing is left of goes with its leads
        const value = left.length > 0 ? { ...session, cables: left } : null
        return [{ list: 'sessions', id: session.id, base, value }]
      }),
      ...plan.soaks
        .filter(isBenchSoak)
        .flatMap(({ id, cable }): Edit[] => (gone.has(cable) ? [{ list: 'soaks', id, base, value: null }] : [])),
      ...cables.map(({ id }): Edit => ({ list: 'cables', id, base, value: null })),
      ...cables.flatMap(({ id: cable }) =>
        observationsOf(plan, { cable }).map(({ id }): Edit => ({ list: 'observations', id, base, value: null })),
      ),
    ],
  }
}

/** What a store gave: its plan as it was, and the leads. */
export type Given = { site: string; plan: Plan; cables: readonly Cable[] }

/**
 * Takes an order some of whose leads come from stores: these become cables of the site, with their kinds by name, their tags where these are free, and all
 * that was seen of them. `called` says what an order calls a lead of a store, `elsewhere` what a device of it is called here.
 */
export function takeWithStores(
  plan: Plan,
  base: LogPosition,
  decided: DecidedOrder,
  given: readonly Given[],
  {
    called,
    elsewhere,
  }: { called(site: string, cable: string): string; elsewhere(site: string, device: string): string },
): ChangeToMake {
  const brought: Edit[] = []
  const now = new Map<string, string>()
  const cableId = freeIds(plan.cables.map(({ id }) => id))
  const kindId = freeIds(plan.kinds.map(({ id }) => id))
  const observationId = freeIds(plan.observations.map(({ id }) => id))
  const kinds = new Map(plan.kinds.map(({ name, id }) => [name.toLowerCase(), id]))
  const tags = plan.cables.map(({ tag }) => tag)
  for (const { site, plan: store, cables } of given) {
    const move = (address: PortAddress): PortAddress => ({ ...address, device: elsewhere(site, address.device) })
    for (const { suppliedWith: _, kind: of, ...cable } of cables) {
      const kind = of === undefined ? undefined : byId(store.kinds).get(of)
      const tag = tags.some((each) => foldTag(each) === foldTag(cable.tag)) ? nextTag(tags) : cable.tag
      tags.push(tag)
      const id = cableId(slugOf(tag, 'cable'))
      now.set(called(site, cable.id), id)
      const known = kind && (kinds.get(kind.name.toLowerCase()) ?? bringKind(kind))
      brought.push({ list: 'cables', id, base: null, value: { ...cable, id, tag, ...(known ? { kind: known } : {}) } })
      const seen = observationsOf(store, { cable: cable.id })
      const ids = new Map(seen.map((each) => [each.id, observationId(each.id)]))
      for (const each of seen) {
        const value = movedObservation(each, { cable: id }, ids, move)
        brought.push({ list: 'observations', id: value.id, base: null, value })
      }
    }
  }
  const leads = (all: readonly RunLead[]): RunLead[] =>
    all.map((lead) => ('cable' in lead ? { ...lead, cable: now.get(lead.cable) ?? lead.cable } : lead))
  const order = takeOrder(plan, base, {
    ...decided,
    runs: decided.runs.map((each) => ({ ...each, leads: leads(each.leads) })),
  })
  return { what: order.what, edits: [...brought, ...order.edits] }

  function bringKind(kind: CableKind): string {
    const id = kindId(kind.id)
    kinds.set(kind.name.toLowerCase(), id)
    brought.push({ list: 'kinds', id, base: null, value: { ...kind, id } })
    return id
  }
}

/** What was seen of a lead, in the site it has come to: where it was seen is named as elsewhere. */
function movedObservation(
  { session: _, test: __, ...observation }: Observation,
  subject: { cable: string },
  ids: ReadonlyMap<string, string>,
  move: (address: PortAddress) => PortAddress,
): Observation {
  const { port, far, computer, ...rest } = observation.where ?? {}
  const where = {
    ...rest,
    ...(port ? { port: move(port) } : {}),
    ...(far ? { far: move(far) } : {}),
    ...(computer ? { computer: move({ device: computer, port: '' }).device } : {}),
  }
  return {
    ...observation,
    id: ids.get(observation.id) ?? observation.id,
    subject,
    ...(observation.where ? { where } : {}),
    ...(observation.kind === 'retraction' ? { retracts: ids.get(observation.retracts) ?? observation.retracts } : {}),
  } as Observation
}
