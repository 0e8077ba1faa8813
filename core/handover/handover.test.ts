import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many, start } from '../../tests/support/made-up-walk'
import { patterns } from '../../tests/support/site-routes'
import { applyChange } from '../change/apply'
import { handOver } from '../change/changes/handovers'
import { same } from '../change/merge'
import { type Assessed, assessAnew } from '../checks/assess'
import { turnedBetween } from '../checks/turned'
import { byId } from '../plan/lookup'
import { emptyPlan, type Plan } from '../plan/plan'
import { proofsOf } from '../prove/proof'
import { type Handover, handoverSchema, SECTIONS } from '../vocabulary/handover'
import type { Block } from './block'
import { blocksOf, bookLength, bookOf, titleOf } from './book'
import { drawingSvg, POINTS_PER_METRE } from './drawing'
import { floorDrawing, scaleFor } from './floor-drawing'
import { openPoints, openSentences } from './ready'
import { sections } from './sections'
import { freshRuns, sinceHandover, sinceTable } from './since'
import type { SinceName } from './since-sorts'
import { packTables } from './tables'
import { runsToHandOver } from './waiting'

const handed = (more: Partial<Handover> = {}): Handover =>
  handoverSchema.parse({
    id: 'h-1',
    name: 'Bridge hall',
    client: 'the school',
    at: '2026-11-01T10:00:00.000Z',
    log: 'a-log',
    place: 1,
    ...more,
  })
const site = assessAnew(demo)
const bookWith = (plan: Plan, more: Partial<Handover> = {}): Block[] => [
  ...blocksOf(bookOf(assessAnew(plan), handed(more))),
]
/** All that is read in a book. */
const wordsOf = (blocks: readonly Block[]): string =>
  blocks
    .map((block) =>
      block.sort === 'table'
        ? [...block.heads, ...block.rows.flat()].join('\n')
        : block.sort === 'list'
          ? block.items.join('\n')
          : block.sort === 'cards'
            ? block.cards.flatMap(({ title, lines }) => [title, ...lines]).join('\n')
            : block.sort === 'drawing'
              ? block.alt
              : block.sort === 'page'
                ? ''
                : block.text,
    )
    .join('\n')

const pages = patterns
  .filter((pattern) => pattern.startsWith('/sites/:site/'))
  .map((pattern) => new RegExp(`^${pattern.slice('/sites/:site/'.length).replaceAll(/:\w+/g, '[^/]+')}(\\?.*)?$`))
/** Whether Hallway has such a page of a site. */
const isPage = (page: string): boolean => pages.some((pattern) => pattern.test(page))

describe('a handover', () => {
  it('is kept as it was made: another follows it, and only the undo of its own change takes it away', () => {
    const made = applyChange(start, handOver(handed()))
    if (made.outcome !== 'applied') throw new Error(JSON.stringify(made))
    const edit = { list: 'handovers', id: 'h-1', base: made.copy.place } as const
    const changed = applyChange(made.copy, { edits: [{ ...edit, value: handed({ name: 'Another' }) }] })
    expect(changed).toMatchObject({ outcome: 'refused' })
    expect(applyChange(made.copy, { edits: [{ ...edit, value: null }] })).toMatchObject({ outcome: 'refused' })
    const undone = applyChange(made.copy, { edits: made.inverse, undoes: 'a-change' })
    expect(undone).toMatchObject({ outcome: 'applied' })
    if (undone.outcome === 'applied') expect(undone.copy.plan.handovers).toEqual(start.plan.handovers)
  })
  it('waits for runs that were accepted and that none has told of', () => {
    const before = { ...demo, handovers: demo.handovers.map((each) => ({ ...each, at: '2026-03-01T15:00:00.000Z' })) }
    // R-02 was accepted as well, and has gone stale
    expect(runsToHandOver(assessAnew(before)).map(({ tag }) => tag)).toEqual(['R-01'])
    expect(runsToHandOver(assessAnew({ ...before, handovers: [handed()] }))).toEqual([])
  })
})

