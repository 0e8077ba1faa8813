import { describe, expect, it } from 'vitest'
import type { ChangeToMake, Copy } from '../../../core/change/change'
import { copyOf } from '../../../core/change/copy'
import { assessAnew } from '../../../core/checks/assess'
import type { Plan } from '../../../core/plan/plan'
import { put } from '../../../core/plan/put'
import { proofOf, type RunProof } from '../../../core/prove/proof'
import { lessWords, staleWords } from '../../../core/prove/proof-words'
import type { PictureMode } from '../../../core/vocabulary/need'
import type { Hand } from '../../../server/sites/change-site'
import { took } from '../../../tests/support/made-up-walk'
import { onePlan } from '../../../tests/support/one-run'
import { draftProof } from './prove-action.server'

let sent = 0
const hand = (): Hand => {
  sent += 1
  return { by: 'Ada', id: `change-${sent}-made`, digest: '', over: null } as Hand
}
const sendTo = (copy: Copy, fields: Record<string, string>): ReturnType<typeof draftProof> => {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) form.append(name, value)
  return draftProof(copy, 'r1', form, hand())
}
function send(copy: Copy, fields: Record<string, string>): Copy {
  const made = sendTo(copy, fields)
  if (made === null || 'outcome' in made) throw new Error(JSON.stringify(made))
  return took(copy, made as ChangeToMake)
}
const siteOf = ({ plan }: Copy) => {
  const site = assessAnew(plan)
  const run = site.index.runs.get('r1')
  if (!run) throw new Error('no run')
  return { site, run }
}
function proofIn(copy: Copy): RunProof {
  const { site, run } = siteOf(copy)
  return proofOf(site, run)
}
function wordsOf(copy: Copy): string[] {
  const { site, run } = siteOf(copy)
  return staleWords(site.index, run, proofOf(site, run))
}
const changed = (copy: Copy, change: (plan: Plan) => Plan): Copy => ({ ...copy, plan: change(copy.plan) })

