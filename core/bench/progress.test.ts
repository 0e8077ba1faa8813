import { describe, expect, it } from 'vitest'
import { planFrom } from '../../tests/support/shorthand'
import { indexPlan } from '../plan/site-index'
import { readingsOf } from './matrix'
import { nextSetupOf, sessionProgress } from './progress'
import { goesInTurned } from './setup'

const port = (id: string, role: string, connector = 'type-c') => ({ id, name: id, connector, role, usb: 'gen2x1' })
const at = (device: string, id: string) => ({ device, port: id })
const ends = (connector: string) => [{ connector }, { connector }]
const felt = (test: string) => ({
  basis: 'measured',
  on: '2026-02-01',
  measure: 'warmth',
  felt: 'cool',
  session: 's',
  test,
})

function siteOf(cables: object[]) {
  const plan = planFrom({
    devices: [
      { id: 'pc', name: 'Computer', kind: 'computer', ports: [port('1', 'host'), port('2', 'host')] },
      { id: 'disk', name: 'Disk', kind: 'storage', ports: [port('1', 'device')] },
      { id: 'hub', name: 'Hub', kind: 'hub', ports: [port('up', 'device')] },
    ],
    cables: cables.map((cable, number) => ({
      id: `c${number}`,
      tag: `C-${number}`,
      ends: ends('type-c'),
      length: 1,
      ...cable,
    })),
    sessions: [
      {
        id: 's',
        name: 'Sort',
        on: '2026-02-01',
        cables: cables.map((_, number) => `c${number}`),
        tests: [
          { id: 't1', kind: 'link', soak: 60, from: at('pc', '1'), to: at('disk', '1') },
          { id: 't2', kind: 'warmth', from: at('pc', '1'), to: at('disk', '1') },
          { id: 't3', kind: 'warmth', from: at('pc', '2'), to: at('hub', 'up') },
        ],
      },
    ],
  })
  const [session] = plan.sessions
  if (!session) throw new Error('no session')
  return { index: indexPlan(plan), session, readings: readingsOf(session, plan) }
}

describe('how far a session has come', () => {
  it('counts what was read of what fits, and leaves the rest in order', () => {
    const { index, session, readings } = siteOf([{ evidence: [felt('t1'), felt('t2')] }, {}, { ends: ends('hdmi') }])
    const { order, read, total } = sessionProgress(index, session, readings, [])
    expect([read, total]).toEqual([2, 6])
    expect(nextSetupOf(order, 'c0')?.tests.map(({ id }) => id)).toEqual(['t3'])
    expect(nextSetupOf(order, 'c2')).toBeNull()
  })
  it('asks nothing more of a cable that was retired on the way', () => {
    const { index, session, readings } = siteOf([{ standing: 'retired', evidence: [felt('t2')] }, {}])
    const { order, read, total } = sessionProgress(index, session, readings, [])
    expect([read, total]).toEqual([1, 4])
    expect(order.steps.every(({ cable }) => cable === 'c1')).toBe(true)
  })
  it('asks nothing more of one that has failed, and no copies of one that has no link', () => {
    const hot = { ...felt('t2'), felt: 'hot' }
    const dead = { basis: 'measured', on: '2026-02-01', tried: 'gen2x1', cameUp: null, session: 's', test: 't1' }
    const { index, session, readings } = siteOf([{ evidence: [hot] }, { evidence: [dead] }])
    session.tests.push({ id: 't4', kind: 'write', from: at('pc', '1'), to: at('disk', '1') })
    const { order, total } = sessionProgress(index, session, readings, [])
    expect(nextSetupOf(order, 'c0')).toBeNull()
    expect(nextSetupOf(order, 'c1')?.tests.map(({ id }) => id)).not.toContain('t4')
    expect(total).toBe(1 + 3)
  })
  it('takes a soak that runs as it stands: the other cable comes first, then the soak is read', () => {
    const { index, session, readings } = siteOf([{}, {}])
    const { order } = sessionProgress(index, session, readings, [{ cable: 'c0', test: 't1', seconds: 10 }])
    const first = order.steps[0]
    expect(first).toMatchObject({ kind: 'attend', cable: 'c1', setup: { to: { device: 'hub' } } })
    const reading = order.steps.find((step) => step.kind === 'read' && step.cable === 'c0')
    expect(reading?.at).toBe(50)
  })
  it('tries what may get hot last, and first of all where least is laid; then everywhere else', () => {
    const thin = { ends: ends('type-c'), awg: 28, evidence: [{ basis: 'claimed', on: '2026-01-01', amps: 5 }] }
    const fresh = siteOf([thin, {}, {}])
    const used = { ...fresh.index, runsAt: new Map([['disk', [{}, {}]]]) as never }
    const { order, total } = sessionProgress(used, fresh.session, fresh.readings, [])
    expect(order.steps.filter(({ kind }) => kind === 'attend').at(-1)).toMatchObject({
      cable: 'c0',
      setup: { to: { device: 'hub' } },
    })
    expect(order.steps.filter(({ cable }) => cable === 'c0')).toHaveLength(1)
    expect(total).toBe(9)
    const cool = siteOf([{ ...thin, evidence: [...thin.evidence, felt('t3')] }, {}, {}])
    const next = sessionProgress(cool.index, cool.session, cool.readings, []).order
    expect(nextSetupOf(next, 'c0')?.to.device).toBe('disk')
  })
  it('says which end of a lead goes to the host', () => {
    const { index } = siteOf([{}])
    const [one] = index.plan.cables
    if (!one) throw new Error('no cable')
    const setup = { from: at('pc', '1'), to: at('disk', '1') }
    expect(goesInTurned(index, one, setup)).toBe(false)
    const other = { ...one, ends: [{ connector: 'type-a', gender: 'plug' }, one.ends[0]] as typeof one.ends }
    const pc = index.plan.devices.find(({ id }) => id === 'pc')
    if (!pc?.ports[0]) throw new Error('no port')
    const disk = { id: 'old', name: 'Old', kind: 'storage', ports: [{ ...pc.ports[0], connector: 'type-a' }] } as never
    const mixed = { ...index, devices: new Map([...index.devices, ['old', disk]]) }
    expect(goesInTurned(mixed, other, { from: setup.from, to: at('old', '1') })).toBe(true)
    expect(goesInTurned(mixed, other, { from: at('old', '1'), to: setup.from })).toBe(false)
  })
  it('is over when everything is read', () => {
    const { index, session, readings } = siteOf([{ evidence: [felt('t1'), felt('t2'), felt('t3')] }])
    expect(sessionProgress(index, session, readings, [])).toMatchObject({ order: { steps: [] }, read: 3, total: 3 })
  })
})
