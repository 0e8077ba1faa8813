import { afterEach, describe, expect, inject, it } from 'vitest'
import type { Edit } from '../../core/change/change'
import { addCables, deleteCables, standCables, tagCables } from '../../core/change/changes/cables'
import { moveSpot } from '../../core/change/changes/floors'
import { putKinds } from '../../core/change/changes/kinds'
import { deleteRun, saveRun } from '../../core/change/changes/run'
import { assess } from '../../core/checks/assess'
import { directNeeds } from '../../core/plan/direct-needs'
import { readPlan } from '../../core/plan/read'
import type { Cable } from '../../core/vocabulary/cable'
import type { Run } from '../../core/vocabulary/run'
import { demo } from '../../tests/support/demo-plan'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { type Choice, madeUpEdit } from '../../tests/support/made-up-changes'
import { PATIENT } from '../../tests/support/patient'
import { connect } from '../database/connection'
import { changeSite, type Hand, type Outcome, refused, unlessSo } from './change-site'
import { currentCopy } from './copies'
import { readCopy, siteRow } from './entity-rows'

const { now, stored } = freshSites()
const others: ReturnType<typeof connect>[] = []
/** What another web process holds: a pool and copies of its own. */
const anotherProcess = () => {
  const knex = connect(inject('databaseUrl'), PATIENT)
  others.push(knex)
  return knex
}
afterEach(async () => {
  for (const knex of others.splice(0)) await knex.destroy()
})

const runOf = (runs: readonly Run[], id: string): Run => {
  const run = runs.find((each) => each.id === id)
  if (!run) throw new Error(`no run ${id}`)
  return run
}
/** Changes some fields of a run, as a form made it from the site at a place. */
const change = (id: string, more: object, base?: number, hand: Hand = HAND, knex = now.knex) =>
  changeSite(knex, now.site, hand, ({ plan, place }) => {
    const run = runOf(plan.runs, id)
    return {
      what: { name: 'change run', about: [run.tag] },
      edits: [{ list: 'runs', id, base: base ?? place, value: { ...run, ...more } }],
    }
  })
/** The same, with what the form was made from at hand, as a browser has it. */
const sent = (before: Run, more: object, base: number, hand: Hand = HAND) =>
  changeSite(now.knex, now.site, hand, () => ({
    what: { name: 'change run', about: [before.tag] },
    edits: [{ list: 'runs', id: before.id, base, value: { ...before, ...more } }],
  }))
const savedAt = (outcome: Outcome): number => {
  if (outcome.outcome !== 'saved') throw new Error(JSON.stringify(outcome))
  return outcome.place
}

describe('a change whose subject is not there any more', () => {
  const placed = demo.places.filter(({ at }) => at)
  const [one] = placed
  if (!one?.at) throw new Error('the demo has places on a floor')
  const from = one.at
  it('is refused in words, and nothing is acknowledged that is in no log', async () => {
    const move = (x: number) =>
      changeSite(now.knex, now.site, HAND, ({ plan, place }) => moveSpot(plan, place, from, { ...from, x }))
    expect((await move(from.x + 1)).outcome).toBe('saved')
    const late = await move(from.x + 2)
    expect(late).toMatchObject({ outcome: 'refused', faults: [{ reason: expect.stringContaining('meanwhile') }] })
    expect((await stored()).place).toBe(2)
  })
  it('is told apart from one whose subject stands so already', async () => {
    const lend = () =>
      changeSite(now.knex, now.site, HAND, ({ plan, place }) =>
        unlessSo(standCables(plan.cables.slice(0, 2), place, 'lent')),
      )
    expect(await lend()).toMatchObject({ outcome: 'saved', place: 2 })
    expect(await lend()).toMatchObject({ outcome: 'saved', place: 2, id: null })
  })
})

