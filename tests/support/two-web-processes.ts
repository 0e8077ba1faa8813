import type { Knex } from 'knex'
import { afterAll, beforeAll } from 'vitest'
import { connect } from '../../server/database/connection'
import { type HallwayProcess, startHallway } from './hallway-process'
import { type StallingLine, stallingLine } from './stalling-line'
import { startWeb, type WebProcess } from './web-process'

/** A Hallway, and a second web process over its database behind a line that can stand still; with a connection to that database of one's own. */
type TwoWebProcesses = { hallway: HallwayProcess; web: WebProcess; line: StallingLine; knex: Knex }

/** Two web processes for all tests of a file. */
export function twoWebProcesses(port: number): TwoWebProcesses {
  const now = {} as TwoWebProcesses
  beforeAll(async () => {
    now.hallway = await startHallway(port)
    now.knex = connect(now.hallway.databaseUrl())
    now.line = await stallingLine(now.hallway.databaseUrl())
    now.web = await startWeb(now.line.url, port + 1)
  })
  afterAll(async () => {
    await now.web.stop()
    await now.line.close()
    await now.knex.destroy()
    await now.hallway.stop()
  })
  return now
}
