declare module 'knex/lib/dialects/mysql2/index.js' {
  import { Knex } from 'knex'
  import type { PooledConnection } from './connection'

  /** What of the query builder's driver is made Hallway's own. */
  export default class Mysql2Client extends Knex.Client {
    acquireConnection(): Promise<PooledConnection>
    releaseConnection(connection: PooledConnection): Promise<void>
    _query(connection: PooledConnection, question: string | { sql: string }): Promise<unknown>
  }
}
