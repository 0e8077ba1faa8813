import { PLAN_LISTS, type Plan } from '../../core/plan/plan'

/** The same plan with other ids throughout, whose order among each other is turned round. Ids of ports and tests stay: they are names within their owner. */
export function renamedPlan(plan: Plan): Plan {
  const names = new Map<string, string>()
  for (const list of PLAN_LISTS) {
    const { length } = plan[list]
    for (const [at, { id }] of plan[list].entries()) names.set(id, `x${String(length - at).padStart(6, '0')}-${list}`)
  }
  /** What a proof rests on names things in the middle of a text; its lists are in the order of their ids. */
  const inText = (text: string): string => {
    const renamed = text.replaceAll(/[a-z0-9._-]+/gi, (word) => names.get(word) ?? word)
    return renamed.split(', ').sort().join(', ')
  }
  const rename = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') {
      const name = ID_FIELDS.has(key) ? names.get(value) : undefined
      // devices and needs are of a kind too, which is a word and no id
      return name === undefined || (key === 'kind' && !name.endsWith('-kinds')) ? value : name
    }
    if (Array.isArray(value)) return value.map((each) => rename(each, key))
    if (typeof value !== 'object' || value === null) return value
    if (key === 'rests') return Object.fromEntries(Object.entries(value).map((fact) => fact.map(inText)))
    const inside = key === 'ports' || key === 'tests'
    return Object.fromEntries(
      Object.entries(value).map(([name, each]) => [name, inside && name === 'id' ? each : rename(each, name)]),
    )
  }
  return {
    ...plan,
    ...Object.fromEntries(PLAN_LISTS.map((list) => [list, rename(plan[list], list)])),
  }
}

const ID_FIELDS = new Set([
  'id',
  'place',
  'floor',
  'pathway',
  'device',
  'computer',
  'cable',
  'cables',
  'kind',
  'run',
  'leads',
  'from',
  'to',
  'through',
  'suppliedWith',
  'visits',
  'at',
  'session',
  'retracts',
])
