import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many, took } from '../../tests/support/made-up-walk'
import { type OneRun, onePlan } from '../../tests/support/one-run'
import { acceptRun } from '../change/changes/prove'
import { copyOf } from '../change/copy'
import { assessAnew } from '../checks/assess'
import type { Observation } from '../observe/observation'
import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import type { Cable } from '../vocabulary/cable'
import type { Device, Port } from '../vocabulary/device'
import type { Need } from '../vocabulary/need'
import type { Place } from '../vocabulary/place'
import { LONGEST_FACT, MOST_FACTS, restsSchema } from '../vocabulary/rests'
import type { Run, RunLead } from '../vocabulary/run'
import { bearing } from './bearing'
import { proofOf, proofsOf } from './proof'
import { changesSince, changeWords, factsOfOne, restsNow, restsOn, takenAt } from './rests'
import { runTests } from './run-tests'

const ends = {
  from: { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15, controller: 'board' },
  to: { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' },
} satisfies Pick<OneRun, 'from' | 'to'>
const lead = { grade: 'gen2', length: 1, oneWay: true } as const
const plans = {
  storage: onePlan({ ...ends, leads: [lead], need: { kind: 'storage', rate: 3.2e9, back: 3.2e9, watts: 4.5 } }),
  headset: onePlan({
    ...ends,
    leads: [lead],
    need: { kind: 'headset', rate: 2e9, hours: 2, refresh: 90, link: 'gen1x1' },
  }),
  sensor: onePlan({ ...ends, leads: [lead], need: { kind: 'sensor', rate: 2e9, volts: 12, feed: 'there' } }),
  audio: onePlan({ ...ends, leads: [lead], need: { kind: 'audio', rate: 1e6, delay: 10 } }),
  picture: onePlan({
    from: { connector: 'displayport', displayport: { direction: 'out', link: 'hbr3', lanes: 4, compression: true } },
    to: {
      kind: 'display',
      connector: 'displayport',
      displayport: { direction: 'in', link: 'hbr3', lanes: 4, compression: true },
    },
    leads: [{ ...lead, grade: 'dp-hbr3', ends: ['displayport', 'displayport'] }],
    need: { kind: 'picture', mode: { width: 2560, height: 1440, refresh: 60, bits: 8, chroma: '422' } },
  }),
  hub: onePlan({
    ...ends,
    to: { ...ends.to, kind: 'hub' },
    leads: [lead],
    places: [{ id: 'there', name: 'There' }],
    far: { place: 'there' },
    need: { kind: 'data', rate: 1e9 },
  }),
} as const

/** A plan with the run accepted as it lies, all of its tests waived: what it rests on decides alone. */
function accepted(plan: Plan): Plan {
  const { index, walks } = assessAnew(plan)
  const [run] = plan.runs
  if (!run) throw new Error('it has a run')
  const crossings = walks.crossings.get(run.id) ?? []
  const waived = runTests(index, run, crossings).map(({ key }) => key)
  const at = '2026-11-01T10:00:00.000Z'
  return took(
    copyOf(plan),
    acceptRun(
      run,
      { less: 'for now', waived, conditions: null, ...takenAt(index, run, crossings) },
      { at, by: undefined, newId: () => 'ok' },
    ),
  ).plan
}
const proofIn = (plan: Plan) => {
  const site = assessAnew(plan)
  const run = site.index.runs.get('r1')
  if (!run) throw new Error('no run')
  return proofOf(site, run)
}

type Patch = (plan: Plan) => Plan
const within = <T extends { id: string }>(list: readonly T[], id: string | null, patch: object): T[] =>
  list.map((each, at) => ((id === null ? at === 0 : each.id === id) ? { ...each, ...patch } : each))
const patches = {
  runs:
    (patch: Partial<Run>): Patch =>
    (plan) => ({ ...plan, runs: within(plan.runs, null, patch) }),
  leads:
    (patch: Partial<RunLead>): Patch =>
    (plan) => ({
      ...plan,
      runs: plan.runs.map((run) => ({ ...run, leads: run.leads.map((each) => ({ ...each, ...patch }) as RunLead) })),
    }),
  cables:
    (patch: Partial<Cable>): Patch =>
    (plan) => ({ ...plan, cables: within(plan.cables, null, patch) }),
  devices:
    (patch: Partial<Device>): Patch =>
    (plan) => ({ ...plan, devices: within(plan.devices, 'far', patch) }),
  ports:
    (patch: Partial<Port>): Patch =>
    (plan) => ({
      ...plan,
      devices: plan.devices.map((device) =>
        device.id === 'near' ? { ...device, ports: within(device.ports, 'p', patch) } : device,
      ),
    }),
  needs:
    (patch: object): Patch =>
    (plan) => ({ ...plan, needs: within<Need>(plan.needs, null, patch) }),
  places:
    (patch: Partial<Place>): Patch =>
    (plan) => ({ ...plan, places: within(plan.places, null, patch) }),
}
type On = keyof typeof plans
/** What a field is changed to, from what, on which plan, and whether a proof goes stale of it. */
type Sample = { on?: On; from?: object; to: object; stale: boolean }
type Samples<Name extends keyof typeof bearing> = { [Field in keyof (typeof bearing)[Name]]: readonly Sample[] }

const stands = (to: object, from?: object, on?: On): Sample => ({
  to,
  stale: false,
  ...(from ? { from } : {}),
  ...(on ? { on } : {}),
})
const stale = (to: object, from?: object, on?: On): Sample => ({ ...stands(to, from, on), stale: true })
const id: readonly Sample[] = []
const dp = { direction: 'out', link: 'hbr3', lanes: 4, compression: true } as const
const mode = { width: 2560, height: 1440, refresh: 60, bits: 8, chroma: '422' } as const
const route = (more: object) => ({ route: { length: 0.3, ...more } })

const samples: { [Name in keyof typeof bearing]: Samples<Name> } = {
  runs: {
    id,
    tag: [stands({ tag: 'R-99' })],
    name: [stands({ name: 'the disk' })],
    from: [stale({ from: { device: 'near', port: 'q' } })],
    to: [stale({ to: { device: 'far', port: 'q' } })],
    leads: [stale({ leads: [{ cable: 'other', reversed: false }] })],
    route: [
      stale(route({ seen: '2026-11-02', length: 0.5 }), route({ seen: '2026-11-01' })),
      stands(route({ seen: '2026-11-02', length: 0.2 }), route({ seen: '2026-11-01' })),
      // measured for the first time, and worked out anew by the plan
      stands(route({ seen: '2026-11-02', length: 0.5 })),
      stands(route({ length: 0.5, follows: true })),
      stale(route({ bend: 20 }), route({ bend: 40 })),
      stands(route({ bend: 40 })),
      stands(route({ note: 'along the wall', through: ['wall'] })),
    ],
    waits: [stands({ waits: { why: 'a longer one', on: '2026-11-02' } })],
    note: [stands({ note: 'mind the door' })],
  },
  leads: { reversed: [stale({ reversed: true })] },
  cables: {
    id,
    tag: [stands({ tag: 'C-99' })],
    kind: [stands({ kind: undefined })],
    ends: [stale({ ends: [{ connector: 'type-a', gender: 'plug' }, plug()] })],
    oneWay: [stands({ oneWay: false })],
    length: [stale({ length: 1.5 }), stands({ length: 0.9 })],
    construction: [stands({ construction: 'redriven' })],
    awg: [stands({ awg: 28 })],
    thickness: [stands({ thickness: 6 })],
    feed: [stands({ feed: 'optional' })],
    feedEnd: [stands({ feedEnd: 'host' })],
    pair: [stands({ pair: true })],
    copper: [stands({ copper: true })],
    passesBack: [stands({ passesBack: 60 })],
    passesOn: [stands({ passesOn: 60 })],
    suppliedWith: [stands({ suppliedWith: 'far' })],
    standing: [stale({ standing: 'retired' }), stale({ standing: 'lent' })],
    note: [stands({ note: 'grey' })],
  },
  devices: {
    id,
    name: [stands({ name: 'Another' })],
    kind: [stale({ kind: 'other' })],
    place: [stands({ place: 'there' })],
    at: [stands({ at: { floor: 'f', x: 1, y: 1 } })],
    height: [stands({ height: 2 })],
    noise: [stands({ noise: { level: 40, distance: 1 } })],
    installed: [
      stale({ installed: [driver('2')] }, { installed: [driver('1')] }),
      stands({ installed: [driver('1'), { ...driver('F9'), what: 'firmware' }] }, { installed: [driver('1')] }),
      stands({ installed: [driver('1')] }),
      stands({ installed: undefined }, { installed: [driver('1')] }),
      stands({ installed: [{ ...driver('1'), on: '2026-11-09' }] }, { installed: [driver('1')] }),
    ],
    screen: [
      stale({ screen: screen('B') }, { screen: screen('A') }),
      stale({ screen: { ...screen('A'), modes: [], bits: 8 } }, { screen: { ...screen('A'), bits: 10 } }),
      stale({ screen: screen('A', 30) }, { screen: screen('A') }),
      stands({ screen: screen('A', 120) }, { screen: screen('A') }),
      stale({ screen: { ...screen('A'), hdr: false } }, { screen: { ...screen('A'), hdr: true } }),
      stands({ screen: screen('A') }),
    ],
    seen: [stands({ seen: '2026-11-03' })],
    visits: [stands({ visits: 'near' })],
    battery: [
      stale({ battery: { wattHours: 20, draw: 9 } }, { battery: { wattHours: 20, draw: 7 } }),
      stale({ battery: { wattHours: 10, draw: 7 } }, { battery: { wattHours: 20, draw: 7 } }),
      stands({ battery: { wattHours: 20, draw: 5 } }, { battery: { wattHours: 20, draw: 7 } }),
    ],
    disk: [
      stale({ disk: { write: 1e9, read: 2e9, bridge: 'good' } }, { disk: { write: 2e9, read: 2e9, bridge: 'good' } }),
      stale({ disk: { write: 2e9, read: 1e9, bridge: 'good' } }, { disk: { write: 2e9, read: 2e9, bridge: 'good' } }),
      stands({ disk: { write: 3e9, read: 2e9, bridge: 'good' } }, { disk: { write: 2e9, read: 2e9, bridge: 'good' } }),
    ],
    decoder: [stale({ decoder: 1e8 }, { decoder: 2e8 }), stands({ decoder: 2e8 })],
    pictureOverUsb: [stale({ pictureOverUsb: 2e9 }, { pictureOverUsb: 1e9 })],
    rated: [stands({ rated: { cat6: 40 } })],
    drivers: [stands({ drivers: 'needs' })],
    pool: [stale({ pool: { kind: 'shared', total: 60 } }, { pool: { kind: 'shared', total: 90 } })],
    keeps: [stale({ keeps: 9 }, { keeps: 5 })],
    controllers: [stands({ controllers: [{ name: 'board', carries: 8e9 }] })],
    busPowered: [stale({ busPowered: true })],
    ports: [stands({})],
    note: [stands({ note: 'dusty' })],
  },
  ports: {
    id,
    name: [stands({ name: 'left' })],
    connector: [stale({ connector: 'type-a' })],
    gender: [stale({ gender: 'plug' })],
    role: [stale({ role: 'either' })],
    usb: [stale({ usb: 'gen1x1' }), stands({ usb: 'gen2x2' }), stale({ usb: undefined })],
    usb4: [stale({ usb4: 20 }, { usb4: 40 }), stands({ usb4: 40 })],
    thunderbolt: [stale({ thunderbolt: 3 }, { thunderbolt: 4 }), stands({ thunderbolt: 4 })],
    displayport: [
      stale({ displayport: { ...dp, link: 'hbr2' } }, {}, 'picture'),
      stands({ displayport: { ...dp, link: 'uhbr10' } }, {}, 'picture'),
      stale({ displayport: { ...dp, lanes: 2 } }, {}, 'picture'),
      stale({ displayport: { ...dp, compression: false } }, {}, 'picture'),
      stale({ displayport: { ...dp, direction: 'in' } }, {}, 'picture'),
      stale({ displayport: undefined }, {}, 'picture'),
    ],
    hdmi: [
      stale(
        { hdmi: { direction: 'out', level: 'tmds-10.2', compression: false } },
        { hdmi: { direction: 'out', level: 'tmds-18', compression: false } },
      ),
      stale(
        { hdmi: { direction: 'out', level: 'frl-48', compression: false } },
        { hdmi: { direction: 'out', level: 'frl-48', compression: true } },
      ),
    ],
    gives: [stale({ gives: 7.5 }), stands({ gives: 60 }), stands({ gives: undefined })],
    takes: [stands({ takes: 60 })],
    levels: [stands({ levels: [{ volts: 5, amps: 3 }] })],
    accepts: [stands({ accepts: [20] })],
    ownPlug: [stale({ ownPlug: 'b' }, { ownPlug: 'a' })],
    lacksResistors: [stands({ lacksResistors: true })],
    captive: [stale({ captive: { length: 2 } }, { captive: { length: 1 } }), stands({ captive: { length: 1 } })],
    sits: [stands({ sits: 'front' })],
    reserves: [stands({ reserves: 'link' })],
    controller: [stale({ controller: 'card' })],
  },
  needs: {
    id,
    kind: [stale({ kind: 'data' })],
    name: [stands({ name: 'the rushes' })],
    from: [stands({})],
    to: [stands({})],
    priority: [stands({ priority: 1 })],
    through: [stands({ through: ['r1'] })],
    variants: [stands({ variants: [{ name: 'more', rate: 5e9 }] })],
    said: [stands({ said: '400 MB/s' })],
    note: [stands({ note: 'by noon' })],
    mode: [
      stale({ mode: { ...mode, refresh: 120 } }, {}, 'picture'),
      stands({ mode: { ...mode, refresh: 30 } }, {}, 'picture'),
      stale({ mode: { ...mode, width: 3840 } }, {}, 'picture'),
      stale({ mode: { ...mode, height: 1600 } }, {}, 'picture'),
      stale({ mode: { ...mode, chroma: '444' } }, {}, 'picture'),
      stands({ mode: { ...mode, chroma: '420' } }, {}, 'picture'),
      stale({ mode: { ...mode, bits: 10 } }, {}, 'picture'),
      stale({ mode: { ...mode, bits: 10, hdr: true } }, { mode: { ...mode, bits: 10 } }, 'picture'),
    ],
    uncompressed: [stale({ uncompressed: true }, {}, 'picture')],
    rate: [stale({ rate: 3.3e9, back: 3e9 }), stands({ rate: 3.1e9 })],
    // left out it is the rate that is written
    back: [stale({ back: 3.3e9 }), stands({ back: undefined }), stands({ back: 1e9 })],
    watts: [stale({ watts: 5 }), stands({ watts: 4 }), stale({ watts: 5 }, { watts: undefined })],
    hours: [stale({ hours: 3 }, {}, 'headset'), stands({ hours: 1 }, {}, 'headset')],
    refresh: [stale({ refresh: 120 }, {}, 'headset'), stands({ refresh: 72 }, {}, 'headset')],
    link: [stale({ link: 'gen2x1' }, {}, 'headset'), stands({ link: undefined }, {}, 'headset')],
    volts: [stale({ volts: 24 }, {}, 'sensor')],
    feed: [stale({ feed: 'missing' }, {}, 'sensor'), stands({ feed: 'there' }, { feed: 'missing' }, 'sensor')],
    delay: [stale({ delay: 5 }, {}, 'audio'), stands({ delay: 20 }, {}, 'audio')],
  },
  places: {
    id,
    name: [stands({ name: 'Elsewhere' }, {}, 'hub')],
    mains: [
      stale({ mains: false }, {}, 'hub'),
      stands({ mains: 'not known' }, {}, 'hub'),
      stands({ mains: true }, { mains: false }, 'hub'),
      // nothing that ends there needs it
      stands({ mains: false }),
    ],
    outlet: [stands({ outlet: 3 }, {}, 'hub')],
    at: [stands({ at: { floor: 'f', x: 1, y: 1 } }, {}, 'hub')],
    height: [stands({ height: 1 }, {}, 'hub')],
    area: [stands({ area: { width: 2, depth: 2 } }, {}, 'hub')],
    quiet: [stands({ quiet: 30 }, {}, 'hub')],
    seen: [stands({ seen: '2026-11-03' }, {}, 'hub')],
    photos: [stands({ photos: [] }, {}, 'hub')],
    note: [stands({ note: 'locked at night' }, {}, 'hub')],
  },
}
function plug() {
  return { connector: 'type-c', gender: 'plug' } as const
}
function driver(version: string) {
  return { what: 'driver', version, on: '2026-11-01' } as const
}
function screen(name: string, refresh = 60) {
  return { name, modes: [{ width: 3840, height: 2160, refresh }], read: '2026-11-01' } as const
}

/** Another socket at each end, and another lead, for runs that are moved. */
const roomy: Patch = (plan) => ({
  ...plan,
  devices: plan.devices.map((device) => ({
    ...device,
    ports: [...device.ports, ...device.ports.map((port) => ({ ...port, id: 'q' }))],
  })),
  cables: [...plan.cables, ...plan.cables.map((cable) => ({ ...cable, id: 'other', tag: 'C-77' }))],
})

describe('what a proof rests on, field by field', () => {
  for (const [name, fields] of Object.entries(samples))
    for (const [field, all] of Object.entries(fields as Record<string, readonly Sample[]>))
      for (const [at, { on, from, to, stale: isStale }] of all.entries())
        it(`${name}.${field}, case ${at + 1}: ${isStale ? 'stale' : 'stands'}`, () => {
          const patch = patches[name as keyof typeof patches] as (patch: object) => Patch
          const before = patch(from ?? {})(roomy(plans[on ?? 'storage']))
          const done = accepted(before)
          expect(proofIn(done).state).toBe('accepted')
          const proof = proofIn(patch(to)(done))
          if (isStale) expect(proof.state).not.toBe('accepted')
          else expect([proof.state, proof.outdated]).toEqual(['accepted', []])
        })
  it('names every field of the table, and each that bears has a case where the proof goes stale', () => {
    for (const [name, fields] of Object.entries(bearing))
      for (const [field, figures] of Object.entries(fields) as [string, readonly unknown[]][]) {
        const all = (samples[name as keyof typeof samples] as Record<string, readonly Sample[]>)[field]
        if (field !== 'id') expect([name, field, all?.length]).not.toEqual([name, field, 0])
        if (figures.length > 0 && field !== 'from' && field !== 'to')
          expect([name, field, all?.some((each) => each.stale)]).toEqual([name, field, true])
      }
  })
})

describe('what a proof rests on', () => {
  const done = accepted(plans.storage)
  const heat: Observation = {
    id: 'heat',
    at: '2026-11-02T10:00:00.000Z',
    subject: { cable: 'c1' },
    kind: 'reading',
    measure: 'warmth',
    felt: 'hot',
  }
  it('a lead that got hot since makes it stale, and one that was hot when it was accepted does not', () => {
    const hot = { ...done, observations: [...done.observations, heat] }
    expect(proofIn(hot).outdated.map(({ fact }) => fact)).toEqual(['hot'])
    const before = {
      ...plans.storage,
      observations: [...plans.storage.observations, { ...heat, at: '2026-10-01T10:00:00.000Z' }],
    }
    expect(proofIn(accepted(before)).state).toBe('accepted')
  })
  it('another need that crosses it makes it stale, one that is gone does not', () => {
    const [need] = done.needs
    if (!need) throw new Error('it has a need')
    expect(proofIn({ ...done, needs: [...done.needs, { ...need, id: 'n9' }] }).state).not.toBe('accepted')
    expect(proofIn({ ...done, needs: [] }).outdated).toEqual([])
  })
  it('what is plugged in beside it since makes it stale, what is pulled out does not', () => {
    const beside: Patch = (plan) => ({
      ...plan,
      devices: [...plan.devices, { ...(plan.devices[1] as Device), id: 'more', name: 'More' }],
      runs: [
        ...plan.runs,
        {
          id: 'r2',
          tag: 'R-02',
          from: { device: 'near', port: 'q' },
          to: { device: 'more', port: 'p' },
          leads: [],
          route: { length: 1 },
        },
      ],
    })
    const lone = accepted(roomy(plans.storage))
    expect(proofIn(beside(lone)).outdated).toMatchObject([{ fact: 'beside', is: 'more' }])
    const both = accepted(beside(roomy(plans.storage)))
    expect(proofIn({ ...both, runs: both.runs.slice(0, 1) }).state).toBe('accepted')
  })
  it('is at most 24 short facts and a digest of the rest, whatever the run; a need among the rest that gets harder is found', () => {
    const [need] = plans.storage.needs
    if (!need) throw new Error('it has a need')
    const crowd = (rate: number): Plan => ({
      ...plans.storage,
      needs: Array.from({ length: 40 }, (_, at) => ({ ...need, id: `n${at}`, rate: at === 39 ? rate : 1e6 }) as Need),
    })
    const full = accepted(crowd(1e6))
    const { rests } = byId(full.observations).get('ok') as Extract<Observation, { kind: 'accepted' }>
    expect(Object.keys(rests ?? {})).toHaveLength(MOST_FACTS)
    expect(rests).toHaveProperty('more')
    expect(proofIn(full).state).toBe('accepted')
    expect(proofIn({ ...full, needs: crowd(2e6).needs }).outdated).toMatchObject([{ fact: 'more' }])
    // what is noted for the first time changes nothing here either
    const measured = patches.runs({ route: { length: 0.4, seen: '2026-11-02' } })(full)
    expect(proofIn(measured).outdated).toEqual([])
    // and a test of one need is none the worse for what others ask
    const link = factsOfOne(rests ?? {}, full.runs[0] as Run, null)
    expect([link('more'), link('asks n0'), link('lead 1'), link('beside')]).toEqual([false, false, true, false])
    const hidden = factsOfOne(rests ?? {}, full.runs[0] as Run, 'n39')
    expect([hidden('more'), hidden('asks n39'), hidden('asks n0')]).toEqual([true, true, false])
  })
  it('is a fact of a plan file, comes to nothing on the plan it was worked out on, and each change of it is said in words', () => {
    let told = 0
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        const site = assessAnew(plan)
        const was = assessAnew(demo)
        for (const run of plan.runs) {
          const crossings = site.walks.crossings.get(run.id) ?? []
          const rests = restsOn(site.index, run, crossings)
          expect(restsSchema.safeParse(rests)).toMatchObject({ success: true })
          for (const text of Object.values(rests)) expect(text.length).toBeLessThanOrEqual(LONGEST_FACT)
          expect(changesSince(rests, restsNow(site.index, run, crossings))).toEqual([])
          const old = was.index.runs.get(run.id)
          if (!old) continue
          const before = restsOn(was.index, old, was.walks.crossings.get(run.id) ?? [])
          for (const change of changesSince(before, restsNow(site.index, run, crossings))) {
            const words = changeWords(site.index, run, change)
            expect(words).toMatch(/\S/)
            expect(words).not.toMatch(/undefined|NaN|#[0-9a-f]{8}/)
            told += 1
          }
        }
      }),
      { numRuns: cases(40) },
    )
    expect(told).toBeGreaterThan(0)
  })
  it('survives the way over a file', () => {
    const [plan] = [accepted(demoWithRun())]
    const read = readPlan(JSON.parse(JSON.stringify(plan)))
    if (!read.ok) throw new Error(JSON.stringify(read.faults))
    expect(proofsOf(assessAnew(read.plan))).toEqual(proofsOf(assessAnew(plan)))
    expect(byId(read.plan.observations).get('ok')).toEqual(byId(plan.observations).get('ok'))
  })
})

/** The demo, with the run that is accepted first in its list. */
function demoWithRun(): Plan {
  const first = demo.runs.find(({ id: each }) => each === 'r-12')
  if (!first) throw new Error('the demo has it')
  return { ...demo, runs: [first, ...demo.runs.filter(({ id: each }) => each !== 'r-12')] }
}
