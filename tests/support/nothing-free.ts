/** The demo with nothing free in its drawer, so that what is wanted has to be bought. */
export function nothingFree(text: string): string {
  const plan = JSON.parse(text)
  const laid = new Set(
    plan.runs.flatMap(({ leads }: { leads: { cable?: string }[] }) => leads.map(({ cable }) => cable)),
  )
  for (const cable of plan.cables) if (!laid.has(cable.id)) cable.standing = 'lent'
  return JSON.stringify(plan)
}
