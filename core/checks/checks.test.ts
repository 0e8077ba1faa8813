import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { anew, BETWEEN, changedFrom, drawn, drawnAgain, smallSite } from '../../tests/support/small-site'
import { observationSchema } from '../observe/observation'
import type { Plan } from '../plan/plan'
import { indexPlan } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'
import type { Aspect, RunToJudge } from './aspect'
import { assess, assessAnew, assessRun, walkNeeds } from './assess'
import { aspects, checks, everyCheck, type Finding } from './checks'
import { reassess } from './reassess'
import { remedies } from './remedies'
import { SITUATION } from './situation-aspects'
import { spotsOf } from './spots'

const findingsOf = (plan: Plan): Finding[] => {
  const { runs, needs } = assess(plan)
  return [...runs, ...needs].flatMap(({ findings }) => findings)
}
const readBy = (name: string): readonly Aspect[] => [
  ...SITUATION,
  ...(checks.find((each) => each.name === name)?.reads ?? []),
]

describe('every check', () => {
  it('has a name of its own, and each code one meaning', () => {
    expect(new Set(everyCheck.map(({ name }) => name)).size).toBe(everyCheck.length)
    const meanings = new Map<string, unknown>()
    for (const { reasons } of everyCheck)
      for (const [code, meaning] of Object.entries(reasons)) {
        expect(meanings.get(code) ?? meaning, code).toBe(meaning)
        meanings.set(code, meaning)
      }
  })

  it('says what its schema has, offers what it may offer, and nothing else', () => {
    const said = new Set<string>()
    fc.assert(
      fc.property(many, (changes) => {
        for (const { check, reason, remedies: ways } of findingsOf(madeUpCopy(changes).plan)) {
          const definition = everyCheck.find(({ name }) => name === check)
          const { code, ...figures } = reason
          const own = definition?.reasons[code as never] as
            | { figures: { parse(figures: unknown): unknown } }
            | undefined
          expect(own?.figures.parse(figures), code).toEqual(figures)
          for (const { code: way, ...rest } of ways) {
            expect(definition?.remedies, `${check} offers ${way}`).toContain(way)
            expect(remedies[way].figures.parse(rest), way).toEqual(rest)
          }
          said.add(check)
        }
      }),
      { numRuns: cases(60) },
    )
    expect(said.size).toBeGreaterThan(checks.length / 2)
  })
})

/** What a check says of a run with a lead in it, apart from names. */
const saidOf = ({ index, run, crossed }: RunToJudge, cable: Cable, name: string): string => {
  const { findings } = assessRun(index, { ...run, leads: [{ cable: cable.id, reversed: false }] }, crossed)
  return findings.flatMap(({ check, grade }) => (check === name ? [grade] : [])).join()
}

describe.each(checks.map(({ name }) => name))('what the check "%s" reads', (name) => {
  const own = readBy(name)

  it('tells which runs and leads it judges alike', () => {
    if (own.some(({ isPairwise }) => isPairwise)) return
    fc.assert(
      fc.property(drawn, (numbers) => {
        const plan = smallSite(numbers)
        const index = indexPlan(plan)
        const { crossings } = walkNeeds(index)
        const spots = spotsOf(index, plan.cables)
        const said = new Map<string, string>()
        for (const run of plan.runs) {
          const asked = { index, run, crossed: crossings.get(run.id) ?? [], spots }
          if (own.some(({ isRunUnlike }) => isRunUnlike?.(index, run))) continue
          const unlike = new Set(own.flatMap(({ leadsUnlike }) => [...(leadsUnlike?.(asked) ?? [])]))
          const likeness = JSON.stringify(own.map(({ ofRun }) => ofRun?.(asked)))
          for (const cable of plan.cables) {
            if (unlike.has(cable.id) || own.some(({ isLeadUnlike }) => isLeadUnlike?.(index, cable))) continue
            const key = `${likeness} ${JSON.stringify(own.map(({ ofLead }) => ofLead?.(index, cable)))}`
            const says = saidOf(asked, cable, name)
            expect(said.get(key) ?? says, `${run.tag} with ${cable.tag}`).toBe(says)
            said.set(key, says)
          }
        }
      }),
      { numRuns: cases(40) },
    )
  })

  it('tells which runs it says something else of after a change', () => {
    fc.assert(
      fc.property(drawnAgain, ([first, second]) => {
        const before = smallSite(first)
        const after = changedFrom(before, smallSite(second))
        const again = reassess(assessAnew(before), after, [], own)
        const of = (runs: typeof again.assessment.runs) =>
          runs.map(({ id, findings }) => [id, findings.filter(({ check }) => check === name)])
        expect(of(again.assessment.runs)).toEqual(of(assess(anew(after)).runs))
      }),
      { numRuns: cases(60) },
    )
  })
})

describe('what the checks read together', () => {
  it('tells of a copy over one cable to the run of another that did worse between the same sockets', () => {
    const quiet = smallSite([2])
    const copied = (cable: string, rate: number) =>
      observationSchema.parse({
        id: `${cable}-copied`,
        at: '2026-06-01T08:00:00.000Z',
        subject: { cable },
        where: BETWEEN,
        kind: 'reading',
        measure: 'write',
        rate,
        limit: 'unknown',
      })
    const before = { ...quiet, observations: [...quiet.observations, copied('c1', 4e8)] }
    const after = { ...before, observations: [...before.observations, copied('c5', 4e9)] }
    const { assessment } = reassess(assessAnew(before), after)
    expect(assessment).toEqual(assess(anew(after)))
    expect(assessment.runs.map(({ grade }) => grade)).not.toEqual(assess(anew(before)).runs.map(({ grade }) => grade))
  })

  it('judges leads alike that were seen alike, whenever that was and whatever it is called', () => {
    let seen = 0
    fc.assert(
      fc.property(drawn, fc.integer({ min: 1, max: 1e9 }), (numbers, seconds) => {
        const plan = smallSite(numbers)
        const later = {
          ...plan,
          observations: plan.observations.map((each) => ({
            ...each,
            id: `later-${each.id}`,
            at: new Date(Date.parse(each.at) + seconds * 1000).toISOString(),
          })),
        }
        const sorts = (site: Plan) => {
          const index = indexPlan(site)
          return site.cables.map((cable) => aspects.map(({ ofLead }) => JSON.stringify(ofLead?.(index, cable))))
        }
        expect(sorts(later)).toEqual(sorts(plan))
        seen += plan.observations.length
      }),
      { numRuns: cases(60) },
    )
    expect(seen).toBeGreaterThan(0)
  })

  it('comes to the same for a changed site as assessing it anew', () => {
    fc.assert(
      fc.property(drawnAgain, ([first, second]) => {
        const before = smallSite(first)
        const after = changedFrom(before, smallSite(second))
        expect(reassess(assessAnew(before), after).assessment).toEqual(assess(anew(after)))
      }),
      { numRuns: cases(200) },
    )
  })
  it('leaves none of them out', () => {
    for (const { reads } of checks) for (const aspect of reads) expect(aspects).toContain(aspect)
    expect(new Set(aspects.map(({ name }) => name)).size).toBe(aspects.length)
  })
})
