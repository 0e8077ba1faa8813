import { listOf } from '../../vocabulary/list'
import { isOpen, searchSchema } from '../../vocabulary/search'

export const searches = listOf(searchSchema, {
  noun: 'search',
  most: 5000,
  keys: (search) =>
    isOpen(search)
      ? [
          {
            path: 'run',
            key: `search ${search.run}`,
            taken: () => `a fault of run "${search.run}" is already searched`,
          },
        ]
      : [],
  *references({ run }) {
    yield { path: 'run', to: 'runs', id: run }
  },
})
