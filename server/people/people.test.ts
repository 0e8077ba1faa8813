import { argon2id, argon2Verify } from 'hash-wasm'
import type { Knex } from 'knex'
import { describe, expect, it, vi } from 'vitest'
import type { Copy, Edit } from '../../core/change/change'
import type { Plan } from '../../core/plan/plan'
import { bytesGrown, bytesOfPlan } from '../../core/plan/write'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { connect } from '../database/connection'
import { migrate } from '../database/migrate'
import { changeSite, type Hand } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { undoChange } from '../sites/history'
import { importPlan } from '../sites/sites'
import { accessTo, askerOf, askerStands, hasAccounts, nameOf, sitesFor } from './asker'
import { forget } from './forget'
import { knownAs, knownIn } from './known-browser'
import { hashPassword, isPassword, whyNotPassword } from './passwords'
import {
  addPerson,
  invite,
  listPeople,
  personCalled,
  retire,
  setAdmin,
  setLogin,
  setPassword,
  takeUp,
  takeUpByLogin,
} from './people'
import type { Person } from './person'
import { digestOf } from './secret'
import { beganLately, beginSession, endSessionsOf, IDLE_DAYS, LONGEST_DAYS, sessionOf, sweepSessions } from './sessions'
import { signIn } from './sign-in'
import { keyOf, keysOf, makeKey, takeKeyBack } from './site-keys'
import { ALL, accessOfPerson, rightsOn, setRight } from './site-rights'

const DAY_MS = 86_400_000
const phrase = 'a phrase that is long enough'
const here = (work: (knex: Knex) => Promise<void>): Promise<void> =>
  withEmptyDatabase(async (knex) => {
    await migrate(knex)
    await work(knex)
  })
const nothing = { session: null, link: null, token: null }

describe('a password', () => {
  it('is kept so that a second implementation of argon2 finds it right, and the other way round', async () => {
    const kept = await hashPassword(phrase)
    expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
    expect(await argon2Verify({ password: phrase, hash: kept })).toBe(true)
    expect(await argon2Verify({ password: `${phrase}.`, hash: kept })).toBe(false)
    const theirs = await argon2id({
      password: phrase,
      salt: crypto.getRandomValues(new Uint8Array(16)),
      parallelism: 1,
      iterations: 2,
      memorySize: 19_456,
      hashLength: 32,
      outputType: 'encoded',
    })
    expect([await isPassword(theirs, phrase), await isPassword(theirs, 'another')]).toEqual([true, false])
  })
  it('that was never chosen is never right', async () => {
    expect(await isPassword(null, 'nobody has this password')).toBe(false)
  })
  it.each([
    ['too short', 'eleven char', /at least 12/],
    ['as long as may be, and one', 'x1y2z'.repeat(41), /at most 200/],
    ['of the commonest', 'Qwerty123456', /commonest/],
    ['with the name in it', 'my ada lovely phrase', /your name/],
    ['of few letters', 'abababababababab', /few different/],
  ])('is refused: %s', async (_what, password, why) => {
    expect(await whyNotPassword(password, 'Ada')).toMatch(why)
  })
  it('may be of any letters', async () => {
    for (const good of ['just a few plain words', 'слова на кириллице', '🔑 🚪 🧰 🔌 🖥️ 💾 12345'])
      expect(await whyNotPassword(good, 'Ada')).toBeNull()
  })
})

