import { readFileSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'
import { readPlanText } from '../../core/plan/read'
import { closeDatabase, DATABASE_URL_VARIABLE, database } from '../database/connection'
import { migrate } from '../database/migrate'
import { Failure } from '../failure'
import { startPrivateDatabase } from '../private-database/private-database'
import { importPlan, siteExists } from '../sites/sites'
import { application } from '../web/application'
import { home, root } from './home'
import { forgetRunning, noteRunning, readRunning } from './running'

const LOOPBACK = '127.0.0.1'
const DEFAULT_PORT = 4310

/** Database, migrations, demo where asked, then the web server; stays until Ctrl-C or SIGTERM, and ends all of it in order. */
export async function start(words: string[], { demo }: { demo: boolean }): Promise<void> {
  const { values } = parseArgs({ args: words, options: { port: { type: 'string' }, host: { type: 'string' } } })
  const port = portOf(values.port ?? process.env.HALLWAY_PORT ?? String(DEFAULT_PORT))
  const host = values.host ?? process.env.HALLWAY_HOST ?? LOOPBACK
  const say = (line: string) => console.log(line)

  const other = readRunning()
  if (other)
    throw new Failure(
      `Hallway already runs from this folder at ${other.address} (process ${other.pid}). Use that one, or stop it first.`,
    )
  await checkPort(host, port)

  const given = process.env[DATABASE_URL_VARIABLE]
  const own = given ? null : await startPrivateDatabase({ home, say })
  if (own?.recovered) say(own.recovered)
  const databaseUrl = given ?? own?.url ?? ''
  process.env[DATABASE_URL_VARIABLE] = databaseUrl

  let server: Server | null = null
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    await closeServer(server)
    await closeDatabase()
    await own?.stop()
    forgetRunning()
  }
  try {
    await migrate(database())
    if (demo) await loadDemo(say)
    server = await serve(host, port)
  } catch (error) {
    await stop()
    throw error
  }
  const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`
  noteRunning({ pid: process.pid, address, databaseUrl })
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      say('Stopping.')
      void stop().then(() => process.exit(0))
    })
  }
  say(`Hallway is open at ${address}${demo ? '/sites/saltmarsh' : ''}   (Ctrl-C stops it)`)
}

function portOf(text: string): number {
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Failure(`--port takes a number from 1 to 65535, not "${text}".`)
  return port
}

/** Said before anything else is started, so that nothing has to be taken back. */
async function checkPort(host: string, port: number): Promise<void> {
  const probe = createServer()
  await listen(probe, host, port)
  await new Promise((closed) => probe.close(closed))
}

function listen(server: Server, host: string, port: number): Promise<void> {
  return new Promise((opened, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE')
        failed(
          new Failure(`Port ${port} on ${host} is already taken. Choose another: ./hallway start --port ${port + 1}`),
        )
      else if (error.code === 'EACCES')
        failed(new Failure(`This user may not open port ${port}. Choose one above 1023: --port ${DEFAULT_PORT}`))
      else failed(error)
    })
    server.listen(port, host, () => opened())
  })
}

async function serve(host: string, port: number): Promise<Server> {
  const build = await import(pathToFileURL(join(root, 'build/app/server/index.js')).href)
  const named = process.env.HALLWAY_NAMES?.split(',').map((name) => name.trim())
  const names = named ? new Set(named) : host === LOOPBACK ? new Set<string>() : null
  const server = createServer(application({ build, clientFolder: join(root, 'build/app/client'), names }))
  await listen(server, host, port)
  return server
}

async function closeServer(server: Server | null): Promise<void> {
  if (!server) return
  const closed = new Promise((done) => server.close(done))
  server.closeIdleConnections()
  const impatient = setTimeout(() => server.closeAllConnections(), 3000)
  await closed
  clearTimeout(impatient)
}

async function loadDemo(say: (line: string) => void): Promise<void> {
  const read = readPlanText(readFileSync(join(root, 'demo/saltmarsh.json'), 'utf8'))
  if (!read.ok) throw new Error(`the demo plan has faults: ${JSON.stringify(read.faults.slice(0, 5))}`)
  if (await siteExists(database(), read.plan.site.id)) return
  await importPlan(database(), { by: 'the demo' }, read.plan)
  say(`Loaded the demo site, ${read.plan.site.name}.`)
}
