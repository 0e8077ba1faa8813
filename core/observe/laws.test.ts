import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { choice, madeUpObservation } from '../../tests/support/made-up-changes'
import { applyChange } from '../change/apply'
import type { Edit } from '../change/change'
import { copyOf } from '../change/copy'
import { assess } from '../checks/assess'
import { severity } from '../checks/finding'
import { cableDoors } from '../drawer/cable-doors'
import { abilitiesOf } from '../link/abilities'
import { doesJob, parseJob } from '../match/job-text'
import { rankCables } from '../match/rank'
import { planWithout } from '../people/shown'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import { bestMode, linkModeFacts } from '../standards/link-modes'
import { shortCode } from '../tags/short-code'
import { everythingLearnt, learnedOf, type ToldLearnt } from './learned'
import { cannotTeach, type Observation, observationText, sayerOf } from './observation'

const bySubject = ([one]: ToldLearnt[number], [other]: ToldLearnt[number]): number =>
  JSON.stringify(one) < JSON.stringify(other) ? -1 : 1

/** What a handful of people saw at a made-up site. */
const seen = fc.array(choice, { minLength: 1, maxLength: 14 }).map((choices) => {
  const all: Observation[] = []
  for (const each of choices)
    all.push(madeUpObservation({ ...demo, observations: [...demo.observations, ...all] }, each, all.length))
  return all
})
const seenAt = (observations: readonly Observation[], length: Plan['policy']['length'] = 'book'): Plan => ({
  ...demo,
  policy: { ...demo.policy, length },
  observations: [...demo.observations, ...observations],
})
const verdicts = (plan: Plan) => assess(plan)
const length = fc.constantFrom('book' as const, 'bench' as const)

