import { hash, randomBytes } from 'node:crypto'

/** Something that only its holder knows: what it is carried as, and what is kept of it here. */
export type Secret = { text: string; digest: string }

/** 256 random bits: too many to be guessed, so a plain sum of them may be kept. */
export function newSecret(): Secret {
  const text = randomBytes(32).toString('base64url')
  return { text, digest: digestOf(text) }
}

export const digestOf = (text: string): string => hash('sha256', text, 'hex')