describe('a change of a site', () => {
  it('of thousands of things from an old copy asks for what they were a few times, not thousands of times', async () => {
    const cables = Array.from({ length: 2000 }, (_, at) => ({
      ...(demo.cables[0] as Cable),
      id: `many-${at}`,
      tag: `M-${at}`,
    }))
    await changeSite(now.knex, now.site, HAND, () => addCables(cables, []))
    const base = (await stored()).place
    const noted = (note: string, field: 'note' | 'awg', value: unknown) =>
      changeSite(now.knex, now.site, HAND, () => ({
        what: { name: 'change cable', about: [note] },
        edits: cables.map(
          (cable): Edit => ({ list: 'cables', id: cable.id, base, value: { ...cable, [field]: value } as Cable }),
        ),
      }))
    await noted('first', 'note', 'seen')
    let asked = 0
    const count = ({ sql }: { sql: string }) => {
      if (/min\(place\)/i.test(sql)) asked += 1
    }
    now.knex.on('query', count)
    expect((await noted('from the same copy', 'awg', 28)).outcome).toBe('saved')
    now.knex.removeListener('query', count)
    expect(asked).toBeGreaterThan(0)
    expect(asked).toBeLessThan(10)
    // and both are there, merged field by field
    expect((await stored()).plan.cables.find(({ id }) => id === 'many-7')).toMatchObject({ note: 'seen', awg: 28 })
  }, 60_000)

  it('is written with its place in the log, and read back by this and any other process', async () => {
    expect(savedAt(await change('r-01', { note: 'changed' }))).toBe(2)
    expect(runOf((await stored()).plan.runs, 'r-01').note).toBe('changed')
    const elsewhere = await currentCopy(anotherProcess(), now.site)
    expect(elsewhere?.copy).toEqual(await stored())
  })
  it('a process that stands at an earlier place asks for what came after it, and comes to the same', async () => {
    const other = anotherProcess()
    await currentCopy(other, now.site)
    for (const note of ['one', 'two', 'three']) await change('r-01', { note })
    await changeSite(now.knex, now.site, HAND, ({ plan, place }) => deleteRun(plan, place, runOf(plan.runs, 'r-16')))
    const row = await siteRow(now.knex, now.site)
    if (!row) throw new Error('no site')
    const caughtUp = (await currentCopy(other, now.site))?.copy
    const anew = await now.knex.transaction((trx) => readCopy(trx, row))
    expect(caughtUp?.plan).toEqual(anew.plan)
    expect(caughtUp?.bytes).toBe(anew.bytes)
    expect(caughtUp && assess(caughtUp.plan)).toEqual(assess(anew.plan))
  })
  it('two people who changed different fields of one run both win', async () => {
    const before = runOf((await stored()).plan.runs, 'r-02')
    savedAt(await sent(before, { note: 'mine' }, 1))
    savedAt(await sent(before, { name: 'theirs', route: { ...before.route, length: 9 } }, 1, { by: 'Grace' }))
    expect(runOf((await stored()).plan.runs, 'r-02')).toMatchObject({
      note: 'mine',
      name: 'theirs',
      route: { length: 9 },
    })
  })
  it('the same field is a conflict that shows both and who, and may then be written over', async () => {
    const before = runOf((await stored()).plan.runs, 'r-01')
    await sent(before, { note: 'first', tag: 'R-91' }, 1, { by: 'Grace' })
    const lost = await sent(before, { note: 'second' }, 1)
    expect(lost).toMatchObject({
      outcome: 'conflict',
      place: 2,
      clashes: [{ fields: ['note'], by: 'Grace', mine: { note: 'second' }, theirs: { note: 'first' } }],
    })
    savedAt(await sent(before, { note: 'second' }, 1, { ...HAND, over: 2 }))
    expect(runOf((await stored()).plan.runs, 'r-01')).toMatchObject({ note: 'second', tag: 'R-91' })
  })
  it.each([0, -1, 99, 1.5, Number.NaN])(
    'made from place %s, which there has not been, is never saved',
    async (base) => {
      expect((await change('r-01', { note: 'x' }, base)).outcome).not.toBe('saved')
      expect((await stored()).place).toBe(1)
    },
  )
  it('sent twice is one change, and one id never stands for two', async () => {
    const hand = { ...HAND, id: 'the-very-same-change', digest: 'as it was sent' }
    const [once, again] = [await change('r-01', { note: 'x' }, 1, hand), await change('r-01', { note: 'x' }, 1, hand)]
    expect([savedAt(once), savedAt(again)]).toEqual([2, 2])
    const before = runOf((await stored()).plan.runs, 'r-01')
    // something else under that id is neither saved nor said to be
    const other = await sent(before, { note: 'another' }, 2, { ...hand, digest: 'sent otherwise' })
    expect(other.outcome).toBe('refused')
    expect(runOf((await stored()).plan.runs, 'r-01').note).toBe('x')
  })
  it('that changes nothing is no change', async () => {
    expect(await change('r-01', {})).toMatchObject({ outcome: 'saved', place: 1, id: null })
    const gone: Edit = { list: 'runs', id: 'never-was', base: 1, value: null }
    expect(
      savedAt(
        await changeSite(now.knex, now.site, HAND, () => ({ what: { name: 'delete run', about: [] }, edits: [gone] })),
      ),
    ).toBe(1)
  })
  it('that does not fit is refused, and nothing of it is written', async () => {
    const before = await stored()
    for (const more of [
      { tag: 'R-02' },
      { leads: [{ cable: 'c-0004', reversed: false }] },
      { to: { device: 'view-1', port: 'x' } },
    ]) {
      const outcome = await change('r-01', more)
      expect(outcome.outcome).toBe('refused')
    }
    expect(await stored()).toEqual(before)
    expect((await changeSite(now.knex, now.site, HAND, () => refused('x', 'because'))).outcome).toBe('refused')
    expect((await changeSite(now.knex, 'nowhere', HAND, () => refused('x', 'because'))).outcome).toBe('no-site')
  })
  it('tags that differ by accent or case alone are told in words, never a fault of the database', async () => {
    const tag = (id: string, text: string) =>
      changeSite(now.knex, now.site, HAND, ({ plan, place }) => ({
        what: { name: 'tag cables', about: [] },
        edits: plan.cables
          .filter((cable) => cable.id === id)
          .map((cable) => ({ list: 'cables', id, base: place, value: { ...cable, tag: text } })),
      }))
    savedAt(await tag('c-0001', 'Caf\u00e9'))
    expect((await tag('c-0002', 'CAFE\u0301')).outcome).toBe('refused')
    savedAt(await tag('c-0002', 'Cafe'))
  })
  it('of thousands of cables is one change, in one order, whatever tags hand over', async () => {
    const { plan, place } = await stored()
    const tags = plan.cables.map(({ tag }) => tag)
    savedAt(
      await changeSite(now.knex, now.site, HAND, () =>
        tagCables(plan.cables.toReversed(), place, { prefix: 'C-', first: 1, digits: 4 }),
      ),
    )
    const after = (await stored()).plan.cables
    expect(after.map(({ id }) => id)).toEqual(plan.cables.map(({ id }) => id))
    expect(after.map(({ tag }) => tag).sort()).toEqual(tags.sort())
  })
  it('kinds replace those of their name, and others of that name under an id that is taken get one of their own', async () => {
    const [kind] = (await stored()).plan.kinds
    if (!kind) throw new Error('no kind')
    const put = { ...kind, name: kind.name.toUpperCase(), leadDays: 9 }
    const fresh = { ...kind, name: 'Another' }
    await changeSite(now.knex, now.site, HAND, ({ plan, place }) => putKinds(plan, place, [put, fresh]).draft)
    const kinds = (await stored()).plan.kinds
    expect(kinds.find(({ id }) => id === kind.id)).toMatchObject({ leadDays: 9 })
    expect(kinds.filter(({ name }) => name === 'Another')).toHaveLength(1)
  })
  it('puts what is put back where it stood, and what is put between two between them', async () => {
    const before = (await stored()).plan
    const chosen = before.cables.filter((_, at) => at % 7 === 3 && at > 40)
    await changeSite(now.knex, now.site, HAND, ({ plan, place }) => ({
      what: { name: 'change run', about: [] },
      edits: [
        ...plan.runs
          .slice(0, 2)
          .map((run): Edit => ({ list: 'runs', id: run.id, base: place, value: run, before: 'r-05' })),
        {
          list: 'places',
          id: 'between',
          base: null,
          value: { id: 'between', name: 'Between', mains: true },
          before: plan.places[1]?.id,
        },
      ],
    }))
    await changeSite(now.knex, now.site, HAND, ({ plan, place }) =>
      deleteCables(
        plan,
        chosen.filter(({ id }) => plan.cables.some((each) => each.id === id)),
        place,
      ),
    )
    const row = await siteRow(now.knex, now.site)
    const anew = row && (await now.knex.transaction((trx) => readCopy(trx, row)))
    expect(anew?.plan).toEqual((await stored()).plan)
    expect(anew?.plan.places[1]?.id).toBe('between')
    expect(anew?.plan.runs.map(({ id }) => id).indexOf('r-01')).toBe(2)
  })
})

