import { describe, expect, it } from 'vitest'
import { directNeeds } from '../../core/plan/direct-needs'
import type { Plan } from '../../core/plan/plan'
import type { Run } from '../../core/plan/run'
import { demo } from '../../tests/support/demo-plan'
import { freshSites } from '../../tests/support/demo-site'
import { readPlan } from './plan-rows'
import { removeRun, restoreRun, saveRun } from './runs'
import { createSite, importPlan, listSites, savePolicy } from './sites'

const { now, stored } = freshSites()

const runIn = (plan: Plan, id: string): Run => {
  const run = plan.runs.find((candidate) => candidate.id === id)
  if (!run) throw new Error(`no run ${id}`)
  return run
}

describe('a site in the database', () => {
  it('reads back as the very plan that was written', async () => {
    expect((await stored()).plan).toEqual({ ...demo, site: { ...demo.site, id: now.site } })
  })

  it('never replaces another: a taken id gets a number', async () => {
    expect(await importPlan(now.knex, demo)).not.toBe(now.site)
    const [one, other] = await Promise.all([importPlan(now.knex, demo), importPlan(now.knex, demo)])
    expect(one).not.toBe(other)
  })

  it('is listed with its size', async () => {
    const listing = (await listSites(now.knex)).find((each) => each.id === now.site)
    expect(listing).toMatchObject({
      name: demo.site.name,
      runs: demo.runs.length,
      cables: demo.cables.length,
      devices: demo.devices.length,
    })
  })

  it('that does not exist is null', async () => {
    expect(await readPlan(now.knex, 'nowhere')).toBeNull()
  })

  it('is made empty from a name, whatever is in the name', async () => {
    const name = "Quay 3'); DROP TABLE sites; -- ⚓"
    const id = await createSite(now.knex, name, 'a note')
    expect((await readPlan(now.knex, id))?.plan).toMatchObject({
      site: { name, note: 'a note' },
      runs: [],
      devices: [],
    })
  })

  it('keeps what it goes by, and says so where somebody was faster', async () => {
    const { plan, revision } = await stored()
    const policy = { ...plan.policy, length: 'bench' as const }
    expect(await savePolicy(now.knex, now.site, revision, policy)).toBe(true)
    expect(await savePolicy(now.knex, now.site, revision, policy)).toBe(false)
    expect((await stored()).plan.policy.length).toBe('bench')
  })
})

describe('saving a run', () => {
  it('writes the run with its needs, and leaves all else as it was', async () => {
    const { plan, revision } = await stored()
    const run = { ...runIn(plan, 'r-13'), leads: [{ cable: 'c-0036', reversed: false }], route: { length: 1.1 } }
    const needs = directNeeds(plan, run).map((need) => ({ ...need, watts: 65 }) as typeof need)
    expect(await saveRun(now.knex, now.site, revision, { run, needs })).toEqual({
      outcome: 'saved',
      revision: revision + 1,
    })
    const after = (await stored()).plan
    expect(runIn(after, 'r-13')).toEqual(run)
    expect(after.needs.map((need) => need.id).sort()).toEqual(plan.needs.map((need) => need.id).sort())
    expect(after.needs.find((need) => need.id === 'second-power')).toMatchObject({ watts: 65 })
    expect(after.runs.filter((other) => other.id !== 'r-13')).toEqual(plan.runs.filter((other) => other.id !== 'r-13'))
  })

  it('two people on different runs do not stand in each other’s way', async () => {
    const { plan, revision } = await stored()
    const change = (id: string) => ({
      run: { ...runIn(plan, id), note: 'changed' },
      needs: directNeeds(plan, runIn(plan, id)),
    })
    const outcomes = await Promise.all([
      saveRun(now.knex, now.site, revision, change('r-01')),
      saveRun(now.knex, now.site, revision, change('r-02')),
    ])
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['saved', 'saved'])
    const after = (await stored()).plan
    expect([runIn(after, 'r-01').note, runIn(after, 'r-02').note]).toEqual(['changed', 'changed'])
  })

  it('two people on one run: the first is kept, the second is told what the first wrote', async () => {
    const { plan, revision } = await stored()
    const needs = directNeeds(plan, runIn(plan, 'r-01'))
    const outcomes = await Promise.all(
      ['one', 'two'].map((note) =>
        saveRun(now.knex, now.site, revision, { run: { ...runIn(plan, 'r-01'), note }, needs }),
      ),
    )
    expect(outcomes.map(({ outcome }) => outcome).sort()).toEqual(['conflict', 'saved'])
    const kept = runIn((await stored()).plan, 'r-01').note
    const conflict = outcomes.find((outcome) => outcome.outcome === 'conflict')
    expect(conflict).toMatchObject({ theirs: { run: { note: kept } }, revision: revision + 1 })
    const over = await saveRun(now.knex, now.site, revision + 1, {
      run: { ...runIn(plan, 'r-01'), note: 'over' },
      needs,
    })
    expect(over.outcome).toBe('saved')
  })

  it('on a run that was deleted is a conflict, and can put it back', async () => {
    const { plan, revision } = await stored()
    await removeRun(now.knex, now.site, 'r-01')
    const change = { run: runIn(plan, 'r-01'), needs: directNeeds(plan, runIn(plan, 'r-01')) }
    expect(await saveRun(now.knex, now.site, revision, change)).toMatchObject({ outcome: 'conflict', theirs: null })
    expect((await saveRun(now.knex, now.site, null, change)).outcome).toBe('saved')
  })

  it.each([
    ['a cable that lies elsewhere', { leads: [{ cable: 'c-0003', reversed: false }] }, 'already lies in run "r-01"'],
    ['a tag that is taken', { tag: 'R-01' }, 'is used twice'],
    ['a port that is not there', { to: { device: 'view-1', port: 'x' } }, 'there is no port'],
  ])('with %s is refused and nothing is written', async (_name, change, reason) => {
    const { plan, revision } = await stored()
    const outcome = await saveRun(now.knex, now.site, revision, {
      run: { ...runIn(plan, 'r-04'), ...change },
      needs: [],
    })
    expect(outcome).toMatchObject({ outcome: 'refused' })
    expect(JSON.stringify(outcome)).toContain(reason.replaceAll('"', '\\"'))
    expect(await stored()).toMatchObject({ plan, revision })
  })

  it('in a site that is gone says so', async () => {
    expect(await saveRun(now.knex, 'nowhere', null, { run: runIn(demo, 'r-01'), needs: [] })).toEqual({
      outcome: 'no-site',
    })
  })
})

