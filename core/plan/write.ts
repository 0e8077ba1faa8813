import { planLists } from './lists'
import { PLAN_LISTS, type Plan } from './plan'

/** What an entity takes in a plan file beside its own JSON: a comma and a line's end. */
const BESIDE_ENTITY = 2

/** A plan as the text of its file: JSON with an entity a line, so that two files can be compared line by line and no space is lost. */
export function planText(plan: Plan): string {
  const { format, version, site, policy } = plan
  const head = JSON.stringify({ format, version, site, policy }).slice(0, -1)
  const lists = PLAN_LISTS.map((list) => {
    const lines = plan[list].map((entity) => JSON.stringify(entity))
    return `"${list}":[${lines.length > 0 ? `\n${lines.join(',\n')}\n` : ''}]`
  })
  return `${head},\n${lists.join(',\n')}}\n`
}

const encoder = new TextEncoder()

/** Bytes that one entity adds to the file. */
export const bytesOfEntity = (entity: unknown): number => encoder.encode(JSON.stringify(entity)).length + BESIDE_ENTITY

/** The lists that only grow: all that was seen. They have a bound of their own. */
const GROWING = PLAN_LISTS.filter((list) => planLists[list].grows)

/** Bytes of a plan as a file, without the lists that only grow. */
export const bytesOfPlan = (plan: Plan): number =>
  encoder.encode(planText({ ...plan, ...Object.fromEntries(GROWING.map((list) => [list, []])) })).length

/** Bytes of the lists that only grow. */
export const bytesGrown = (plan: Plan): number =>
  GROWING.reduce((sum, list) => plan[list].reduce((all, entity) => all + bytesOfEntity(entity), sum), 0)
