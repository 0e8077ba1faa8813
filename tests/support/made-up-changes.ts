import fc from 'fast-check'
import type { Copy, Edit } from '../../core/change/change'
import { POLICY_ID, SITE_ID } from '../../core/change/copy'
import type { Observation } from '../../core/observe/observation'
import type { Plan } from '../../core/plan/plan'

/** What a made-up edit is made of: a sort, and numbers that choose among what a plan has. */
export type Choice = { sort: number; one: number; other: number; figure: number }
export const choice: fc.Arbitrary<Choice> = fc.record({
  sort: fc.nat(23),
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
    () => ({
      list: 'site',
      id: SITE_ID,
      base,
      value: { ...plan.site, practice: figure % 2 === 0, name: `Site ${figure}` },
    }),
    () => ({
      list: 'observations',
      id: `seen-${number}`,
      base: null,
      value: madeUpObservation(plan, cable.id, one + other, figure, number),
    }),
  ]
  const edit = pick(edits, sort)()
  return edit.before === undefined ? { list: edit.list, id: edit.id, base: edit.base, value: edit.value } : edit
}

function madeUpObservation(plan: Plan, cable: string, turn: number, figure: number, number: number): Observation {
  const every = {
    id: `seen-${number}`,
    at: new Date(Date.UTC(2026, 5, 1, 9, 0, 0, figure)).toISOString(),
    subject: { cable },
    ...(figure % 7 === 0 ? { instrument: { name: 'meter', simulated: true } } : {}),
  }
  const modes = ['usb2', 'gen1x1', 'gen2x1', 'usb4-20', 'usb4-40'] as const
  switch (turn % 4) {
    case 0:
      return {
        ...every,
        kind: 'statement',
        basis: figure % 2 ? 'claimed' : 'chip',
        grade: pick(['gen1', 'usb4-40', null] as const, figure),
      }
    case 1:
      return {
        ...every,
        kind: 'trial',
        basis: 'soaked',
        tried: pick(modes, figure),
        cameUp: figure % 3 ? pick(modes, turn) : null,
        seconds: 60 + figure,
      }
    case 2:
      return { ...every, kind: 'reading', measure: 'warmth', felt: figure % 2 ? 'hot' : 'cool' }
    default: {
      const seen = plan.observations.find((each) => 'cable' in each.subject && each.subject.cable === cable)
      return seen
        ? { ...every, kind: 'retraction', retracts: seen.id, reason: 'made up' }
        : { ...every, kind: 'reading', measure: 'watts', watts: 20 + figure * 2 }
    }
  }
}
