import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChange } from '../core/change/apply'
import type { Copy, Edit, LogPosition } from '../core/change/change'
import { copyOf } from '../core/change/copy'
import { assess } from '../core/checks/assess'
import type { Subject } from '../core/observe/every'
import type { Observation } from '../core/observe/observation'
import { finished } from '../core/work/in-slices'
import { demo } from '../tests/support/demo-plan'
import { cases, inProportion } from '../tests/support/laws'
import { learnedMaps } from '../tests/support/learned-maps'
import { type Choice, choice, madeUpEdit } from '../tests/support/made-up-changes'
import { viewFor } from './open-copy'
import {
  bytesOfViews,
  type CatchUp,
  catchUpOf,
  caughtUp,
  keepView,
  latestView,
  readCopy,
  type SiteView,
  writeCopy,
} from './site-copy'

const IDENTITY = 'the-site'
const overTheWire = <T>(value: T): T => JSON.parse(JSON.stringify(value))
const firstCopy = (copy: Copy): SiteView => finished(readCopy(finished(writeCopy(copy, IDENTITY))))

/** The copies of a site as changes come, with what each wrote into the log. */
function* written(changes: readonly Choice[]): Iterable<{ copy: Copy; edits: readonly Edit[]; subject: Subject[] }> {
  let copy = copyOf(demo)
  for (const each of changes) {
    const applied = applyChange(copy, { edits: [madeUpEdit(copy, each, copy.place)] })
    if (applied.outcome !== 'applied') continue
    const was = copy
    copy = applied.copy
    const subject = applied.edits
      .filter(({ list }) => list === 'observations')
      .map(
        ({ id, value }) =>
          ((value ?? was.plan.observations.find((observation) => observation.id === id)) as Observation).subject,
      )
    yield { copy, edits: applied.edits, subject }
  }
}

const same = (view: SiteView | null, copy: Copy) => {
  expect(view?.copy.plan).toEqual({ ...copy.plan, observations: [] })
  expect(view?.copy.place).toBe(copy.place)
  expect(view && learnedMaps(view.copy.plan)).toEqual(learnedMaps(copy.plan))
  expect(view?.assessed.assessment).toEqual(assess(copy.plan))
}

describe('the copy in the browser', () => {
  it('comes to what the server holds, however many changes are told at once', () => {
    let told = 0
    fc.assert(
      fc.property(
        fc.array(choice, { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 4 }),
        (changes, atOnce) => {
          let view: SiteView | null = firstCopy(copyOf(demo))
          let waiting: { edits: [LogPosition, readonly Edit[]][]; subjects: Subject[] } = { edits: [], subjects: [] }
          for (const { copy, edits, subject } of written(changes)) {
            waiting.edits.push([copy.place, edits])
            waiting.subjects.push(...subject)
            if (waiting.edits.length < atOnce) continue
            const answer: CatchUp = overTheWire(
              catchUpOf({ copy, identity: IDENTITY }, [], waiting.edits, waiting.subjects),
            )
            view = view && finished(caughtUp(view, answer))
            view ??= firstCopy(copy)
            same(view, copy)
            told += 1
            waiting = { edits: [], subjects: [] }
          }
        },
      ),
      { numRuns: cases(60) },
    )
    expect(told).toBeGreaterThan(inProportion(60))
  })

  it('begins as what the server holds', () => {
    const copy = copyOf(demo)
    same(firstCopy(copy), copy)
  })

  it('begins anew where the site turns into one that counts other observations', () => {
    const copy = copyOf(demo)
    const site = { ...demo.site, practice: !demo.site.practice }
    const applied = applyChange(copy, { edits: [{ list: 'site', id: 'site', base: 1, value: site }] })
    if (applied.outcome !== 'applied') throw new Error(applied.outcome)
    const answer = catchUpOf({ copy: applied.copy, identity: IDENTITY }, [], [[2, applied.edits]], [])
    expect(finished(caughtUp(firstCopy(copy), overTheWire(answer)))).toBeNull()
  })

  it('is kept by whom it was made for: another reader’s is no substitute', () => {
    const view = firstCopy(copyOf(demo))
    keepView('kept', { ...view, identity: 'all' })
    keepView('kept', { ...view, identity: 'all-without-prices' })
    expect(latestView('kept', 'all')?.identity).toBe('all')
    expect(latestView('kept', 'all-without-prices')?.identity).toBe('all-without-prices')
    expect(latestView('kept', 'all-without-notes')).toBeUndefined()
    expect(() => viewFor('kept', { identity: 'all-without-notes', place: 1 })).toThrow()
    expect(viewFor('kept', { identity: 'all', place: 7 }).identity).toBe('all')
  })

  it('is there for a page that takes long, however many others are opened meanwhile; and no more than so many are kept', () => {
    const view = firstCopy(copyOf(demo))
    const slow = { ...view, identity: 'slow' }
    keepView('slow', slow)
    for (let other = 0; other < 100; other += 1) keepView(`other-${other}`, { ...view })
    expect(viewFor('slow', { identity: 'slow', place: slow.copy.place })).toBe(slow)
    expect(latestView('slow')).toBeUndefined()
    expect(latestView('other-0')).toBeUndefined()
    expect(latestView('other-99')).toBeDefined()
    expect(bytesOfViews()).toBeLessThanOrEqual(16 * view.copy.bytes)
    // a large one is kept, and takes the place of the others
    keepView('large', { ...view, copy: { ...view.copy, bytes: 60_000_000 } })
    expect(latestView('large')).toBeDefined()
    expect(latestView('other-99')).toBeUndefined()
  })

  it('leaves what was written after its copy was read for the next time', () => {
    const [first, second] = [
      ...written([
        { sort: 0, one: 1, other: 1, figure: 1 },
        { sort: 0, one: 2, other: 1, figure: 2 },
      ]),
    ]
    if (!first || !second) throw new Error('both fit the demo')
    const lines = [first, second].map(({ copy }) => ({ place: copy.place, id: `${copy.place}`, by: 'ann', words: '' }))
    const edits = [first, second].map(({ copy, edits }) => [copy.place, edits] as const)
    const answer = catchUpOf({ copy: first.copy, identity: IDENTITY }, lines, edits, [])
    expect(answer.lines.map(({ place }) => place)).toEqual([first.copy.place])
    expect(answer.edits.map(([place]) => place)).toEqual([first.copy.place])
    same(finished(caughtUp(firstCopy(copyOf(demo)), overTheWire(answer))), first.copy)
  })
})
