import { createServer, type Server } from 'node:http'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { closeDatabase, database } from '../database/connection'
import { Failure } from '../failure'
import { sweepFiles } from '../files/files'
import { sweepDocuments } from '../handover/documents'
import { sweepJobs } from '../jobs/jobs'
import { log } from '../log'
import { endThreads } from '../off-thread/pool'
import { sweepQuestions } from '../people/passkeys'
import { sweepSessions } from '../people/sessions'
import { sweepSeries } from '../series/series'
import { application } from '../web/application'
import { reachOf } from '../web/reach'
import { root } from './home'

/** The web server by itself: what `start` keeps running. It ends when it is told to, or when whoever started it is gone. */
export async function serve({ host, port }: { host: string; port: number }): Promise<void> {
  const build = await import(pathToFileURL(join(root, 'build/app/server/index.js')).href)
  const reach = reachOf(host)
  const server = createServer(application({ build, clientFolder: join(root, 'build/app/client'), reach }))
  await listen(server, host, port)
  let ending = false
  const end = () => {
    if (ending) return
    ending = true
    void closeServer(server)
      .then(endThreads)
      .then(closeDatabase)
      .then(() => process.exit(0))
  }
  // Ctrl-C reaches every process of a terminal; it is the one above that ends this one, in order
  process.on('SIGINT', () => {})
  process.once('SIGTERM', end)
  process.once('disconnect', end)
  sweepEveryHour()
  process.send?.('open')
}

const HOUR_MS = 3_600_000
/** Not while a site is being opened for the first time. */
const FIRST_SWEEP_MS = 60_000

/** Lets go of the files that no undo can bring back, and of readings that nobody wrote down. Several processes may do it: what one has let go is gone for the others. */
function sweepEveryHour(): void {
  const sweep = async () => {
    try {
      const files = await sweepFiles(database())
      const series = await sweepSeries(database())
      const documents = await sweepDocuments(database())
      await sweepJobs(database())
      await sweepSessions(database())
      await sweepQuestions(database())
      if (files + series + documents > 0)
        log.info(
          { files, series, documents },
          'files that nothing uses, old readings and undone handovers were deleted',
        )
    } catch (error) {
      log.warn({ err: error }, 'files and readings could not be looked through')
    }
  }
  setTimeout(sweep, FIRST_SWEEP_MS).unref()
  setInterval(sweep, HOUR_MS).unref()
}

export function listen(server: Server, host: string, port: number): Promise<void> {
  return new Promise((opened, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE')
        failed(
          new Failure(`Port ${port} on ${host} is already taken. Choose another: ./hallway start --port ${port + 1}`),
        )
      else if (error.code === 'EACCES')
        failed(new Failure(`This user may not open port ${port}. Choose one above 1023, such as --port 4310`))
      else if (error.code === 'EADDRNOTAVAIL')
        failed(new Failure(`This machine has no address ${host}. Choose one that it has, or 0.0.0.0 for all of them.`))
      else failed(error)
    })
    server.listen(port, host, () => opened())
  })
}

async function closeServer(server: Server): Promise<void> {
  const closed = new Promise((done) => server.close(done))
  server.closeIdleConnections()
  const impatient = setTimeout(() => server.closeAllConnections(), 3000)
  await closed
  clearTimeout(impatient)
}
