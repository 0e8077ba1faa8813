import fc from 'fast-check'
import type { Copy, Edit } from '../../core/change/change'
import { POLICY_ID, SITE_ID } from '../../core/change/copy'
import { walkNeeds } from '../../core/checks/assess'
import { REMEDIES } from '../../core/observe/kinds/set-right'
import { type Observation, observationSchema } from '../../core/observe/observation'
import type { Plan } from '../../core/plan/plan'
import { indexPlan } from '../../core/plan/site-index'
import { takenAt } from '../../core/prove/rests'
import { runTests } from '../../core/prove/run-tests'
import { handoverSchema } from '../../core/vocabulary/handover'
import { laidCables, type Run } from '../../core/vocabulary/run'

/** What a made-up edit is made of: a sort, and numbers that choose among what a plan has. */
export type Choice = { sort: number; one: number; other: number; figure: number }
export const choice: fc.Arbitrary<Choice> = fc.record({
  // what is seen is a quarter of what is done
  sort: fc.nat(46),
  one: fc.nat(997),
  other: fc.nat(991),
  figure: fc.nat(50),
})

const pick = <T>(list: readonly T[], at: number): T => list[at % list.length] as T

/** An edit of a plan as somebody might make it, sensible or not: some do not fit, and are to be refused. */
export function madeUpEdit(copy: Copy, { sort, one, other, figure }: Choice, number: number): Edit {
  const { plan, place: base } = copy
  const run = pick(plan.runs, one)
  const cable = pick(plan.cables, one)
  const need = pick(plan.needs, one)
  const device = pick(plan.devices, one)
  const change = (list: Edit['list'], entity: { id: string }, more: object): Edit =>
    ({ list, id: entity.id, base, value: { ...entity, ...more } }) as Edit
  const edits: (() => Edit)[] = [
    () => ({ list: 'runs', id: run.id, base, value: { ...run, note: `note ${figure}` } }),
    () => ({ list: 'runs', id: run.id, base, value: { ...run, route: { ...run.route, length: 0.5 + figure / 10 } } }),
    () => ({
      list: 'runs',
      id: run.id,
      base,
      value: { ...run, leads: [{ cable: pick(plan.cables, other).id, reversed: false }] },
    }),
    () => ({ list: 'runs', id: run.id, base, value: { ...run, leads: [] } }),
    () => ({
      list: 'runs',
      id: run.id,
      base,
      value: { ...run, leads: [{ kind: pick(plan.kinds, other).id, length: 0.5 + figure / 10, reversed: false }] },
    }),
    () => ({ list: 'runs', id: run.id, base, value: { ...run, to: pick(plan.runs, other).to } }),
    () => ({ list: 'runs', id: run.id, base, value: null }),
    () => ({ list: 'runs', id: run.id, base, value: run, before: figure % 2 ? null : pick(plan.runs, other).id }),
    () => ({
      list: 'runs',
      id: `made-${number}`,
      base: null,
      value: { ...run, id: `made-${number}`, tag: `M-${figure % 9}`, leads: [], from: pick(plan.runs, other).from },
      before: figure % 3 ? undefined : run.id,
    }),
    () => ({ list: 'cables', id: cable.id, base, value: { ...cable, length: 0.3 + figure / 10 } }),
    () => ({ list: 'cables', id: cable.id, base, value: { ...cable, tag: pick(plan.cables, other).tag } }),
    () => ({
      list: 'cables',
      id: cable.id,
      base,
      value: { ...cable, standing: pick(['lent', 'retired'] as const, other) },
    }),
    () => ({ list: 'cables', id: cable.id, base, value: null }),
    () => ({ list: 'cables', id: cable.id, base, value: { ...cable, kind: pick(plan.kinds, other).id } }),
    () => ({
      list: 'cables',
      id: `made-${number}`,
      base: null,
      value: { ...cable, id: `made-${number}`, tag: `N-${figure}` },
    }),
    () => ({ list: 'needs', id: need.id, base, value: { ...need, priority: 1 + (figure % 9) } }),
    () => ({ list: 'needs', id: need.id, base, value: { ...need, to: pick(plan.devices, other).id } }),
    () => ({ list: 'needs', id: need.id, base, value: null }),
    () => ({ list: 'needs', id: need.id, base, value: { ...need, through: [pick(plan.runs, other).id] } }),
    () => ({
      list: 'devices',
      id: device.id,
      base,
      value: { ...device, ports: device.ports.toSpliced(figure % 5, 1) },
    }),
    () => ({
      list: 'devices',
      id: device.id,
      base,
      value: {
        ...device,
        ports: device.ports.map((port) => ({ ...port, gives: 5 + figure, controller: `c${figure % 3}` })),
        ...(figure % 2 ? { controllers: [{ name: `c${figure % 3}`, carries: figure * 1e9 }] } : {}),
      },
    }),
    () => ({
      list: 'places',
      id: pick(plan.places, one).id,
      base,
      value: { ...pick(plan.places, one), mains: figure % 2 === 0 },
    }),
    () => ({
      list: 'policy',
      id: POLICY_ID,
      base,
      value: { ...plan.policy, length: figure % 2 ? 'bench' : 'book', slack: figure / 100 },
    }),
    () => ({ list: 'policy', id: POLICY_ID, base, value: { ...plan.policy, cables: figure % 2 ? 'supplied' : 'any' } }),
    () => change('runs', run, { tag: `T-${figure}` }),
    () => change('devices', device, { name: `Device ${figure}` }),
    () =>
      change('devices', device, {
        busPowered: figure % 2 === 0,
        installed: [{ what: 'driver', version: `${figure % 3}`, on: '2026-05-01' }],
        ...(figure % 3 ? { disk: { write: (figure + 1) * 1e8, read: 4e9, bridge: 'good' } } : {}),
      }),
    () => change('cables', cable, { suppliedWith: pick(plan.devices, other).id }),
    () => change('cables', cable, { thickness: 3 + (figure % 9), ...(figure % 4 ? {} : { awg: 24 }) }),
    () => change('places', pick(plan.places, one), { name: `Place ${figure}` }),
    () =>
      change('pathways', pick(plan.pathways, one), {
        inner: 10 + figure,
        through: figure % 2 ? ['other-earth'] : ['wall'],
      }),
    () => change('kinds', pick(plan.kinds, one), { name: `Kind ${figure}` }),
    () => ({
      list: 'site',
      id: SITE_ID,
      base,
      value: { ...plan.site, practice: figure % 2 === 0, name: `Site ${figure}` },
    }),
    () => ({
      list: 'searches',
      id: `search-${number}`,
      base: null,
      value: { id: `search-${number}`, run: run.id, since: '2026-06-01T10:00:00.000Z' },
    }),
    () => ({
      list: 'searches',
      id: `search-${number}`,
      base: null,
      value: {
        id: `search-${number}`,
        run: run.id,
        since: '2026-06-01T10:00:00.000Z',
        ended: { at: '2026-06-01T11:00:00.000Z', how: figure % 2 ? 'not found' : 'went away' },
      },
    }),
    () => ({
      list: 'handovers',
      id: `handover-${number}`,
      base: null,
      value: handoverSchema.parse({
        id: `handover-${number}`,
        name: `Handover ${figure}`,
        client: 'the school',
        at: '2026-06-01T12:00:00.000Z',
        log: 'made-up',
        place: base,
        units: figure % 2 ? 'm' : 'both',
      }),
    }),
    () => ({
      list: 'observations',
      id: `seen-${number}`,
      base: null,
      value: madeUpObservation(plan, { one, other, figure }, number),
    }),
  ]
  const edit = (edits[Math.min(sort, edits.length - 1)] as () => Edit)()
  return edit.before === undefined ? { list: edit.list, id: edit.id, base: edit.base, value: edit.value } : edit
}