const mode: PictureMode = { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' }
const dp = (direction: 'in' | 'out') => ({ direction, link: 'uhbr20' as const, lanes: 4 as const })
/** A display on a lead of its own, with a second socket at either end. */
const laid: Copy = copyOf(
  (() => {
    const plan = onePlan({
      from: { connector: 'displayport', displayport: dp('out') },
      to: { kind: 'display', connector: 'displayport', displayport: dp('in') },
      leads: [{ grade: 'dp80', length: 1, ends: ['displayport', 'displayport'] }],
      need: { kind: 'picture', mode },
    })
    return {
      ...plan,
      devices: plan.devices.map((device) => ({
        ...device,
        ports: [...device.ports, ...device.ports.map((port) => ({ ...port, id: 'q', name: 'second' }))],
      })),
    }
  })(),
)
/** Every test of it passed, through the forms of its page; a soak by what an instrument would have written. */
function proved(copy: Copy = laid): Copy {
  let now = copy
  for (const { test } of proofIn(copy).tests)
    if (test.kind !== 'soak')
      now = send(now, { intent: 'result', test: test.key, value: test.kind === 'sight' ? 'right' : 'held' })
  now = send(now, { intent: 'soak', test: 'soak', for: '60 s', hard: 'on' })
  // the clock of a test stands still: the soak began an hour ago
  const [soak] = now.plan.soaks
  if (!soak) throw new Error('it soaks')
  const since = new Date(Date.now() - 3_600_000).toISOString()
  now = { ...now, plan: put(now.plan, 'soaks', { ...soak, since }) }
  return send(now, { intent: 'end' })
}
const accepted = (): Copy => send(proved(), { intent: 'accept', conditions: 'one picture' })
const needAt = (copy: Copy, more: Partial<PictureMode>): Copy =>
  changed(copy, (plan) => ({
    ...plan,
    needs: plan.needs.map((need) => (need.kind === 'picture' ? { ...need, mode: { ...need.mode, ...more } } : need)),
  }))
const moved = (copy: Copy, end: 'from' | 'to', port: string): Copy =>
  changed(copy, (plan) => ({
    ...plan,
    runs: plan.runs.map((run) => ({ ...run, [end]: { ...run[end], port } })),
  }))

describe('the forms of Prove', () => {
  it('write down what a result, a soak and an acceptance rest on', () => {
    const { plan } = accepted()
    const own = plan.observations.filter(({ subject }) => 'run' in subject)
    expect(own.length).toBeGreaterThanOrEqual(4)
    for (const seen of own)
      expect([seen.kind, 'rests' in seen && seen.rests?.['host port']]).toEqual([seen.kind, 'near/p'])
    expect(own.at(-1)).toMatchObject({ kind: 'accepted', waived: [] })
    expect(proofIn(accepted()).state).toBe('accepted')
  })
  it('a run that is moved, or of which more is asked, is stale at once, and says why', () => {
    const done = accepted()
    expect(proofIn(moved(done, 'from', 'q')).state).toBe('stale')
    expect(wordsOf(moved(done, 'from', 'q'))).toEqual(['its host port is Near, second, was Near, port'])
    expect(proofIn(moved(done, 'to', 'q')).state).toBe('stale')
    expect(proofIn(needAt(done, { refresh: 120 })).state).toBe('stale')
    expect(wordsOf(needAt(done, { refresh: 120 }))).toEqual([expect.stringMatching(/refresh is 120 Hz, was 60 Hz$/)])
    // moved back it is as it was
    expect(proofIn(moved(moved(done, 'from', 'q'), 'from', 'p')).state).toBe('accepted')
  })
  it('a run that was proved and nobody accepted goes stale as well', () => {
    const done = proved()
    expect(proofIn(done).state).toBe('proved')
    expect(proofIn(moved(done, 'from', 'q'))).toMatchObject({ state: 'stale', passed: 0 })
  })
  it('of a run of which less is asked everything stands, also the picture that was tried', () => {
    for (const done of [proved(), accepted()]) {
      const { state } = proofIn(done)
      expect(proofIn(needAt(done, { refresh: 30 })).state).toBe(state)
      expect(proofIn(needAt(done, { width: 1920, height: 1080 })).state).toBe(state)
    }
  })
  it('a driver that is noted for the first time changes nothing, another version at either end does', () => {
    const noted = (copy: Copy, id: string, version: string): Copy =>
      changed(copy, (plan) => ({
        ...plan,
        devices: plan.devices.map((device) =>
          device.id === id
            ? { ...device, installed: [{ what: 'driver' as const, version, on: '2026-11-01' }] }
            : device,
        ),
      }))
    expect(proofIn(noted(accepted(), 'near', '1')).state).toBe('accepted')
    for (const id of ['near', 'far']) {
      const done = send(proved(noted(laid, id, '1')), { intent: 'accept' })
      expect(proofIn(noted(done, id, '1')).state).toBe('accepted')
      expect(proofIn(noted(done, id, '2'))).toMatchObject({ state: 'stale', stale: 3 })
    }
  })
  it('a test that fails after the acceptance is told, and mended and tested again it is accepted again', () => {
    const done = accepted()
    const key = `picture 3840x2160@60`
    const failed = send(done, { intent: 'result', test: key, value: 'not' })
    expect(proofIn(failed)).toMatchObject({ state: 'failed', failed: expect.any(Number) })
    // taken back, the acceptance stands again
    const [last] = failed.plan.observations.slice(-1)
    const back = changed(failed, (plan) => ({
      ...plan,
      observations: plan.observations.filter((each) => each !== last),
    }))
    expect(proofIn(back).state).toBe('accepted')
  })
  it('what is accepted without some tests names them, and asks why', () => {
    expect(sendTo(laid, { intent: 'accept' })).toMatchObject({ outcome: 'refused' })
    const copy = send(laid, { intent: 'accept', less: 'only 1440p for now' })
    const proof = proofIn(copy)
    expect(proof.accepted?.waived).toEqual(proof.tests.filter(({ test }) => !test.optional).map(({ test }) => test.key))
    expect(proof.state).toBe('accepted')
    const { site, run } = siteOf(copy)
    expect(lessWords(site.index, run, proof)).toMatch(/^with less: only 1440p for now \(without Picture 3840x2160@60/)
    // it stays with it, whatever passes later
    expect(proofIn(proved(copy)).accepted?.less).toBe('only 1440p for now')
    expect(proofIn(proved(copy)).state).toBe('accepted')
    // and what was not waived is asked
    expect(proofIn(needAt(copy, { refresh: 120 })).state).not.toBe('accepted')
  })
  it('a soak rests on what there was when it began', () => {
    const begun = send(laid, { intent: 'soak', test: 'soak', for: '60 s', hard: 'on' })
    const ended = send(needAt(begun, { refresh: 120 }), { intent: 'end' })
    const seen = ended.plan.observations.at(-1)
    expect(seen).toMatchObject({ rests: expect.objectContaining({ 'host port': 'near/p' }) })
    expect(JSON.stringify(seen)).toContain('refresh: 60')
  })
})
