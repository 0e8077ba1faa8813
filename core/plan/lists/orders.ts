import { listOf } from '../../vocabulary/list'
import { orderSchema } from '../../vocabulary/order'

export const orders = listOf(orderSchema, {
  noun: 'order',
  most: 500,
  *references({ supplier, after = [] }) {
    if (supplier !== undefined) yield { path: 'supplier', to: 'suppliers', id: supplier }
    for (const id of after) yield { path: 'after', to: 'orderLines', id }
  },
})
