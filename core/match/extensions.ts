import type { SiteIndex } from '../plan/site-index'
import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { endsMate } from '../standards/connectors'
import { isExtension, leadShape } from '../standards/reach'
import type { Cable, CableKind } from '../vocabulary/cable'
import type { Policy } from '../vocabulary/policy'
import type { RunLead } from '../vocabulary/run'
import { assortment } from './assortment'
import { isOffered } from './rank'

/** An extension that could lie before a lead. */
export type Offered = {
  lead: RunLead
  /** To be bought; null where it lies in the drawer. */
  kind: CableKind | null
  name: string
  length: Metres
  price: number | null
  listed: boolean
  /** Of a feed adapter: the watts it passes on. */
  passesOn: Cable['passesOn']
}

/** Whether a lead extends another: the plug of that one goes into its socket, and its own plug where that plug went. */
function extendsLead(ends: Cable['ends'], own: Cable, reversed: boolean): boolean {
  const facing = own.ends[reversed ? 1 : 0]
  return isExtension(leadShape(ends)) && ends.some((end) => endsMate(end, facing))
}

const isReversed = (ends: Cable['ends'], own: Cable, reversed: boolean): boolean =>
  endsMate(ends[0], own.ends[reversed ? 1 : 0])

/** Extensions in the drawer that lie in no run and make up for what is missing, the shortest first. */
export function freeExtensions(
  index: SiteIndex,
  own: Cable,
  reversed: boolean,
  missing: Metres,
  taken: SiteIndex['runOf'],
): Offered[] {
  return index.plan.cables
    .filter(
      (cable) =>
        isOffered(index, cable) &&
        !index.runOf.has(cable.id) &&
        !taken.has(cable.id) &&
        extendsLead(cable.ends, own, reversed) &&
        atLeast(cable.length, missing),
    )
    .sort((one, other) => one.length - other.length)
    .map((cable) => ({
      lead: { cable: cable.id, reversed: isReversed(cable.ends, own, reversed) },
      kind: null,
      name: cable.tag,
      length: cable.length,
      price: 0,
      listed: true,
      passesOn: cable.passesOn,
    }))
}

/** Extensions that are sold, in the catalogue and commonly, each at the shortest length that makes up for what is missing. */
export function soldExtensions(
  index: SiteIndex,
  own: Cable,
  reversed: boolean,
  missing: Metres,
  policy: Policy,
): Offered[] {
  const listed = index.plan.kinds.map((kind) => ({ kind, stock: kind.stock, listed: true }))
  const common = assortment
    .filter(({ kind }) => !index.kinds.has(kind.id))
    .map(({ kind, lengths }) => ({
      kind,
      stock: lengths.map((length) => ({ length, price: null })),
      listed: false,
    }))
  return [...listed, ...common].flatMap(({ kind, stock, listed: isListed }): Offered[] => {
    if (!extendsLead(kind.ends, own, reversed)) return []
    const lengths = [...stock].sort((one, other) => one.length - other.length)
    const found = lengths.find(({ length }) => atLeast(length, missing * (1 + policy.slack)))
    if (!found) return []
    const { length, price } = found
    const lead = { kind: kind.id, length, reversed: isReversed(kind.ends, own, reversed) }
    return [{ lead, kind, name: kind.name, length, price: price ?? null, listed: isListed, passesOn: kind.passesOn }]
  })
}
