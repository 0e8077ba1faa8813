import { freeIds } from '../../plan/free-id'
import type { Plan } from '../../plan/plan'
import type { CableKind } from '../../vocabulary/cable'
import type { ChangeToMake, Edit, LogPosition } from '../change'

/** Puts kinds into the catalogue: one of a name it knows replaces that one, so that cables of the kind keep it. */
export function putKinds(
  plan: Plan,
  base: LogPosition,
  kinds: readonly CableKind[],
): { draft: ChangeToMake; added: number; replaced: number } {
  const known = new Map(plan.kinds.map(({ name, id }) => [name.toLowerCase(), id]))
  const idOf = freeIds(plan.kinds.map(({ id }) => id))
  // the last of several that bear one name
  const byName = new Map(kinds.map((kind) => [kind.name.toLowerCase(), kind]))
  const edits = [...byName].map(([name, kind]) => {
    const id = known.get(name)
    const value = { ...kind, id: id ?? idOf(kind.id) }
    return { list: 'kinds', id: value.id, base: id === undefined ? null : base, value } as const
  })
  const added = edits.filter((edit) => edit.base === null).length
  return {
    draft: { what: { name: 'put kinds', about: edits.map(({ value }) => value.name) }, edits },
    added,
    replaced: edits.length - added,
  }
}

/** Takes a kind out of the catalogue, with what suppliers ask for it. */
export const removeKind = (plan: Plan, { id, name }: CableKind, base: LogPosition): ChangeToMake => ({
  what: { name: 'remove kind', about: [name] },
  edits: [
    ...plan.offers.flatMap((offer): Edit[] =>
      offer.kind === id ? [{ list: 'offers', id: offer.id, base, value: null }] : [],
    ),
    { list: 'kinds', id, base, value: null },
  ],
})
