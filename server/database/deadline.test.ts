import { AsyncResource } from 'node:async_hooks'
import { setTimeout as wait } from 'node:timers/promises'
import fc from 'fast-check'
import { afterEach, describe, expect, inject, it } from 'vitest'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { cases } from '../../tests/support/laws'
import { type StallingLine, stallingLine } from '../../tests/support/stalling-line'
import { changeSite, type Outcome } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { connect, IDLE_SECONDS, isDatabaseAway } from './connection'
import { offTheClock, timeLeft, withinTime } from './deadline'

type Knex = ReturnType<typeof connect>
const { now, stored } = freshSites()
const closing: (() => Promise<unknown>)[] = []
afterEach(async () => {
  for (const close of closing.splice(0).reverse()) await close()
})

/** A database behind a line that can stand still. */
async function behindLine(patienceMs?: number): Promise<{ knex: Knex; line: StallingLine }> {
  const line = await stallingLine(inject('databaseUrl'))
  const knex = connect(line.url, patienceMs === undefined ? {} : { patienceMs })
  closing.push(
    () => line.close(),
    () => knex.destroy(),
  )
  return { knex, line }
}

/** What a request came to, and whether the line still stood still when it was answered. */
async function answered<T>(line: StallingLine, work: Promise<T>): Promise<{ came: T | 'away'; stalled: boolean }> {
  const came = await work.catch((error) => {
    if (isDatabaseAway(error)) return 'away' as const
    throw error
  })
  return { came, stalled: line.stalled() }
}
const ask = (knex: Knex) => knex('settings').select('name')

const note = (knex: Knex, text: string, id?: string): Promise<Outcome> =>
  changeSite(knex, now.site, { ...HAND, ...(id ? { id } : {}) }, ({ plan, place }) => ({
    what: { name: 'change run', about: ['R-01', 'the note'] },
    edits: plan.runs
      .slice(0, 1)
      .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: text } })),
  }))

describe('a database that says nothing', () => {
  it('is given up each time, also on a connection that was idle before', async () => {
    const { knex, line } = await behindLine(1500)
    for (let round = 0; round < 3; round += 1) {
      await ask(knex)
      await wait(1800)
      line.stall()
      expect(await answered(line, ask(knex))).toEqual({ came: 'away', stalled: true })
      line.goOn()
    }
  })
  it('is given up when the time of the request is over, whatever was asked of it before: a connection, one question, two or a transaction', async () => {
    const { knex, line } = await behindLine()
    const requests: (() => Promise<unknown>)[] = [
      () => ask(knex),
      async () => {
        await ask(knex)
        return ask(knex)
      },
      () => knex.transaction(async (trx) => trx('settings').select('name')),
      () => currentCopy(knex, now.site),
    ]
    for (const request of requests) {
      // whatever connections there are, and none
      for (const busy of [0, 3, 8]) {
        line.stall()
        const others = Array.from({ length: busy }, () =>
          answered(
            line,
            withinTime(() => ask(knex), 300),
          ),
        )
        expect(await answered(line, withinTime(request, 300))).toEqual({ came: 'away', stalled: true })
        for (const other of await Promise.all(others)) expect(other).toEqual({ came: 'away', stalled: true })
        line.goOn()
        await ask(knex)
      }
    }
  })
  it('at whatever moment it stops: every page and save is answered before it goes on, and what was acknowledged is there', async () => {
    const { knex, line } = await behindLine()
    let number = 0
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('page', 'save'), { minLength: 1, maxLength: 6 }),
        fc.nat(60),
        async (all, ms) => {
          const sent: string[] = []
          const requests = all.map((what) => {
            if (what === 'page')
              return answered(
                line,
                withinTime(() => currentCopy(knex, now.site).then(() => ask(knex)), 400),
              )
            number += 1
            const id = `stalled-${process.pid}-${number}`
            sent.push(id)
            return answered(
              line,
              withinTime(() => note(knex, id, id), 1600),
            ).then((told) => ({ ...told, id }))
          })
          await wait(ms)
          line.stall()
          const all_ = await Promise.all(requests)
          expect(line.stalled()).toBe(true)
          line.goOn()
          for (const told of all_) {
            if (!('id' in told) || told.came === 'away' || told.came === null) continue
            const known = await now.knex('changes').where({ id: told.id }).first('id')
            // what is not certain may be either
            const { outcome } = told.came as Outcome
            if (outcome === 'saved') expect(known).toBeDefined()
            else expect(outcome).toMatch(/busy|unknown/)
            if (outcome === 'busy') expect(known).toBeUndefined()
          }
          // as a browser would: sent again each counts once
          for (const id of sent) expect(await note(now.knex, id, id)).toMatchObject({ outcome: 'saved' })
          const rows = await now.knex('changes').where({ site_id: now.site }).whereIn('id', sent)
          expect(rows).toHaveLength(sent.length)
        },
      ),
      { numRuns: cases(12) },
    )
  })
})

