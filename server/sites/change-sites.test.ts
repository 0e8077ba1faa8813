import { randomUUID } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { addCables } from '../../core/change/changes/cables'
import { sendCables, takeWithStores } from '../../core/change/changes/store'
import { deviceElsewhere, storedId } from '../../core/order/store'
import { byId } from '../../core/plan/lookup'
import { emptyPlan } from '../../core/plan/plan'
import type { Cable } from '../../core/vocabulary/cable'
import { demo } from '../../tests/support/demo-plan'
import { freshSites, HAND } from '../../tests/support/demo-site'
import { changeSite, changeSites, type Outcome, type Part, refused } from './change-site'
import { currentCopy } from './copies'
import { historyOf, undoChange } from './history'
import { importPlan } from './sites'

const { now } = freshSites()

const [first] = demo.cables
if (!first) throw new Error('the demo has cables')
const lead = (tag: string): Cable => ({
  ...first,
  id: tag.toLowerCase(),
  tag,
  kind: undefined,
  suppliedWith: undefined,
  standing: 'drawer',
})

async function shelf(name: string, tags: readonly string[]): Promise<string> {
  const id = await importPlan(now.knex, HAND, emptyPlan({ id: name, name }))
  await changeSite(now.knex, id, HAND, () =>
    addCables(
      tags.map((tag) => JSON.parse(JSON.stringify(lead(tag)))),
      [],
    ),
  )
  return id
}
const planOf = async (site: string) => {
  const held = await currentCopy(now.knex, site)
  if (!held) throw new Error(`no site ${site}`)
  return held.copy
}
const tagsOf = async (site: string) => (await planOf(site)).plan.cables.map(({ tag }) => tag)
const ids = (outcome: Outcome): string => {
  if (outcome.outcome !== 'saved' || outcome.id === null) throw new Error(JSON.stringify(outcome))
  return outcome.id
}

/** Takes a lead from one site to another, as an order does. */
function take(from: string, to: string, cable: string, id = randomUUID()): Promise<Outcome> {
  let given: Parameters<typeof takeWithStores>[3] = []
  const leave: Part = {
    siteId: from,
    make: ({ plan, place }) => {
      const found = byId(plan.cables).get(cable)
      if (!found) return refused('cable', 'it is gone')
      given = [{ site: from, plan, cables: [found] }]
      return sendCables(plan, place, [found])
    },
  }
  const arrive: Part = {
    siteId: to,
    make: ({ plan, place }) =>
      takeWithStores(plan, place, { runs: [], lines: [] }, given, { called: storedId, elsewhere: deviceElsewhere }),
  }
  return changeSites(now.knex, { ...HAND, id }, [leave, arrive])
}

describe('several sites changed as one', () => {
  it('a lead goes from one to the other under one id, and comes back only in both', async () => {
    const store = await shelf('shelf-a', ['S-1', 'S-2'])
    const before = await tagsOf(now.site)
    const id = ids(await take(store, now.site, 's-1'))
    expect(await tagsOf(store)).toEqual(['S-2'])
    expect(await tagsOf(now.site)).toEqual([...before, 'S-1'])
    const lineOf = async (site: string) => (await historyOf(now.knex, site, await planOf(site), {})).lines[0]
    expect(await lineOf(store)).toMatchObject({ id, along: [now.site], what: { name: 'send cables' } })
    expect(await lineOf(now.site)).toMatchObject({ id, along: [store] })
    // undone from either, it is undone in both; and so is the undoing
    const undo = ids(await undoChange(now.knex, store, { ...HAND, id: randomUUID() }, id))
    expect([await tagsOf(store), await tagsOf(now.site)]).toEqual([['S-1', 'S-2'], before])
    ids(await undoChange(now.knex, now.site, { ...HAND, id: randomUUID() }, undo))
    expect(await tagsOf(store)).toEqual(['S-2'])
    expect(await tagsOf(now.site)).toEqual([...before, 'S-1'])
  })

  it('what one of them refuses is written in none', async () => {
    const store = await shelf('shelf-b', ['S-1'])
    const [placeThere, placeHere] = [(await planOf(store)).place, (await planOf(now.site)).place]
    const parts: [...Part[], Part] = [
      { siteId: store, make: ({ plan, place }) => sendCables(plan, place, [...plan.cables]) },
      { siteId: now.site, make: () => refused('x', 'not here') },
    ]
    expect(await changeSites(now.knex, HAND, parts)).toMatchObject({ outcome: 'refused' })
    expect((await planOf(store)).place).toBe(placeThere)
    expect((await planOf(now.site)).place).toBe(placeHere)
    expect(await tagsOf(store)).toEqual(['S-1'])
    const nowhere: Part = { siteId: 'nowhere', make: () => refused('x', 'x') }
    const [, asking] = parts
    if (!asking) throw new Error('two sites are changed')
    expect(await changeSites(now.knex, HAND, [nowhere, asking])).toEqual({ outcome: 'no-site' })
  })

  it('it cannot be undone in one while it cannot in the other', async () => {
    const store = await shelf('shelf-c', ['S-1'])
    const id = ids(await take(store, now.site, 's-1'))
    const here = (await planOf(now.site)).plan.cables.at(-1) as Cable
    await changeSite(now.knex, now.site, HAND, ({ place }) => ({
      what: { name: 'change cable', about: [here.tag] },
      edits: [{ list: 'cables', id: here.id, base: place, value: { ...here, note: 'laid in the loft' } }],
    }))
    const refusal = await undoChange(now.knex, store, { ...HAND, id: randomUUID() }, id)
    expect(refusal).toMatchObject({ outcome: 'refused' })
    expect(await tagsOf(store)).toEqual([])
  })

  it('sent twice, it is done once', async () => {
    const store = await shelf('shelf-d', ['S-1', 'S-2'])
    const id = randomUUID()
    const [one, two] = await Promise.all([take(store, now.site, 's-1', id), take(store, now.site, 's-1', id)])
    expect(ids(one)).toBe(ids(two))
    expect(await tagsOf(store)).toEqual(['S-2'])
  })

  it('two people who take the same lead at once: one has it, the other is told, and leads going both ways do not block each other', async () => {
    const [a, b] = [await shelf('shelf-e', ['A-1', 'A-2', 'A-3']), await shelf('shelf-f', ['B-1', 'B-2', 'B-3'])]
    const outcomes = await Promise.all([
      take(a, b, 'a-1'),
      take(b, a, 'b-1'),
      take(a, b, 'a-1'),
      take(b, a, 'b-2'),
      take(a, b, 'a-2'),
      take(b, a, 'b-1'),
    ])
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['saved', 'saved', 'refused', 'saved', 'saved', 'refused'])
    const all = [...(await tagsOf(a)), ...(await tagsOf(b))].toSorted()
    expect(all).toEqual(['A-1', 'A-2', 'A-3', 'B-1', 'B-2', 'B-3'])
  })
})
