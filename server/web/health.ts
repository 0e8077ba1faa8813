import { statfs } from 'node:fs/promises'
import { setTimeout as wait } from 'node:timers/promises'
import type { RequestHandler } from 'express'
import { home } from '../command/home'
import { database, isDatabaseAway } from '../database/connection'
import { wasFullLately } from '../failure'
import { log } from '../log'

/** Whoever asks has no more patience than this. */
const ANSWER_WITHIN_MS = 2000
/** Below it the database may stop at any save. */
const LEAST_ROOM_BYTES = 100_000_000

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
      database()
        .raw('SELECT 1')
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

/** The disk that Hallway's own folder is on; of a database elsewhere, what it said lately. */
async function isFull(): Promise<boolean> {
  if (wasFullLately()) return true
  const disk = await statfs(home).catch(() => null)
  return disk !== null && disk.bavail * disk.bsize < LEAST_ROOM_BYTES
}
