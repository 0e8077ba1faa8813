import { deviceSchema } from '../../vocabulary/device'
import { listOf, repeatedIds } from '../../vocabulary/list'

export const devices = listOf(deviceSchema, {
  noun: 'device',
  most: 5000,
  *references({ at, place, visits }) {
    if (at) yield { path: 'at.floor', to: 'floors', id: at.floor }
    if (place) yield { path: 'place', to: 'places', id: place }
    if (visits) yield { path: 'visits', to: 'devices', id: visits }
  },
  *faults({ id, ports, visits }) {
    yield* repeatedIds('ports', ports)
    if (visits === id) yield { path: 'visits', reason: 'a device cannot visit itself' }
  },
  bears: (on, { id }) => on.device(id),
})
