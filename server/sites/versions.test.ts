import { afterEach, describe, expect, inject, it } from 'vitest'
import { observed, writeDown } from '../../core/change/changes/observations'
import { PLAN_VERSION } from '../../core/plan/plan'
import { demo } from '../../tests/support/demo-plan'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { withEmptyDatabase } from '../../tests/support/empty-database'
import { PATIENT } from '../../tests/support/patient'
import { connect } from '../database/connection'
import { migrate } from '../database/migrate'
import { Failure } from '../failure'
import { changeSite, NOTHING_TO_CHANGE, type Outcome } from './change-site'
import { currentCopy } from './copies'
import { editsSince } from './entity-rows'
import { undoChange } from './history'
import { importPlan } from './sites'

const { now } = freshSites()
const others: ReturnType<typeof connect>[] = []
/** What a process holds that has read nothing yet. */
const anotherProcess = (url = inject('databaseUrl')) => {
  const knex = connect(url, PATIENT)
  others.push(knex)
  return knex
}
afterEach(async () => {
  for (const knex of others.splice(0)) await knex.destroy()
})

/** A cable as the version before wrote what was seen of it: a computer and what was installed were words. */
const OLD = { computer: 'the tower', installed: 'driver 7', controller: 'left' }

async function writtenBefore(): Promise<string> {
  const row = await now
    .knex('entities')
    .where({ site_id: now.site, list: 'observations' })
    .orderBy('rank')
    .first('id', 'body')
  for (const [table, column] of [
    ['entities', 'body'],
    ['edits', 'value'],
  ] as const)
    await now
      .knex(table)
      .where({ site_id: now.site, list: 'observations', id: row.id })
      .update({ version: 2, [column]: JSON.stringify({ ...row.body, where: OLD }) })
  return row.id
}

/** The observations of a site as its log tells them. */
const changesOf = async (knex: ReturnType<typeof connect>, site: string) =>
  [...(await editsSince(knex, site, 0)).values()]
    .flat()
    .flatMap(({ list, value }) => (list === 'observations' ? value : []))

describe('what an earlier version wrote', () => {
  it('is read as this version has it, and the log stays as it was written', async () => {
    const id = await writtenBefore()
    const held = await currentCopy(anotherProcess(), now.site)
    expect(held?.copy.plan.observations.find((each) => each.id === id)).toMatchObject({
      where: { controller: 'left' },
      note: expect.stringContaining('on the tower; installed: driver 7'),
    })
    const kept = await now.knex('edits').where({ site_id: now.site, id }).first('version', 'value')
    expect([kept.version, kept.value.where]).toEqual([2, OLD])
  })
  it('of version 3 is read as it was written: nothing that came later takes anything from it', async () => {
    const before = await currentCopy(anotherProcess(), now.site)
    for (const table of ['entities', 'edits']) await now.knex(table).where({ site_id: now.site }).update({ version: 3 })
    const copy = await currentCopy(anotherProcess(), now.site)
    expect(before?.copy.plan.observations.some(({ where }) => where?.computer !== undefined)).toBe(true)
    expect(copy?.copy.plan).toEqual(before?.copy.plan)
    expect(await changesOf(now.knex, now.site)).toEqual(before?.copy.plan.observations)
  })
  it('is written as this version has it the next time it changes', async () => {
    await now.knex('entities').where({ site_id: now.site, list: 'runs', id: 'r-01' }).update({ version: 2 })
    await changeSite(now.knex, now.site, HAND, ({ plan, place }) => ({
      what: { name: 'change run', about: [] },
      edits: plan.runs
        .filter(({ id }) => id === 'r-01')
        .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: 'again' } })),
    }))
    const row = await now.knex('entities').where({ site_id: now.site, list: 'runs', id: 'r-01' }).first('version')
    expect(row.version).toBe(PLAN_VERSION)
  })
})

describe('what a newer version wrote', () => {
  // in a database of its own: other files back up all that is in theirs
  it('is told so in words, by whoever asks, and nothing is changed', () =>
    withEmptyDatabase(async (before, url) => {
      await migrate(before)
      const site = await importPlan(before, HAND, demo)
      await before('entities')
        .where({ site_id: site, list: 'runs', id: 'r-01' })
        .update({ version: PLAN_VERSION + 1 })
      const knex = anotherProcess(url)
      await expect(currentCopy(knex, site)).rejects.toThrow(Failure)
      await expect(currentCopy(knex, site)).rejects.toThrow(/newer Hallway.*update this Hallway/s)
      const made = changeSite(knex, site, HAND, () => NOTHING_TO_CHANGE)
      await expect(made).rejects.toThrow(Failure)
    }))
})

describe('a change that is sent twice', () => {
  const hand = { ...HAND, id: 'seen-and-sent-again', digest: 'as it was sent' }
  const seen = () =>
    changeSite(now.knex, now.site, hand, () =>
      writeDown(
        observed(
          [{ kind: 'reading', measure: 'warmth', felt: 'cool' }],
          { cable: 'c-0001' },
          { at: '2026-11-01T10:00:00.000Z', by: 'ann', newId: () => 'o-sent-twice' },
        ),
        ['C-0001', 'cool'],
      ),
    )
  const answerOf = (outcome: Outcome) =>
    outcome.outcome === 'saved' ? [outcome.place, outcome.id, outcome.what, outcome.edits.map(({ id }) => id)] : outcome
  it('is answered as it was, with what it wrote, also where it has been undone meanwhile', async () => {
    const first = await seen()
    expect(first).toMatchObject({
      outcome: 'saved',
      id: hand.id,
      edits: [{ list: 'observations', id: 'o-sent-twice' }],
    })
    const undo = { ...HAND, id: 'and-taken-back-again', digest: 'the undo' }
    const undone = await undoChange(now.knex, now.site, undo, hand.id)
    expect(undone.outcome).toBe('saved')
    // the undo sent once more, which would not fit any more
    expect(answerOf(await undoChange(now.knex, now.site, undo, hand.id))).toEqual(answerOf(undone))
    expect(answerOf(await seen())).toEqual(answerOf(first))
  })
  it('that changes nothing has no id to be undone by', async () => {
    const outcome = await changeSite(now.knex, now.site, HAND, () => NOTHING_TO_CHANGE)
    expect(outcome).toMatchObject({ outcome: 'saved', id: null, edits: [] })
  })
})
