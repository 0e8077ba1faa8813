import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** The built Hallway with the demo, in a folder of its own, as a person would start it. */
export type HallwayProcess = {
  address: string
  home: string
  /** What it said so far. */
  said(): string
  pid(): number | undefined
  webPid(): number
  databaseUrl(): string
  stop(): Promise<void>
}

export async function startHallway(port: number, environment: Record<string, string> = {}): Promise<HallwayProcess> {
  const home = mkdtempSync(join(tmpdir(), 'hallway-process-'))
  const process_: ChildProcess = spawn('node', ['build/command/hallway.js', 'demo', '--port', String(port)], {
    env: {
      ...process.env,
      HALLWAY_HOME: home,
      HALLWAY_DATABASE_URL: undefined,
      HALLWAY_LOG: 'error',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  await new Promise<void>((opened, failed) => {
    const hear = (text: Buffer) => {
      said += text
      if (said.includes('Hallway is open')) opened()
    }
    process_.stdout?.on('data', hear)
    process_.stderr?.on('data', hear)
    process_.once('exit', () => failed(new Error(said)))
    // a test that gives up leaves nothing running
    process.once('exit', () => process_.kill('SIGTERM'))
  })
  return {
    address: `http://127.0.0.1:${port}`,
    home,
    said: () => said,
    pid: () => process_.pid,
    webPid: () => Number([...said.matchAll(/Web process (\d+)/g)].at(-1)?.[1]),
    databaseUrl: () => JSON.parse(readFileSync(join(home, 'running.json'), 'utf8')).databaseUrl,
    async stop() {
      const ended = new Promise((done) => process_.once('exit', done))
      process_.kill('SIGTERM')
      await ended
      rmSync(home, { recursive: true, force: true })
    },
  }
}
