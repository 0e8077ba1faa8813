import type { Knex } from 'knex'
import { replay } from '../../core/change/apply'
import type { LogPosition } from '../../core/change/change'
import type { Plan } from '../../core/plan/plan'
import { copyWithin } from './copies'
import { inverseAt } from './entity-rows'

/**
 * What the plan of a site was after a change of its log: the site as it stands, with every later change taken back in turn. Null where the log has no such
 * place, or is not the one that is meant.
 */
export async function planAt(knex: Knex, siteId: string, log: string, place: LogPosition): Promise<Plan | null> {
  return knex.transaction(
    async (trx) => {
      const held = await copyWithin(knex, trx, siteId)
      if (!held || held.identity !== log || place < 1 || place > held.copy.place) return null
      let { copy } = held
      for (let at = held.copy.place; at > place; at -= 1) copy = replay(copy, await inverseAt(trx, siteId, at)).copy
      return copy.plan
    },
    { isolationLevel: 'repeatable read' },
  )
}
