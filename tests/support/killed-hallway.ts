import { type ChildProcess, spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { whenOpen } from './hallway-process'

/** A Hallway with the demo that is there to be killed and started again. */
export type KilledHallway = {
  child: ChildProcess
  webPid: number
  databasePid(): number
  databaseUrl(): string
}

export async function startToBeKilled(home: string, port: number): Promise<KilledHallway> {
  const child = spawn('node', ['build/command/hallway.js', 'demo', '--port', String(port)], {
    env: {
      ...process.env,
      HALLWAY_HOME: home,
      HALLWAY_DATABASE_URL: undefined,
      HALLWAY_LOG: 'fatal',
      NODE_ENV: 'production',
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  const said = await whenOpen(child)
  return {
    child,
    webPid: Number(/Web process (\d+)/.exec(said())?.[1]),
    databasePid: () => Number(readFileSync(join(home, 'database.pid'), 'utf8')),
    databaseUrl: () => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl,
  }
}
