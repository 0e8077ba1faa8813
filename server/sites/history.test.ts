import { describe, expect, it } from 'vitest'
import { deleteCables, standCables, whatHolds } from '../../core/change/changes/cables'
import { observed, writeDown } from '../../core/change/changes/observations'
import { deleteRun } from '../../core/change/changes/run'
import { choosePolicy } from '../../core/change/changes/site'
import { changeWords } from '../../core/change/words'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { changeSite, type MakeChange, type Outcome } from './change-site'
import { historyOf, undoChange } from './history'

const { now, stored } = freshSites()
const doIt = (make: MakeChange, by = 'Ada') => changeSite(now.knex, now.site, { by }, make)
const idOf = (outcome: Outcome): string => {
  if (outcome.outcome !== 'saved') throw new Error(JSON.stringify(outcome))
  return outcome.id ?? ''
}
const lines = async (asked: Parameters<typeof historyOf>[3] = {}) =>
  (await historyOf(now.knex, now.site, await stored(), asked)).lines
const note = (id: string, text: string, by?: string) =>
  doIt(
    ({ plan, place }) => ({
      what: { name: 'change run', about: ['R', 'the note'] },
      edits: plan.runs
        .filter((run) => run.id === id)
        .map((run) => ({ list: 'runs', id, base: place, value: { ...run, note: text } })),
    }),
    by,
  )
const undo = (id: string) => undoChange(now.knex, now.site, HAND, id)
const lend: MakeChange = ({ plan, place }) => standCables(plan.cables.slice(0, 3), place, 'lent')

describe('history', () => {
  it('says who did what, when and to what, the latest first', async () => {
    await note('r-01', 'a', 'Grace')
    const [latest, first] = await lines()
    expect(latest).toMatchObject({
      place: 2,
      by: 'Grace',
      things: 1,
      touched: [{ list: 'runs', id: 'r-01', name: 'R-01' }],
      kept: null,
    })
    expect(latest && changeWords(latest.what)).toBe('changed R: the note')
    expect(Math.abs(Date.now() - Date.parse(latest?.at ?? ''))).toBeLessThan(60_000)
    expect(first).toMatchObject({ place: 1, kept: expect.stringContaining('how the site began') })
  })
  it('of one thing holds what touched it, and of thousands comes in pages', async () => {
    await note('r-01', 'a')
    await note('r-02', 'b')
    const places = (found: Awaited<ReturnType<typeof lines>>) => found.map(({ place }) => place)
    expect(places(await lines({ of: { list: 'runs', id: 'r-01' } }))).toEqual([2, 1])
    for (let at = 0; at < 35; at += 1) await note('r-03', `note ${at}`)
    const page = await historyOf(now.knex, now.site, await stored(), {})
    expect(page.lines).toHaveLength(30)
    const older = await historyOf(now.knex, now.site, await stored(), { before: page.older ?? 0 })
    expect(places(older.lines)).toEqual([8, 7, 6, 5, 4, 3, 2, 1])
    expect([older.older, older.newer]).toEqual([null, true])
  })
})

describe('the history of a cable', () => {
  it('holds what was seen of it, as one thing however much was seen', async () => {
    const subject = { cable: 'c-0001' }
    const cool = { kind: 'reading', measure: 'warmth', felt: 'cool' } as const
    const lit = { kind: 'trial', basis: 'measured', tried: 'usb2', cameUp: 'usb2' } as const
    let number = 0
    const witness = { at: '2026-11-25T10:00:00.000Z', by: undefined, newId: () => `seen-${++number}` }
    const done = await doIt(() => writeDown(observed([cool, lit], subject, witness), ['C-0001', 'two things']))
    const touched = [{ list: 'cables', id: 'c-0001', name: 'C-0001' }]
    const [latest] = await lines({ of: { list: 'cables', id: 'c-0001' } })
    expect(latest).toMatchObject({ id: idOf(done), touched, things: 1 })
    expect((await lines({ of: { list: 'cables', id: 'c-0002' } })).map(({ place }) => place)).toEqual([1])
    // also once undoing has taken it away again
    await undo(idOf(done))
    expect((await lines({ of: { list: 'cables', id: 'c-0001' } }))[0]).toMatchObject({ place: 3, touched, things: 1 })
  })
})

