import { cableSchema } from '../../vocabulary/cable'
import { listOf } from '../../vocabulary/list'
import { tagKey } from '../../vocabulary/tag-key'

export const cables = listOf(cableSchema, {
  noun: 'cable',
  most: 20_000,
  tag: ({ tag }) => tag,
  keys: ({ tag }) => [tagKey(tag)],
  *references({ kind, suppliedWith }) {
    if (kind) yield { path: 'kind', to: 'kinds', id: kind }
    if (suppliedWith) yield { path: 'suppliedWith', to: 'devices', id: suppliedWith }
  },
  bears: (on, { id }) => on.cable(id),
})