describe('a row that somebody else holds', () => {
  /** Holds the row of the site as a process that hangs would. */
  async function held(): Promise<{ letGo: () => Promise<void> }> {
    const other = connect(inject('databaseUrl'), { idleSeconds: IDLE_SECONDS })
    const trx = await other.transaction()
    await trx('sites').where({ id: now.site }).forUpdate().first('id')
    const letGo = async () => {
      if (!trx.isCompleted()) await trx.rollback().catch(() => {})
      await other.destroy()
    }
    closing.push(letGo)
    return { letGo }
  }

  it('is told to each of those who wait for it, one behind the other, and nothing of theirs is saved', async () => {
    const before = (await stored()).place
    const { letGo } = await held()
    let free = false
    const waiting = ['a', 'b', 'c', 'd'].map((text) =>
      withinTime(() => note(now.knex, text), 2500).then(({ outcome }) => ({ outcome, free })),
    )
    for (const told of await Promise.all(waiting)) expect(told).toEqual({ outcome: 'busy', free: false })
    free = true
    await letGo()
    expect((await stored()).place).toBe(before)
    // those who gave up are not done behind their backs
    expect(await note(now.knex, 'after')).toMatchObject({ outcome: 'saved', place: before + 1 })
  })
  it('is let go of by the database where a process hangs in the middle', async () => {
    await held()
    expect(await withinTime(() => note(now.knex, 'goes on'))).toMatchObject({ outcome: 'saved' })
  })
})

describe('the time of a request', () => {
  it('is the same for all that is done for it, and ends with its answer', async () => {
    expect(timeLeft()).toBe(Number.POSITIVE_INFINITY)
    let later = (): number => 0
    await withinTime(async () => {
      const first = timeLeft()
      expect(first).toBeLessThanOrEqual(1000)
      await wait(20)
      expect(timeLeft()).toBeLessThan(first)
      later = AsyncResource.bind(timeLeft)
    }, 1000)
    expect(later()).toBe(Number.POSITIVE_INFINITY)
  })
  it('is not used up by a database that answers, however many questions there are, and by no work between them', async () => {
    const answers = await withinTime(async () => {
      let count = 0
      for (let question = 0; question < 60; question += 1) {
        await now.knex.raw('SELECT SLEEP(0.1)')
        count += 1
      }
      return count
    }, 5000)
    expect(answers).toBe(60)
    await expect(withinTime(() => now.knex.raw('SELECT SLEEP(3)'), 400)).rejects.toThrow(/time for this was over/)
    // making a change is work: it may take longer than there is time to wait
    const busy = () => {
      for (const until = performance.now() + 3500; performance.now() < until; );
    }
    const made = await withinTime(
      () =>
        changeSite(now.knex, now.site, HAND, ({ plan, place }) => {
          busy()
          return {
            what: { name: 'change run', about: ['R-01', 'the note'] },
            edits: plan.runs
              .slice(0, 1)
              .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: 'worked long' } })),
          }
        }),
      3000,
    )
    expect(made).toMatchObject({ outcome: 'saved' })
  })
  it('is not used up by work that has bounds of its own', async () => {
    await withinTime(async () => {
      await offTheClock(() => wait(2300))
      expect(timeLeft()).toBeGreaterThan(0)
      expect(await ask(now.knex)).toBeDefined()
    }, 2000)
  })
})
