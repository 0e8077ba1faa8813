import { randomUUID } from 'node:crypto'
import type { Witness } from '../core/change/changes/observations'
import type { Hand } from '../server/sites/change-site'
import { NOBODY } from './who.server'

/** Whoever sends a form as the witness of what it writes down, now. Ids follow from the change's own, so that what is sent twice is one. */
export function witnessOf({ by, id }: Hand, at = new Date()): Witness {
  let count = 0
  return {
    at: at.toISOString(),
    by: by === NOBODY ? undefined : by,
    newId: () => {
      count += 1
      return id ? `o-${id.slice(0, 40)}-${count}` : `o-${randomUUID()}`
    },
  }
}
