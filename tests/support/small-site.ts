import fc from 'fast-check'
import { type Observation, observationSchema } from '../../core/observe/observation'
import { PLAN_LISTS, type Plan } from '../../core/plan/plan'
import { readPlan } from '../../core/plan/read'
import { madeUpObservation } from './made-up-changes'
import { planFrom } from './shorthand'

/** Small numbers that a small site is made of, one after the other; nought, the commonest, leaves a thing as most are. */
export type Drawn = readonly number[]
const DRAWN = 124
const figure = fc.oneof({ weight: 3, arbitrary: fc.constant(0) }, { weight: 2, arbitrary: fc.nat(11) })
export const drawn: fc.Arbitrary<Drawn> = fc
  .tuple(fc.nat(11), fc.array(figure, { minLength: DRAWN - 1, maxLength: DRAWN - 1 }))
  .map(([sort, rest]) => [sort, ...rest])

/** The same numbers but for one of them. */
export const drawnAgain = fc
  .tuple(drawn, fc.nat(DRAWN - 1), fc.nat(11))
  .map(([first, at, value]): [Drawn, Drawn] => [first, first.with(at, value)])

/** Where leads were compared by copying. */
export const BETWEEN = { port: { device: 'host', port: 'p0' }, far: { device: 'far-0', port: 'p' } }

const SIZES = [0, 1, 2, 3]
const FULL_HD = { width: 1920, height: 1080, refresh: 60 }
const ULTRA_HD = { width: 3840, height: 2160, refresh: 60 }

/** What the far devices of a site are, all alike, and what each of them needs. */
const SORTS = [
  { kind: 'display', need: { kind: 'picture', mode: { ...ULTRA_HD, bits: 10, hdr: true } } },
  { kind: 'display', hdmi: true, need: { kind: 'picture', mode: { ...ULTRA_HD } } },
  { kind: 'storage', need: { kind: 'storage', rate: 2.4e9, watts: 7 } },
  { kind: 'headset', need: { kind: 'headset', rate: 2e9, watts: 12, hours: 3 } },
  { kind: 'hub', need: { kind: 'camera', rate: 1e9, watts: 4 } },
  { kind: 'other', need: { kind: 'power', watts: 60 } },
  { kind: 'other', back: true, need: { kind: 'own screen', rate: 8e9 } },
] as const

/**
 * A site so small that much in it is alike: one computer, four devices of one sort, a lead and a need to each. What differs is drawn one by one, so that two
 * sites, two runs or two leads often differ in a single thing.
 */
