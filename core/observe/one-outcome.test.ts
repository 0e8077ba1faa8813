import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { choice, madeUpObservation } from '../../tests/support/made-up-changes'
import { carriesAlone } from '../link/abilities'
import { looseLead, oughtOf } from '../link/lay'
import { leadCame } from '../link/lead-came'
import { cameOf, recordOfKindOn } from '../link/record'
import { kindsDone } from '../order/kind-record'
import type { Plan } from '../plan/plan'
import { indexPlan, type SiteIndex } from '../plan/site-index'
import { adviceOf } from '../prove/advice'
import { recordOf } from '../prove/record'
import type { Cable } from '../vocabulary/cable'
import { isGood } from './came'
import { learntOfCable } from './learned'
import { SERIES_LISTS, withSeries } from './learnt'
import { seenOfMode, talliesOf } from './links'
import type { Observation } from './observation'

/** What a handful of people saw of the leads of the demo. */
const seen = fc.array(choice, { minLength: 4, maxLength: 30 }).map((choices) => {
  const all: Observation[] = []
  for (const each of choices)
    all.push(madeUpObservation({ ...demo, observations: [...demo.observations, ...all] }, each, all.length))
  return { ...demo, observations: [...demo.observations, ...all] } as Plan
})

/** The modes that were tried of a lead and failed somewhere, by what was seen and nothing else. */
function failedModes(index: SiteIndex, cable: Cable) {
  const lead = looseLead(index, cable)
  const tried = new Set(lead.known.links.flatMap((series) => (series.copied ? [] : [series.tried])))
  return [...tried].filter((mode) => seenOfMode(lead.known.links, mode, oughtOf(lead), null).failed > 0)
}

/** Every stage that says of a lead whether it failed: what each is asked, and what must hold where `failed` modes are given. */
const stages: Record<string, (index: SiteIndex, cable: Cable, failed: ReturnType<typeof failedModes>) => void> = {
  'Match promises no mode that failed': (index, cable, failed) => {
    const lead = looseLead(index, cable)
    for (const mode of failed) {
      const { lack, doubt } = carriesAlone(lead, mode, index.plan.policy)
      expect(lack !== null || doubt !== null).toBe(true)
    }
  },
  'Order keeps its day to send back': (index, cable, failed) => {
    if (failed.length > 0) expect(leadCame(index, cable)).toBe('failed')
  },
  'a lead that passed has failed in nothing': (index, cable, failed) => {
    if (leadCame(index, cable) === 'passed') expect(failed).toEqual([])
  },
  'the record counts it once, by what its tries come to': (index, cable) => {
    if (cable.kind === undefined) return
    for (const { mode, controller } of talliesOf(learntOfCable(index.learned, cable.id)?.links ?? [])) {
      const { passed, tried } = recordOfKindOn(index, cable.kind, mode, controller ?? undefined)
      const all = index.cablesOfKind.get(cable.kind) ?? []
      const outcomes = all.flatMap((each) => cameOf(index, each, mode, controller ?? undefined) ?? [])
      expect([passed, tried]).toEqual([outcomes.filter((came) => isGood(came)).length, outcomes.length])
    }
  },
  'the table of the record counts it as failed where it failed': (index, cable, failed) => {
    const kind = cable.kind === undefined ? undefined : index.kinds.get(cable.kind)
    if (!kind) return
    for (const mode of failed) {
      const cells = recordOf(index).filter(
        (cell) => cell.kind === kind.name && cell.length === cable.length && cell.mode === mode,
      )
      const sum = (figure: 'held' | 'tried'): number => cells.reduce((all, cell) => all + cell[figure], 0)
      expect(sum('held')).toBeLessThan(sum('tried'))
    }
  },
  'what other sites are told of its kind counts it as failed': (index, cable, failed) => {
    const kind = cable.kind === undefined ? undefined : index.kinds.get(cable.kind)
    const done = kind && kindsDone(index).get(kind.name.toLowerCase())
    if (done && failed.length > 0) expect(done.held).toBeLessThan(done.tried)
  },
  'advice names no lead of no kind that failed in what the best did': (index, cable, failed) => {
    if (cable.kind !== undefined) return
    for (const { best, use } of adviceOf(index).devices) {
      const advised = use.some(({ name }) => name === cable.tag)
      if (advised && best.mode !== null && failed.includes(best.mode)) {
        // it may hold at this device what it failed at another
        const devices = new Set((learntOfCable(index.learned, cable.id)?.links ?? []).map(({ spot }) => spot.far))
        expect(devices.size).toBeGreaterThan(1)
      }
    }
  },
}

describe('one question has one answer, wherever it is asked', () => {
  it.each(Object.entries(stages))('%s', (_, stage) => {
    fc.assert(
      fc.property(seen, (plan) => {
        const index = indexPlan(plan)
        for (const cable of plan.cables) stage(index, cable, failedModes(index, cable))
      }),
      { numRuns: cases(60) },
    )
  })
})

describe('what was tried elsewhere', () => {
  it('is left out or moved in every list there is of what was tried', () => {
    let lists = 0
    fc.assert(
      fc.property(seen, (plan) => {
        const index = indexPlan(plan)
        for (const { learnt } of index.learned.bySubject.values()) {
          const withSpots = Object.entries(learnt).filter(
            ([, value]) => Array.isArray(value) && value.some((each) => 'spot' in each),
          )
          for (const [list] of withSpots) expect(SERIES_LISTS).toContain(list)
          lists += withSpots.length
          const without = withSeries(learnt, () => null)
          for (const list of SERIES_LISTS) expect(without[list]).toEqual([])
        }
      }),
      { numRuns: cases(20) },
    )
    expect(lists).toBeGreaterThan(0)
  })
})
