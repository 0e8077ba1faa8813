import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { busy, isLockTrouble } from './connection'
import { timeLeft } from './deadline'

/** Some three seconds in all: whoever is at the slower node of a cluster is come between more often than not while others write all the time. */
const TRIES = 14

/**
 * Does something again where writers came between each other, here or at another node of a cluster: a little later, and not all of them at once. Where others
 * hold on until the time is over it is told so.
 */
export async function retried<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await work()
    } catch (error) {
      if (!isLockTrouble(error)) throw error
      const pause = 15 * tries + Math.random() * 40 * tries
      if (tries >= TRIES || pause > timeLeft()) throw busy(error)
      await wait(pause)
    }
  }
}

/** Does something in one transaction, all of it or nothing, however often others come in between. */
export const inTransaction = <T>(knex: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> =>
  retried(() => knex.transaction(work))
