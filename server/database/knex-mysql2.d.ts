declare module 'knex/lib/dialects/mysql2/index.js' {
  import { Knex } from 'knex'

  /** What of the query builder's driver is made Hallway's own. */
  export default class Mysql2Client extends Knex.Client {
    acquireConnection(): Promise<any>
    releaseConnection(connection: any): Promise<void>
    _query(connection: any, question: string | { sql: string }): Promise<unknown>
  }
}
