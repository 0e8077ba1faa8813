import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { closeDatabase, DATABASE_URL_VARIABLE, database } from '../database/connection'
import { migrate } from '../database/migrate'
import { startPrivateDatabase } from '../private-database/private-database'
import { application } from '../web/application'
import { root } from './home'

/** Does work against a database of its own, gone afterwards. */
export async function withOwnDatabase<T>(work: (url: string) => Promise<T>): Promise<T> {
  const home = mkdtempSync(join(tmpdir(), 'hallway-bench-'))
  const own = await startPrivateDatabase({ home, say: () => {} })
  process.env[DATABASE_URL_VARIABLE] = own.url
  try {
    await migrate(database())
    return await work(own.url)
  } finally {
    await closeDatabase()
    await own.stop()
    rmSync(home, { recursive: true, force: true })
  }
}

/** Does work against the built application on a free port of loopback; told its address. */
export async function withServer<T>(work: (address: string) => Promise<T>): Promise<T> {
  const build = await import(pathToFileURL(join(root, 'build/app/server/index.js')).href)
  const server = createServer(
    application({
      build,
      clientFolder: join(root, 'build/app/client'),
      reach: { names: new Set(), publicUrl: null, proxies: [] },
    }),
  )
  await new Promise<void>((opened) => server.listen(0, '127.0.0.1', opened))
  try {
    return await work(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)
  } finally {
    server.closeAllConnections()
    server.close()
  }
}

export async function timedAsync(work: () => Promise<unknown>): Promise<number> {
  const started = performance.now()
  await work()
  return performance.now() - started
}
