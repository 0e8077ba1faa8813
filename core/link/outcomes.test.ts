import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { many, start, walk } from '../../tests/support/made-up-walk'
import { applyChange } from '../change/apply'
import { isGood } from '../observe/came'
import { learntOf } from '../observe/learned'
import type { Plan } from '../plan/plan'
import { indexPlan, type SiteIndex } from '../plan/site-index'
import { recordOf, recordTold } from '../prove/record'
import { LINK_MODES } from '../standards/link-modes'
import { othersWeight } from '../vocabulary/policy'
import { estimate, type Outcome, sumsOf } from './estimate'
import { knownOf, looseLead, oughtOf } from './lay'
import { estimateOn, ownOfKind } from './outcomes'
import { cameIn } from './record'

/** What came of every cable in each mode and place it was tried in, gone through plainly. */
function plainly({ plan }: SiteIndex, index: SiteIndex): Outcome[] {
  return plan.cables.flatMap((cable) => {
    const kind = plan.kinds.find(({ id }) => id === cable.kind)?.name.toLowerCase() ?? null
    const tried = knownOf(index, cable).links.filter(({ copied }) => !copied)
    const places = new Set(tried.map(({ tried: mode, spot }) => JSON.stringify([mode, spot.controller, spot.port])))
    return [...places].map((place): Outcome => {
      const there = tried.filter(
        ({ tried: mode, spot }) => JSON.stringify([mode, spot.controller, spot.port]) === place,
      )
      const [first] = there
      if (!first) throw new Error('a place without a try')
      const { controller = null, port = 'run ' } = first.spot
      return {
        mode: first.tried,
        construction: cable.construction,
        kind,
        length: cable.length,
        controller,
        socket: port.startsWith('run ') ? null : port,
        held: Number(isGood(cameIn(there, first.tried, oughtOf(looseLead(index, cable))) ?? null)),
        tried: 1,
      }
    })
  })
}

/** What is asked of each kind at each length that lies somewhere, in each mode. */
const questionsOf = ({ plan }: SiteIndex) =>
  plan.cables.flatMap((cable) => {
    const kind = plan.kinds.find(({ id }) => id === cable.kind)?.name.toLowerCase()
    const { construction, length } = cable
    return LINK_MODES.map((mode) => ({
      mode,
      construction,
      length,
      ...(kind === undefined ? {} : { kind }),
      controller: 'right',
      socket: 'gallery-laptop/right',
    }))
  })

const told = [
  { kind: demo.kinds[0]?.name ?? '', mode: 'gen2x1' as const, length: 2, held: 3, tried: 7 },
  { kind: 'a kind that this site has not', mode: 'gen2x1' as const, length: 2, held: 3, tried: 7 },
]

describe('what came of the leads of a site', () => {
  it('is counted the same whether it goes on from what was counted or is counted anew, after any changes', () => {
    fc.assert(
      fc.property(many, (changes) => {
        recordOf(indexPlan(start.plan))
        walk(changes, (_, { plan }) => {
          const anew: Plan = JSON.parse(JSON.stringify(plan))
          const [goesOn, fresh] = [indexPlan(plan), indexPlan(anew)]
          expect(recordOf(goesOn)).toEqual(recordOf(fresh))
          for (const asked of questionsOf(fresh).slice(0, 40))
            expect(estimateOn(goesOn, asked)).toEqual(estimateOn(fresh, asked))
        })
      }),
      { numRuns: cases(40) },
    )
  })
  it('is one estimate of a plain list of outcomes, with what others counted by the weight of the rules', () => {
    const index = indexPlan(demo)
    const own = sumsOf(plainly(index, index))
    const theirs = demo.kinds.flatMap(({ id, name, construction }) =>
      [...(learntOf(index.learned, { kind: id })?.counted ?? []), ...told.filter(({ kind }) => kind === name)].map(
        ({ mode, held, tried, ...each }): Outcome => ({
          mode,
          construction,
          kind: name.toLowerCase(),
          length: 'length' in each ? each.length : null,
          controller: null,
          socket: null,
          held,
          tried,
        }),
      ),
    )
    const asks = questionsOf(index)
    expect(asks.length).toBeGreaterThan(100)
    for (const asked of asks) {
      const more = { others: sumsOf(theirs), weight: othersWeight(demo.policy) }
      expect(estimateOn(index, asked, told)).toEqual(estimate(own, asked, more))
      expect(estimateOn(index, asked, told, 0)).toEqual(estimate(own, asked))
    }
  })
  it('enters a verdict only by what this site tried of the very kind and length', () => {
    const index = indexPlan(demo)
    const others = plainly(index, index)
    let tried = 0
    for (const cable of demo.cables)
      for (const mode of LINK_MODES) {
        const kind = demo.kinds.find(({ id }) => id === cable.kind)?.name.toLowerCase()
        const { own } = ownOfKind(index, cable, mode)
        const fits = others.filter(
          (each) =>
            each.kind === kind &&
            each.mode === mode &&
            each.length === cable.length &&
            each.construction === cable.construction,
        )
        expect(own?.tried ?? 0).toBe(kind === undefined ? 0 : fits.length)
        expect(own?.passed ?? 0).toBe(kind === undefined ? 0 : fits.filter(({ held }) => held === 1).length)
        tried += own?.tried ?? 0
      }
    expect(tried).toBeGreaterThan(0)
  })
  it('counts a try that was taken back no more', () => {
    const trial = demo.observations.find(({ kind, subject }) => kind === 'trial' && 'cable' in subject)
    if (!trial || !('cable' in trial.subject)) throw new Error('the demo has a trial')
    const sum = (plan: Plan) => recordOf(indexPlan(plan)).reduce((all, { tried }) => all + tried, 0)
    const before = sum(demo)
    const back = { id: 'back', at: trial.at, subject: trial.subject, kind: 'retraction', retracts: trial.id } as const
    const value = { ...back, reason: 'the wrong lead' }
    const applied = applyChange(start, { edits: [{ list: 'observations', id: 'back', base: null, value }] })
    if (applied.outcome !== 'applied') throw new Error('it was refused')
    expect(sum(applied.copy.plan)).toBe(before - 1)
  })
})

describe('the record as it is told', () => {
  it('says of each row how likely the next one is to hold, by the same estimate, and nothing of a kind it does not know', () => {
    const index = indexPlan(demo)
    const others = [
      { ...told[1], kind: 'a kind that this site has not', controller: null, inPlace: 0, seconds: 0, drops: 0 },
    ] as never
    for (const grain of ['kind', 'length', 'controller'] as const) {
      const rows = recordTold(index, others, grain, 1)
      expect(rows.filter(({ likely }) => likely === null).map(({ kind }) => kind)).toEqual([
        'a kind that this site has not',
      ])
      for (const { kind, mode, length, controller, likely } of rows) {
        const known = demo.kinds.find(({ name }) => name === kind)
        if (!known) continue
        const asked = {
          mode,
          construction: known.construction,
          kind: kind.toLowerCase(),
          ...(length === null ? {} : { length }),
          ...(controller === null ? {} : { controller }),
        }
        expect(likely).toBe(estimateOn(index, asked, others, 1).odds)
      }
    }
  })
})
