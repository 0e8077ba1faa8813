import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { isLockTrouble } from './connection'

/** Some three seconds in all: whoever is at the slower node of a cluster is come between more often than not while others write all the time. */
const TRIES = 14

/** Does something again where writers came between each other, here or at another node of a cluster: a little later, and not all of them at once. */
export async function retried<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await work()
    } catch (error) {
      if (!isLockTrouble(error) || tries >= TRIES) throw error
      await wait(15 * tries + Math.random() * 40 * tries)
    }
  }
}

/** Does something in one transaction, all of it or nothing, however often others come in between. */
export const inTransaction = <T>(knex: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> =>
  retried(() => knex.transaction(work))
