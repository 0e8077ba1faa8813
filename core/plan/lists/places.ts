import { listOf } from '../../vocabulary/list'
import { placeSchema } from '../../vocabulary/place'

export const places = listOf(placeSchema, {
  noun: 'place',
  most: 2000,
  *references({ at }) {
    if (at) yield { path: 'at.floor', to: 'floors', id: at.floor }
  },
  bears: (on, { id }) => on.place(id),
})
