import { RECORD_GRAINS, type RecordGrain, WEIGHTS, type Weight } from '../../../core/prove/record'
import { othersWeight, type Policy } from '../../../core/vocabulary/policy'

/** How finely an address asks for the record. */
export const grainOf = (params: URLSearchParams): RecordGrain =>
  RECORD_GRAINS.find((grain) => grain === params.get('by')) ?? 'length'

/** How much the tries of others count, as an address asks for it. */
export const weightOf = (params: URLSearchParams, policy: Policy): Weight =>
  WEIGHTS.find((weight) => String(weight) === params.get('others')) ?? othersWeight(policy)
