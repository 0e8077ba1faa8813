import { floorSchema } from '../floor'
import { listOf } from '../list'

export const floors = listOf(floorSchema, {
  noun: 'floor',
  most: 50,
})
