import { type ChildProcess, spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

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
  let said = ''
  await new Promise<void>((opened, failed) => {
    const hear = (text: Buffer) => {
      said += text
      if (said.includes('Hallway is open')) opened()
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.once('exit', () => failed(new Error(said)))
  })
  return {
    child,
    webPid: Number(/Web process (\d+)/.exec(said)?.[1]),
    databasePid: () => Number(readFileSync(join(home, 'database.pid'), 'utf8')),
    databaseUrl: () => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl,
  }
}
