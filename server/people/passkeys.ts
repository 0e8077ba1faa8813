import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import type {
  AuthenticationResponseJSON,
  AuthenticatorTransport,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server'
import type { Knex } from 'knex'
import { z } from 'zod'
import { nameField } from '../../core/vocabulary/fields'
import { databaseNow } from '../database/clock'
import { isDuplicate } from '../database/connection'
import { inTransaction } from '../database/transaction'
import { log } from '../log'
import type { Person } from './person'
import { digestOf } from './secret'
import type { SignedIn } from './sign-in'
import { signingSecret } from './signing-secret'

/** The door a passkey is for: the name by which browsers know this Hallway, and the address of its pages. */
export type Door = { name: string; origin: string }

export type ListedPasskey = { id: string; name: string; made: string; used: string | null }

/** A person has no more than a few devices. */
export const MOST_PASSKEYS = 20
/** Whoever is asked answers within so long. */
const QUESTION_MS = 300_000

/** A passkey is asked for only with whoever holds the device shown to it, by its lock or a PIN: two proofs in one. */
const SHOWN = 'required'

/** Its many certificates are read with the first passkey; a start need not wait for them. */
const webauthn = () => import('@simplewebauthn/server')

const UNFIT = 'This passkey was not taken: what came does not fit what was asked. Begin once more.'
const UNKNOWN = 'This passkey opens no account here. Sign in with your password, or choose another one.'

/** What a new passkey of somebody is made from, for their browser. */
export async function askForNewPasskey(
  knex: Knex,
  door: Door,
  person: Person,
): Promise<PublicKeyCredentialCreationOptionsJSON> {
  const known: { credential: string; transports: string }[] = await knex('person_passkeys')
    .where({ person: person.id })
    .select('credential', 'transports')
  const { generateRegistrationOptions } = await webauthn()
  return generateRegistrationOptions({
    rpName: 'Hallway',
    rpID: door.name,
    userName: person.name,
    userID: new Uint8Array(Buffer.from(person.id)),
    challenge: await question(knex, `new ${person.id}`),
    attestationType: 'none',
    excludeCredentials: known.map(({ credential, transports }) => ({ id: credential, transports: asList(transports) })),
    authenticatorSelection: { residentKey: 'required', userVerification: SHOWN },
  })
}

/** Keeps a passkey that somebody's browser has made. Answers why not, or null. */
export async function keepPasskey(
  knex: Knex,
  door: Door,
  person: Person,
  { name, answer }: { name: string; answer: string },
): Promise<string | null> {
  const called = nameField.safeParse(name)
  if (!called.success) return 'Say what you call it, in 1 to 120 letters.'
  const [count] = await knex('person_passkeys').where({ person: person.id }).count({ all: '*' })
  if (Number(count?.all ?? 0) >= MOST_PASSKEYS) return `You have ${MOST_PASSKEYS} passkeys. Take one away first.`
  const response = read<RegistrationResponseJSON>(answer)
  const { verifyRegistrationResponse } = await webauthn()
  const [secret, now] = await Promise.all([signingSecret(knex), databaseNow(knex)])
  let asked = ''
  const found =
    response &&
    (await unlessUnfit(() =>
      verifyRegistrationResponse({
        response,
        expectedChallenge: (text) => {
          asked = text
          return isOurs(secret, `new ${person.id}`, text, now)
        },
        expectedOrigin: door.origin,
        expectedRPID: door.name,
        requireUserVerification: true,
      }),
    ))
  if (!found?.verified) return UNFIT
  const { id, publicKey, counter, transports = [] } = found.registrationInfo.credential
  try {
    return await inTransaction(knex, async (trx) => {
      if (!(await answeredFirst(trx, asked, now))) return UNFIT
      await trx('person_passkeys').insert({
        digest: digestOf(id),
        person: person.id,
        credential: id,
        public_key: Buffer.from(publicKey).toString('base64url'),
        transports: transports.join(' ').slice(0, 200),
        counter,
        name: called.data,
        made: new Date(),
      })
      return null
    })
  } catch (error) {
    if (isDuplicate(error)) return 'This passkey is kept here already.'
    throw error
  }
}

/** What a browser is asked at the door. It is the same for whoever stands there: which passkeys there are is told to nobody. */
export const askForPasskey = async (knex: Knex, door: Door): Promise<PublicKeyCredentialRequestOptionsJSON> =>
  (await webauthn()).generateAuthenticationOptions({
    rpID: door.name,
    challenge: await question(knex, 'door'),
    userVerification: SHOWN,
    allowCredentials: [],
  })

/** Who comes in by a passkey. Each question is answered once: an answer that was overheard opens nothing, however clocks are set. */
export async function signInByPasskey(knex: Knex, door: Door, answer: string): Promise<SignedIn> {
  const response = read<AuthenticationResponseJSON>(answer)
  if (!response) return { problem: UNFIT, status: 422 }
  const digest = digestOf(response.id)
  const row = await knex('person_passkeys')
    .join('people', 'people.id', 'person_passkeys.person')
    .where({ digest })
    .whereNull('people.retired')
    .first('people.id', 'people.name', 'people.admin', 'credential', 'public_key', 'counter')
  if (!row) return { problem: UNKNOWN, status: 422 }
  const [secret, now] = await Promise.all([signingSecret(knex), databaseNow(knex)])
  const { verifyAuthenticationResponse } = await webauthn()
  let asked = ''
  const found = await unlessUnfit(() =>
    verifyAuthenticationResponse({
      response,
      expectedChallenge: (text) => {
        asked = text
        return isOurs(secret, 'door', text, now)
      },
      expectedOrigin: door.origin,
      expectedRPID: door.name,
      credential: {
        id: row.credential,
        publicKey: new Uint8Array(Buffer.from(row.public_key, 'base64url')),
        counter: Number(row.counter),
      },
      requireUserVerification: true,
    }),
  )
  if (!found?.verified) return { problem: UNFIT, status: 422 }
  if (!(await answeredFirst(knex, asked, now))) return { problem: UNFIT, status: 422 }
  await knex('person_passkeys')
    .where({ digest })
    .update({ counter: found.authenticationInfo.newCounter, used: new Date() })
  return { person: { id: row.id, name: row.name, admin: Boolean(row.admin) } }
}

/** The passkeys of a person, the latest first. */
export const passkeysOf = (knex: Knex, { id }: Pick<Person, 'id'>): Promise<ListedPasskey[]> =>
  knex('person_passkeys').where({ person: id }).orderBy('made', 'desc').select({ id: 'digest' }, 'name', 'made', 'used')

/** Takes a passkey away; one of somebody else's is left alone. */
export const endPasskey = (knex: Knex, { id }: Pick<Person, 'id'>, digest: string): Promise<number> =>
  knex('person_passkeys').where({ person: id, digest }).delete()

const asList = (transports: string): AuthenticatorTransport[] =>
  transports.split(' ').filter(Boolean) as AuthenticatorTransport[]

/** As much of an answer as tells that it is one; the rest is for the library to look at. */
const answerSchema = z.looseObject({
  id: z.string().regex(/^[\w-]{1,1400}$/),
  rawId: z.string(),
  type: z.literal('public-key'),
  response: z.looseObject({ clientDataJSON: z.string() }),
  clientExtensionResults: z.looseObject({}),
})

function read<T extends AuthenticationResponseJSON | RegistrationResponseJSON>(text: string): T | null {
  try {
    // the library takes no part of it on trust
    return answerSchema.parse(JSON.parse(text)) as unknown as T
  } catch {
    return null
  }
}

/** What the library makes of an answer; null where it finds something wrong with it, which it throws. */
async function unlessUnfit<T>(look: () => Promise<T>): Promise<T | null> {
  try {
    return await look()
  } catch (error) {
    log.warn({ reason: error instanceof Error ? error.message : 'unknown' }, 'a passkey was not taken')
    return null
  }
}

const RANDOM_BYTES = 24
const TIME_BYTES = 8
const SUM_BYTES = 32

const sumOf = (secret: string, purpose: string, told: Uint8Array): Buffer =>
  createHmac('sha256', secret).update(purpose).update('\n').update(told).digest()

/** A question that nobody else can have put, with when it was put and what for in it, so that nothing need be remembered of it. */
async function question(knex: Knex, purpose: string): Promise<Uint8Array<ArrayBuffer>> {
  const told = Buffer.alloc(RANDOM_BYTES + TIME_BYTES)
  randomBytes(RANDOM_BYTES).copy(told)
  told.writeBigUInt64BE(BigInt(await databaseNow(knex)), RANDOM_BYTES)
  return new Uint8Array(Buffer.concat([told, sumOf(await signingSecret(knex), purpose, told)]))
}

/** Whether a question is ours, was put for this, and not too long ago. */
function isOurs(secret: string, purpose: string, text: string, now: number): boolean {
  const all = Buffer.from(text, 'base64url')
  if (all.length !== RANDOM_BYTES + TIME_BYTES + SUM_BYTES) return false
  const told = all.subarray(0, RANDOM_BYTES + TIME_BYTES)
  if (!timingSafeEqual(all.subarray(told.length), sumOf(secret, purpose, told))) return false
  // a clock that was set back makes no question last longer
  return Math.abs(now - Number(told.readBigUInt64BE(RANDOM_BYTES))) <= QUESTION_MS
}

/** Uses a question up. It is kept until nobody would take it any more, even where the clock is set back; of two answers to it the first counts. */
async function answeredFirst(knex: Knex, asked: string, now: number): Promise<boolean> {
  try {
    await knex('used_questions').insert({ digest: digestOf(asked), until: now + 2 * QUESTION_MS })
    return true
  } catch (error) {
    if (isDuplicate(error)) return false
    throw error
  }
}

/** Lets go of questions that nobody would take any more. */
export const sweepQuestions = async (knex: Knex): Promise<void> => {
  await knex('used_questions')
    .where('until', '<', await databaseNow(knex))
    .delete()
}