/** What somebody notes of every third observation. */
const NOTES = ['in the rain', 'on the second try', 'a'] as const

const MODES = ['usb2', 'gen1x1', 'gen2x1', 'usb4-20', 'usb4-40', 'tbt3-40'] as const
const PICTURES = [
  { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' },
  { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' },
] as const

/** An observation as somebody might write it down: of a cable, a run as it lies or lay, a kind or a device, in a socket of theirs or in one that nobody noted. */
export function madeUpObservation(
  plan: Plan,
  { one, other, figure }: Pick<Choice, 'one' | 'other' | 'figure'>,
  number: number,
): Observation {
  const run = pick(plan.runs, one)
  const leads = run ? laidCables(run) : []
  const cable = leads[0] !== undefined && figure % 3 > 0 ? leads[0] : pick(plan.cables, one).id
  const whole = run && leads.length === run.leads.length && leads.length > 0
  const subject =
    whole && figure % 4 === 1
      ? { run: run.id, leads: figure % 8 === 1 ? [cable] : leads }
      : figure % 17 === 5 && plan.kinds[0]
        ? { kind: pick(plan.kinds, other).id }
        : figure % 19 === 7
          ? { device: pick(plan.devices, other).id }
          : { cable }
  const place =
    run &&
    (other % 3 === 0 ? { port: run.from, far: run.to } : other % 3 === 1 ? { controller: `c${figure % 3}` } : null)
  const every = {
    id: `seen-${number}`,
    at: new Date(Date.UTC(2026, 5, 1, 9, 0, 0, figure)).toISOString(),
    subject,
    ...(figure % 3 === 1 ? { note: pick(NOTES, other) } : {}),
    ...(figure % 7 === 0 ? { instrument: { name: 'meter', simulated: true } } : {}),
    ...(place
      ? {
          where: { ...place, ...(figure % 11 === 3 ? { installed: [{ what: 'driver' as const, version: '1' }] } : {}) },
        }
      : {}),
    ...(figure % 5 === 2
      ? { circumstances: { alone: true, strangeSupply: figure % 2 ? (true as const) : undefined } }
      : figure % 5 === 3
        ? { circumstances: { hard: true } }
        : {}),
  }
  const mode = pick(MODES, figure)
  const lower = pick(MODES, other)
  const kinds: (() => object)[] = [
    () => ({
      kind: 'statement',
      basis: pick(['looks', 'told', 'claimed', 'chip'] as const, figure),
      grade: pick(['gen1', 'usb4-40', 'gen2', null] as const, other),
      amps: pick([undefined, 3, 5, null] as const, figure),
    }),
    () => ({ kind: 'trial', basis: 'soaked', tried: mode, cameUp: mode, seconds: 30 + figure * 2 }),
    () => ({
      kind: 'trial',
      basis: 'soaked',
      tried: mode,
      cameUp: null,
      seconds: 40 + figure,
      ...(figure % 3 ? {} : { drops: ['2026-06-01T09:00:00.000Z', '2026-06-01T09:00:20.000Z'] }),
    }),
    () => ({ kind: 'trial', basis: 'measured', tried: mode, cameUp: figure % 4 ? lower : null }),
    () => ({ kind: 'reading', measure: 'warmth', felt: pick(['hot', 'cool', 'warm', 'cool'] as const, figure) }),
    () => ({
      kind: 'reading',
      measure: pick(['write', 'read'] as const, figure),
      rate: pick([20, 53.248, 190, 370, 900, 2900] as const, other) * 8e6,
      limit: pick(['lead', 'disk', undefined] as const, figure),
    }),
    () => ({
      kind: 'reading',
      measure: 'watts',
      watts: 20 + figure * 2,
      limit: pick(['lead', 'charger', undefined] as const, other),
      ...(figure % 2 ? {} : { series: 's-made-up', spread: { count: 3, least: 1, middle: 2, most: 3, slope: -1 } }),
    }),
    () => ({
      kind: 'statement',
      basis: 'told',
      from: 'the seller',
      counted: { mode, held: other, tried: other + figure + 1 },
    }),
    () => ({ kind: 'reading', measure: 'volts lost', volts: figure / 40, amps: 1 + (other % 5) }),
    () => ({ kind: 'reading', measure: 'picture', mode: pick(PICTURES, other), held: figure % 2 === 0 }),
    () => ({ kind: 'symptom', saw: 'it flickers' }),
    () => ({
      kind: 'symptom',
      saw: 'it drops',
      what: pick(['drops', 'usb2 only', 'hot'] as const, figure),
      search: 'made-up-search',
      ...(other % 3 ? {} : { not: true }),
    }),
    () => ({
      kind: 'try',
      search: 'made-up-search',
      what: pick(['restart', 'reseat', 'another port'] as const, other),
      outcome: pick(['gone', 'same'] as const, figure),
      says: 'It is the same',
    }),
    () => ({ kind: 'reading', measure: 'battery', slope: figure - 15, hours: 1 + (other % 5) }),
    () => ({ kind: 'reading', measure: 'added delay', ms: figure / 4 }),
    () => ({ kind: 'reading', measure: 'frames', asked: 1000, came: 1000 - (figure % 3) }),
    () => ({ kind: 'reading', measure: 'headset link', rate: (1 + other) * 1e8 }),
    () => ({
      kind: 'reading',
      measure: 'job',
      what: 'build',
      figures: [60 + figure, 61],
      ...(figure % 3 ? { brokeOff: figure % 3 } : {}),
    }),
    () => ({
      kind: 'reading',
      measure: 'job',
      what: 'copy',
      figures: [400 + figure],
      unit: 'MB/s',
      moreIsBetter: true,
      against: { what: 'the direct way', figures: [410, 412], length: 1 },
    }),
    () => ({ kind: 'reading', measure: 'sight', good: figure % 2 === 0 }),
    () => ({ kind: 'set right', what: pick(REMEDIES, figure), ...(other % 2 ? { words: 'made up' } : {}) }),
    () => ({ kind: 'trial', basis: 'soaked', tried: mode, cameUp: mode, seconds: 1200 * (1 + other) }),
    () => ({
      kind: 'reading',
      measure: 'picture',
      mode: pick(PICTURES, other),
      held: figure % 2 === 0,
      seconds: 60 * other,
    }),
    () =>
      whole && figure % 3 === 0
        ? { kind: 'accepted', what: 'accepted', less: 'for now', ...restsOfRun(plan, run) }
        : { kind: 'accepted', what: pick(['accepted', 'withdrawn'] as const, figure) },
    () => {
      if (!whole) return { kind: 'laid', what: 'laid' }
      const { waived: _, ...rests } = restsOfRun(plan, run)
      return figure % 2
        ? { kind: 'trial', basis: 'soaked', tried: mode, cameUp: mode, seconds: 90, ...rests }
        : { kind: 'reading', measure: 'picture', mode: pick(PICTURES, other), held: true, seconds: 90, ...rests }
    },
    () => ({ kind: 'laid', what: pick(['laid', 'taken out'] as const, figure) }),
    () => {
      const seen = pick(plan.observations, other + figure)
      return seen
        ? { kind: 'retraction', retracts: seen.id, reason: 'made up', subject: seen.subject }
        : { kind: 'symptom', saw: 'nothing' }
    },
  ]
  return observationSchema.parse({ ...every, ...pick(kinds, one + other + figure)() })
}

/** A run as it lies in a plan: what a proof of it rests on, and all of its tests as those it is accepted without. */
function restsOfRun(plan: Plan, run: Run) {
  const index = indexPlan(plan)
  const crossings = walkNeeds(index).crossings.get(run.id) ?? []
  return {
    subject: { run: run.id, leads: laidCables(run) },
    ...takenAt(index, run, crossings),
    waived: runTests(index, run, crossings).map(({ key }) => key),
  }
}
