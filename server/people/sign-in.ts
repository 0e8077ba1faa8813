import type { Knex } from 'knex'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { isPassword } from './passwords'
import type { Person } from './person'

/** Somebody who would sign in: from where, and whether that browser was signed in under that name before. */
export type Attempt = { name: string; password: string; address: string; known: boolean }
export type SignedIn = { person: Person } | { problem: string; status: number }

const QUARTER_HOUR = 900
/** Wrong passwords for one name from one address, from one address for whatever names, and for one name from wherever. */
const here = new RateLimiterMemory({ keyPrefix: 'here', points: 10, duration: QUARTER_HOUR })
const address = new RateLimiterMemory({ keyPrefix: 'address', points: 100, duration: QUARTER_HOUR })
const everywhere = new RateLimiterMemory({ keyPrefix: 'everywhere', points: 50, duration: QUARTER_HOUR })

const WRONG = 'This name and this password do not go together. Look at both, then try again.'

/**
 * Whether a name and a password go together. Names that nobody has are answered as slowly and in the same words. Whoever guesses is slowed down: at one
 * address, and over all for one name, but a browser that was signed in under that name before is not held up by what others guess elsewhere.
 */
export async function signIn(knex: Knex, { name, password, ...from }: Attempt): Promise<SignedIn> {
  const folded = name.trim().toLowerCase()
  const counters: [RateLimiterMemory, string][] = [
    [here, `${folded} ${from.address}`],
    [address, from.address],
    ...(from.known ? [] : [[everywhere, folded] as [RateLimiterMemory, string]]),
  ]
  try {
    for (const [counter, key] of counters) await counter.consume(key)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000))
    return {
      problem: `Too many tries. Wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}, then try again.`,
      status: 429,
    }
  }
  const row = await knex('people')
    .where({ name: name.trim() })
    .whereNull('retired')
    .first('id', 'name', 'admin', 'password')
  if (!(await isPassword(row?.password ?? null, password))) return { problem: WRONG, status: 422 }
  // only wrong ones count
  for (const [counter, key] of counters) await counter.reward(key)
  return { person: { id: row.id, name: row.name, admin: Boolean(row.admin) } }
}
