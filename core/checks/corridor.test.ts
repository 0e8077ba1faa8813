import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases, inProportion } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { openingOf } from '../link/doors'
import { assessAnew } from './assess'
import { corridorOf } from './corridor'

describe('the whole path of a need as a corridor', () => {
  it('has the very doors of the assessment, in the order in which they are walked, whatever the plan', () => {
    let walked = 0
    let shared = 0
    fc.assert(
      fc.property(many, (changes) => {
        const site = assessAnew(madeUpCopy(changes).plan)
        for (const need of site.index.plan.needs) {
          const steps = site.walks.paths.get(need.id) ?? []
          const corridor = corridorOf(site, need)
          if (steps.length === 0) {
            expect(corridor).toBeNull()
            continue
          }
          walked += 1
          const doors = steps.flatMap(({ run, way }) => {
            const own = site.assessment.runs.find(({ id }) => id === run.id)?.doors ?? []
            return way === 'down' ? own : [...own].reverse()
          })
          expect(corridor?.doors).toEqual(doors)
          expect(corridor?.grade).toBe(site.assessment.needs.find(({ id }) => id === need.id)?.grade)
          const narrowest = corridor?.doors[corridor.narrowest ?? 0]
          const width = need.kind === 'power' ? (door: (typeof doors)[number]) => door.watts : openingOf
          if (narrowest) expect(width(narrowest)).toBe(Math.min(...doors.map(width)))
          // whoever else crosses one of its runs walks through the doors of that run, and nobody else does
          const beside = (at: number): string[] =>
            (corridor?.flows ?? [])
              .filter(({ stretch }) => stretch && stretch[0] <= at && at <= stretch[1])
              .map(({ needId }) => needId)
          let at = 0
          for (const { run } of steps) {
            const own = site.assessment.runs.find(({ id }) => id === run.id)
            const others = (own?.flows ?? []).map(({ needId }) => needId).filter((id) => id !== need.id)
            for (const _ of own?.doors ?? []) {
              expect(beside(at).sort()).toEqual(others.sort())
              shared += others.length
              at += 1
            }
          }
        }
      }),
      { numRuns: cases(40) },
    )
    expect(walked).toBeGreaterThan(inProportion(200))
    expect(shared).toBeGreaterThan(inProportion(200))
  })
})
