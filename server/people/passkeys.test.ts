import fc from 'fast-check'
import type { Knex } from 'knex'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { newDevice } from '../../tests/support/device-with-passkeys'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { cases } from '../../tests/support/laws'
import { migrate } from '../database/migrate'
import {
  askForNewPasskey,
  askForPasskey,
  endPasskey,
  keepPasskey,
  MOST_PASSKEYS,
  passkeysOf,
  signInByPasskey,
  sweepQuestions,
} from './passkeys'
import { addPerson, invite, retire, takeUp } from './people'
import type { Person } from './person'

const door = { name: 'hallway.example', origin: 'https://hallway.example' }
const here = (work: (knex: Knex) => Promise<void>) =>
  withEmptyDatabase(async (knex) => {
    await migrate(knex)
    await work(knex)
  })
/** How far somebody has set the clock of the database. */
const clock = vi.hoisted(() => ({ ahead: 0 }))
vi.mock('../database/clock', async (original) => {
  const { databaseNow } = await original<typeof import('../database/clock')>()
  return { databaseNow: async (knex: Knex) => (await databaseNow(knex)) + clock.ahead }
})
const HOUR_MS = 3_600_000
afterEach(() => {
  vi.useRealTimers()
  clock.ahead = 0
})

/** Somebody beside an admin, with a device that is known here. */
async function known(knex: Knex) {
  await addPerson(knex, { name: 'Ada' })
  const bo = await addPerson(knex, { name: 'Bo' })
  const device = newDevice()
  const answer = device.make(await askForNewPasskey(knex, door, bo), door)
  expect(await keepPasskey(knex, door, bo, { name: 'my phone', answer })).toBeNull()
  return { bo, device }
}
type Known = Awaited<ReturnType<typeof known>>
const comesIn = async (knex: Knex, { device }: Known, told: Partial<Parameters<Known['device']['answer']>[1]> = {}) =>
  signInByPasskey(knex, door, device.answer(await askForPasskey(knex, door), { ...door, ...told }))
const person = ({ id, name, admin }: Person) => ({ person: { id, name, admin } })
const refused = { problem: expect.any(String), status: 422 }