describe('what is not settled', () => {
  it('is named with the page where it is settled, and each page is one of Hallway', () => {
    const points = openPoints(site)
    expect(points.map(({ name }) => name)).toEqual([
      'No way through',
      'Not laid',
      'A test failed',
      'Not proved',
      'Stale',
      'To be sent back or kept',
      'Faults still searched',
      'No photo',
      'Not on a drawing',
    ])
    for (const { things } of points) for (const { page } of things) expect([page, isPage(page)]).toEqual([page, true])
    // what failed leads to the search for the fault
    expect(points.find(({ name }) => name === 'A test failed')?.things).toEqual([
      { label: 'R-19', page: 'faults?run=r-19' },
    ])
    expect(openSentences(points)[0]).toMatch(/^No way through\. These runs are blocked .*R-04, R-09/)
  })
  it('says nothing of a site with nothing in it', () => {
    expect(openPoints(assessAnew(emptyPlan({ id: 's', name: 'S' })))).toEqual([])
  })
  it('names stops until somebody has dealt with them, leads that nobody knows, and what was accepted with less', () => {
    const [search] = demo.searches
    const [run] = demo.runs
    if (!search || !run) throw new Error('the demo has both')
    const leads = run.leads.flatMap((lead) => ('cable' in lead ? lead.cable : []))
    const at = '2026-11-28T10:00:00.000Z'
    const plan: Plan = {
      ...demo,
      searches: [{ id: 's-9', run: run.id, since: '2026-11-27T10:00:00.000Z' }],
      observations: [
        ...demo.observations.filter(
          (seen) =>
            !('cable' in seen.subject && leads.includes(seen.subject.cable)) &&
            !('run' in seen.subject && seen.subject.run === run.id),
        ),
        { id: 'o-8', at, subject: { run: run.id, leads }, kind: 'symptom', saw: 'hot', what: 'hot', search: 's-9' },
        { id: 'o-9', at, subject: { run: run.id, leads }, kind: 'accepted', what: 'accepted', less: 'no disk here' },
      ],
      cables: demo.cables.map((cable) => (leads.includes(cable.id) ? { ...cable, kind: undefined } : cable)),
    }
    const names = openPoints(assessAnew(plan)).map(({ name }) => name)
    expect(names).toContain('Stops')
    expect(names).toContain('Accepted with less')
    expect(names).toContain('Unmarked leads')
    const cleared = {
      ...plan,
      searches: plan.searches.map((each) => ({ ...each, cleared: [{ stop: 'hot' as const, at, how: 'cooled' }] })),
    }
    expect(openPoints(assessAnew(cleared)).map(({ name }) => name)).not.toContain('Stops')
  })
})

