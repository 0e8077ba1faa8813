import { leadPart, runPart } from '../../checks/situation'
import { controllerPart } from '../controller-odds'
import { farPart, hostPart, looseLeads, type Scene } from '../scene'
import type { Outcome, TryKind } from '../try'

/** How often the first addition that breaks it is the part that is to blame. */
const NAMED_RIGHT = 0.85

/** The stretches of a run as they are added, each with the parts that come in with it. */
function stretches(scene: Scene): { name: string; says: string; parts: readonly string[] }[] {
  const { from, to } = scene.laid
  return [
    {
      name: 'host',
      says: `It is there with nothing but ${from.device.name} and a short lead`,
      parts: [hostPart(scene).id, controllerPart(scene).id, from.device.id],
    },
    ...looseLeads(scene).map((lead) => ({
      name: `lead ${lead.cable.id}`.slice(0, 140),
      says: `It breaks when ${lead.cable.tag} is added`,
      parts: [leadPart(lead).id, ...(looseLeads(scene).length === 1 ? [runPart(scene.run).id] : [])],
    })),
    {
      name: 'far',
      says: `It breaks when ${to.device.name} is added`,
      parts: [farPart(scene).id, to.device.id],
    },
  ]
}

/** The run built up from the host on, one part at a time, confirmed after each: the first addition that breaks it is named. */
export const partByPart: TryKind = {
  *of(scene) {
    const parts = stretches(scene)
    const other = (1 - NAMED_RIGHT) / parts.length
    const named = parts.map(
      ({ name, says, parts: ids }): Outcome => ({
        name,
        says,
        odds: ({ part }) => (ids.includes(part.id) ? NAMED_RIGHT : other),
      }),
    )
    const none: Outcome = {
      name: 'none',
      says: 'It works with every part',
      odds: ({ part }) => (parts.some(({ parts: ids }) => ids.includes(part.id)) ? other : NAMED_RIGHT),
    }
    yield {
      how: 'Start with the host alone and a short lead. Add one part at a time and check after each. Leave the lead coiled on the floor.',
      minutes: 10 + 3 * parts.length,
      trouble: 3,
      outcomes: [...named, none],
    }
  },
}
