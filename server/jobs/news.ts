import type { Knex } from 'knex'
import { log } from '../log'
import { type Job, jobAbout } from './jobs'

const ASK_EVERY_MS = 600

/** Tells how a job stands whenever that changes, until the answer is called. */
export function watchJob(knex: Knex, siteId: string, about: string, tell: (job: Job | null) => void): () => void {
  let told = ''
  const ask = async () => {
    try {
      const job = await jobAbout(knex, siteId, about)
      const said = JSON.stringify(job)
      if (said !== told) tell(job)
      told = said
    } catch {
      log.debug('the database does not say how a job stands')
    }
  }
  void ask()
  const timer = setInterval(ask, ASK_EVERY_MS)
  return () => clearInterval(timer)
}
