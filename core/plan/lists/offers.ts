import { listOf } from '../../vocabulary/list'
import { offerSchema } from '../../vocabulary/order'

export const offers = listOf(offerSchema, {
  noun: 'offer',
  most: 5000,
  keys: ({ supplier, kind, length }) => [
    {
      path: 'length',
      key: `offer ${supplier} ${kind} ${length}`,
      taken: () => `supplier "${supplier}" already offers "${kind}" at ${length} m`,
    },
  ],
  *references({ supplier, kind }) {
    yield { path: 'supplier', to: 'suppliers', id: supplier }
    yield { path: 'kind', to: 'kinds', id: kind }
  },
})
