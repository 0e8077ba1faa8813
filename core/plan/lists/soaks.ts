import { listOf } from '../../vocabulary/list'
import { isRunSoak, soakSchema } from '../../vocabulary/session'

export const soaks = listOf(soakSchema, {
  noun: 'soak',
  most: 2000,
  keys: (soak) =>
    isRunSoak(soak)
      ? [{ path: 'run', key: `soak run ${soak.run}`, taken: () => `run "${soak.run}" already soaks` }]
      : [
          {
            path: 'cable',
            key: `soak ${soak.session} ${soak.cable}`,
            taken: () => `cable "${soak.cable}" already soaks in this session`,
          },
        ],
  *references(soak) {
    if (isRunSoak(soak)) {
      yield { path: 'run', to: 'runs', id: soak.run }
      yield { path: 'socket', to: 'port', address: soak.socket }
      return
    }
    yield { path: 'session', to: 'sessions', id: soak.session }
    yield { path: 'test', to: 'test', session: soak.session, id: soak.test }
    yield { path: 'cable', to: 'cables', id: soak.cable }
  },
})