describe('undo', () => {
  it.each<[string, MakeChange]>([
    ['lending cables', lend],
    ['choosing a policy', ({ plan, place }) => choosePolicy(plan, place, { length: 'bench' })],
    ['deleting a run', ({ plan, place }) => deleteRun(plan, place, plan.runs[15] as never)],
    [
      'deleting cables',
      ({ plan, place }) =>
        deleteCables(
          plan,
          plan.cables.filter((cable) => whatHolds(plan, cable).length === 0),
          place,
        ),
    ],
  ])('of %s leaves the plan as it was, in the same order; and undone itself it is done again', async (_what, make) => {
    const before = (await stored()).plan
    const done = idOf(await doIt(make))
    const changed = (await stored()).plan
    expect(changed).not.toEqual(before)
    const undone = idOf(await undo(done))
    expect((await stored()).plan).toEqual(before)
    await undo(undone)
    expect((await stored()).plan).toEqual(changed)
  })
  it('takes nothing back that others changed later: other fields stay, the same field is told', async () => {
    const first = idOf(await note('r-01', 'mine'))
    await doIt(
      ({ plan, place }) => ({
        what: { name: 'change run', about: ['R-01'] },
        edits: plan.runs
          .slice(0, 1)
          .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, name: 'theirs' } })),
      }),
      'Grace',
    )
    expect(idOf(await undo(first))).toBeTruthy()
    expect((await stored()).plan.runs[0]).toMatchObject({ name: 'theirs' })
    expect((await stored()).plan.runs[0]).not.toHaveProperty('note')

    const second = idOf(await note('r-02', 'mine'))
    await note('r-02', 'theirs', 'Grace')
    expect(await undo(second)).toMatchObject({
      outcome: 'refused',
      faults: [{ reason: expect.stringContaining('R-02 was changed since by Grace') }],
    })
  })
  it('that no longer fits says why, as of a run whose pin was taken by another run that is gone', async () => {
    await doIt(({ plan, place }) => ({
      what: { name: 'change run', about: [] },
      edits: plan.needs
        .filter(({ id }) => id === 'log-picture')
        .map((need) => ({ list: 'needs', id: need.id, base: place, value: { ...need, through: ['r-09', 'r-11'] } })),
    }))
    const remove =
      (id: string): MakeChange =>
      ({ plan, place }) =>
        deleteRun(plan, place, plan.runs.find((run) => run.id === id) as never)
    const first = idOf(await doIt(remove('r-11')))
    await doIt(remove('r-09'))
    const outcome = await undo(first)
    expect(outcome).toMatchObject({
      outcome: 'refused',
      faults: [{ reason: expect.stringContaining('cannot be undone') }],
    })
  })
  it('ends: what is too far back or too long ago says so, and is refused', async () => {
    const old = idOf(await note('r-01', 'old'))
    const long = idOf(await note('r-02', 'long ago'))
    const { knex, site } = now
    await knex('changes').where({ site_id: site, id: long }).update({ at: '2001-01-01 00:00:00.000' })
    expect((await lines()).map(({ kept }) => kept)).toEqual([
      'Undo ends after 1000 changes or 90 days.',
      null,
      expect.stringContaining('how the site began'),
    ])
    expect(await undo(long)).toMatchObject({
      outcome: 'refused',
      faults: [{ reason: expect.stringContaining('Undo ends') }],
    })
    expect((await undo(old)).outcome).toBe('saved')
  })
  it('of what is not there, or of how the site began, is refused', async () => {
    const [begin] = await lines()
    expect((await undo('never')).outcome).toBe('refused')
    expect((await undo(begin?.id ?? '')).outcome).toBe('refused')
  })
})
