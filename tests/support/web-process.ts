import { type ChildProcess, spawn } from 'node:child_process'

/** A web process of the built Hallway by itself, over a database that others have too. */
export type WebProcess = { address: string; child: ChildProcess; said(): string; stop(): Promise<void> }

export async function startWeb(databaseUrl: string, port: number): Promise<WebProcess> {
  const words = [
    '--max-semi-space-size=64',
    'build/command/hallway.js',
    'serve',
    '--host',
    '127.0.0.1',
    '--port',
    String(port),
  ]
  const child = spawn('node', words, {
    env: { ...process.env, HALLWAY_DATABASE_URL: databaseUrl, HALLWAY_LOG: 'error', NODE_ENV: 'production' },
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (text: Buffer) => {
      said += text
    })
  await new Promise<void>((opened, failed) => {
    child.once('message', () => opened())
    child.once('exit', () => failed(new Error(said)))
    // a test that gives up leaves nothing running
    process.once('exit', () => child.kill('SIGKILL'))
  })
  return {
    address: `http://127.0.0.1:${port}`,
    child,
    said: () => said,
    async stop() {
      if (child.exitCode !== null || child.signalCode !== null) return
      const ended = new Promise((done) => child.once('exit', done))
      child.kill('SIGCONT')
      child.kill('SIGTERM')
      await ended
    },
  }
}
