import { listOf } from '../../vocabulary/list'
import { soakSchema } from '../../vocabulary/session'

export const soaks = listOf(soakSchema, {
  noun: 'soak',
  most: 2000,
  keys: ({ session, cable }) => [
    { path: 'cable', key: `soak ${session} ${cable}`, taken: () => `cable "${cable}" already soaks in this session` },
  ],
  *references({ session, test, cable }) {
    yield { path: 'session', to: 'sessions', id: session }
    yield { path: 'test', to: 'test', session, id: test }
    yield { path: 'cable', to: 'cables', id: cable }
  },
})
