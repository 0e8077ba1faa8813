import type { Fault } from '../../vocabulary/list'
import { listOf } from '../../vocabulary/list'
import { countsOf, orderLineSchema, toCome } from '../../vocabulary/order'

export const orderLines = listOf(orderLineSchema, {
  noun: 'order line',
  most: 5000,
  *references({ order, kind }) {
    yield { path: 'order', to: 'orders', id: order }
    yield { path: 'kind', to: 'kinds', id: kind }
  },
  *faults(line): Iterable<Fault> {
    const { here, tagged, back } = countsOf(line)
    const most = toCome(line)
    if (here > most) yield { path: 'arrived', reason: `${here} came of ${most} that were ordered` }
    if (back > here) yield { path: 'back', reason: `${back} went back of ${here} that came` }
    if (tagged > here) yield { path: 'tagged', reason: `${tagged} are tagged of ${here} that came` }
  },
})
