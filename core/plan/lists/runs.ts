import { lengthOfLegs } from '../../quantity/along'
import { sameLength } from '../../quantity/length'
import { listOf, portReferences } from '../../vocabulary/list'
import { type RunLead, runSchema } from '../../vocabulary/run'
import { tagKey } from '../../vocabulary/tag-key'

/** The cables among leads, each with its place in the run. */
const cablesAmong = (leads: readonly RunLead[]): [number, string][] =>
  leads.flatMap((lead, at): [number, string][] => ('cable' in lead ? [[at, lead.cable]] : []))

export const runs = listOf(runSchema, {
  noun: 'run',
  most: 10_000,
  tag: ({ tag }) => tag,
  *keys({ tag, leads }) {
    yield tagKey(tag)
    for (const [at, cable] of cablesAmong(leads))
      yield {
        path: `leads[${at}].cable`,
        key: `lead ${cable}`,
        taken: (by) => `cable "${cable}" already lies in run "${by}"`,
      }
  },
  *references(run) {
    yield* portReferences(run)
    for (const [at, lead] of run.leads.entries())
      yield 'cable' in lead
        ? { path: `leads[${at}].cable`, to: 'cables', id: lead.cable }
        : { path: `leads[${at}].kind`, to: 'kinds', id: lead.kind }
    for (const [at, { pathway }] of (run.route.legs ?? []).entries())
      if (pathway) yield { path: `route.legs[${at}].pathway`, to: 'pathways', id: pathway }
  },
  *faults({ id, from, to, leads, route }) {
    if (route.legs && !sameLength(route.length, lengthOfLegs(route.legs)))
      yield { path: 'route.length', reason: 'the length of a route is the sum of its legs' }
    if (from.device === to.device && from.port === to.port)
      yield { path: 'to', reason: 'a run cannot end at the port it starts from' }
    const seen = new Set<string>()
    for (const [at, cable] of cablesAmong(leads)) {
      if (seen.has(cable)) yield { path: `leads[${at}].cable`, reason: `cable "${cable}" already lies in run "${id}"` }
      seen.add(cable)
    }
  },
  bears: (on, { id }, moved) => on.run(id, moved),
})