describe('a passkey', () => {
  it('lets in whoever made it, again and again, until it is taken away', () =>
    here(async (knex) => {
      const one = await known(knex)
      for (let time = 0; time < 3; time += 1) expect(await comesIn(knex, one)).toEqual(person(one.bo))
      const [kept] = await passkeysOf(knex, one.bo)
      expect(kept).toMatchObject({ name: 'my phone', used: expect.anything() })
      await endPasskey(knex, { id: 'somebody else' }, kept?.id ?? '')
      expect(await comesIn(knex, one)).toEqual(person(one.bo))
      await endPasskey(knex, one.bo, kept?.id ?? '')
      expect(await comesIn(knex, one)).toEqual(refused)
    }))
  it('answers each question once, and none that was put too long ago, by somebody else or for something else', () =>
    here(async (knex) => {
      const one = await known(knex)
      const { bo, device } = one
      const question = await askForPasskey(knex, door)
      const answer = device.answer(question, door)
      expect(await signInByPasskey(knex, door, answer)).toEqual(person(bo))
      expect(await signInByPasskey(knex, door, answer)).toEqual(refused)
      expect(await signInByPasskey(knex, door, device.answer(question, door))).toEqual(refused)
      const made = await askForNewPasskey(knex, door, bo)
      expect(await signInByPasskey(knex, door, device.answer(made, door))).toEqual(refused)
      const own = { challenge: Buffer.alloc(64, 7).toString('base64url') }
      expect(await signInByPasskey(knex, door, device.answer(own, door))).toEqual(refused)
      const late = await askForPasskey(knex, door)
      clock.ahead += 298_000
      expect(await signInByPasskey(knex, door, device.answer(late, door))).toEqual(person(bo))
      const later = await askForPasskey(knex, door)
      clock.ahead += 301_000
      expect(await signInByPasskey(knex, door, device.answer(later, door))).toEqual(refused)
    }))
  it('goes by the clock of the database: that of a web process may be an hour off, and whoever sets one back is let in by no answer twice', () =>
    here(async (knex) => {
      const one = await known(knex)
      const { bo, device } = one
      const question = await askForPasskey(knex, door)
      vi.useFakeTimers({ toFake: ['Date'], now: Date.now() - HOUR_MS })
      const answer = device.answer(question, door)
      expect(await signInByPasskey(knex, door, answer)).toEqual(person(bo))
      for (const ahead of [0, -299_000, -HOUR_MS, 299_000]) {
        clock.ahead = ahead
        await sweepQuestions(knex)
        expect(await signInByPasskey(knex, door, answer), `${ahead}`).toEqual(refused)
        expect(await comesIn(knex, one)).toEqual(person(bo))
      }
      // and nothing is kept for good
      clock.ahead = HOUR_MS
      await sweepQuestions(knex)
      expect(await knex('used_questions')).toEqual([])
    }))
  it('is good at its own door only, and with its holder shown to the device', () =>
    here(async (knex) => {
      const one = await known(knex)
      for (const told of [
        { origin: 'https://hallway.example.evil.example' },
        { origin: 'http://hallway.example' },
        { name: 'example' },
        { verified: false },
        { type: 'webauthn.create' },
        // one that was copied counts on its own
        { counter: 0 },
      ]) {
        await comesIn(knex, one)
        expect(await comesIn(knex, one, told), JSON.stringify(told)).toEqual(refused)
      }
      expect(await comesIn(knex, one)).toEqual(person(one.bo))
    }))
  it('is made by whoever was asked for it, at the door, and is nobody else’s', () =>
    here(async (knex) => {
      const { bo, device } = await known(knex)
      const cas = await addPerson(knex, { name: 'Cas' })
      const other = newDevice()
      const keep = (answer: string, name = 'x') => keepPasskey(knex, door, cas, { name, answer })
      const question = await askForNewPasskey(knex, door, cas)
      expect(await keep(other.make(await askForNewPasskey(knex, door, bo), door))).toMatch(/not taken/)
      expect(await keep(other.make(await askForPasskey(knex, door), door))).toMatch(/not taken/)
      for (const told of [{ origin: 'https://evil.example' }, { name: 'evil.example' }, { verified: false }])
        expect(await keep(other.make(question, { ...door, ...told }))).toMatch(/not taken/)
      expect(await keep(other.make(question, door), ' ')).toMatch(/Say what you call it/)
      expect(await keep(device.make(question, door))).toMatch(/kept here already/)
      expect(await passkeysOf(knex, cas)).toEqual([])
      expect(await keep(other.make(question, door))).toBeNull()
      for (let more = 1; more < MOST_PASSKEYS; more += 1)
        await keep(newDevice().make(await askForNewPasskey(knex, door, cas), door))
      expect(await keep(newDevice().make(question, door))).toMatch(/Take one away first/)
    }))
  it('ends with its account, and with an account that is begun anew', () =>
    here(async (knex) => {
      const one = await known(knex)
      expect(await takeUp(knex, await invite(knex, one.bo), 'a phrase that is long enough')).toBeNull()
      expect(await comesIn(knex, one)).toEqual(refused)
      const two = newDevice()
      await keepPasskey(knex, door, one.bo, {
        name: 'x',
        answer: two.make(await askForNewPasskey(knex, door, one.bo), door),
      })
      expect(await comesIn(knex, { ...one, device: two })).toEqual(person(one.bo))
      await retire(knex, one.bo)
      expect(await comesIn(knex, { ...one, device: two })).toEqual(refused)
      expect(await knex('person_passkeys')).toEqual([])
    }))
  it('that was changed anywhere, or is no passkey at all, is refused in words', () =>
    here(async (knex) => {
      const one = await known(knex)
      const flipped = (answer: string, field: string, at: number, bit: number): string => {
        const told = JSON.parse(answer)
        const bytes = Buffer.from(told.response[field], 'base64url')
        // how the two numbers of a signature are wrapped may be written in more than one way: their digits stand at its end
        const place = field === 'signature' ? bytes.length - 1 - (at % 24) : at % bytes.length
        bytes[place] = (bytes[place] ?? 0) ^ (1 << bit)
        told.response[field] = bytes.toString('base64url')
        return JSON.stringify(told)
      }
      await fc.assert(
        fc.asyncProperty(
          fc.constantFrom('clientDataJSON', 'authenticatorData', 'signature'),
          fc.nat(500),
          fc.nat(7),
          async (field, at, bit) => {
            const answer = one.device.answer(await askForPasskey(knex, door), door)
            expect(await signInByPasskey(knex, door, flipped(answer, field, at, bit))).toEqual(refused)
          },
        ),
        { numRuns: cases(60) },
      )
      const id = one.device.id
      await fc.assert(
        fc.asyncProperty(fc.oneof(fc.string(), fc.json()), fc.json(), async (text, inner) => {
          const shaped = JSON.stringify({
            id,
            rawId: id,
            type: 'public-key',
            response: {
              clientDataJSON: Buffer.from(inner).toString('base64url'),
              authenticatorData: text,
              signature: text,
            },
            clientExtensionResults: {},
          })
          for (const hostile of [text, shaped]) {
            expect(await signInByPasskey(knex, door, hostile)).toEqual(refused)
            expect(await keepPasskey(knex, door, one.bo, { name: 'x', answer: hostile })).toMatch(/not taken/)
          }
        }),
        { numRuns: cases(40) },
      )
      expect(await comesIn(knex, one)).toEqual(person(one.bo))
    }))
})
