import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { offTheClock } from '../database/deadline'
import { Failure } from '../failure'

export const SHORTEST_PASSWORD = 12
export const LONGEST_PASSWORD = 200

/** Argon2id, which is what the package does unless told otherwise, with what OWASP's cheat sheet on keeping passwords asks for at least: 19 MiB, two passes, one lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }
/** So many are worked out at once, on threads of their own; the others stand in line, and pages go on meanwhile. */
const AT_ONCE = 2
/** Whoever comes to a longer line is sent away. */
const LONGEST_LINE = 40

const line = pLimit(AT_ONCE)

const inLine = <T>(work: () => Promise<T>): Promise<T> => {
  if (line.pendingCount >= LONGEST_LINE)
    throw new Failure('Too many people sign in at this moment. Wait a minute, then try again.')
  return offTheClock(() => line(work))
}

export const hashPassword = (password: string): Promise<string> => inLine(() => hash(password, COST))

/** Whether a password is the one that was kept. Where none was kept it takes as long, and is never right. */
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  const right = await inLine(async () => verify(kept ?? (await standIn()), password))
  return right && kept !== null
}

/** Whether something is a password as it is kept here; to look at one that asks for more work than ours would hold everybody up. */
export const isKeptPassword = (kept: unknown): boolean =>
  typeof kept === 'string' &&
  kept.startsWith(`$argon2id$v=19$m=${COST.memoryCost},t=${COST.timeCost},p=${COST.parallelism}$`) &&
  /^[\w$+/=,]{60,200}$/.test(kept)

let made: Promise<string> | null = null
const standIn = (): Promise<string> => {
  made ??= hash('nobody has this password', COST)
  return made
}

/** Why a password will not do; null where it will. Length counts, not which letters it is made of. */
export async function whyNotPassword(password: string, name: string): Promise<string | null> {
  if ([...password].length < SHORTEST_PASSWORD)
    return `A password has at least ${SHORTEST_PASSWORD} letters. A few words in a row are easy to keep in mind.`
  if (password.length > LONGEST_PASSWORD) return `A password has at most ${LONGEST_PASSWORD} letters.`
  const plain = password.toLowerCase()
  if (plain.includes(name.toLowerCase())) return 'A password that holds your name is easy to guess.'
  if (new Set(plain).size < 5) return 'A password of so few different letters is easy to guess.'
  return (await commonPasswords()).has(plain) ? 'This is one of the commonest passwords, so it is easy to guess.' : null
}

let common: Promise<ReadonlySet<string>> | null = null
/** A registry package's list of the commonest; read when it is first asked for. */
const commonPasswords = (): Promise<ReadonlySet<string>> => {
  common ??= import('@zxcvbn-ts/language-common').then(({ dictionary }) => new Set(dictionary['passwords-common']))
  return common
}
