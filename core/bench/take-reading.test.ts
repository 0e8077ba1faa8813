import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planFrom } from '../../tests/support/shorthand'
import { sharedModes } from '../link/shared-modes'
import { observationSchema } from '../observe/observation'
import { indexPlan } from '../plan/site-index'
import { type SeenOfLink, takeReading, trialSeen } from './take-reading'

const at = (device: string) => ({ device, port: '1' })
const usb = { id: '1', name: '1', connector: 'type-c', usb: 'gen2x1' }
const plan = planFrom({
  devices: [
    { id: 'pc', name: 'Bench computer', kind: 'computer', ports: [{ ...usb, role: 'host', controller: 'board' }] },
    { id: 'disk', name: 'Bench disk', kind: 'storage', ports: [{ ...usb, role: 'device' }] },
  ],
  cables: [
    {
      id: 'c',
      tag: 'C-1',
      ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
      length: 1,
      evidence: [{ basis: 'claimed', on: '2026-01-01', grade: 'gen1' }],
    },
  ],
  sessions: [
    {
      id: 's',
      name: 'Sort',
      on: '2026-02-01',
      cables: ['c'],
      tests: [
        { id: 'link', kind: 'link', soak: 60 },
        { id: 'write', kind: 'write' },
        { id: 'watts', kind: 'watts' },
        { id: 'picture', kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60 } },
        { id: 'volts', kind: 'volts lost', amps: 3 },
        { id: 'warmth', kind: 'warmth' },
      ].map((test) => ({ ...test, from: at('pc'), to: at('disk') })),
    },
  ],
})
const index = indexPlan(plan)
const [session] = plan.sessions
const [cable] = plan.cables
if (!session || !cable) throw new Error('no session')

function take(id: string, text: string, seconds = 0) {
  const test = session?.tests.find((each) => each.id === id)
  if (!session || !cable || !test) throw new Error('no test')
  return takeReading(index, session, cable, { test, text, seconds })
}

describe('a reading as it is tapped or typed', () => {
  const shared = { session: 's', where: { port: at('pc'), controller: 'board' } }
  it.each<[string, string, number, object]>([
    ['link', 'gen1x1', 61, { basis: 'soaked', tried: 'gen2x1', cameUp: 'gen1x1', seconds: 61 }],
    ['link', 'gen2x1', 12, { basis: 'measured', tried: 'gen2x1', cameUp: 'gen2x1', seconds: 12 }],
    ['link', 'nothing', 0, { basis: 'measured', tried: 'gen2x1', cameUp: null }],
    // it had come up as what its mark promises, and that is what it did not hold
    ['link', 'dropped', 52.7, { basis: 'soaked', tried: 'gen1x1', cameUp: null, seconds: 52 }],
    ['write', '412', 0, { measure: 'write', rate: 412 * 8e6, with: 'Bench disk' }],
    ['write', '0,9 GB/s', 0, { measure: 'write', rate: 7.2e9 }],
    ['watts', '58.5 W', 0, { measure: 'watts', watts: 58.5, with: 'Bench computer' }],
    ['watts', '0', 0, { measure: 'watts', watts: 0 }],
    ['volts', '0,31 V', 0, { measure: 'volts lost', volts: 0.31, amps: 3 }],
    ['picture', 'held', 0, { measure: 'picture', held: true }],
    ['picture', 'not', 0, { measure: 'picture', held: false }],
    ['warmth', 'hot', 0, { measure: 'warmth', felt: 'hot' }],
    ['warmth', '63 °C', 0, { measure: 'warmth', felt: 'hot', celsius: 63 }],
    ['warmth', '31', 0, { measure: 'warmth', felt: 'cool', celsius: 31 }],
  ])('%s: %s after %i s', (id, text, seconds, evidence) => {
    expect(take(id, text, seconds)).toMatchObject({ ok: true, value: { ...shared, test: id, ...evidence } })
  })
  it.each([
    ['link', 'fast', /which mode came up/],
    ['write', 'lots', /such as 412/],
    ['watts', '400', /0 to 240/],
    ['volts', '-1', /such as 0.31/],
    ['picture', 'maybe', /held or not/],
    ['warmth', '900', /cool, warm or hot/],
  ])('%s: "%s" is refused with what can be written', (id, text, problem) => {
    const answer = take(id, text)
    expect(answer.ok ? '' : answer.problem).toMatch(problem)
  })
  it('whatever is typed becomes evidence that a plan keeps, or a sentence', () => {
    const ids = session.tests.map(({ id }) => id)
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.string({ maxLength: 30 }), fc.double(), (id, text, seconds) => {
        const answer = take(id, text, seconds)
        const written = {
          ...(answer.ok ? answer.value : {}),
          id: 'o',
          at: '2026-02-02T09:00:00Z',
          subject: { cable: 'c' },
        }
        if (answer.ok) expect(observationSchema.safeParse(written).success).toBe(true)
        else expect(answer.problem).toMatch(/\.$/)
      }),
    )
  })
  it('what was seen outside a session is soaked where it was watched long enough, and a drop always was', () => {
    const seen = (what: SeenOfLink, seconds: number) => trialSeen({ tried: 'gen2x1', seen: what, seconds, soak: 60 })
    expect(seen('gen1x1', 59)).toEqual({
      kind: 'trial',
      basis: 'measured',
      tried: 'gen2x1',
      cameUp: 'gen1x1',
      seconds: 59,
    })
    expect(seen('gen1x1', 60).basis).toBe('soaked')
    expect(seen('dropped', 52)).toMatchObject({ basis: 'soaked', tried: 'gen2x1', cameUp: null, seconds: 52 })
    expect(seen('nothing', 0)).toEqual({ kind: 'trial', basis: 'measured', tried: 'gen2x1', cameUp: null })
  })
  it('the modes two ports share come best first', () => {
    expect(sharedModes(index, { from: at('pc'), to: at('disk') })).toEqual(['gen2x1', 'gen1x1', 'usb2'])
  })
})
