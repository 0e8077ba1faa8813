import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { choice, madeUpObservation } from '../../tests/support/made-up-changes'
import { madeUpCopy, many, walk } from '../../tests/support/made-up-walk'
import { type OneRun, onePlan } from '../../tests/support/one-run'
import { renamedPlan } from '../../tests/support/renamed-plan'
import { assessAnew } from '../checks/assess'
import { reassess } from '../checks/reassess'
import type { Observation } from '../observe/observation'
import { spotOf } from '../observe/spot'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { isSpotOf, predictedSituation, predictRun } from './predict-run'
import { proofOf, proofsOf, runsToProve } from './proof'
import { runTests } from './run-tests'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15, controller: 'board' }
const disk: OneRun['to'] = { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' }
const plan = (more: Partial<OneRun> = {}): Plan =>
  onePlan({
    from: host,
    to: disk,
    leads: [{ grade: 'gen2', length: 0.8 }],
    need: { kind: 'storage', rate: 400 * 8e6 },
    ...more,
  })

let number = 0
const seen = (body: object, at: string, more: object = {}): Observation => {
  number += 1
  return {
    id: `p${number}`,
    at,
    subject: { run: 'r1', leads: ['c1'] },
    where: { port: { device: 'near', port: 'p' }, far: { device: 'far', port: 'p' } },
    ...body,
    ...more,
  } as Observation
}
const at = (minute: number): string => new Date(Date.UTC(2026, 10, 1, 9, minute)).toISOString()
const link = (cameUp: string | null, minute: number, more: object = {}) =>
  seen({ kind: 'trial', basis: 'measured', tried: 'gen2x1', cameUp }, at(minute), more)
const soak = (seconds: number, minute: number, more: object = {}, cameUp: string | null = 'gen2x1') =>
  seen({ kind: 'trial', basis: 'soaked', tried: 'gen2x1', cameUp, seconds }, at(minute), more)
const copy = (way: 'write' | 'read', megabytes: number, minute: number, more: object = {}) =>
  seen({ kind: 'reading', measure: way, rate: megabytes * 8e6 }, at(minute), more)
const laid = seen({ kind: 'laid', what: 'laid' }, at(0))
const all = [laid, link('gen2x1', 1), copy('write', 1000, 2), copy('read', 1000, 3), soak(60, 4)]

const proof = (observations: readonly Observation[], of: Plan = plan()) => {
  const site = assessAnew({ ...of, observations: [...of.observations, ...observations] })
  const run = site.index.runs.get('r1')
  if (!run) throw new Error('no run')
  return proofOf(site, run)
}

describe('how far a run has come', () => {
  it('is planned, laid, proved by every test its needs ask for, and accepted', () => {
    expect(proof([]).state).toBe('planned')
    expect(proof([laid]).state).toBe('laid')
    expect(proof([laid]).tests.map(({ test }) => test.kind)).toEqual(['link', 'write', 'read', 'soak'])
    for (const left of all.slice(2)) expect(proof(all.filter((each) => each !== left)).state).toBe('laid')
    expect(proof(all)).toMatchObject({ state: 'proved', passed: 4, failed: 0 })
    expect(proof([...all, seen({ kind: 'accepted', what: 'accepted' }, at(9))]).state).toBe('accepted')
    expect(
      proof([
        ...all,
        seen({ kind: 'accepted', what: 'accepted' }, at(9)),
        seen({ kind: 'accepted', what: 'withdrawn' }, at(10)),
      ]).state,
    ).toBe('proved')
  })
  it('USB 2.0 that works is a failure, and so is a drop: twenty times as long clears it, a second less does not', () => {
    expect(proof([...all, link('usb2', 5)])).toMatchObject({ state: 'failed', passed: 2 })
    expect(proof([...all, soak(75, 5, {}, null)])).toMatchObject({ state: 'failed', failed: 2 })
    expect(proof([...all, soak(75, 5, {}, null), soak(1499, 6)]).state).toBe('failed')
    expect(proof([...all, soak(75, 5, {}, null), soak(1500, 6)]).state).toBe('proved')
  })
  it('a link that failed is blocked until three tries held in a row, and tight where it was watched long enough', () => {
    const linkAfter = (...tries: Observation[]) => proof([laid, ...tries]).tests[0]
    const failed = link(null, 1)
    const first = { result: { grade: { grade: 'blocked' }, came: 'failed', counted: { held: 1, failed: 1 } } }
    expect(linkAfter(failed, link('gen2x1', 2))).toMatchObject({ ...first, passed: false })
    const watched = linkAfter(failed, link('gen2x1', 2, { seconds: 60 }))
    expect(watched).toMatchObject({ result: { grade: { grade: 'tight' }, came: 'comes and goes' }, passed: false })
    const three = [2, 3, 4].map((minute) => link('gen2x1', minute))
    expect(linkAfter(failed, ...three)).toMatchObject({
      result: { grade: { grade: 'clear' }, came: 'came up' },
      passed: true,
    })
  })
  it('a soak counts from exactly what the site asks for, and a short look takes nothing from a long one', () => {
    const without = all.slice(0, 4)
    expect(proof([...without, soak(59, 4)]).state).toBe('laid')
    expect(proof([...without, soak(60, 4), soak(5, 5)]).state).toBe('proved')
    const nightly = plan({ policy: { soak: 'night' } })
    expect(proof([...without, soak(8 * 3600 - 1, 4)], nightly).state).toBe('laid')
    expect(proof([...without, soak(8 * 3600, 4)], nightly).state).toBe('proved')
  })
  it('is stale once something else is installed, and proved again when it is tested again', () => {
    const now = [{ what: 'driver' as const, version: '2', on: '2026-11-02' }]
    const updated = (of: Plan): Plan => ({
      ...of,
      devices: of.devices.map((device) => (device.id === 'near' ? { ...device, installed: now } : device)),
    })
    const withSetup = (version: string) => ({
      where: {
        port: { device: 'near', port: 'p' },
        far: { device: 'far', port: 'p' },
        installed: [{ what: 'driver', version }],
      },
    })
    const tested = (version: string, minute: number) => [
      link('gen2x1', minute, withSetup(version)),
      copy('write', 1000, minute, withSetup(version)),
      copy('read', 1000, minute, withSetup(version)),
      soak(60, minute, withSetup(version)),
    ]
    const accepted = seen({ kind: 'accepted', what: 'accepted' }, at(9))
    const stale = proof([laid, ...tested('1', 1), accepted], updated(plan()))
    expect(stale).toMatchObject({ state: 'stale', stale: 4, passed: 0 })
    expect(stale.tests[0]?.result?.stale).toEqual([{ fact: 'host', figure: 'driver', was: '1', is: '2' }])
    expect(proof([laid, ...tested('1', 1), ...tested('2', 2)], updated(plan())).state).toBe('proved')
    // nobody noted what was installed: nothing says that it changed
    expect(proof(all, updated(plan())).state).toBe('proved')
  })
  it('asks for everything at once where more than one thing crosses it, and says what a pass was easier than', () => {
    const two = plan({ alsoNeed: [{ kind: 'data', rate: 1e9 }] })
    const easy = proof(all, two)
    expect(easy.hardest.length).toBeGreaterThan(1)
    expect(easy).toMatchObject({ state: 'laid', passed: 3 })
    expect(easy.tests.at(-1)?.result).toMatchObject({ easier: true })
    expect(proof([...all, soak(60, 5, { circumstances: { hard: true } })], two).state).toBe('proved')
  })
  it('a soak under less takes nothing from a harder one, and clears no drop of it', () => {
    const two = plan({ alsoNeed: [{ kind: 'data', rate: 1e9 }] })
    const hard = { circumstances: { hard: true } }
    expect(proof([...all, soak(60, 5, hard), soak(600, 6)], two).state).toBe('proved')
    expect(proof([...all, soak(60, 5, hard, null), soak(600, 6)], two)).toMatchObject({ state: 'failed', failed: 2 })
    expect(proof([...all, soak(60, 5, hard, null), soak(1200, 6, hard)], two).state).toBe('proved')
  })
  it('after an update a short soak is enough again, whatever a longer one said before', () => {
    const installed = (version: string) => ({
      where: {
        port: { device: 'near', port: 'p' },
        far: { device: 'far', port: 'p' },
        installed: [{ what: 'driver', version }],
      },
    })
    const now = (version: string): Plan => ({
      ...plan(),
      devices: plan().devices.map((device) =>
        device.id === 'near'
          ? { ...device, installed: [{ what: 'driver' as const, version, on: '2026-11-02' }] }
          : device,
      ),
    })
    const tested = (seconds: number, minute: number, version: string) => [
      copy('write', 1000, minute, installed(version)),
      copy('read', 1000, minute, installed(version)),
      soak(seconds, minute, installed(version)),
    ]
    expect(proof([laid, ...tested(864_000, 1, '1'), ...tested(60, 2, '2')], now('2')).state).toBe('proved')
    expect(proof([laid, ...tested(864_000, 1, '1'), ...tested(60, 2, '2')], now('3')).state).toBe('stale')
  })
  it('with another lead it is another run: nothing that was proved before counts', () => {
    const other = all.map((each) => ({ ...each, subject: { run: 'r1', leads: ['c9'] } }))
    expect(proof(other)).toMatchObject({ state: 'planned', passed: 0 })
  })
  it('what another part held back is no failure, and no pass', () => {
    const short = copy('write', 200, 5, { limit: 'disk' })
    expect(proof([...all, short])).toMatchObject({ state: 'laid', failed: 0, passed: 3 })
    expect(proof([...all, copy('write', 200, 5)])).toMatchObject({ failed: 1 })
  })
  it('is asked for in a free socket of each other controller, where the site wants that', () => {
    const of = plan({ policy: { proveIn: 'each controller' } })
    const more: Plan = {
      ...of,
      devices: of.devices.map((device) =>
        device.id === 'near'
          ? {
              ...device,
              ports: [
                ...device.ports,
                ...['board', 'card', 'card'].map((controller, place) => ({
                  ...(device.ports[0] as Plan['devices'][number]['ports'][number]),
                  id: `q${place}`,
                  controller,
                })),
              ],
            }
          : device,
      ),
    }
    const tests = proof(all, more).tests.map(({ test }) => test.key)
    expect(tests.slice(-2)).toEqual(['link in near/q1', 'soak in near/q1'])
    const there = { where: { port: { device: 'near', port: 'q1' }, far: { device: 'far', port: 'p' } } }
    expect(proof([...all, link('gen2x1', 5, there), soak(60, 6, there)], more).state).toBe('proved')
  })
})

describe('whatever the site', () => {
  it('every run is in one state, its tests are told apart, and what is kept is what is worked out anew', () => {
    let [stood, outdated] = [0, 0]
    fc.assert(
      fc.property(many, (changes) => {
        let site = assessAnew(demo)
        proofsOf(site)
        walk(changes, (_, after) => {
          site = reassess(site, after.plan)
          const kept = proofsOf(site)
          const anew = assessAnew(after.plan)
          const toProve = new Set(runsToProve(site).map(({ id }) => id))
          for (const run of after.plan.runs) {
            const proof = proofOf(anew, run)
            expect(kept.get(run.id)).toEqual(proof)
            const waits = ['failed', 'stale', 'laid', 'proved'].includes(proof.state)
            expect([run.id, toProve.has(run.id)]).toEqual([run.id, waits])
            expect(new Set(proof.tests.map(({ test }) => test.key)).size).toBe(proof.tests.length)
            expect(proof.asked).toBe(proof.tests.filter(({ test }) => !test.optional).length)
            if (proof.state === 'proved') expect(proof.passed).toBe(proof.asked)
            if (proof.state === 'accepted' && proof.accepted?.rests) {
              for (const { test, passed, waived, failed } of proof.tests)
                expect([test.key, passed || waived || (test.optional === true && !failed)]).toEqual([test.key, true])
              expect(proof.outdated).toEqual([])
              stood += 1
            }
            if (proof.outdated.length > 0) {
              expect(['stale', 'failed']).toContain(proof.state)
              outdated += 1
            }
            if (proof.stale > 0) expect(['stale', 'failed']).toContain(proof.state)
            expect(proof.passed + proof.failed).toBeLessThanOrEqual(proof.tests.length)
          }
        })
      }),
      { numRuns: cases(40) },
    )
    expect(Math.min(stood, outdated)).toBeGreaterThan(0)
  })
  it('ids renamed, every run has come as far', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const made = madeUpCopy(changes).plan
        const states = (of: Plan) => {
          const proofs = proofsOf(assessAnew(of))
          return of.runs.map(({ id }) => {
            const { state, passed, failed, stale } = proofs.get(id) ?? {}
            return [state, passed, failed, stale]
          })
        }
        expect(states(renamedPlan(made))).toEqual(states(made))
      }),
      { numRuns: cases(40) },
    )
  })
  it('what is tried of a run where it lies changes nothing of what is predicted for it there', () => {
    fc.assert(
      fc.property(many, fc.array(choice, { minLength: 1, maxLength: 20 }), (changes, choices) => {
        const made = madeUpCopy(changes).plan
        const runs = byId(made.runs)
        const more = choices.flatMap((each, place) => {
          const seenOf = { ...madeUpObservation(made, each, 5000 + place) }
          const run = 'run' in seenOf.subject ? runs.get(seenOf.subject.run) : undefined
          const tried = seenOf.kind === 'trial' || (seenOf.kind === 'reading' && seenOf.measure !== 'watts')
          return run && tried && !('celsius' in seenOf) && isSpotOf(run, run.from)(spotOf(seenOf)) ? [seenOf] : []
        })
        // heat and ohms speak of a lead wherever it lies
        const kept = more.filter(
          (each) => each.kind !== 'reading' || !['warmth', 'volts lost', 'watts'].includes(each.measure),
        )
        const predictions = (of: Plan) => {
          const site = assessAnew(of)
          return of.runs.flatMap((run) => {
            const crossings = site.walks.crossings.get(run.id) ?? []
            return runTests(site.index, run, crossings).map((test) =>
              predictRun(predictedSituation(site.index, run, crossings, test.socket), test),
            )
          })
        }
        const ids = new Set(kept.flatMap(({ subject }) => ('run' in subject ? subject.run : [])))
        const alone: Plan = {
          ...made,
          runs: made.runs.filter(({ id }) => ids.size === 0 || ids.has(id)),
          needs: [],
          upgrades: [],
          soaks: [],
        }
        expect(predictions({ ...alone, observations: [...alone.observations, ...kept] })).toEqual(predictions(alone))
      }),
      { numRuns: cases(40) },
    )
  })
})
