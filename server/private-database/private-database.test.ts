import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { delimiter, join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { type PrivateDatabase, startPrivateDatabase } from './private-database'

const home = mkdtempSync(join(tmpdir(), 'hallway-private-'))
let own: PrivateDatabase
beforeAll(async () => {
  own = await startPrivateDatabase({ home, say: () => {} })
})
afterAll(async () => {
  await own.stop()
  rmSync(home, { recursive: true, force: true })
})
const asked = async (sql: string) => {
  const connection = await mysql.createConnection(own.url)
  try {
    return await connection.query(sql)
  } finally {
    await connection.end()
  }
}

describe('the private database', () => {
  it.each(['root', ''])('lets nobody in over the network as %j without a password', async (user) => {
    for (const host of ['127.0.0.1', 'localhost'])
      await expect(mysql.createConnection({ host, port: own.port, user, password: '' })).rejects.toThrow(
        /denied|not allowed/i,
      )
  })
  it('knows no account but its own, root on the socket and the system’s, and none may read or write files', async () => {
    const socket = readdirSync(home).find((name) => name.endsWith('.sock'))
    const connection = await mysql.createConnection({ socketPath: join(home, socket ?? ''), user: 'root' })
    try {
      const [rows] = await connection.query<mysql.RowDataPacket[]>(
        "SELECT CONCAT(User, '@', Host) AS who FROM mysql.global_priv ORDER BY 1",
      )
      expect(rows.map(({ who }) => who)).toEqual(['hallway@127.0.0.1', 'mariadb.sys@localhost', 'root@localhost'])
      const file = join(tmpdir(), `hallway-${process.pid}.txt`)
      await expect(connection.query(`SELECT 'x' INTO OUTFILE '${file}'`)).rejects.toThrow(/denied|secure/i)
    } finally {
      await connection.end()
    }
  })
  it('gives its own user that database and no other, and no files', async () => {
    await expect(asked('SELECT * FROM mysql.global_priv')).rejects.toThrow(/denied/)
    await expect(asked("SELECT LOAD_FILE('/etc/hostname') AS text")).resolves.toHaveProperty('0.0.text', null)
    await expect(asked("SELECT 'x' INTO OUTFILE '/tmp/hallway-never.txt'")).rejects.toThrow(/denied|secure/i)
  })
})

describe('a database that takes long to start', () => {
  /** A mariadbd that thinks for a while before it begins, and writes down that it was started. */
  function slow(folder: string, seconds: number) {
    const tools = join(folder, 'tools')
    const started = join(folder, 'started')
    mkdirSync(tools, { recursive: true })
    writeFileSync(started, '')
    writeFileSync(
      join(tools, 'mariadbd'),
      `#!/bin/sh\necho $$ >> "${started}"\nsleep ${seconds}\nexec ${execFileSync('which', ['mariadbd'], { encoding: 'utf8' }).trim()} "$@"\n`,
      { mode: 0o755 },
    )
    vi.stubEnv('PATH', [tools, process.env.PATH].join(delimiter))
    return () => readFileSync(started, 'utf8').split('\n').filter(Boolean)
  }
  const runs = (pid: string): boolean => existsSync(`/proc/${pid}`)
  let folder: string
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'hallway-slow-'))
  })
  afterEach(() => {
    vi.unstubAllEnvs()
    rmSync(folder, { recursive: true, force: true })
  })

  it('is ended where nobody waits for it any longer, and not left running over its files', async () => {
    // its files are there already
    await (await startPrivateDatabase({ home: folder, say: () => {} })).stop()
    const started = slow(folder, 30)
    await expect(startPrivateDatabase({ home: folder, say: () => {}, patienceMs: 400 })).rejects.toThrow(
      /did not start/,
    )
    expect(started()).toHaveLength(1)
    expect(started().filter(runs)).toEqual([])
  })
  it('after it died is waited for: no second one is started beside it', async () => {
    const said: string[] = []
    const slowly = await startPrivateDatabase({ home: folder, say: () => {} }).then(async (first) => {
      await first.stop()
      const started = slow(folder, 3)
      return { started, database: await startPrivateDatabase({ home: folder, say: (line) => said.push(line) }) }
    })
    try {
      const [pid] = slowly.started()
      process.kill(Number(pid), 'SIGKILL')
      await vi.waitFor(() => expect(said).toContain('The database is back.'), { timeout: 60_000, interval: 100 })
      expect(slowly.started()).toHaveLength(2)
      const connection = await mysql.createConnection(slowly.database.url)
      await connection.end()
    } finally {
      await slowly.database.stop()
    }
    expect(slowly.started().filter(runs)).toEqual([])
  })
})

describe('the making of a database', () => {
  it('is tried twice, and what it said last is told where it fails twice', async () => {
    const tools = join(home, 'tools')
    const tries = join(home, 'tries')
    mkdirSync(tools)
    writeFileSync(
      join(tools, 'mariadb-install-db'),
      `#!/bin/sh\necho again >> "${tries}"\necho "Segmentation fault" >&2\nexit 1\n`,
      { mode: 0o755 },
    )
    vi.stubEnv('PATH', [tools, process.env.PATH].join(delimiter))
    try {
      const making = startPrivateDatabase({ home: join(home, 'never'), say: () => {} })
      await expect(making).rejects.toThrow(/could not be made[\s\S]*Segmentation fault/)
    } finally {
      vi.unstubAllEnvs()
    }
    expect(readFileSync(tries, 'utf8')).toBe('again\nagain\n')
  })
})
