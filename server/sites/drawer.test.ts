import { beforeEach, describe, expect, inject, it } from 'vitest'
import { type Cable, cableSchema, type Evidence, MOST_EVIDENCE } from '../../core/plan/cable'
import { type Session, sessionSchema } from '../../core/plan/session'
import { demo } from '../../tests/support/demo-plan'
import { freshSites } from '../../tests/support/demo-site'
import { connect } from '../database/connection'
import { addCables, addEvidence, changeCables, restoreCables, revisionOfCable, saveCable } from './cables'
import { putKinds, removeKind } from './catalogue'
import { readPlan } from './plan-rows'
import { addReadings, createSession, removeSession, runningSoaks, startSoak, stopSoak } from './sessions'

const { now, stored } = freshSites()

const plan = async () => (await stored()).plan
const cableOf = async (id: string) => (await plan()).cables.find((cable) => cable.id === id)
const lead = (tag: string, more: object = {}): Cable =>
  cableSchema.parse({
    id: tag.toLowerCase(),
    tag,
    ends: [{ connector: 'type-c' }, { connector: 'type-c' }],
    length: 1,
    ...more,
  })
const warm = (on: string): Evidence => ({ basis: 'measured', on, measure: 'warmth', felt: 'warm' })

describe('cables of a site', () => {
  it('are added all together, at the end of the drawer', async () => {
    const many = Array.from({ length: 5000 }, (_, at) => lead(`N-${at}`, { evidence: [warm('2026-01-01')] }))
    expect((await addCables(now.knex, now.site, many)).outcome).toBe('saved')
    const { cables } = await plan()
    expect(cables.slice(0, demo.cables.length)).toEqual(demo.cables)
    expect(cables.slice(demo.cables.length)).toEqual(many)
  })
  it('are added all or none: a tag that is taken refuses the lot', async () => {
    const taken = demo.cables[0]?.tag ?? ''
    const answer = await addCables(now.knex, now.site, [lead('N-1'), lead(taken, { id: 'other' })])
    expect(answer).toMatchObject({ outcome: 'refused' })
    expect((await plan()).cables).toEqual(demo.cables)
  })
  it('are saved from the state the form was made from, or not at all; evidence that came in meanwhile stays', async () => {
    await addCables(now.knex, now.site, [lead('N-1')])
    const base = (await revisionOfCable(now.knex, now.site, 'n-1')) ?? 0
    await addEvidence(now.knex, now.site, 'n-1', [warm('2026-01-02')])
    const { evidence: _, ...fields } = lead('N-1', { length: 2 })
    expect((await saveCable(now.knex, now.site, base, fields, [warm('2026-01-03')])).outcome).toBe('saved')
    expect(await cableOf('n-1')).toMatchObject({ length: 2, evidence: [warm('2026-01-02'), warm('2026-01-03')] })
    expect((await saveCable(now.knex, now.site, base, { ...fields, length: 3 }, [])).outcome).toBe('conflict')
    expect(await cableOf('n-1')).toMatchObject({ length: 2 })
    expect(await revisionOfCable(now.knex, now.site, 'nothing')).toBeNull()
  })
  it('keep so much evidence and no more', async () => {
    await addCables(now.knex, now.site, [lead('N-1', { evidence: Array(MOST_EVIDENCE).fill(warm('2026-01-01')) })])
    expect(await addEvidence(now.knex, now.site, 'n-1', [warm('2026-01-02')])).toMatchObject({ outcome: 'refused' })
    expect(await addEvidence(now.knex, now.site, 'gone', [warm('2026-01-02')])).toMatchObject({ outcome: 'refused' })
    expect((await cableOf('n-1'))?.evidence).toHaveLength(MOST_EVIDENCE)
  })
})

