import { cableKindSchema } from '../../vocabulary/cable'
import { listOf } from '../../vocabulary/list'

export const kinds = listOf(cableKindSchema, {
  noun: 'cable kind',
  most: 2000,
  bears: (on, { id }) => on.kind(id),
})
