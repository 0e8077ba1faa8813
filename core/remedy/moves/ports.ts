import { leadTag } from '../../change/differences'
import { patch, put } from '../../plan/put'
import { portKey, socketAt } from '../../plan/site-index'
import type { Port } from '../../vocabulary/device'
import type { Run } from '../../vocabulary/run'
import { withBestLeads, withKindsOf } from '../best-lead'
import type { Move, Scene } from '../move'

/** Another port at either end: one that is free, with the lead that then does it, or one that another run has, by exchanging the two. */
export function* otherPorts({ index, site, run }: Scene): Iterable<Move> {
  for (const end of ['from', 'to'] as const) {
    const { device, port } = socketAt(index, run[end])
    const others = device.ports.filter(({ id }) => id !== port.id)
    const free = others.filter(({ id }) => !index.runsIn.has(portKey({ device: device.id, port: id })))
    for (const other of alikeOnce(free)) {
      const moved: Run = { ...run, [end]: { device: device.id, port: other.id } }
      const made = withBestLeads(put(index.plan, 'runs', moved), [run.id], site.runOf)
      const leads = made.plan.runs.find(({ id }) => id === run.id)?.leads ?? run.leads
      const same = leads === run.leads
      yield {
        family: `other port ${end}`,
        words: {
          code: 'other port',
          run: run.tag,
          device: device.name,
          port: other.name,
          lead: same ? null : leads.map((lead) => leadTag(made.plan, lead)).join(' + '),
          bought: !same && leads.some((lead) => 'kind' in lead),
        },
        effort: same ? 'plug' : made.price === 0 ? 'lead' : 'bought',
        price: made.price,
        apply: (plan) => ({
          ...patch(plan, 'runs', run.id, (now) => ({ ...now, [end]: moved[end], leads: same ? now.leads : leads })),
          kinds: withKindsOf(plan, made.plan),
        }),
      }
    }
    for (const other of others.filter(({ connector }) => connector === port.connector)) {
      const [neighbour] = index.runsIn.get(portKey({ device: device.id, port: other.id })) ?? []
      if (!neighbour || neighbour.id === run.id) continue
      const neighboursEnd = neighbour.from.device === device.id ? 'from' : 'to'
      yield {
        family: `exchange ${end}`,
        words: { code: 'exchange ports', run: run.tag, other: neighbour.tag, device: device.name },
        effort: 'plug',
        price: 0,
        apply: (plan) =>
          patch(
            patch(plan, 'runs', run.id, (now) => ({ ...now, [end]: { device: device.id, port: other.id } })),
            'runs',
            neighbour.id,
            (now) => ({ ...now, [neighboursEnd]: { device: device.id, port: port.id } }),
          ),
      }
    }
  }
}

/** Of ports that are alike but for their names one is as good as another. */
function alikeOnce(ports: readonly Port[]): Port[] {
  const seen = new Set<string>()
  return ports.filter(({ id: _, name: __, ...port }) => {
    const sort = JSON.stringify(port)
    return !seen.has(sort) && seen.add(sort)
  })
}
