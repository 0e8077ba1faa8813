import { RECORD_GRAINS, type RecordGrain } from '../../../core/prove/record'

/** How finely an address asks for the record. */
export const grainOf = (params: URLSearchParams): RecordGrain =>
  RECORD_GRAINS.find((grain) => grain === params.get('by')) ?? 'length'