export function smallSite(numbers: Drawn): Plan {
  let next = 0
  const draw = <T>(...choices: readonly T[]): T => choices[(numbers[next++ % DRAWN] ?? 0) % choices.length] as T
  const sort = draw<(typeof SORTS)[number]>(...SORTS)
  const policy = { length: draw('book', 'bench'), cables: draw('any', 'supplied'), computerDisplays: 'displayport' }
  const places = SIZES.map((at) => ({
    id: `place-${at}`,
    name: draw('Desk', 'Bench'),
    mains: draw<boolean | 'not known'>(true, false, 'not known'),
    at: { floor: 'ground', x: 2 + at, y: 2 },
    ...draw({}, {}, { area: { width: 2, depth: 2 } }),
  }))
  const pathways = [0, 1].map((at) => ({
    id: `way-${at}`,
    name: draw('Tray', 'Duct'),
    kind: 'tray',
    points: [
      { floor: 'ground', x: at, y: 0, height: 0 },
      { floor: 'ground', x: at, y: 5, height: 0 },
    ],
    through: draw([], ['wall'], ['other-earth']),
    ...draw({}, { inner: 20 }, { inner: 12 }, { free: 100 }),
  }))
  const host = {
    id: 'host',
    name: draw('Computer', 'Tower'),
    kind: 'computer',
    place: 'place-0',
    ...draw({}, {}, { controllers: [{ name: 'a', carries: draw(6e9, 1e10) }] }),
    installed: [{ what: 'driver', version: draw('1', '2'), on: '2026-05-01' }],
    ports: SIZES.map((at) => ({
      id: `p${at}`,
      name: 'port',
      role: 'host',
      controller: draw('a', 'a', 'b'),
      gives: draw(100, 15),
      ...('hdmi' in sort
        ? { connector: 'hdmi', hdmi: { direction: 'out', level: 'tmds-18' } }
        : {
            connector: 'type-c',
            usb: 'gen2x1',
            usb4: 40,
            displayport: { direction: 'out', link: 'hbr3', compression: true },
          }),
    })),
  }
  const far = SIZES.map((at) => ({
    id: `far-${at}`,
    name: draw('One', 'Other'),
    kind: sort.kind,
    place: `place-${at}`,
    busPowered: draw(false, true),
    ...draw(
      {},
      { screen: { modes: [ULTRA_HD, FULL_HD], hdr: true, bits: 10, read: '2026-05-01' } },
      { screen: { modes: [FULL_HD], hdr: false, bits: 8, read: '2026-05-01' } },
    ),
    ...draw({}, { disk: { write: 4e9, read: 4e9 } }, { disk: { write: 1e9, read: 4e9 } }),
    ...draw({}, { battery: { wattHours: 20, draw: 9 } }, { battery: { wattHours: 20, draw: 30 } }),
    ports: [
      {
        id: 'p',
        name: 'port',
        role: 'device',
        takes: draw(20, 60),
        ...('hdmi' in sort
          ? { connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } }
          : {
              connector: 'type-c',
              usb: 'gen2x1',
              ...('back' in sort ? { usb4: 40 } : {}),
              displayport: { direction: 'in', link: 'hbr3' },
            }),
      },
      ...draw(
        [],
        [{ id: 'q', name: 'second', connector: 'displayport', displayport: { direction: 'in', link: 'hbr2' } }],
      ),
    ],
  }))
  const end = { connector: 'hdmi' in sort ? 'hdmi' : 'type-c' }
  const cables = [...SIZES, 4, 5].map((at) => ({
    id: `c${at}`,
    tag: `C-${at}`,
    kind: draw('plain', 'plain', 'other'),
    ends: [end, end],
    length: draw(1, 1, 2.4),
    construction: draw('passive', 'passive', 'passive', 'active'),
    feed: draw('bus', 'bus', 'required'),
    ...draw({}, { thickness: 4 }, { thickness: 9 }),
    ...draw({}, {}, { awg: 30 }),
    ...draw({}, { suppliedWith: 'far-0' }, { suppliedWith: 'far-1' }),
    evidence: [{ basis: 'claimed', on: '2026-03-02', grade: draw('usb4-40', 'gen1'), amps: 5 }],
  }))
  const kinds = ['plain', 'other'].map((id) => ({ id, name: id, ends: [end, end], grade: 'usb4-40', amps: draw(3, 5) }))
  const runs = SIZES.map((at) => ({
    id: `r${at}`,
    tag: `R-${at}`,
    from: { device: 'host', port: `p${draw(at, at, at, 0)}` },
    to: { device: `far-${at}`, port: 'p' },
    leads: draw([{ cable: `c${at}` }], [{ cable: `c${at}` }], [], [{ kind: 'plain', length: 1 }]),
    route: draw<object>(
      { length: 0.8 },
      { length: 0.8, follows: true, legs: [{ by: 'tray', length: 0.8, pathway: 'way-0' }] },
      { length: 0.8, follows: true, legs: [{ by: 'tray', length: 0.8, pathway: 'way-1' }] },
      { length: 0.8, bend: 20 },
      { length: 0.8, through: ['other-earth'] },
      { length: 0.8, conduit: { inner: 11, beside: [6] } },
      { length: 2 },
    ),
  }))
  const needs = SIZES.map((at) => {
    const [from, to] = 'back' in sort ? [`far-${at}`, 'host'] : ['host', `far-${at}`]
    return { id: `n${at}`, from, to, ...sort.need }
  })
  // what feeds the first two far devices beside their runs, and what hangs on the first of them
  const fed = draw(false, false, true)
  const hung = draw(false, true)
  if (fed || hung) {
    const plain = { ends: [{ connector: 'type-c' }, { connector: 'type-c' }], length: draw(1, 3), awg: draw(22, 28) }
    const evidence = [{ basis: 'claimed', on: '2026-03-02', grade: 'gen1', amps: 3 }]
    for (const id of ['x0', 'x1', 'x2']) cables.push({ ...plain, id, tag: id, evidence } as never)
    const socket = (id: string, more: object) => ({ id, name: id, connector: 'type-c', ...more })
    const [first, second] = far
    if (first)
      Object.assign(first, draw({}, { keeps: 5 }), {
        ports: [
          ...first.ports,
          socket('in', { takes: 60 }),
          socket('out', { role: 'host', usb: 'gen1x1', gives: 4.5 }),
        ],
      })
    if (second) Object.assign(second, { ports: [...second.ports, socket('in', { takes: 60 })] })
    const pool = draw({}, { pool: { kind: 'drops', together: { a: 20 } } })
    far.push(
      {
        id: 'feeder',
        name: 'Feeder',
        kind: 'charger',
        place: 'place-3',
        ...pool,
        ports: [socket('a', { gives: draw(65, 30) }), socket('b', { gives: 30 })],
      } as never,
      {
        id: 'leaf',
        name: 'Leaf',
        kind: 'camera',
        ports: [socket('p', { role: 'device', usb: draw('gen1x1', 'usb2') })],
      } as never,
    )
    const joined = (id: string, from: string[], to: string[]) => ({
      id,
      tag: id,
      from: { device: from[0], port: from[1] },
      to: { device: to[0], port: to[1] },
      leads: [{ cable: id }],
      route: { length: 0.5 },
    })
    if (fed)
      runs.push(
        joined('x0', ['feeder', 'a'], ['far-0', 'in']) as never,
        joined('x1', ['feeder', 'b'], ['far-1', 'in']) as never,
      )
    if (hung) runs.push(joined('x2', ['far-0', 'out'], ['leaf', 'p']) as never)
    if (fed) needs.push({ id: 'nx', kind: 'power', from: 'feeder', to: 'far-0', watts: 50 } as never)
    if (hung) needs.push({ id: 'ny', kind: 'camera', from: 'leaf', to: 'host', rate: 1e8, watts: draw(2, 4) } as never)
  }
  let plan = planFrom({
    floors: [{ id: 'ground', name: 'Ground' }],
    policy,
    places,
    pathways,
    devices: [host, ...far],
    kinds,
    cables,
    runs,
    needs,
  })
  plan = {
    ...plan,
    observations: [
      ...plan.observations,
      ...cables.flatMap(({ id }, at) =>
        draw<object[]>(
          [],
          [
            {
              kind: 'trial',
              basis: 'soaked',
              tried: 'gen2x1',
              cameUp: 'gen2x1',
              seconds: 60,
              where: { controller: 'a' },
            },
          ],
          [{ kind: 'trial', basis: 'soaked', tried: 'gen2x1', cameUp: null, seconds: 40, where: { controller: 'a' } }],
          [{ kind: 'reading', measure: 'write', rate: 1.6e9, limit: 'unknown', where: BETWEEN }],
          [{ kind: 'reading', measure: 'write', rate: 3.2e9, limit: 'unknown', where: BETWEEN }],
          [{ kind: 'reading', measure: 'warmth', felt: 'hot' }],
        ).map((each) => {
          const seen = observationSchema.parse({
            id,
            at: `2026-06-01T08:0${at}:00.000Z`,
            subject: { cable: id },
            ...each,
          })
          return { ...seen, id: nameOf(seen) }
        }),
      ),
    ],
  }
  for (const at of [0, 1, 2, 3, 4]) {
    const [wanted, one, other, size] = [
      draw(false, true),
      draw(...Array(12).keys()),
      draw(0, 1, 2, 3),
      draw(...Array(12).keys()),
    ]
    if (!wanted) continue
    const seen = madeUpObservation(plan, { one, other, figure: size * 5 }, at)
    plan = { ...plan, observations: [...plan.observations, { ...seen, id: nameOf(seen) }] }
  }
  return plan
}

