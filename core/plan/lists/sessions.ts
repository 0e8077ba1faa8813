import { listOf, portReferences, repeatedIds } from '../../vocabulary/list'
import { sessionSchema } from '../../vocabulary/session'

export const sessions = listOf(sessionSchema, {
  noun: 'session',
  most: 500,
  *references({ cables, tests }) {
    for (const [at, id] of cables.entries()) yield { path: `cables[${at}]`, to: 'cables', id }
    for (const [at, test] of tests.entries()) yield* portReferences(test, `tests[${at}].`)
  },
  faults: ({ tests }) => repeatedIds('tests', tests),
})
