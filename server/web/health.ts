import { setTimeout as wait } from 'node:timers/promises'
import type { RequestHandler } from 'express'
import { database, isDatabaseAway } from '../database/connection'
import { isFull } from '../disk'
import { log } from '../log'

/** Whoever asks has no more patience than this. */
const ANSWER_WITHIN_MS = 2000

/** Whether Hallway can answer and save: `ok`, or `degraded` with what is wrong. 503 where pages cannot be read. */
export const health: RequestHandler = async (_request, response) => {
  const [answers, full] = await Promise.all([databaseAnswers(), isFull()])
  response.status(answers ? 200 : 503).json({
    status: answers && !full ? 'ok' : 'degraded',
    database: answers ? 'ok' : 'away',
    disk: full ? 'full' : 'ok',
  })
}

async function databaseAnswers(): Promise<boolean> {
  const late = new AbortController()
  try {
    return await Promise.race([
      database()('settings')
        .first('name')
        .then(() => true),
      wait(ANSWER_WITHIN_MS, false, { signal: late.signal }),
    ])
  } catch (error) {
    log.warn({ away: isDatabaseAway(error) }, 'health: the database does not answer')
    return false
  } finally {
    late.abort()
  }
}
