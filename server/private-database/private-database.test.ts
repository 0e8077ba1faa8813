import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { delimiter, join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
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
