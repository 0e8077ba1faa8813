import { afterEach, describe, expect, it, vi } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { beginJob, jobAbout } from '../jobs/jobs'
import { addPerson } from '../people/people'
import { beginSession, sessionOf } from '../people/sessions'
import { changeSite } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { historyOf } from '../sites/history'
import { importPlan } from '../sites/sites'
import { databaseNow } from './clock'
import { timeLeft, withinTime } from './deadline'
import { migrate } from './migrate'

const HOUR_MS = 3_600_000
afterEach(() => {
  vi.useRealTimers()
})
/** What a process sees whose clock somebody has set. */
const setClock = (ahead: number): void => {
  vi.useRealTimers()
  vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + ahead })
}

describe('a clock that jumps an hour, forth and back', () => {
  it('signs nobody out, loses no job and no change, and takes no time from a request', () =>
    withEmptyDatabase(async (knex) => {
      await migrate(knex)
      const ada = await addPerson(knex, { name: 'Ada' })
      const session = await beginSession(knex, ada, 'x')
      const site = await importPlan(knex, { by: 'Ada' }, demo)
      const before = await databaseNow(knex)
      let end = () => {}
      await beginJob(
        knex,
        { siteId: site, about: 'h-1', by: 'Ada' },
        () =>
          new Promise((done) => {
            end = () => done(null)
          }),
      )
      const note = (text: string) =>
        changeSite(knex, site, { by: 'Ada' }, ({ plan, place }) => ({
          what: { name: 'change run', about: [text] },
          edits: plan.runs
            .slice(0, 1)
            .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: text } })),
        }))
      const became = (state: string) =>
        vi.waitFor(async () => expect((await jobAbout(knex, site, 'h-1'))?.state).toBe(state), { timeout: 60_000 })
      const jumps = [HOUR_MS, -HOUR_MS, 0, -HOUR_MS, HOUR_MS]
      for (const [at, ahead] of jumps.entries()) {
        setClock(ahead)
        expect((await sessionOf(knex, session))?.person.name, `${ahead}`).toBe('Ada')
        expect((await jobAbout(knex, site, 'h-1'))?.state, `${ahead}`).toBe('works')
        expect(await withinTime(() => note(`note ${at}`))).toMatchObject({ outcome: 'saved', place: at + 2 })
        await withinTime(async () => {
          setClock(-ahead)
          expect(timeLeft()).toBeGreaterThan(0)
          expect(timeLeft()).toBeLessThanOrEqual(1000)
        }, 1000)
      }
      // the latest is the latest by its place, whatever its clock said
      const held = await currentCopy(knex, site)
      if (!held) throw new Error('the site is there')
      expect(held.copy.plan.runs[0]?.note).toBe(`note ${jumps.length - 1}`)
      const { lines } = await historyOf(knex, site, held.copy, {})
      expect(lines.map(({ place }) => place)).toEqual([6, 5, 4, 3, 2, 1])
      end()
      // a job that begins after a jump back is the latest all the same
      setClock(-HOUR_MS)
      await became('done')
      await beginJob(knex, { siteId: site, about: 'h-1', by: 'Ada' }, async () => 'It went wrong.')
      await became('failed')
      expect(Math.abs((await databaseNow(knex)) - before)).toBeLessThan(60_000)
    }))
})
