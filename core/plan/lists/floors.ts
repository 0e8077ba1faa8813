import { floorSchema } from '../../vocabulary/floor'
import { listOf } from '../../vocabulary/list'

export const floors = listOf(floorSchema, {
  noun: 'floor',
  most: 50,
})