describe('accounts', () => {
  it('begin with the first, who runs this Hallway; a name is given once, however it is written', () =>
    here(async (knex) => {
      expect(await hasAccounts(knex)).toBe(false)
      const ada = await addPerson(knex, { name: 'Ada Wren' })
      const bo = await addPerson(knex, { name: 'Bo' })
      expect([ada.admin, bo.admin]).toEqual([true, false])
      await expect(addPerson(knex, { name: 'ADA WREN' })).rejects.toThrow(/never given to somebody else/)
      await retire(knex, bo)
      await expect(addPerson(knex, { name: 'bo' })).rejects.toThrow(/never given to somebody else/)
      expect(await personCalled(knex, 'bo')).toBeNull()
      expect((await listPeople(knex)).map(({ name, retired }) => [name, retired !== null])).toEqual([
        ['Ada Wren', false],
        ['Bo', true],
      ])
    }))
  it('always leave somebody who runs this Hallway, and somebody who leads each site', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const bo = await addPerson(knex, { name: 'Bo' })
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      await setRight(knex, site, bo.id, ALL)
      await expect(retire(knex, ada)).rejects.toThrow(/Nobody would be left/)
      await expect(setAdmin(knex, ada, false)).rejects.toThrow(/Nobody would be left/)
      await expect(retire(knex, bo)).rejects.toThrow(/Nobody would be left who leads/)
      await expect(setRight(knex, site, bo.id, { held: 'look', hides: [] })).rejects.toThrow(
        /Nobody would be left who leads/,
      )
      expect(await accessOfPerson(knex, bo, site)).toEqual(ALL)
      expect(await accessOfPerson(knex, ada, site)).toEqual(ALL)
    }))
  it('however many are taken away at once, somebody runs this Hallway and somebody leads each site', () =>
    here(async (knex) => {
      const admins = await Promise.all(['Ada', 'Bo', 'Cas'].map((name) => addPerson(knex, { name, admin: true })))
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      const leads = await Promise.all(['Di', 'Ed'].map((name) => addPerson(knex, { name })))
      for (const lead of leads) await setRight(knex, site, lead.id, ALL)
      const less: Promise<unknown>[] = [
        ...admins.map((each) => setAdmin(knex, each, false)),
        setRight(knex, site, leads[0]?.id ?? '', null),
        retire(knex, leads[1] as Person),
      ]
      const ends = await Promise.allSettled(less)
      expect(ends.filter(({ status }) => status === 'rejected')).toHaveLength(2)
      expect((await listPeople(knex)).filter(({ admin, retired }) => admin && retired === null)).toHaveLength(1)
      expect((await rightsOn(knex, site)).filter(({ held }) => held === 'lead')).toHaveLength(1)
    }))
  it('whoever is made an admin signs in anew, and whoever is one already does not', () =>
    here(async (knex) => {
      const [ada, bo] = [await addPerson(knex, { name: 'Ada' }), await addPerson(knex, { name: 'Bo' })]
      const [hers, his] = [await beginSession(knex, ada, 'a desk'), await beginSession(knex, bo, 'a desk')]
      await setAdmin(knex, ada, true)
      await setAdmin(knex, bo, true)
      expect(await sessionOf(knex, hers)).not.toBeNull()
      expect(await sessionOf(knex, his)).toBeNull()
    }))
  it('an invitation is taken up by one of any who try at once', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const first = await invite(knex, ada)
      const text = await invite(knex, ada)
      expect(await takeUp(knex, first, phrase)).toMatch(/was used or has ended/)
      expect(await takeUp(knex, text, 'short')).toMatch(/at least 12/)
      const tries = await Promise.all(Array.from({ length: 6 }, () => takeUp(knex, text, phrase)))
      expect(tries.filter((why) => why === null)).toHaveLength(1)
      await knex('invitations').insert({ digest: digestOf('old'), person: ada.id, until: new Date(Date.now() - 1000) })
      expect(await takeUp(knex, 'old', phrase)).toMatch(/has ended/)
    }))
})

