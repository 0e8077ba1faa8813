import { check } from './check'
import { craft } from './finding'
import { ROOM_REMEDIES, roomFor, roomReasons } from './room'

/** Each stream, file and data link finds room for its rate, after what the needs before it have taken. */
export const rateCheck = check({
  name: 'rate',
  reasons: roomReasons,
  remedies: ROOM_REMEDIES,
  reads: [],
  source: craft,
  *find(situation) {
    if (situation.laid.leads.length === 0) return
    for (const admission of situation.uplink.admissions)
      if (admission.need.kind !== 'picture') yield roomFor(situation, admission)
  },
})
