import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { assess, assessAnew } from '../checks/assess'
import { proofsOf } from '../prove/proof'
import { withLength } from '../vocabulary/run'
import { PLAN_VERSION, type Plan } from './plan'
import { readPlan } from './read'
import { isVersionRead, upgradeEntity, WrittenByNewer } from './upgrade'

type Piece = Record<string, unknown> & { on: string }
type Old = {
  version: number
  cables: { id: string; evidence?: Piece[] }[]
  runs: { id: string; proofs?: Piece[] }[]
} & Record<string, unknown>

const text = readFileSync('tests/fixtures/saltmarsh-version-1.json', 'utf8')
const old = (): Old => JSON.parse(text)

function read(file: unknown): Plan {
  const result = readPlan(file)
  if (!result.ok) throw new Error(result.faults.map(({ path, reason }) => `${path}: ${reason}`).join('; '))
  return result.plan
}

describe('a plan file of version 1', () => {
  it('reads, with all that was said of each cable and proved of each run', () => {
    const file = old()
    const pieces = [
      ...file.cables.flatMap(({ id, evidence = [] }) => evidence.map((piece) => ({ cable: id, piece }))),
      ...file.runs.flatMap(({ id, proofs = [] }) => proofs.map((piece) => ({ run: id, piece }))),
    ]
    const { version, observations } = read(file)
    expect(version).toBe(PLAN_VERSION)
    expect(pieces.length).toBeGreaterThan(20)
    expect(observations).toHaveLength(pieces.length)
    for (const [at, { piece, ...owner }] of pieces.entries()) {
      expect(observations[at]?.subject).toMatchObject(owner)
      expect(observations[at]?.at.slice(0, 10)).toBe(piece.on)
    }
  })

  it('comes to the same verdicts as the demo of today, which is the same site to practise on', () => {
    const plan = read(old())
    // the site of today is drawn to scale as well, more is known of its devices, and one lead was seen to come and go since
    const unscaled: Plan = {
      ...demo,
      observations: demo.observations.filter(({ id }) => !id.startsWith('r-19.t')),
      pathways: [],
      devices: demo.devices.map(({ controllers: _, ...device }) => ({
        ...device,
        ports: device.ports.map(({ captive: __, ...port }) => port),
      })),
      places: demo.places.map(({ area: _, ...place }) => place),
      runs: demo.runs.map((run) => ({ ...run, route: withLength(run.route, run.route.length) })),
      cables: demo.cables.map(({ thickness: _, ...cable }) => cable),
    }
    expect(assess({ ...plan, site: { ...plan.site, practice: true } })).toEqual(assess(unscaled))
  })

  it('comes to the same when it is written anew and read again', () => {
    const plan = read(old())
    expect(read(JSON.parse(JSON.stringify(plan)))).toEqual(plan)
  })

  it('keeps what stood later later, whatever was said on one day', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('gen1', 'gen2', 'usb4-20'), { minLength: 1, maxLength: 30 }), (grades) => {
        const file = old()
        const [cable] = file.cables
        if (!cable) throw new Error('the site has cables')
        cable.evidence = grades.map((grade) => ({ basis: 'claimed', on: '2026-05-04', grade }))
        const own = read(file).observations.filter(({ subject }) => 'cable' in subject && subject.cable === cable.id)
        expect(own.map((each) => ('grade' in each ? each.grade : null))).toEqual(grades)
        const instants = own.map(({ at }) => Date.parse(at))
        expect(instants).toEqual(instants.toSorted((one, other) => one - other))
        expect(new Set(instants).size).toBe(grades.length)
      }),
      { numRuns: cases(20) },
    )
  })

  it('is said to be faulty where it is, never half read', () => {
    for (const wrong of ['2026-02-31', 'yesterday', 7, null]) {
      const file = old()
      const cable = file.cables.find(({ evidence }) => evidence?.length)
      Object.assign(cable?.evidence?.[0] ?? {}, { on: wrong })
      const result = readPlan(file)
      expect(!result.ok && result.faults[0]?.path).toMatch(/^observations\[\d+\]\.at$/)
    }
    expect(readPlan({ ...old(), cables: 'none' }).ok).toBe(false)
    expect(readPlan({ ...old(), runs: [null, 3] }).ok).toBe(false)
  })
})

describe('a plan file of version 2', () => {
  const second = () => ({ ...read(old()), version: 2 })
  it('reads as it was; a computer and what was installed on it were words, and are told in the note', () => {
    const file = second()
    const [first, ...rest] = file.observations as [Record<string, unknown>, ...unknown[]]
    const where = { computer: 'the tower', installed: 'driver 7', controller: 'left' }
    const observations = read({ ...file, observations: [{ ...first, note: 'seen', where }, ...rest] }).observations
    expect(observations[0]).toMatchObject({
      where: { controller: 'left' },
      note: 'seen; on the tower; installed: driver 7',
    })
    expect(observations.slice(1)).toEqual(file.observations.slice(1))
  })
})