describe('many cables at once', () => {
  it('are retired, and put back as they were', async () => {
    await addCables(now.knex, now.site, [lead('N-1'), lead('N-2', { standing: 'lent' })])
    const changed = await changeCables(now.knex, now.site, ['n-1', 'n-2'], { change: 'stand', standing: 'retired' })
    if (changed.outcome !== 'changed') throw new Error(changed.outcome)
    expect((await cableOf('n-2'))?.standing).toBe('retired')
    expect(await restoreCables(now.knex, now.site, changed.token)).toEqual({ outcome: 'restored', count: 2 })
    expect([(await cableOf('n-1'))?.standing, (await cableOf('n-2'))?.standing]).toEqual(['drawer', 'lent'])
    expect(await restoreCables(now.knex, now.site, changed.token)).toEqual({ outcome: 'gone' })
  })
  it('get new tags in the order they were chosen, even where they change places', async () => {
    await addCables(now.knex, now.site, [lead('N-1'), lead('N-2'), lead('N-3')])
    const changed = await changeCables(now.knex, now.site, ['n-3', 'n-1', 'n-2'], {
      change: 'tag',
      prefix: 'N-',
      first: 1,
      digits: 1,
    })
    if (changed.outcome !== 'changed') throw new Error(changed.outcome)
    const tags = async () => Promise.all(['n-1', 'n-2', 'n-3'].map(async (id) => (await cableOf(id))?.tag))
    expect(await tags()).toEqual(['N-2', 'N-3', 'N-1'])
    await restoreCables(now.knex, now.site, changed.token)
    expect(await tags()).toEqual(['N-1', 'N-2', 'N-3'])
  })
  it('keep their tags where a new one is taken', async () => {
    const taken = demo.cables[0]?.tag ?? ''
    const [, prefix = '', number = ''] = /^(.*?)(\d+)$/.exec(taken) ?? []
    await addCables(now.knex, now.site, [lead('N-1')])
    const change = { change: 'tag', prefix, first: Number(number), digits: number.length } as const
    expect(await changeCables(now.knex, now.site, ['n-1'], change)).toMatchObject({ outcome: 'refused' })
    expect((await cableOf('n-1'))?.tag).toBe('N-1')
  })
  it('are deleted and come back where they stood, with their evidence', async () => {
    await addCables(now.knex, now.site, [lead('N-1', { evidence: [warm('2026-01-01')] }), lead('N-2')])
    const before = (await plan()).cables
    const changed = await changeCables(now.knex, now.site, ['n-1'], { change: 'delete' })
    if (changed.outcome !== 'changed') throw new Error(changed.outcome)
    expect(await cableOf('n-1')).toBeUndefined()
    await restoreCables(now.knex, now.site, changed.token)
    expect((await plan()).cables).toEqual(before)
  })
  it('are not deleted while one lies in a run', async () => {
    const used = demo.runs.flatMap((run) => run.leads)[0]?.cable ?? ''
    expect(await changeCables(now.knex, now.site, [used], { change: 'delete' })).toMatchObject({ outcome: 'refused' })
    expect((await plan()).cables).toEqual(demo.cables)
  })
})

