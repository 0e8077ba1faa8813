import type { RouteConfigEntry } from '@react-router/dev/routes'
import routes from '../../app/routes'
import type { Plan } from '../../core/plan/plan'

/** Every address there is, by its pattern. */
const patternsOf = (entries: readonly RouteConfigEntry[], above = ''): string[] =>
  entries.flatMap(({ path, children }) => {
    const own = path === undefined ? above : `${above}/${path}`
    return [own, ...patternsOf(children ?? [], own)]
  })

/** All patterns, each once. A route that is added is among them the day it lands. */
export const patterns: readonly string[] = [...new Set(patternsOf(routes))]

/** A pattern with names of things that a site has. */
export function filledIn(pattern: string, plan: Plan): string {
  const names: Record<string, string | undefined> = {
    site: plan.site.id,
    device: pattern.includes('docks') ? plan.devices.find(({ kind }) => kind === 'dock')?.id : plan.devices[0]?.id,
    floor: plan.floors[0]?.id,
    need: plan.needs[0]?.id,
    run: pattern.includes(':series') ? plan.runs.find(({ id }) => id === 'r-06')?.id : plan.runs[0]?.id,
    cable: plan.cables[0]?.id,
    session: plan.sessions[0]?.id,
    order: plan.orders[0]?.id,
    supplier: plan.suppliers[0]?.id,
    search: plan.searches[0]?.id,
    handover: plan.handovers[0]?.id,
    invitation: 'never-made',
    link: 'never-made',
    series: pattern.includes('prove') ? 'demo-readings' : 'demo-readings.csv',
    table: 'devices.csv',
    file: pattern.includes(':order') ? 'order.csv' : pattern.includes('record') ? 'record.csv' : '0'.repeat(64),
  }
  return pattern.replace(/\*$/, 'plan.json').replaceAll(/:(\w+)/g, (_whole, name: string) => {
    if (!(name in names)) throw new Error(`say here what :${name} may be`)
    // somebody may have taken the last of its kind away
    return names[name] ?? 'gone'
  })
}