describe('deleting a run', () => {
  it('takes the needs only it served, and undo puts all of it back in its place', async () => {
    const before = (await stored()).plan
    const removed = await removeRun(now.knex, now.site, 'r-16')
    const without = (await stored()).plan
    expect(without.runs.map((run) => run.id)).not.toContain('r-16')
    expect(without.needs.map((need) => need.id)).not.toContain('deck-frames')
    if (removed.outcome !== 'removed') throw new Error('not removed')
    expect(await restoreRun(now.knex, now.site, removed.token)).toMatchObject({ outcome: 'restored', runId: 'r-16' })
    const after = (await stored()).plan
    expect(after.runs).toEqual(before.runs)
    expect(new Set(after.needs.map((need) => JSON.stringify(need)))).toEqual(
      new Set(before.needs.map((need) => JSON.stringify(need))),
    )
    expect(await restoreRun(now.knex, now.site, removed.token)).toEqual({ outcome: 'gone' })
  })

  it('gives back the pins of needs that were to take it', async () => {
    const pinnedPlan: Plan = {
      ...demo,
      needs: demo.needs.map((need) => (need.id === 'log-picture' ? { ...need, through: ['r-09', 'r-11'] } : need)),
    }
    now.site = await importPlan(now.knex, pinnedPlan)
    const removed = await removeRun(now.knex, now.site, 'r-11')
    const pins = async () => (await stored()).plan.needs.find((need) => need.id === 'log-picture')?.through
    expect(await pins()).toEqual(['r-09'])
    if (removed.outcome !== 'removed') throw new Error('not removed')
    await restoreRun(now.knex, now.site, removed.token)
    expect(await pins()).toEqual(['r-09', 'r-11'])
  })

  it('cannot be undone over something that has taken its place, and changes nothing then', async () => {
    const removed = await removeRun(now.knex, now.site, 'r-04')
    const { plan, revision } = await stored()
    await saveRun(now.knex, now.site, revision, {
      run: { ...runIn(plan, 'r-10'), tag: 'R-04' },
      needs: directNeeds(plan, runIn(plan, 'r-10')),
    })
    const before = await stored()
    if (removed.outcome !== 'removed') throw new Error('not removed')
    expect(await restoreRun(now.knex, now.site, removed.token)).toMatchObject({ outcome: 'refused' })
    expect(await stored()).toEqual(before)
  })

  it('twice is gone the second time', async () => {
    await removeRun(now.knex, now.site, 'r-04')
    expect(await removeRun(now.knex, now.site, 'r-04')).toEqual({ outcome: 'gone' })
  })
})
