import type { Knex } from 'knex'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { inTime } from '../database/deadline'
import { retried } from '../database/transaction'
import { networkOf } from '../web/network'
import { isPassword } from './passwords'
import type { Person } from './person'

/** Somebody who would sign in: from where, and as whom that browser can show that it was signed in before. */
export type Attempt = { name: string; password: string; address: string; known: string | null }
export type SignedIn = { person: Person } | { problem: string; status: number }

const QUARTER_HOUR = 900
/** Wrong passwords for one account from one network, from one network for whatever names, and for one account from wherever. */
const LIMITS = { here: 10, network: 100, everywhere: 50 } as const
type Limit = keyof typeof LIMITS

const counting = new WeakMap<Knex, Record<Limit, RateLimiterMySQL>>()

/** Counted in the database, so that whoever guesses at two web processes has no more tries than at one. */
function countersOf(knex: Knex): Record<Limit, RateLimiterMySQL> {
  const known = counting.get(knex)
  if (known) return known
  const settings: { database?: string } = knex.client.connectionSettings
  const counter = (limit: Limit) =>
    new RateLimiterMySQL({
      storeClient: knex,
      storeType: 'knex',
      dbName: settings.database ?? '',
      tableName: 'guesses',
      tableCreated: true,
      keyPrefix: limit,
      points: LIMITS[limit],
      duration: QUARTER_HOUR,
    })
  const made = { here: counter('here'), network: counter('network'), everywhere: counter('everywhere') }
  counting.set(knex, made)
  return made
}

const WRONG = 'This name and this password do not go together. Look at both, then try again.'

/** Who is meant by a name, and the name as the database folds it: however it is spelled, it is one name. Both are asked whether or not anybody has it. */
async function meant(knex: Knex, name: string) {
  const [row, [[folded]]] = await Promise.all([
    knex('people').where({ name }).whereNull('retired').first('id', 'name', 'admin', 'password'),
    knex.raw('SELECT SHA2(WEIGHT_STRING(CONVERT(? USING utf8mb4) COLLATE utf8mb4_unicode_ci), 256) AS fold', [name]),
  ])
  return { row, account: row ? `person ${row.id}` : `name ${folded.fold}` }
}

/**
 * Whether a name and a password go together. Names that nobody has are answered as slowly and in the same words. Whoever guesses is slowed down: in one
 * network, and over all for one account, but a browser that was signed in to it before is not held up by what others guess elsewhere.
 */
export async function signIn(knex: Knex, { name, password, address, known }: Attempt): Promise<SignedIn> {
  const { row, account } = await meant(knex, name.trim())
  const network = networkOf(address)
  const { here, network: fromNetwork, everywhere } = countersOf(knex)
  const counters: [RateLimiterMySQL, string][] = [
    [here, `${account} ${network}`],
    [fromNetwork, network],
    ...(row && known === row.id ? [] : [[everywhere, account] as [RateLimiterMySQL, string]]),
  ]
  try {
    for (const [counter, key] of counters) await retried(() => inTime(counter.consume(key)))
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000))
    return {
      problem: `Too many tries. Wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}, then try again.`,
      status: 429,
    }
  }
  if (!(await isPassword(row?.password ?? null, password))) return { problem: WRONG, status: 422 }
  // only wrong ones count
  for (const [counter, key] of counters) await retried(() => inTime(counter.reward(key)))
  return { person: { id: row.id, name: row.name, admin: Boolean(row.admin) } }
}
