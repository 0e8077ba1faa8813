import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startPrivateDatabase } from '../../server/private-database/private-database'
import { flushLess } from './flush-less'

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string
    /** Where its root is reached, for tests that make databases of their own. */
    databaseSocket: string
  }
}

/** One MariaDB for all server tests, made and started the way the start command does it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const home = mkdtempSync(join(tmpdir(), 'hallway-test-'))
  const own = await startPrivateDatabase({ home, say: () => {} })
  await flushLess(join(home, 'database.sock'))
  project.provide('databaseUrl', own.url)
  project.provide('databaseSocket', join(home, 'database.sock'))
  return async () => {
    await own.stop()
    rmSync(home, { recursive: true, force: true })
  }
}
