import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { canBeJudged, directNeeds, nextRunTag, withRun } from './direct-needs'
import { emptyPlan, type Plan } from './plan'
import { readPlan, readPlanText } from './read'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')
const demo = read.plan
const runOf = (id: string) => demo.runs.find((run) => run.id === id) as Plan['runs'][number]

describe('changing one run of a plan', () => {
  it('touches its own needs and no others', () => {
    expect(directNeeds(demo, runOf('r-09')).map((need) => need.id)).toEqual(['gallery-power'])
    const changed = withRun(demo, { ...runOf('r-09'), tag: 'R-90' }, [])
    expect(changed.runs).toHaveLength(demo.runs.length)
    expect(demo.needs.filter((need) => !changed.needs.includes(need)).map((need) => need.id)).toEqual(['gallery-power'])
    expect(readPlan(JSON.parse(JSON.stringify(changed))).ok).toBe(true)
  })
  it('with the same run and needs changes nothing', () => {
    const same = withRun(demo, runOf('r-16'), directNeeds(demo, runOf('r-16')))
    expect(same.runs).toEqual(demo.runs)
    expect(same.needs.map((need) => need.id).sort()).toEqual(demo.needs.map((need) => need.id).sort())
  })
  it('leaves every need where it stood, so that nobody is served in another turn', () => {
    for (const run of demo.runs) expect(withRun(demo, run, directNeeds(demo, run)).needs).toEqual(demo.needs)
    const [first] = directNeeds(demo, runOf('r-16'))
    if (!first) throw new Error('R-16 has a need')
    const more = { ...first, id: 'one-more' }
    const ids = withRun(demo, runOf('r-16'), [more, ...directNeeds(demo, runOf('r-16'))]).needs.map(({ id }) => id)
    expect(ids).toEqual([...demo.needs.map(({ id }) => id), 'one-more'])
  })
  it('adds a run it does not know', () => {
    expect(withRun(demo, { ...runOf('r-01'), id: 'new' }, []).runs).toHaveLength(demo.runs.length + 1)
  })
  it('gives each of two runs between the same devices its own needs', () => {
    const twin = { ...runOf('r-09'), id: 'r-99', tag: 'R-99' }
    const pinned = {
      ...demo.needs[0],
      id: 'pinned',
      from: 'gallery-laptop',
      to: 'gallery-dock',
      through: ['r-99'],
    } as Plan['needs'][number]
    const plan: Plan = { ...demo, runs: [...demo.runs, twin], needs: [...demo.needs, pinned] }
    expect(directNeeds(plan, twin).map((need) => need.id)).toEqual(['pinned'])
    expect(directNeeds(plan, runOf('r-09')).map((need) => need.id)).toEqual(['gallery-power'])
  })
})

it('the next tag is one nobody has', () => {
  expect(nextRunTag(demo)).toBe('R-21')
  expect(nextRunTag(emptyPlan({ id: 's', name: 'S' }))).toBe('R-01')
})

it('a run can be judged where all it names is there', () => {
  const run = runOf('r-09')
  expect(canBeJudged(demo, run)).toBe(true)
  expect(canBeJudged(demo, { ...run, to: run.from })).toBe(false)
  expect(canBeJudged(demo, { ...run, to: { device: 'view-1', port: 'none' } })).toBe(false)
  expect(canBeJudged(demo, { ...run, leads: [{ cable: 'none', reversed: false }] })).toBe(false)
})