type Third = { version: number; observations: { id: string; where?: { computer?: string } }[] } & Record<
  string,
  unknown
>
const third = (): Third => JSON.parse(readFileSync('tests/fixtures/saltmarsh-version-3.json', 'utf8'))

describe('a plan file of version 3', () => {
  it('keeps all it says: nothing that a version added takes anything from it', () => {
    const file = third()
    const plan = read(file)
    expect(file.observations.filter(({ where }) => where?.computer !== undefined).length).toBeGreaterThan(30)
    expect({ ...plan, version: 3 }).toEqual(file)
  })
})

const fourth = (): { version: number } & Record<string, unknown> =>
  JSON.parse(readFileSync('tests/fixtures/saltmarsh-version-4.json', 'utf8'))

describe('a plan file of version 4', () => {
  it('keeps all it says, and nothing is made up of what its proofs rest on', () => {
    const plan = read(fourth())
    expect({ ...plan, version: 4 }).toEqual(fourth())
    const proofs = proofsOf(assessAnew(plan))
    const accepted = [...proofs.values()].flatMap(({ accepted }) => accepted ?? [])
    expect(accepted.length).toBeGreaterThan(0)
    for (const { rests, waived } of accepted) expect({ rests, waived }).toEqual({ rests: null, waived: null })
  })
})

type Verdicts = { runs: Record<string, string>; needs: Record<string, string> }
type Version = '1' | '3' | '4'
const frozen: Record<Version, Verdicts> = JSON.parse(readFileSync('tests/fixtures/verdicts-of-versions.json', 'utf8'))

/** What is judged otherwise than by the last Hallway of version 3, of a file of version 4 by the last of that one, and why. */
const OTHERWISE: Record<Version, Record<string, { now: string; because: string }>> = {
  1: {},
  3: {},
  4: {
    'R-19': {
      now: 'tight, failed',
      because:
        'a test that comes and goes has failed until it is cleared, and is told apart from one that was not done',
    },
  },
}

describe('what earlier versions wrote', () => {
  it.each([
    ['1', old],
    ['3', third],
    ['4', fourth],
  ] as const)('is judged as it was, but for what is listed: version %s', (version, file) => {
    const plan = read(file())
    const site = assessAnew({ ...plan, site: { ...plan.site, practice: true } })
    const proofs = proofsOf(site)
    const now: Verdicts = {
      runs: Object.fromEntries(
        site.assessment.runs.map(({ id, tag, grade }) => [tag, `${grade}, ${proofs.get(id)?.state}`]),
      ),
      needs: Object.fromEntries(site.assessment.needs.map(({ id, grade }) => [id, grade])),
    }
    const was = { ...frozen[version].runs, ...frozen[version].needs }
    const listed = Object.entries(OTHERWISE[version])
    for (const [name, { now }] of listed) expect([name, was[name]]).not.toEqual([name, now])
    expect({ ...now.runs, ...now.needs }).toEqual({
      ...was,
      ...Object.fromEntries(listed.map(([name, { now }]) => [name, now])),
    })
  })
})

describe('one entity', () => {
  it('that this version wrote stays as it is, and one that a newer one wrote is told so', () => {
    for (const observation of read(old()).observations)
      expect(upgradeEntity('observations', observation, PLAN_VERSION)).toBe(observation)
    expect(() => upgradeEntity('runs', {}, PLAN_VERSION + 1)).toThrow(WrittenByNewer)
  })
  it('comes to the same one by one as in its file', () => {
    const file = { ...read(old()), version: 2 }
    const byOne = file.observations.map((each) => upgradeEntity('observations', each, 2))
    expect(read(file).observations).toEqual(byOne)
  })
  it('takes each step once: by way of any version between it comes to the same, and twice over as well', () => {
    const written = [
      { version: 2, body: { id: 'o', note: 'seen', where: { computer: 'the tower', controller: 'left' } } },
      ...third().observations.map((body) => ({ version: 3, body })),
    ]
    for (const { version, body } of written) {
      const now = upgradeEntity('observations', body, version)
      for (let between = version; between <= PLAN_VERSION; between += 1) {
        const there = upgradeEntity('observations', body, version, between)
        expect(upgradeEntity('observations', there, between)).toEqual(now)
      }
    }
  })
  it('every version there was is read, and no other', () => {
    for (let version = 1; version <= PLAN_VERSION; version += 1) expect(isVersionRead(version)).toBe(true)
    for (const version of [0, PLAN_VERSION + 1, 1.5, -1, '3', null, undefined, Number.NaN])
      expect(isVersionRead(version)).toBe(false)
  })
})
