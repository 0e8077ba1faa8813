import type { Crossing } from '../checks/situation'
import { lesserModes } from '../picture/fit'
import { formatPictureMode } from '../picture/mode-text'
import { needLabel } from '../plan/need'
import type { Plan } from '../plan/plan'
import type { Policy } from '../plan/policy'
import { patch } from '../plan/put'
import type { Run } from '../plan/run'
import { type SiteIndex, socketAt } from '../plan/site-index'
import { formatWatts } from '../quantity/watts'
import { seated } from '../variants/visitors'

/** Something else than the run itself that may be tried on it: what a site goes by, who sits there, what the supply gives, what a picture asks. */
export type Trial = {
  /** What people choose it by, under the head of its sort. */
  words: string
  sort: 'the site goes' | 'who sits there' | 'the supply' | 'the picture'
  /** The part of the site the run can bear on, as it would then be. */
  change(room: Plan): Plan
}

const POLICIES: readonly [string, Partial<Policy>][] = [
  ['by the book', { length: 'book' }],
  ['by the bench', { length: 'bench' }],
  ['pictures reserve whole links', { reservation: 'link' }],
  ['pictures reserve their own rate', { reservation: 'stream' }],
  ['with supplied leads only', { cables: 'supplied' }],
]
const SUPPLIES = [45, 65, 100, 140, 240]
/** So many steps down of a picture are offered. */
const MOST_STEPS = 5

/** What can be tried on a run, beside what its own form changes. */
export function trialsFor(index: SiteIndex, run: Run, crossings: readonly Crossing[]): Trial[] {
  const { plan } = index
  const trials: Trial[] = POLICIES.filter(([, choice]) =>
    Object.entries(choice).some(([name, value]) => plan.policy[name as keyof Policy] !== value),
  ).map(([words, choice]) => ({
    words,
    sort: 'the site goes',
    change: (room) => ({ ...room, policy: { ...room.policy, ...choice } }),
  }))
  for (const { device } of [run.from, run.to]) {
    const host = index.devices.get(device)
    for (const visitor of plan.devices.filter(({ visits }) => visits === device))
      if (host)
        trials.push({ words: visitor.name, sort: 'who sits there', change: (room) => seated(room, host, visitor).plan })
  }
  for (const { need, way } of crossings) {
    if (need.kind !== 'power') continue
    const { device, port } = socketAt(index, way === 'down' ? run.from : run.to)
    const { levels: _, ...plain } = port
    for (const watts of SUPPLIES.filter((each) => each !== port.gives))
      trials.push({
        words: `${device.name} gives ${formatWatts(watts)}`,
        sort: 'the supply',
        change: (room) =>
          patch(room, 'devices', device.id, ({ pool: __, ...each }) => ({
            ...each,
            ports: each.ports.map((own) => (own.id === port.id ? { ...plain, gives: watts } : own)),
          })),
      })
  }
  for (const { need } of crossings) {
    if (need.kind !== 'picture') continue
    const label = needLabel(need, index.devices)
    trials.push({
      words: `${label} ${need.uncompressed ? 'may be compressed' : 'without compression'}`,
      sort: 'the picture',
      change: (room) =>
        patch(room, 'needs', need.id, (each) =>
          each.kind === 'picture' ? { ...each, uncompressed: !need.uncompressed } : each,
        ),
    })
    for (const { mode } of [...lesserModes(need.mode)].slice(0, MOST_STEPS))
      trials.push({
        words: `${label} at ${formatPictureMode(mode)}`,
        sort: 'the picture',
        change: (room) => patch(room, 'needs', need.id, (each) => (each.kind === 'picture' ? { ...each, mode } : each)),
      })
  }
  return trials
}