describe('a sort-out session', () => {
  const run = demo.runs[0]
  if (!run) throw new Error('the demo has no run')
  const session: Session = sessionSchema.parse({
    id: 'sort',
    name: 'Sort',
    on: '2026-02-01',
    cables: ['n-1', 'n-2'],
    tests: [
      { id: 't1', kind: 'link', from: run.from, to: run.to },
      { id: 't2', kind: 'warmth', from: run.from, to: run.to },
    ],
  })
  const felt = (test: string, note: string) => ({ ...warm('2026-02-01'), session: 'sort', test, note }) as Evidence
  beforeEach(async () => {
    await addCables(now.knex, now.site, [lead('N-1'), lead('N-2')])
    expect((await createSession(now.knex, now.site, session)).outcome).toBe('saved')
  })

  it('is part of the plan, and its readings are evidence on the cables', async () => {
    await addReadings(now.knex, now.site, 'sort', 'n-1', [felt('t2', 'first')])
    const after = await plan()
    expect(after.sessions).toEqual([...demo.sessions, session])
    expect(after.cables.find((cable) => cable.id === 'n-1')?.evidence).toEqual([felt('t2', 'first')])
  })
  it('loses nothing where two technicians enter readings at once', async () => {
    const readings = Array.from({ length: 40 }, (_, at) => felt('t2', `reading ${at}`))
    const answers = await Promise.all(
      readings.map((reading, at) => addReadings(now.knex, now.site, 'sort', at % 2 ? 'n-1' : 'n-2', [reading])),
    )
    expect(answers.every((answer) => answer.outcome === 'saved')).toBe(true)
    const kept = (await plan()).cables.flatMap((cable) => cable.evidence.map((piece) => piece.note ?? ''))
    expect(kept.filter((note) => note.startsWith('reading ')).sort()).toEqual(readings.map(({ note }) => note).sort())
  })
  it('times soaks until they are read or called off', async () => {
    await startSoak(now.knex, now.site, 'sort', 'n-1', 't1')
    await startSoak(now.knex, now.site, 'sort', 'n-2', 't1')
    expect((await runningSoaks(now.knex, now.site, 'sort')).map(({ cable, test }) => [cable, test])).toEqual([
      ['n-1', 't1'],
      ['n-2', 't1'],
    ])
    const held: Evidence = {
      basis: 'soaked',
      on: '2026-02-01',
      tried: 'gen2x1',
      cameUp: 'gen2x1',
      session: 'sort',
      test: 't1',
    }
    await addReadings(now.knex, now.site, 'sort', 'n-1', [held])
    await stopSoak(now.knex, now.site, 'sort', 'n-2')
    expect(await runningSoaks(now.knex, now.site, 'sort')).toEqual([])
  })
  it('takes no reading for a cable that is not in it, nor after it is gone', async () => {
    const stranger = demo.cables[0]?.id ?? ''
    expect(await addReadings(now.knex, now.site, 'sort', stranger, [felt('t2', '')])).toMatchObject({
      outcome: 'refused',
    })
    await addReadings(now.knex, now.site, 'sort', 'n-1', [felt('t2', 'kept')])
    await removeSession(now.knex, now.site, 'sort')
    expect(await addReadings(now.knex, now.site, 'sort', 'n-1', [felt('t2', '')])).toMatchObject({ outcome: 'refused' })
    expect((await cableOf('n-1'))?.evidence).toEqual([felt('t2', 'kept')])
  })
})

describe('the catalogue', () => {
  const kind = { ...demo.kinds[0], id: 'new-kind', name: 'Corridor lead', stock: [{ length: 1, price: 12 }] } as never

  it('takes kinds in, and one of a known name replaces that one', async () => {
    expect(await putKinds(now.knex, now.site, [kind])).toEqual({ outcome: 'saved', added: 1, replaced: 0 })
    const dearer = {
      ...(kind as object),
      id: 'again',
      name: 'CORRIDOR LEAD',
      stock: [{ length: 1, price: 15 }],
    } as never
    expect(await putKinds(now.knex, now.site, [dearer])).toEqual({ outcome: 'saved', added: 0, replaced: 1 })
    const known = (await plan()).kinds.filter(({ name }) => name.toLowerCase() === 'corridor lead')
    expect(known).toMatchObject([{ id: 'new-kind', stock: [{ length: 1, price: 15 }] }])
  })
  it('lets go of a kind that no cable is of', async () => {
    await putKinds(now.knex, now.site, [kind])
    await addCables(now.knex, now.site, [lead('N-1', { kind: 'new-kind' })])
    expect(await removeKind(now.knex, now.site, 'new-kind')).toMatchObject({ outcome: 'refused' })
    await changeCables(now.knex, now.site, ['n-1'], { change: 'delete' })
    expect(await removeKind(now.knex, now.site, 'new-kind')).toEqual({ outcome: 'removed' })
  })
})

describe('a plan that was read before', () => {
  it('is given again while nothing has changed it, and read anew by every process once something has', async () => {
    const other = connect(inject('databaseUrl'))
    const [mine, theirs] = [await readPlan(now.knex, now.site), await readPlan(other, now.site)]
    expect(await readPlan(now.knex, now.site)).toBe(mine)
    await addCables(other, now.site, [lead('N-1')])
    expect((await readPlan(now.knex, now.site))?.plan.cables).toHaveLength(demo.cables.length + 1)
    expect((await readPlan(other, now.site))?.plan).not.toBe(theirs?.plan)
    expect(await readPlan(now.knex, 'nowhere')).toBeNull()
    await other.destroy()
  })
})
