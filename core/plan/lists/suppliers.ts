import { listOf } from '../../vocabulary/list'
import { supplierSchema } from '../../vocabulary/order'

export const suppliers = listOf(supplierSchema, { noun: 'supplier', most: 200 })