describe('a session', () => {
  it('ends after its days, idle or not, and is kept as a sum that opens nothing', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const text = await beginSession(knex, ada, 'a computer')
      const digest = digestOf(text)
      expect((await sessionOf(knex, text))?.person).toEqual(ada)
      expect(await sessionOf(knex, digest)).toBeNull()
      const days = (count: number) => new Date(Date.now() - count * DAY_MS)
      await knex('person_sessions')
        .where({ digest })
        .update({ seen: days(IDLE_DAYS - 0.01) })
      expect(await sessionOf(knex, text)).not.toBeNull()
      await knex('person_sessions')
        .where({ digest })
        .update({ seen: days(IDLE_DAYS + 0.01) })
      expect(await sessionOf(knex, text)).toBeNull()
      await knex('person_sessions')
        .where({ digest })
        .update({ seen: new Date(), began: days(LONGEST_DAYS + 0.01) })
      expect(await sessionOf(knex, text)).toBeNull()
      await sweepSessions(knex)
      expect(await knex('person_sessions')).toEqual([])
    }))
  it('is young for a quarter of an hour: after it nothing is added that opens the account', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const digest = digestOf(await beginSession(knex, ada, 'a desk'))
      expect(await beganLately(knex, digest)).toBe(true)
      await knex('person_sessions').update({ began: new Date(Date.now() - 899_000) })
      expect(await beganLately(knex, digest)).toBe(true)
      await knex('person_sessions').update({ began: new Date(Date.now() - 901_000) })
      expect(await beganLately(knex, digest)).toBe(false)
      expect(await beganLately(knex, 'made up')).toBe(false)
    }))
  it('ends with the account and with a password that is set anew', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const bo = await addPerson(knex, { name: 'Bo' })
      const own = await beginSession(knex, ada, 'x')
      const other = await beginSession(knex, ada, 'y')
      const his = await beginSession(knex, bo, 'x')
      await endSessionsOf(knex, ada.id, digestOf(own))
      expect([await sessionOf(knex, own), await sessionOf(knex, other)].map(Boolean)).toEqual([true, false])
      await setPassword(knex, ada, phrase)
      await retire(knex, bo)
      expect([await sessionOf(knex, own), await sessionOf(knex, his)]).toEqual([null, null])
    }))
})

describe('a key', () => {
  it('opens one site as what it is, to its day and until it is taken back', () =>
    here(async (knex) => {
      await addPerson(knex, { name: 'Ada' })
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      const other = await importPlan(knex, { by: 'Ada' }, demo)
      const made = { name: 'The client', held: 'look', hides: ['prices'], until: null, by: 'Ada', maker: null } as const
      const link = await makeKey(knex, site, { ...made, sort: 'link' })
      const ended = await makeKey(knex, site, { ...made, sort: 'link', until: new Date(Date.now() - 1000) })
      expect(await keyOf(knex, link, 'token')).toBeNull()
      expect(await keyOf(knex, ended, 'link')).toBeNull()
      const { who: asker } = await askerOf(knex, { ...nothing, link })
      expect(await accessTo(knex, asker, site)).toMatchObject({ held: 'look', hides: ['prices'] })
      expect(await accessTo(knex, asker, other)).toBeNull()
      expect([nameOf(asker), await sitesFor(knex, asker)]).toEqual(['The client', new Map([[site, asker.key]])])
      await takeKeyBack(knex, other, asker.key?.id ?? '')
      expect(await keyOf(knex, link, 'link')).not.toBeNull()
      await takeKeyBack(knex, site, asker.key?.id ?? '')
      expect(await keyOf(knex, link, 'link')).toBeNull()
    }))
  it('and an account together open what the more of them opens', () =>
    here(async (knex) => {
      await addPerson(knex, { name: 'Ada' })
      const bo = await addPerson(knex, { name: 'Bo' })
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      const link = await makeKey(knex, site, {
        name: 'x',
        sort: 'link',
        held: 'look',
        hides: ['notes'],
        until: null,
        by: 'Ada',
        maker: null,
      })
      const session = await beginSession(knex, bo, 'x')
      // asked with the session in one question, or by itself: it is the same
      const may = async () => {
        const { who, access } = await askerOf(knex, { session, link, token: null }, site)
        expect(await accessTo(knex, who, site)).toEqual(access)
        return access
      }
      expect(await may()).toMatchObject({ held: 'look', hides: ['notes'] })
      await setRight(knex, site, bo.id, { held: 'look', hides: [] })
      expect(await may()).toEqual({ held: 'look', hides: [] })
      await setRight(knex, site, bo.id, { held: 'work', hides: [] })
      expect(await may()).toEqual({ held: 'work', hides: [] })
      await setAdmin(knex, bo, true)
      expect(await sessionOf(knex, session, site)).toBeNull()
      expect((await askerOf(knex, nothing, site)).access).toBeNull()
    }))
})