describe('a book', () => {
  const all = bookWith(demo)
  const words = wordsOf(all)
  it('has the parts that were chosen, in the order in which people use them', () => {
    const titles = all.flatMap((block) => (block.sort === 'section' ? [block.id] : []))
    expect(titles).toEqual([...SECTIONS])
    expect(Object.keys(sections)).toEqual([...SECTIONS])
    const some = bookWith(demo, { sections: ['tags', 'runs'] })
    expect(some.flatMap((block) => (block.sort === 'section' ? [block.id] : []))).toEqual(['runs', 'tags'])
  })
  it('tells every run, every lead that lies, every place where one ends, and every caution', () => {
    for (const { tag } of demo.runs) expect(words).toContain(tag)
    const laid = new Set(demo.runs.flatMap(({ leads }) => leads.flatMap((lead) => ('cable' in lead ? lead.cable : []))))
    for (const { id, tag } of demo.cables) if (laid.has(id)) expect(words).toContain(tag)
    for (const { findings } of site.assessment.runs)
      for (const { caution } of findings)
        if (caution === 'local-code') expect(words).toContain('Belongs to licensed people')
    expect(words).toContain('To buy for it')
  })
  it('says what was proved when, and under what', () => {
    const proved = wordsOf(bookWith(demo, { sections: ['runs'] }))
    expect(proved).toContain('2026-03-06')
    expect(proved).toContain('firmware F9; system 12.4')
    expect(proved).toContain(
      'stale: Image computer A: firmware is F9, was F8; Image computer A: system is 12.4, was 12.3',
    )
  })
  it('writes lengths in one unit or in both', () => {
    expect(bookLength('m')(5)).toBe('5 m')
    expect(bookLength('both')(5)).toBe('5 m (16 ft 5 in)')
    expect(wordsOf(bookWith(demo, { units: 'ft', sections: ['places'] }))).not.toMatch(/\d m\b/)
  })
  it('of any plan has a run for each run of it, and one of nothing says so in words', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        const blocks = bookWith(plan)
        const headings = blocks.flatMap((block) => (block.sort === 'heading' ? [block.id] : []))
        for (const { id } of plan.runs) expect(headings).toContain(`run-${id}`)
        const cards = blocks.flatMap((block) => (block.sort === 'cards' ? block.cards : []))
        expect(cards).toHaveLength(plan.runs.length)
      }),
      { numRuns: cases(25) },
    )
    const empty = wordsOf(bookWith(emptyPlan({ id: 's', name: 'S' })))
    expect(empty).toContain('No floor was drawn')
    expect(empty).toContain('The drawer is empty')
  })
  it('says on its first page what was left open', () => {
    const of = { site, handover: handed({ open: ['Not laid. R-09.'] }) }
    expect(titleOf(of).about).toContain('Not laid. R-09.')
    expect(titleOf({ site, handover: handed() }).about.join(' ')).toContain('Nothing was left open')
  })
  it('is made of a site where one cable was looked at ten thousand times', () => {
    const [cable] = demo.cables
    if (!cable) throw new Error('the demo has a cable')
    const seen = Array.from({ length: 10_000 }, (_, at): Plan['observations'][number] => ({
      id: `many-${at}`,
      at: new Date(1.7e12 + at * 60_000).toISOString(),
      subject: { cable: cable.id },
      kind: 'reading',
      measure: 'write',
      rate: 1e9 + at,
      limit: 'disk',
    }))
    const plan = { ...demo, observations: [...demo.observations, ...seen] }
    expect(wordsOf(bookWith(plan))).toContain(cable.tag)
    expect(sinceHandover(site, assessAnew(plan))).toEqual([])
  })
  it('comes as tables with a row for each run, lead and test', () => {
    const of = bookOf(site, handed())
    const rows = Object.fromEntries(packTables.map(({ name, rows: give }) => [name, give(of)]))
    expect(rows.runs).toHaveLength(demo.runs.length + 1)
    expect(rows.leads).toHaveLength(demo.cables.length + 1)
    const tests = [...of.proofs.values()].reduce((sum, proof) => sum + proof.tests.length, 0)
    expect(rows.tests).toHaveLength(tests + 1)
    for (const table of Object.values(rows)) for (const row of table) expect(row).toHaveLength(table[0]?.length ?? 0)
  })
})

describe('a floor on paper', () => {
  it('is as large as its metres at its scale, whichever floor, and has all that stands on it', () => {
    for (const floor of demo.floors) {
      const room = { width: 499, height: 650 }
      const drawing = floorDrawing(site.index, floor, room)
      expect(drawing.width).toBeLessThanOrEqual(room.width)
      expect(drawing.height).toBeLessThanOrEqual(room.height)
      const spots = demo.places.flatMap(({ at }) => (at?.floor === floor.id ? [at] : []))
      const dots = drawing.shapes.flatMap((shape) => (shape.sort === 'dot' ? [shape] : []))
      expect(dots.length).toBeGreaterThanOrEqual(spots.length)
      for (const [at, spot] of spots.entries()) {
        const [one, other] = [dots[0], dots[at]]
        const [first] = spots
        if (!one || !other || !first) throw new Error('each place has a dot')
        // millimetres on paper, times the scale, are millimetres on the floor
        const onPaper = Math.hypot(other.x - one.x, other.y - one.y)
        const onFloor = Math.hypot(spot.x - first.x, spot.y - first.y)
        expect((onPaper * drawing.scale) / POINTS_PER_METRE).toBeCloseTo(onFloor, 6)
      }
    }
  })
  it('is at the largest usual scale that fits', () => {
    const room = { width: 500, height: 600 }
    expect(scaleFor({ x: 0, y: 0, width: 3, height: 3 }, room)).toBe(20)
    expect(scaleFor({ x: 0, y: 0, width: 30, height: 10 }, room)).toBe(200)
    // exactly as wide as the sheet
    expect(scaleFor({ x: 0, y: 0, width: (500 / POINTS_PER_METRE) * 100, height: 1 }, room)).toBe(100)
    expect(scaleFor({ x: 0, y: 0, width: (500 / POINTS_PER_METRE) * 100 + 0.001, height: 1 }, room)).toBe(200)
  })
  it('is an SVG whose names stand for themselves, and what is gone is left out', () => {
    const [floor] = demo.floors
    if (!floor) throw new Error('the demo has a floor')
    const svg = drawingSvg(
      floorDrawing(site.index, { ...floor, name: '<&"' }, { width: 400, height: 400 }),
      '<&"',
      () => null,
    )
    expect(svg).toContain('<title>&lt;&amp;&quot;</title>')
    expect(svg).not.toContain('<image')
  })
})