describe('what was seen', () => {
  it('comes to the same in whatever order it arrives, and by whatever ids', () => {
    fc.assert(
      fc.property(seen, length, fc.integer({ min: 1, max: 96 }), (observations, by, turn) => {
        const order = observations
          .map((each, at) => ({ each, key: ((at + 1) * turn) % 97 }))
          .sort((one, other) => one.key - other.key)
          .map(({ each }) => each)
        const names = new Map(observations.map(({ id }, at) => [id, `z-${(97 - at) * turn}-${at}`]))
        const renamed = order.map((each) => ({
          ...each,
          id: names.get(each.id) ?? each.id,
          ...(each.kind === 'retraction' ? { retracts: names.get(each.retracts) ?? each.retracts } : {}),
        }))
        expect(verdicts(seenAt(renamed as Observation[], by))).toEqual(verdicts(seenAt(observations, by)))
      }),
      { numRuns: cases(60) },
    )
  })

  it('and taken back leaves everything as before it', () => {
    fc.assert(
      fc.property(seen, length, (observations, by) => {
        const last = observations.at(-1) as Observation
        fc.pre(last.kind !== 'retraction')
        const before = observations.slice(0, -1)
        const back = {
          id: 'back',
          at: last.at,
          subject: last.subject,
          kind: 'retraction',
          retracts: last.id,
          reason: 'x',
        }
        expect(verdicts(seenAt([...observations, back as Observation], by))).toEqual(verdicts(seenAt(before, by)))
      }),
      { numRuns: cases(60) },
    )
  })

  it('makes no run worse by one more mode that held, and none better by one more that failed', () => {
    fc.assert(
      fc.property(seen, choice, length, fc.boolean(), (observations, each, by, holds) => {
        const more = madeUpObservation(seenAt(observations), each, 99)
        const trial = {
          ...more,
          kind: 'trial',
          basis: 'soaked',
          tried: 'gen2x1',
          cameUp: holds ? 'gen2x1' : null,
          seconds: 60,
        }
        const plain = {
          id: trial.id,
          at: trial.at,
          subject: trial.subject,
          where: trial.where,
          circumstances: trial.circumstances,
        }
        const { kind, basis, tried, cameUp, seconds } = trial
        const added = { ...plain, kind, basis, tried, cameUp, seconds } as Observation
        const [was, is] = [verdicts(seenAt(observations, by)), verdicts(seenAt([...observations, added], by))]
        for (const [at, { grade, tag }] of is.runs.entries()) {
          const [old, now] = [severity[was.runs[at]?.grade ?? 'clear'], severity[grade]]
          if (holds) expect(now, tag).toBeLessThanOrEqual(old)
          else expect(now, tag).toBeGreaterThanOrEqual(old)
        }
      }),
      { numRuns: cases(150) },
    )
  })

  it('comes to the same for a reader who is kept from notes', () => {
    fc.assert(
      fc.property(seen, length, (observations, by) => {
        const plan = seenAt(observations, by)
        const graded = (of: Plan) => {
          const { runs, needs } = verdicts(of)
          return [...runs, ...needs].map(({ id, grade }) => [id, grade])
        }
        expect(graded(planWithout(plan, ['notes']))).toEqual(graded(plan))
      }),
      { numRuns: cases(60) },
    )
  })

  it('comes to the same whether it is gone through at once or goes on from what was known', () => {
    fc.assert(
      fc.property(seen, length, (observations, by) => {
        let copy = copyOf(seenAt([], by))
        // known before, so that what comes goes on from it
        learnedOf(copy.plan)
        for (const value of observations) {
          const edits: Edit[] = [{ list: 'observations', id: value.id, base: null, value }]
          const applied = applyChange(copy, { edits })
          if (applied.outcome === 'applied') copy = applied.copy
          learnedOf(copy.plan)
        }
        const anew: Plan = JSON.parse(JSON.stringify(copy.plan))
        expect(everythingLearnt(learnedOf(copy.plan)).toSorted(bySubject)).toEqual(
          everythingLearnt(learnedOf(anew)).toSorted(bySubject),
        )
      }),
      { numRuns: cases(100) },
    )
  })

  it('begins anew for a run and for the lead in it alike, whichever of them it is said of that it was set right', () => {
    const run = demo.runs.find(({ tag }) => tag === 'R-19')
    const [lead] = run?.leads ?? []
    if (!run || !lead || !('cable' in lead)) throw new Error('the demo has a lead that comes and goes')
    const reason = (plan: Plan): unknown => {
      const found = verdicts(plan).runs.find(({ id }) => id === run.id)
      return found?.findings.find(({ check }) => check === 'evidence')?.reason
    }
    expect(reason(demo)).toMatchObject({ why: 'comes and goes', held: 7, failed: 3 })
    const at = '2026-11-01T08:00:00.000Z'
    const cable = { cable: lead.cable }
    const of = { run: run.id, leads: [lead.cable] }
    for (const subject of [cable, of])
      for (const where of [undefined, { port: run.from }]) {
        const done = { id: 'done', at, subject, kind: 'set right', what: 'reseated', ...(where ? { where } : {}) }
        const plus = (more: object[]) => ({ ...demo, observations: [...demo.observations, done, ...more] }) as Plan
        expect(reason(plus([]))).toMatchObject({ why: 'set right' })
        const back = { id: 'back', at, subject, kind: 'retraction', retracts: 'done', reason: 'it was another' }
        expect(reason(plus([back]))).toMatchObject({ why: 'comes and goes', held: 7, failed: 3 })
      }
  })

  it('is told in words, with who says so and what it does not show, and could be a file', () => {
    fc.assert(
      fc.property(seen, (observations) => {
        for (const each of observations) {
          expect(observationText(each).length).toBeGreaterThan(2)
          expect(sayerOf(each)).toMatch(/^[a-z]/)
          expect(cannotTeach(each)).toMatch(/^[A-Z].*\.$/)
        }
        const read = readPlan(JSON.parse(JSON.stringify(seenAt(observations))))
        expect(read).toEqual({ ok: true, plan: seenAt(observations) })
      }),
      { numRuns: cases(60) },
    )
  })

  it('is one belief on the page, on the tag, in the search of the drawer and among what is offered', () => {
    fc.assert(
      fc.property(seen, length, (observations, by) => {
        const plan = seenAt(observations, by)
        const index = indexPlan(plan)
        for (const cable of plan.cables) {
          const able = abilitiesOf(index, cable)
          const { mode, rate, watts, known } = able
          const open = cableDoors(index, cable).flatMap((door) => (door.open ? [door.mode] : []))
          // the widest open door that ports usually have is what the cable is good for
          expect(bestMode(open.filter((each) => each !== 'gen1x2' && each !== 'gen2x2'))).toBe(mode)
          expect(doesJob(parseJob('10 Gb/s'), able, '')).toBe(mode !== null && linkModeFacts[mode].line >= 10e9)
          const tag = shortCode(able)
          if (known.hot) expect([tag.startsWith('HOT'), mode, watts]).toEqual([true, null, 0])
          else if (mode !== null) expect(tag).toContain(mode === 'usb2' ? '2.0' : `${rate / 1e9}G`)
        }
        const [run] = plan.runs
        if (run)
          for (const { cable } of rankCables(index, run, [])) expect(abilitiesOf(index, cable).known.hot).toBeNull()
      }),
      { numRuns: cases(40) },
    )
  })
})
