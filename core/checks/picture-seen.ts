import { type SeenOfPicture, seenOfPicture } from '../observe/pictures'
import { streamRate } from '../picture/timing'
import { commonPractice } from '../standards/source'
import type { Finding } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

const source = commonPractice('a picture that was tried over this lead')

/** A picture that did not hold over a lead does not hold again, nor does a larger one; in another socket it may. */
export const pictureSeenCheck: Check = {
  name: 'picture seen',
  *findings({ laid, crossings }: Situation): Iterable<Finding> {
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const rate = streamRate(need.mode)
      const bare = { check: 'picture seen', needId: need.id, have: null, need: null, unit: null, source } as const
      const own = seenOfPicture(
        laid.seen.pictures.map((picture) => ({ ...picture, spot: {} })),
        rate,
        laid.here,
      )
      if (own.here) {
        if (own.here.held) continue
        yield {
          ...bare,
          grade: 'blocked',
          part: runPart(laid.run),
          reason: reasonOf(own),
          remedies: [{ code: 'ask-less' }],
        }
        continue
      }
      for (const lead of laid.leads) {
        const seen = seenOfPicture(lead.known.pictures, rate, laid.here)
        const failedHere = seen.here?.held === false
        if (!failedHere && (seen.here !== null || seen.failed === 0)) continue
        yield {
          ...bare,
          grade: failedHere ? 'blocked' : 'tight',
          part: leadPart(lead),
          reason: reasonOf(seen),
          remedies: failedHere ? [{ code: 'other-lead' }, { code: 'ask-less' }] : [{ code: 'test-it' }],
        }
      }
    }
  },
}

const reasonOf = ({ here, held, failed, stale }: SeenOfPicture) =>
  ({ code: 'picture-seen', mode: here?.tried.mode ?? null, at: here?.tried.at ?? null, held, failed, stale }) as const