/** What is seen is never edited: something else that is seen is another observation. */
const nameOf = ({ id, ...seen }: Observation): string =>
  `${id}-${[...JSON.stringify(seen)].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1e9, 7)}`

/** A site with whatever is alike in another the very same values, as a change leaves them. */
export function changedFrom(before: Plan, after: Plan): Plan {
  const plan = { ...after }
  for (const list of PLAN_LISTS) {
    const was = new Map<string, [string, unknown]>(before[list].map((each) => [each.id, [JSON.stringify(each), each]]))
    const items = after[list].map((each) => {
      const old = was.get(each.id)
      return old?.[0] === JSON.stringify(each) ? old[1] : each
    })
    const same = items.length === before[list].length && items.every((each, at) => each === before[list][at])
    plan[list] = (same ? before[list] : items) as never
  }
  for (const part of ['site', 'policy'] as const)
    if (JSON.stringify(before[part]) === JSON.stringify(after[part])) plan[part] = before[part] as never
  return plan
}

/** The same site with nothing kept from before. */
export function anew(plan: Plan): Plan {
  const read = readPlan(JSON.parse(JSON.stringify(plan)))
  if (!read.ok) throw new Error(read.faults.map(({ path, reason }) => `${path}: ${reason}`).join('; '))
  return read.plan
}