describe('an account that is begun anew', () => {
  /** Every way in that an account can have. */
  async function withAllWaysIn(knex: Knex) {
    await addPerson(knex, { name: 'Ada' })
    const bo = await addPerson(knex, { name: 'Bo' })
    await setPassword(knex, bo, 'an earlier phrase of his')
    await setLogin(knex, bo, { issuer: 'https://old.example', subject: 'bo' })
    await knex('person_passkeys').insert({
      digest: 'd',
      person: bo.id,
      credential: 'c',
      public_key: 'p',
      transports: '',
      counter: 0,
      name: 'a phone',
      made: new Date(),
    })
    await beginSession(knex, bo, 'a desk')
    return { bo, invitation: await invite(knex, bo) }
  }
  const waysInto = async (knex: Knex, person: string) => ({
    password: (await knex('people').where({ id: person }).first('password')).password !== null,
    sessions: (await knex('person_sessions').where({ person })).length,
    passkeys: (await knex('person_passkeys').where({ person })).length,
    logins: await knex('person_logins').where({ person }).pluck('issuer'),
    invitations: (await knex('invitations').where({ person })).length,
  })
  const none = { password: false, sessions: 0, passkeys: 0, logins: [] as string[], invitations: 0 }
  it.each([
    ['by a password', (knex: Knex, text: string) => takeUp(knex, text, phrase), { ...none, password: true }],
    [
      'at the company’s',
      (knex: Knex, text: string) => takeUpByLogin(knex, text, { issuer: 'https://new.example', subject: 'bo' }),
      { ...none, logins: ['https://new.example'] },
    ],
    [
      'at the terminal',
      async (knex: Knex) => setPassword(knex, (await personCalled(knex, 'Bo')) as Person, phrase),
      { ...none, password: true },
    ],
  ])('%s is opened by nothing else any more', (_how, takeUpBy, left) =>
    here(async (knex) => {
      const { bo, invitation } = await withAllWaysIn(knex)
      await takeUpBy(knex, invitation)
      expect(await waysInto(knex, bo.id)).toEqual(left)
    }),
  )
  it('has the links and tokens that it made: they end with it, unless they are handed on', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      for (const handTo of [null, ada]) {
        const bo = await addPerson(knex, { name: handTo ? 'Bo' : 'Cas' })
        const made = { held: 'look', hides: [], until: null, by: bo.name, maker: bo.id } as const
        const link = await makeKey(knex, site, { ...made, name: 'The client', sort: 'link' })
        expect(await retire(knex, bo, handTo)).toEqual([{ name: 'The client', sort: 'link', site: demo.site.name }])
        expect((await keyOf(knex, link, 'link')) !== null).toBe(handTo !== null)
      }
      expect((await keysOf(knex, site)).map(({ madeBy }) => madeBy)).toEqual(['Ada'])
    }))
})

