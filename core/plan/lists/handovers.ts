import { handoverSchema } from '../../vocabulary/handover'
import { listOf } from '../../vocabulary/list'

export const handovers = listOf(handoverSchema, { noun: 'handover', most: 200, frozen: true })