describe('made-up changes through the database', () => {
  it('leave what is stored a plan that reads back equal, and the same for every process', async () => {
    const other = anotherProcess()
    let seed = 7
    const roll = (below: number) => {
      seed = (seed * 48_271) % 2_147_483_647
      return seed % below
    }
    let saved = 0
    for (let number = 0; number < 60; number += 1) {
      const made: Choice = { sort: roll(24), one: roll(997), other: roll(991), figure: roll(51) }
      const outcome = await changeSite(number % 2 ? other : now.knex, now.site, { by: 'Nobody' }, (copy) => ({
        what: { name: 'change run', about: ['made up'] },
        edits: [madeUpEdit(copy, made, number)],
      }))
      if (outcome.outcome === 'saved') saved += 1
    }
    expect(saved).toBeGreaterThan(20)
    const row = await siteRow(now.knex, now.site)
    const anew = row && (await now.knex.transaction((trx) => readCopy(trx, row)))
    const mine = await stored()
    expect(anew).toEqual(mine)
    expect((await currentCopy(other, now.site))?.copy).toEqual(mine)
    expect(readPlan(JSON.parse(JSON.stringify(mine.plan)))).toEqual({ ok: true, plan: mine.plan })
  })
})

describe('many writers', () => {
  it('100 conflicting saves have one winner each, and nobody is told that the database is away', async () => {
    const before = runOf((await stored()).plan.runs, 'r-01')
    const outcomes = await Promise.all(Array.from({ length: 100 }, (_, at) => sent(before, { note: `by ${at}` }, 1)))
    expect(outcomes.filter(({ outcome }) => outcome === 'saved')).toHaveLength(1)
    expect(outcomes.filter(({ outcome }) => outcome === 'conflict')).toHaveLength(99)
  })
  it('40 writers of one site in two processes wait their turn, and a reader of another site notices nothing', async () => {
    const other = anotherProcess()
    const free = await (async () => (await stored()).plan.cables.slice(0, 40))()
    const writes = free.map((cable, at) =>
      changeSite(at % 2 ? other : now.knex, now.site, { by: `writer ${at}` }, ({ plan, place }) =>
        standCables(
          plan.cables.filter(({ id }) => id === cable.id),
          place,
          cable.standing === 'lent' ? 'drawer' : 'lent',
        ),
      ),
    )
    // as many connections as writers hold at most leave the readers theirs
    const reads = Array.from({ length: 20 }, () => siteRow(now.knex, 'another'))
    const outcomes = await Promise.all(writes)
    await Promise.all(reads)
    expect(outcomes.map(savedAt).sort((one, next) => one - next)).toEqual(free.map((_, at) => at + 2))
    expect((await currentCopy(other, now.site))?.copy.plan).toEqual((await stored()).plan)
  })
  it('what is acknowledged through one process is never read stale through another', async () => {
    const other = anotherProcess()
    for (let at = 0; at < 60; at += 1) {
      await change('r-02', { note: `note ${at}` })
      const seen = await currentCopy(other, now.site)
      expect(runOf(seen?.copy.plan.runs ?? [], 'r-02').note).toBe(`note ${at}`)
    }
  })
})

describe('a run with its needs', () => {
  it('is saved beside a need that a colleague added meanwhile', async () => {
    const { plan, place } = await stored()
    const run = runOf(plan.runs, 'r-13')
    const needs = directNeeds(plan, run)
    const added = { id: 'added', kind: 'data' as const, from: run.from.device, to: run.to.device, rate: 1e8 }
    await changeSite(now.knex, now.site, { by: 'Grace' }, (copy) =>
      saveRun(copy.plan, copy.place, { run, needs: [...needs, added], had: needs.map(({ id }) => id) }),
    )
    savedAt(
      await changeSite(now.knex, now.site, HAND, (copy) =>
        saveRun(copy.plan, place, { run: { ...run, note: 'mine' }, needs, had: needs.map(({ id }) => id) }),
      ),
    )
    const after = (await stored()).plan
    expect(directNeeds(after, run).map(({ id }) => id)).toContain('added')
    expect(runOf(after.runs, 'r-13').note).toBe('mine')
  })
})
