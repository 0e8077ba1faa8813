import { demo } from './demo-plan'

/** The demo with nothing free in its drawer, so that what is wanted has to be bought. */
export function nothingFree(text: string): string {
  const plan = JSON.parse(text)
  const laid = new Set(
    plan.runs.flatMap(({ leads }: { leads: { cable?: string }[] }) => leads.map(({ cable }) => cable)),
  )
  for (const cable of plan.cables) if (!laid.has(cable.id)) cable.standing = 'lent'
  return JSON.stringify(plan)
}

/** A store with one lead of the demo, and what was seen of it. */
export function storeOf(id: string, name: string, cable: string): string {
  const { format, version, policy, site, cables, kinds, observations } = JSON.parse(JSON.stringify(demo))
  const [lead] = cables.filter((each: { id: string }) => each.id === cable)
  return JSON.stringify({
    format,
    version,
    policy,
    site: { id, name, practice: site.practice },
    cables: [{ ...lead, suppliedWith: undefined, standing: 'drawer' }],
    kinds: kinds.filter((each: { id: string }) => each.id === lead.kind),
    observations: observations.filter(({ subject }: { subject: { cable?: string } }) => subject.cable === cable),
  })
}
