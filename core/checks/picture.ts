import { check } from './check'
import { craft } from './finding'
import { ROOM_REMEDIES, roomFor, roomReasons } from './room'

/** Each picture fits the link it comes up at, as it is or compressed where both ends can; if not, the best that do. */
export const pictureCheck = check({
  name: 'picture',
  reasons: roomReasons,
  remedies: ROOM_REMEDIES,
  reads: [],
  source: craft,
  *find(situation) {
    if (situation.laid.leads.length === 0) return
    for (const admission of situation.uplink.admissions)
      if (admission.need.kind === 'picture') yield roomFor(situation, admission)
  },
})