describe('whoever guesses', () => {
  const guess = (knex: Knex, name: string, more: Partial<Parameters<typeof signIn>[1]> = {}) =>
    signIn(knex, { name, password: 'not this phrase', address: '192.0.2.1', known: null, ...more })
  const statusOf = (came: Awaited<ReturnType<typeof signIn>>) => ('status' in came ? came.status : 200)

  it('has no more tries by spelling a name another way, at another process, or from another address of the same line', () =>
    withEmptyDatabase(async (knex, url) => {
      await migrate(knex)
      await setPassword(knex, await addPerson(knex, { name: 'Egil' }), phrase)
      const other = connect(url)
      try {
        const spelled = ['Egil', 'egil ', 'Égil', 'E\u200bgil', 'Ｅｇｉｌ', 'EGIL']
        const statuses: number[] = []
        for (let tries = 0; tries < 12; tries += 1)
          statuses.push(
            statusOf(
              await guess(tries % 2 ? knex : other, spelled[tries % spelled.length] as string, {
                address: `2001:db8:0:1:${tries}::1`,
              }),
            ),
          )
        expect(statuses.slice(0, 10)).toEqual(Array(10).fill(422))
        expect(statuses.slice(10)).toEqual([429, 429])
        // elsewhere he comes in as ever
        expect(statusOf(await guess(knex, 'Egil', { password: phrase, address: '2001:db8:0:2::1' }))).toBe(200)
      } finally {
        await other.destroy()
      }
    }))
  it('at a name that nobody has is held up alike, however it is spelled', () =>
    here(async (knex) => {
      await addPerson(knex, { name: 'Ada' })
      const statuses: number[] = []
      for (let tries = 0; tries < 12; tries += 1)
        statuses.push(statusOf(await guess(knex, ['Nobody', 'NÓBODY', 'No\u200dbody'][tries % 3] as string)))
      expect(statuses).toEqual([...Array(10).fill(422), 429, 429])
    }))
  it('everywhere at once does not keep out a browser that was signed in as that person, and no other browser is taken for it', () =>
    here(async (knex) => {
      const [ada, bo] = [await addPerson(knex, { name: 'Ada' }), await addPerson(knex, { name: 'Bo' })]
      await setPassword(knex, ada, phrase)
      for (let tries = 0; tries < 50; tries += 1) await guess(knex, 'Ada', { address: `198.51.100.${tries}` })
      const right = { password: phrase, address: '203.0.113.9' }
      expect(statusOf(await guess(knex, 'Ada', right))).toBe(429)
      expect(statusOf(await guess(knex, 'Ada', { ...right, known: bo.id }))).toBe(429)
      expect(statusOf(await guess(knex, 'Ada', { ...right, known: ada.id }))).toBe(200)
      const carried = await knownAs(knex, ada.id)
      expect(await knownIn(knex, carried)).toBe(ada.id)
      const [, signature] = carried.split('.')
      for (const text of [null, '', 'ada', ada.id, `${bo.id}.${signature}`, `${ada.id}.${'A'.repeat(43)}`])
        expect(await knownIn(knex, text)).toBeNull()
    }))
  it('a new name that could be taken for another’s is refused', () =>
    here(async (knex) => {
      for (const name of ['E\u200bgil', 'Еgil']) await expect(addPerson(knex, { name })).rejects.toThrow(/letters/)
    }))
})

describe('whoever keeps a page open', () => {
  it('stands as pages find them: a session that is too old and a link whose day is over look no longer', () =>
    here(async (knex) => {
      const ada = await addPerson(knex, { name: 'Ada' })
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      const session = await beginSession(knex, ada, 'x')
      const link = await makeKey(knex, site, {
        name: 'The client',
        sort: 'link',
        held: 'look',
        hides: [],
        until: new Date(Date.now() + 60_000),
        by: 'Ada',
        maker: ada.id,
      })
      const { who: reader } = await askerOf(knex, { ...nothing, link })
      const { who: worker } = await askerOf(knex, { ...nothing, session })
      const may = async (who: typeof reader) => (await accessTo(knex, await askerStands(knex, who), site))?.held ?? null
      expect([await may(reader), await may(worker)]).toEqual(['look', 'lead'])
      await knex('site_keys').update({ until: new Date(Date.now() - 1) })
      await knex('person_sessions').update({ began: new Date(Date.now() - (LONGEST_DAYS + 0.01) * DAY_MS) })
      expect([await may(reader), await may(worker)]).toEqual([null, null])
    }))
})

