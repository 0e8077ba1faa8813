import type { Fault } from '../../vocabulary/list'
import { listOf } from '../../vocabulary/list'
import { orderLineSchema } from '../../vocabulary/order'

const sum = (parts: readonly { count: number }[] = []): number => parts.reduce((all, { count }) => all + count, 0)

export const orderLines = listOf(orderLineSchema, {
  noun: 'order line',
  most: 5000,
  *references({ order, kind }) {
    yield { path: 'order', to: 'orders', id: order }
    yield { path: 'kind', to: 'kinds', id: kind }
  },
  *faults({ count, arrived, back, tagged }): Iterable<Fault> {
    const came = sum(arrived)
    if (came > count) yield { path: 'arrived', reason: `${came} came of ${count} that were ordered` }
    if (sum(back) > came) yield { path: 'back', reason: `${sum(back)} went back of ${came} that came` }
    if ((tagged?.length ?? 0) > came)
      yield { path: 'tagged', reason: `${tagged?.length} are tagged of ${came} that came` }
  },
})
