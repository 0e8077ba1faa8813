import { readFileSync } from 'node:fs'
import type { Knex } from 'knex'

const TICK_MS = 10

/** The processor time that processes took so far, with all their threads: how long something took says as much of whatever else the machine did. */
export function busyMs(pids: readonly number[]): number {
  let ticks = 0
  for (const pid of pids) {
    // the name of a program may hold anything, and stands in brackets
    const [, rest = ''] = /\) (.*)$/s.exec(readFileSync(`/proc/${pid}/stat`, 'utf8')) ?? []
    const fields = rest.split(' ')
    ticks += Number(fields[11]) + Number(fields[12])
  }
  return ticks * TICK_MS
}

export const pidOfDatabase = async (knex: Knex): Promise<number> =>
  Number(readFileSync((await knex.raw('SELECT @@pid_file AS file'))[0][0].file, 'utf8'))

/** The number of a web process, as it is said when it has started. */
export const pidSaid = (line: string): number => Number(/Web process (\d+)/.exec(line)?.[1])
