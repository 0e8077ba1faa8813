import { createReadStream, readdirSync, readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { join } from 'node:path'
import type { Knex } from 'knex'
import type { KeptImage } from '../../core/files/file-types'
import { readPlanText } from '../../core/plan/read'
import { connect, DATABASE_URL_VARIABLE, LONG_PATIENCE_MS } from '../database/connection'
import { migrate } from '../database/migrate'
import { Failure } from '../failure'
import { type BroughtDocument, documentFrom } from '../handover/brought'
import { surroundingsOf } from '../people/company'
import { hasPeople } from '../people/people'
import { startPrivateDatabase } from '../private-database/private-database'
import type { SeriesFile } from '../series/series-file'
import { importPlan, siteExists } from '../sites/sites'
import { reachOf } from '../web/reach'
import { home, root } from './home'
import { forgetRunning, noteRunning, readRunning } from './running'
import { listen } from './serve'
import type { SimulatedSignIn } from './simulated-sign-in'
import { startWebProcess, type WebProcess } from './web-process'

const LOOPBACK = '127.0.0.1'
const DEFAULT_PORT = 4310

/** What `demo` and `start` are told. */
export type StartOptions = { port?: string; host?: string; people?: true }

/** Database, migrations, demo where asked, then the web server; stays until Ctrl-C or SIGTERM, and ends all of it in order. */
export async function start(options: StartOptions, { demo }: { demo: boolean }): Promise<void> {
  const port = portOf(options.port ?? process.env.HALLWAY_PORT ?? String(DEFAULT_PORT))
  const host = options.host ?? process.env.HALLWAY_HOST ?? LOOPBACK
  const reach = reachOf(host)
  const say = (line: string) => console.log(line)

  const given = process.env[DATABASE_URL_VARIABLE]
  const other = readRunning(given)
  if (other)
    throw new Failure(
      `Hallway already runs from this folder at ${other.address} (process ${other.pid}). Use that one, or stop it first.`,
    )
  await checkPort(host, port)

  const own = given ? null : await startPrivateDatabase({ home, say })
  if (own?.recovered) say(own.recovered)
  const databaseUrl = given ?? own?.url ?? ''
  process.env[DATABASE_URL_VARIABLE] = databaseUrl

  let web: WebProcess | null = null
  let signIn: SimulatedSignIn | null = null
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    await web?.stop()
    await signIn?.stop()
    await own?.stop()
    forgetRunning(given)
  }
  try {
    const knex = connect(databaseUrl, { patienceMs: LONG_PATIENCE_MS })
    try {
      await migrate(knex)
      if (demo) await loadDemo(knex, say)
      if (options.people) {
        signIn = await (await import('./demo-people')).loadDemoPeople(knex, say)
        Object.assign(process.env, surroundingsOf(signIn.company))
      }
      if (reach.open && !(await hasPeople(knex))) throw new Failure(ACCOUNTS_FIRST)
    } finally {
      await knex.destroy()
    }
    web = await startWebProcess({ host, port, say })
  } catch (error) {
    await stop()
    throw error
  }
  const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`
  noteRunning({ pid: process.pid, address, databaseUrl }, given)
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      say('Stopping.')
      void stop().then(() => process.exit(0))
    })
  }
  say(`Hallway is open at ${reach.publicUrl?.origin ?? address}${demo ? '/sites/saltmarsh' : ''}   (Ctrl-C stops it)`)
}

const ACCOUNTS_FIRST =
  'Nobody has an account here, so whoever reaches this Hallway from another machine could read and change everything. Make the first account, then start again: ./hallway people add NAME'

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

/** The drawings of the demo, by what they hold. */
async function demoFiles(): Promise<KeptImage[]> {
  const { isKept } = await import('../files/image')
  const folder = join(root, 'demo/files')
  const files = await Promise.all(
    readdirSync(folder).map((name) => isKept(new Uint8Array(readFileSync(join(folder, name))))),
  )
  return files.flatMap((file) => file ?? [])
}

/** What an instrument read of the demo. */
async function* demoSeries(): AsyncIterable<SeriesFile> {
  const { readSeriesFile } = await import('../series/series-file')
  const folder = join(root, 'demo/readings')
  for (const name of readdirSync(folder)) {
    const file = await readSeriesFile(async () => createReadStream(join(folder, name)))
    if (file) yield file
  }
}

/** What was handed over of the demo. */
function demoDocuments(): BroughtDocument[] {
  const folder = join(root, 'demo/handovers')
  return readdirSync(folder).flatMap((handover) =>
    readdirSync(join(folder, handover)).flatMap(
      (name) => documentFrom(`handovers/${handover}/${name}`, readFileSync(join(folder, handover, name))) ?? [],
    ),
  )
}

async function loadDemo(knex: Knex, say: (line: string) => void): Promise<void> {
  const read = readPlanText(readFileSync(join(root, 'demo/saltmarsh.json'), 'utf8'))
  if (!read.ok) throw new Error(`the demo plan has faults: ${JSON.stringify(read.faults.slice(0, 5))}`)
  if (await siteExists(knex, read.plan.site.id)) return
  await importPlan(
    knex,
    { by: 'the demo' },
    read.plan,
    await demoFiles().then((files) => ({ files: () => files, series: demoSeries, documents: demoDocuments })),
  )
  say(`Loaded the demo site, ${read.plan.site.name}.`)
}
