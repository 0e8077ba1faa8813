import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { inTransaction } from '../database/transaction'

const NAME = 'people-turn'

/**
 * Does what may leave nobody in charge, one after the other. A lock reaches no further than its own node of a cluster; but of two who write the same row,
 * whichever node they are at, only one gets through, and the other begins again.
 */
export const oneByOne = <T>(knex: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> =>
  inTransaction(knex, async (trx) => {
    await trx('settings').insert({ name: NAME, value: randomUUID() }).onConflict('name').merge()
    return work(trx)
  })
