import mysql from 'mysql2/promise'

/**
 * A database of tests writes through to the system with each commit, and to the disk once a second: what was saved outlives its process, as everywhere, but not a loss
 * of power, which no test has.
 */
export async function flushLess(socketPath: string): Promise<void> {
  const root = await mysql.createConnection({ socketPath, user: 'root' })
  await root.query('SET GLOBAL innodb_flush_log_at_trx_commit = 2')
  await root.end()
}
