import { RECORD_GRAINS, type RecordGrain, WEIGHTS, type Weight } from '../../../core/prove/record'

/** How finely an address asks for the record. */
export const grainOf = (params: URLSearchParams): RecordGrain =>
  RECORD_GRAINS.find((grain) => grain === params.get('by')) ?? 'length'

/** How much the tries of others count, as an address asks for it. */
export const weightOf = (params: URLSearchParams): Weight =>
  WEIGHTS.find((weight) => String(weight) === params.get('others')) ?? 1
