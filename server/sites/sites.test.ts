import { describe, expect, it } from 'vitest'
import { changeSite as changeTheSite } from '../../core/change/changes/site'
import { readPlanText } from '../../core/plan/read'
import { planText } from '../../core/plan/write'
import { demo } from '../../tests/support/demo-plan'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { changeSite } from './change-site'
import { currentCopy } from './copies'
import { createSite, importPlan, listSites } from './sites'

const { now, stored } = freshSites()
const listed = async (id = now.site) => (await listSites(now.knex)).find((each) => each.id === id)

describe('a site in the database', () => {
  it('reads back as the very plan that was written, and as the file it came from', async () => {
    const { plan } = await stored()
    expect(plan).toEqual({ ...demo, site: { ...demo.site, id: now.site } })
    const back = readPlanText(planText(plan))
    expect(back).toEqual({ ok: true, plan })
  })
  it('never replaces another: a taken id gets a number', async () => {
    expect(await importPlan(now.knex, HAND, demo)).not.toBe(now.site)
    const [one, other] = await Promise.all([importPlan(now.knex, HAND, demo), importPlan(now.knex, HAND, demo)])
    expect(one).not.toBe(other)
  })
  it('that is brought in twice by one change is one site', async () => {
    const hand = { ...HAND, id: 'import-0001-once' }
    expect(await importPlan(now.knex, hand, demo)).toBe(await importPlan(now.knex, hand, demo))
  })
  it('is listed with its size', async () => {
    expect(await listed()).toMatchObject({
      name: demo.site.name,
      runs: demo.runs.length,
      cables: demo.cables.length,
      devices: demo.devices.length,
      putAway: false,
    })
  })
  it('that does not exist is null', async () => {
    expect(await currentCopy(now.knex, 'nowhere')).toBeNull()
  })
  it('is made empty from a name, whatever is in the name', async () => {
    const name = "Quay 3'); DROP TABLE sites; -- ⚓"
    const id = await createSite(now.knex, HAND, name, 'a note')
    expect((await currentCopy(now.knex, id))?.copy.plan).toMatchObject({
      site: { name, note: 'a note' },
      runs: [],
      devices: [],
    })
  })
  it('can be renamed, put away and brought back, each a change of its own', async () => {
    const change = (choice: Parameters<typeof changeTheSite>[2]) =>
      changeSite(now.knex, now.site, HAND, ({ plan, place }) => changeTheSite(plan, place, choice))
    await change({ name: 'Old harbour' })
    await change({ putAway: true })
    expect(await listed()).toMatchObject({ name: 'Old harbour', putAway: true })
    await change({ putAway: false })
    expect(await listed()).toMatchObject({ putAway: false })
    expect((await stored()).place).toBe(4)
  })
  it('shows its cables, runs, devices, needs and observations as plain columns, for reporting', async () => {
    const where = { site_id: now.site }
    expect(
      await now
        .knex('report_cables')
        .where({ ...where, id: 'c-0001' })
        .first(),
    ).toMatchObject({
      tag: 'C-0001',
      standing: 'drawer',
      first_connector: demo.cables[0]?.ends[0].connector,
    })
    expect(
      await now
        .knex('report_runs')
        .where({ ...where, id: 'r-01' })
        .first(),
    ).toMatchObject({ tag: 'R-01', first_lead: 'c-0003' })
    for (const [view, list] of [
      ['report_devices', demo.devices],
      ['report_needs', demo.needs],
      ['report_observations', demo.observations],
    ] as const)
      expect(await now.knex(view).where(where)).toHaveLength(list.length)
  })
})
