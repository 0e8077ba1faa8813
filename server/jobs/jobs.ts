import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { withRoom } from '../disk'
import { log } from '../log'
import { columnTime } from '../sites/entity-rows'

/** How a long job stands. `lost`: the process that did it is gone. */
export type JobState = 'works' | 'done' | 'failed' | 'stopped' | 'lost'
export type Job = {
  id: string
  about: string
  state: JobState
  by: string
  began: string
  pages: number
  problem: string | null
}

/** What a job is done with: whether somebody stopped it, and how to say how far it is. */
export type JobHands = { stopped: AbortSignal; pages(count: number): void }
/** What came of it; null: all went well. */
export type JobWork = (hands: JobHands) => Promise<string | null>

/** A job says so often that it goes on, and looks whether it is to stop. */
const BEAT_MS = 500
/** Whoever has said nothing for so long is gone. */
const LOST_MS = 15_000

/**
 * Begins a long job about something of a site, beside whatever else the process does: a page may be left meanwhile, and any process can say how far it is or stop
 * it. What is asked for while it goes on is that job.
 */
export const beginJob = (...asked: Parameters<typeof begin>): Promise<Job> => withRoom(() => begin(...asked))

async function begin(
  knex: Knex,
  { siteId, about, by }: { siteId: string; about: string; by: string },
  work: JobWork,
): Promise<Job> {
  const known = await jobAbout(knex, siteId, about)
  if (known?.state === 'works') return known
  const id = randomUUID()
  // by the clock of the database: processes whose own clocks differ, or are set, agree on who is lost
  const now = knex.fn.now(3)
  await knex('jobs').insert({ id, site_id: siteId, about, state: 'works', by_name: by, began: now, beat: now })
  const stop = new AbortController()
  let pages = 0
  const beat = setInterval(() => {
    knex('jobs')
      .where({ id })
      .update({ beat: knex.fn.now(3), pages })
      .then(() => knex('jobs').where({ id }).first('stop'))
      .then((row) => {
        if (!row || row.stop) stop.abort()
      })
      // a database that is away is asked again with the next beat
      .catch(() => log.debug({ job: id }, 'a job could not say that it goes on'))
  }, BEAT_MS)
  const over = async (state: JobState, problem: string | null): Promise<void> => {
    clearInterval(beat)
    await knex('jobs')
      .where({ id })
      .update({ state, pages, problem: problem?.slice(0, 500) ?? null })
  }
  const hands: JobHands = {
    stopped: stop.signal,
    pages(count) {
      pages = count
    },
  }
  work(hands)
    .then((problem) =>
      stop.signal.aborted ? over('stopped', null) : over(problem === null ? 'done' : 'failed', problem),
    )
    .catch(async (error) => {
      log.error({ err: error, job: id }, 'a job failed')
      await over('failed', 'Hallway failed at it. What was there before is still there. Try again.')
    })
    .catch((error) => log.error({ err: error, job: id }, 'how a job ended could not be written'))
  return { id, about, state: 'works', by, began: new Date().toISOString(), pages: 0, problem: null }
}

/** The latest job about something; null where there was none. */
export async function jobAbout(knex: Knex, siteId: string, about: string): Promise<Job | null> {
  const row = await knex('jobs')
    .where({ site_id: siteId, about })
    .orderBy('began', 'desc')
    .first('*', { quiet: knex.raw('TIMESTAMPDIFF(MICROSECOND, beat, NOW(3)) / 1000') })
  if (!row) return null
  const lost = row.state === 'works' && Number(row.quiet) > LOST_MS
  return {
    id: row.id,
    about,
    state: lost ? 'lost' : row.state,
    by: row.by_name,
    // a date without its zone is in that of the database, which is UTC
    began: new Date(`${row.began}Z`).toISOString(),
    pages: row.pages,
    problem: row.problem,
  }
}

/** Asks whoever does a job to stop. */
export const stopJob = (knex: Knex, siteId: string, about: string): Promise<number> =>
  knex('jobs').where({ site_id: siteId, about, state: 'works' }).update({ stop: true })

/** How long it is told how a job ended. */
const KEPT_DAYS = 30

export const sweepJobs = (knex: Knex, now = new Date()): Promise<number> =>
  knex('jobs')
    .where('began', '<', columnTime(new Date(now.getTime() - KEPT_DAYS * 86_400_000).toISOString()))
    .delete()
