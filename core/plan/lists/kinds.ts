import { cableKindSchema } from '../cable'
import { listOf } from '../list'

export const kinds = listOf(cableKindSchema, {
  noun: 'cable kind',
  most: 2000,
  bears: (on, { id }) => on.kind(id),
})