describe('what has changed since', () => {
  const LISTS = ['runs', 'cables', 'devices', 'needs', 'places', 'floors', 'pathways', 'kinds', 'upgrades'] as const
  /** Of each list, what two plan files hold otherwise, by a plain comparison. */
  function plainly(was: Plan, is: Plan): string[] {
    return LISTS.flatMap((list) => {
      const [before, after] = [byId<{ id: string }>(was[list]), byId<{ id: string }>(is[list])]
      return [...new Set([...before.keys(), ...after.keys()])]
        .filter((id) => !same(before.get(id) ?? null, after.get(id) ?? null))
        .map((id) => `${list} ${id}`)
    })
  }
  const listOf: Partial<Record<SinceName, string>> = {
    laid: 'runs',
    moved: 'runs',
    replaced: 'runs',
    turned: 'runs',
    changed: 'runs',
    removed: 'runs',
    retired: 'cables',
    leads: 'cables',
    devices: 'devices',
    needs: 'needs',
    places: 'places',
    floors: 'floors',
    pathways: 'pathways',
    kinds: 'kinds',
    upgrades: 'upgrades',
  }
  it('is nothing where nothing has, and else what a plain comparison of the two plan files finds, no more and no less', () => {
    let found = 0
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        const after = assessAnew(plan)
        expect(sinceHandover(after, assessAnew(JSON.parse(JSON.stringify(plan))))).toEqual([])
        const since = sinceHandover(site, after)
        const named = since.flatMap(({ name, lines }) =>
          lines.flatMap(({ id }) => (listOf[name] ? [`${listOf[name]} ${id}`] : [])),
        )
        expect(new Set(named)).toEqual(new Set(plainly(demo, plan)))
        found += named.length
        const withdrawn = since.find(({ name }) => name === 'withdrawn')?.lines ?? []
        const known = byId(demo.observations)
        const fresh = plan.observations.filter(
          (seen) => seen.kind === 'retraction' && !known.has(seen.id) && known.has(seen.retracts),
        )
        expect(withdrawn).toHaveLength(fresh.length)
        expect(sinceTable(since)).toHaveLength(1 + since.reduce((sum, { lines }) => sum + lines.length, 0))
      }),
      { numRuns: cases(40) },
    )
    expect(found).toBeGreaterThan(inProportion(60))
  })
  it('begins with every verdict and every proof that is another, and with none that is not', () => {
    let [verdicts, proved] = [0, 0]
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        const after = assessAnew(plan)
        const since = sinceHandover(site, after)
        const namedIn = (...names: SinceName[]): Set<string> =>
          new Set(since.flatMap(({ name, lines }) => (names.includes(name) ? lines.map(({ id }) => id) : [])))
        for (const { name, lines } of since)
          for (const { page, what } of lines) {
            expect(page === null || isPage(page)).toBe(true)
            expect([name, what]).not.toEqual([name, ''])
            // nothing is said to change that did not
            expect(what).not.toMatch(/^(.+), now \1$/)
          }
        const turned = turnedBetween(site.assessment, after.assessment, after.index).filter(({ from }) => from !== null)
        const judged = namedIn('verdicts')
        for (const { id } of turned) expect([...judged]).toContain(id)
        verdicts += turned.length
        const kept = new Set([...site.assessment.runs, ...site.assessment.needs].map(({ id }) => id))
        for (const id of judged) expect([...kept]).toContain(id)
        const [were, are] = [proofsOf(site), proofsOf(after)]
        const told = namedIn('failed', 'stale', 'proved again', 'proofs')
        for (const { id } of plan.runs) {
          const [old, now] = [were.get(id), are.get(id)].map((proof) => ({
            state: proof?.state ?? 'planned',
            tests: proof?.tests.map(({ test, passed, failed }) => [test.key, passed, failed]),
          }))
          if (old?.state !== now?.state) {
            expect([...told]).toContain(id)
            proved += 1
          }
          // what goes on at once is told by names, and a new name is no change
          const [before, is] = [were.get(id), are.get(id)].map((proof) => proof && { ...proof, hardest: [] })
          if (same(before ?? null, is ?? null)) expect([...told]).not.toContain(id)
        }
      }),
      { numRuns: cases(40) },
    )
    expect(Math.min(verdicts, proved)).toBeGreaterThan(inProportion(5))
  })
  it('tells what the client would feel: a rule, mains that is gone, a pathway that is closed, heat, a lead turned round, a search', () => {
    const changed: Plan = {
      ...demo,
      policy: { ...demo.policy, length: 'bench', slack: 0.4 },
      places: demo.places.map((place) => ({ ...place, mains: false })),
      pathways: demo.pathways.map((pathway) => ({ ...pathway, closed: true })),
      runs: demo.runs.map((run) =>
        run.id === 'r-01' ? { ...run, leads: run.leads.map((lead) => ({ ...lead, reversed: true })) } : run,
      ),
      searches: [
        ...demo.searches.map((each) => ({
          ...each,
          ended: each.ended ?? { at: '2026-11-28T10:00:00.000Z', how: 'nothing wrong' as const },
        })),
        { id: 's-9', run: 'r-05', since: '2026-11-27T10:00:00.000Z' },
      ],
      observations: [
        ...demo.observations,
        {
          id: 'heat',
          at: '2026-11-28T10:00:00.000Z',
          subject: { cable: 'c-0016' },
          kind: 'reading',
          measure: 'warmth',
          felt: 'hot',
        },
      ],
    }
    const since = sinceHandover(site, assessAnew(changed))
    const lines = Object.fromEntries(
      since.map(({ name, lines }) => [name, lines.map(({ name, what }) => `${name}: ${what}`)]),
    )
    expect(lines.rules).toEqual(
      expect.arrayContaining([
        'how far a lead reaches: by the bench',
        'slack: now 40 %',
        expect.stringMatching(/now \d+ /),
      ]),
    )
    expect(lines.mains?.length).toBe(demo.places.filter(({ mains }) => mains === true).length)
    expect(lines.closed?.length).toBe(demo.pathways.filter(({ closed }) => !closed).length)
    expect(lines.hot).toEqual(['C-0016: got hot, 2026-11-28'])
    expect(lines.turned).toEqual(['R-01: C-0003 was turned round'])
    expect(lines.replaced).toBeUndefined()
    expect(lines.stale).toEqual(expect.arrayContaining(['R-01: C-0003 was turned round']))
    expect(lines.searches).toEqual(['R-20: search ended 2026-11-28: nothing wrong', 'R-05: searched since 2026-11-27'])
    // what is felt comes first
    expect(since[0]?.name).toBe('verdicts')
  })
  it('tells laid, moved, replaced, proved, stale and retired apart', () => {
    const spring = asSpring(demo)
    const since = Object.fromEntries(sinceHandover(spring, site).map(({ name, lines }) => [name, lines]))
    expect(since.laid?.map(({ name }) => name)).toEqual(['R-20'])
    expect(since.replaced?.[0]).toMatchObject({ name: 'R-04', what: 'C-0014, now C-0006' })
    expect(since.moved?.[0]).toMatchObject({ name: 'R-04' })
    expect(since['proved again']?.map(({ name }) => name)).toContain('R-01')
    expect(since.retired?.map(({ name }) => name)).toEqual(['C-0049'])
    expect([...freshRuns(sinceHandover(spring, site))].sort()).toEqual(['r-04', 'r-20'])
  })
})

/** The demo as it was before some things came about. */
function asSpring(plan: Plan): Assessed {
  return assessAnew({
    ...plan,
    runs: plan.runs
      .filter(({ id }) => id !== 'r-20')
      .map((run) =>
        run.id === 'r-04'
          ? { ...run, leads: [{ cable: 'c-0014', reversed: false }], route: { ...run.route, length: 1.2 } }
          : run,
      ),
    cables: plan.cables.map((cable) =>
      cable.standing === 'retired' ? { ...cable, standing: 'drawer' as const } : cable,
    ),
    searches: [],
    observations: plan.observations.filter(({ at }) => at < '2026-03-01'),
  })
}
