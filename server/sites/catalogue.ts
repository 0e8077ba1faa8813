import type { Knex } from 'knex'
import type { CableKind } from '../../core/plan/cable'
import { freeIds } from '../../core/plan/free-id'
import { readPlan as checkPlan } from '../../core/plan/read'
import { lockSite, placesIn, type Refusal, refused, setRevision } from './lock'
import { kindRow } from './rows'

/** Puts kinds into a site's catalogue in one transaction: one of a name it knows replaces that one, so that cables of the kind keep it. */
export async function putKinds(
  knex: Knex,
  siteId: string,
  kinds: readonly CableKind[],
): Promise<{ outcome: 'saved'; added: number; replaced: number } | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const known = new Map(site.plan.kinds.map((kind) => [kind.name.toLowerCase(), kind.id]))
    const idOf = freeIds(site.plan.kinds.map((kind) => kind.id))
    const put = kinds.map((kind) => ({ ...kind, id: known.get(kind.name.toLowerCase()) ?? idOf(kind.id) }))
    const replaced = new Set(put.map((kind) => kind.id))
    const checked = checkPlan({
      ...site.plan,
      kinds: [...site.plan.kinds.filter((kind) => !replaced.has(kind.id)), ...put],
    })
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const place = await placesIn(trx, 'cable_kinds', siteId)
    for (const kind of put) {
      await trx('cable_kinds')
        .insert(kindRow(siteId, kind, place(kind.id)))
        .onConflict(['site_id', 'id'])
        .merge(['spec'])
    }
    await setRevision(trx, siteId, site.revision + 1)
    const added = put.filter((kind) => !known.has(kind.name.toLowerCase())).length
    return { outcome: 'saved', added, replaced: put.length - added }
  })
}

/** Takes a kind out of the catalogue; refused while cables are of it. */
export async function removeKind(
  knex: Knex,
  siteId: string,
  kindId: string,
): Promise<{ outcome: 'removed' } | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const used = site.plan.cables.filter((cable) => cable.kind === kindId).length
    if (used > 0) return refused('kind', `${used} ${used === 1 ? 'cable is' : 'cables are'} of this kind`)
    await trx('cable_kinds').where({ site_id: siteId, id: kindId }).delete()
    await setRevision(trx, siteId, site.revision + 1)
    return { outcome: 'removed' }
  })
}
