import fc from 'fast-check'
import { expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { applyChange } from '../change/apply'
import { type Copy, entityKey } from '../change/change'
import { sendCables, takeWithStores } from '../change/changes/store'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import { observationsOf } from '../observe/learned'
import { byId } from '../plan/lookup'
import { emptyPlan, type Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { laidCables } from '../vocabulary/run'
import { finished } from '../work/in-slices'
import { choicesOf, wantingRuns } from './choices'
import { deviceElsewhere, storedAt, storedId, storeOf, withStores } from './store'

const laid = new Set(demo.runs.flatMap(laidCables))

/** The demo with some of its free leads in a store instead, which knows the devices that they were sorted on. */
function parted(away: readonly string[]): { here: Copy; store: Copy } {
  const gone = new Set(away)
  const isAway = (id: string): boolean => gone.has(id)
  const without = (plan: Plan): Plan => ({
    ...plan,
    cables: plan.cables.filter(({ id }) => !isAway(id)),
    observations: plan.observations.filter(({ subject }) => !('cable' in subject && isAway(subject.cable))),
    sessions: [],
    soaks: [],
  })
  const shelf: Plan = {
    ...emptyPlan({ id: 'shelf', name: 'Shelf' }),
    site: { ...demo.site, id: 'shelf', name: 'Shelf' },
    policy: demo.policy,
    kinds: demo.kinds.map((kind) => ({ ...kind, id: `shelf-${kind.id}`.slice(0, 60) })),
    cables: demo.cables.flatMap((cable) =>
      isAway(cable.id)
        ? [{ ...cable, suppliedWith: undefined, kind: cable.kind && `shelf-${cable.kind}`.slice(0, 60) }]
        : [],
    ),
    observations: demo.observations.filter(({ subject }) => 'cable' in subject && isAway(subject.cable)),
  }
  return { here: copyOf(without(demo)), store: copyOf(JSON.parse(JSON.stringify(shelf))) }
}
const free = demo.cables.filter(({ id, standing }) => standing === 'drawer' && !laid.has(id)).map(({ id }) => id)

it('what a lead of a store is judged to do is what it does once it is here, with all that was seen of it', () => {
  let taken = 0
  fc.assert(
    fc.property(fc.subarray(free, { minLength: 1 }), fc.nat(), (away, one) => {
      const { here, store } = parted(away)
      const site = assessAnew(withStores(here.plan, [storeOf(store)]))
      const runs = wantingRuns(site)
      for (const { run, choices } of finished(choicesOf(site, runs.slice(one % runs.length).slice(0, 2), here.place))) {
        const stored = choices.filter(({ cables }) => cables.some((id) => storedAt(id)))
        for (const choice of stored.slice(0, 3)) {
          const ids = choice.cables.flatMap((id) => storedAt(id)?.cable ?? [])
          const cables = ids.flatMap((id) => byId(store.plan.cables).get(id) ?? [])
          const made = takeWithStores(
            here.plan,
            here.place,
            { runs: [{ run, leads: choice.leads }], alters: choice.setUp?.edits, lines: [] },
            [{ site: 'shelf', plan: store.plan, cables }],
            { called: storedId, elsewhere: deviceElsewhere },
          )
          const applied = applyChange(here, { edits: made.edits })
          if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
          const { plan } = applied.copy
          expect(byId(assessAnew(plan).assessment.runs).get(run)?.grade).toBe(choice.grade)
          expect(readPlan(JSON.parse(JSON.stringify(plan))).ok).toBe(true)
          const added = plan.cables.slice(-cables.length)
          for (const [at, cable] of added.entries())
            expect(observationsOf(plan, { cable: cable.id })).toHaveLength(
              observationsOf(store.plan, { cable: cables[at]?.id ?? '' }).length,
            )
          // kinds are carried by name: the catalogue has none twice
          expect(new Set(plan.kinds.map(({ name }) => name.toLowerCase())).size).toBe(plan.kinds.length)
          const sent = applyChange(store, { edits: sendCables(store.plan, store.place, cables).edits })
          if (sent.outcome !== 'applied') throw new Error(JSON.stringify(sent))
          expect(sent.copy.plan.cables).toHaveLength(store.plan.cables.length - cables.length)
          const back = applyChange(sent.copy, { edits: sent.inverse, undoes: 'x' })
          expect(back.outcome === 'applied' && back.copy.plan).toEqual(store.plan)
          expect(new Set(made.edits.map(({ list, id }) => entityKey(list, id))).size).toBe(made.edits.length)
          taken += 1
        }
      }
    }),
    { numRuns: cases(15) },
  )
  expect(taken).toBeGreaterThan(inProportion(5))
})

it('a lead leaves the sessions it was sorted in; one that nothing is left of goes with it', () => {
  const session = demo.sessions.find(({ cables }) => cables.length > 0 && cables.every((id) => !laid.has(id)))
  if (!session) throw new Error('the demo has a session of free leads')
  const copy = copyOf({
    ...demo,
    runs: [],
    needs: [],
    soaks: [],
    searches: [],
    handovers: [],
    observations: demo.observations.filter(({ subject }) => !('run' in subject)),
  })
  const all = session.cables.flatMap((id) => byId(demo.cables).get(id) ?? [])
  const sent = applyChange(copy, { edits: sendCables(copy.plan, 1, all).edits })
  if (sent.outcome !== 'applied') throw new Error(JSON.stringify(sent))
  expect(sent.copy.plan.sessions.some(({ id }) => id === session.id)).toBe(false)
  expect(readPlan(JSON.parse(JSON.stringify(sent.copy.plan))).ok).toBe(true)
})
