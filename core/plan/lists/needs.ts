import { listOf } from '../../vocabulary/list'
import { needSchema } from '../../vocabulary/need'

export const needs = listOf(needSchema, {
  noun: 'need',
  most: 20_000,
  *references({ from, to, through = [] }) {
    yield { path: 'from', to: 'devices', id: from }
    yield { path: 'to', to: 'devices', id: to }
    for (const [at, id] of through.entries()) yield { path: `through[${at}]`, to: 'runs', id }
  },
  *faults({ from, to }) {
    if (from === to) yield { path: 'to', reason: 'a need flows between two devices' }
  },
  bears: (on, { id }) => on.need(id),
})