describe('a name that is taken out', () => {
  it('stands nowhere any more but in what people wrote, and the site is as it was otherwise', () =>
    here(async (knex) => {
      await addPerson(knex, { name: 'Ada' })
      const marit = await addPerson(knex, { name: 'Marit "M" Strand' })
      const asHers = (text: string) => text.replaceAll('"by":"Marit"', `"by":${JSON.stringify(marit.name)}`)
      const plan = JSON.parse(asHers(JSON.stringify(demo))) as Plan
      const site = await importPlan(knex, { by: marit.name }, plan)
      const hand: Hand = { by: marit.name }
      await changeSite(knex, site, hand, ({ place }) => ({
        what: { name: 'change cable', about: [] },
        edits: [{ list: 'cables', id: 'c-0001', base: place, value: null }],
      }))
      const before = await currentCopy(knex, site)
      const { now: name, still } = await forget(knex, { ...marit, retired: false })
      expect(still).toEqual([])
      expect(name).toBe('former colleague 1')
      const after = await currentCopy(knex, site)
      if (!after) throw new Error('the site is gone')
      expect(after.identity).not.toBe(before?.identity)
      const named = JSON.stringify(before?.copy.plan).replaceAll(JSON.stringify(marit.name), JSON.stringify(name))
      expect(JSON.stringify(after.copy.plan)).toBe(named)
      expect(named).toContain(name)
      const { bytes, grown, plan: now } = after.copy
      expect([bytes, grown]).toEqual([bytesOfPlan(now), bytesGrown(now)])
      for (const table of ['people', 'changes', 'edits', 'entities'])
        expect(JSON.stringify(await knex(table))).not.toContain('Strand')
      await expect(addPerson(knex, { name: 'Former Colleague 1' })).rejects.toThrow(/never given/)
    }))
})

describe('a change', () => {
  it('is judged by the rights its hand has when it is made, its undo as well, and is written all or not at all', () =>
    here(async (knex) => {
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      let held: 'lead' | 'work' | 'look' | null = 'work'
      const hand: Hand = { by: 'Wim', rights: async () => held }
      const [cable] = demo.cables
      if (!cable) throw new Error('the demo has cables')
      const what = { name: 'change cable', about: [cable.tag] } as const
      const noted = (note: string, place: number): Edit => ({
        list: 'cables',
        id: cable.id,
        base: place,
        value: { ...cable, note },
      })
      const rules = ({ plan, place }: Copy): Edit => ({
        list: 'policy',
        id: 'policy',
        base: place,
        value: { ...plan.policy, length: plan.policy.length === 'book' ? 'bench' : 'book' },
      })
      const note = (text: string) =>
        changeSite(knex, site, hand, ({ place }) => ({ what, edits: [noted(text, place)] }))
      expect((await note('fine')).outcome).toBe('saved')
      const both = await changeSite(knex, site, hand, (copy) => ({
        what,
        edits: [noted('not this', copy.place), rules(copy)],
      }))
      expect(both).toMatchObject({ outcome: 'forbidden', faults: [{ path: 'policy/policy' }] })
      held = 'lead'
      const led = await changeSite(knex, site, hand, (copy) => ({ what, edits: [rules(copy)] }))
      const id = led.outcome === 'saved' ? (led.id ?? '') : ''
      held = 'work'
      expect((await undoChange(knex, site, hand, id)).outcome).toBe('forbidden')
      held = 'look'
      expect((await note('nor this')).outcome).toBe('forbidden')
      // what somebody may not see is not there for them, and nothing of it is looked at
      held = null
      const make = vi.fn()
      expect(await changeSite(knex, site, hand, make)).toEqual({ outcome: 'no-site' })
      expect(await changeSite(knex, 'never-made', hand, make)).toEqual({ outcome: 'no-site' })
      expect(make).not.toHaveBeenCalled()
      const rows = await knex('changes').where({ site_id: site }).orderBy('place').pluck('by_name')
      expect(rows).toEqual(['Ada', 'Wim', 'Wim'])
    }))
})
