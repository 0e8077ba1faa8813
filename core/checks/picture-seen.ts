import { z } from 'zod'
import { type SeenOfPicture, seenOfPicture } from '../observe/pictures'
import { formatPictureMode } from '../picture/mode-text'
import { streamRate } from '../picture/timing'
import { commonPractice } from '../standards/source'
import { pictureModeSchema } from '../vocabulary/need'
import { check, reason } from './check'
import { momentFigure } from './finding'
import { leadPart, runPart } from './situation'
import { dayOf, TRY_AGAIN, triedElsewhere } from './wording'

/** A picture that did not hold over a lead does not hold again, nor does a larger one; in another socket it may. */
export const pictureSeenCheck = check({
  name: 'picture seen',
  reasons: {
    'picture-seen': reason(
      {
        mode: pictureModeSchema.nullable(),
        at: momentFigure.nullable(),
        held: z.int(),
        failed: z.int(),
        stale: z.boolean(),
      },
      ({ mode, at, held, failed, stale }, { label }) =>
        mode && at
          ? `The picture ${formatPictureMode(mode)} did not hold over ${label} on ${dayOf(at)}.${stale ? TRY_AGAIN : ''}`
          : `A picture like this over ${label} ${triedElsewhere({ held, failed })}. Try it in this one.`,
    ),
  },
  remedies: ['ask-less', 'other-lead', 'test-it'],
  reads: [],
  source: commonPractice('a picture that was tried over this lead'),
  *find({ laid, crossings }) {
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const rate = streamRate(need.mode)
      const own = seenOfPicture(
        laid.seen.pictures.map((picture) => ({ ...picture, spot: {} })),
        rate,
        laid.here,
      )
      if (own.here) {
        if (own.here.held) continue
        yield {
          grade: 'blocked',
          part: runPart(laid.run),
          needId: need.id,
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
          grade: failedHere ? 'blocked' : 'tight',
          part: leadPart(lead),
          needId: need.id,
          reason: reasonOf(seen),
          remedies: failedHere ? [{ code: 'other-lead' }, { code: 'ask-less' }] : [{ code: 'test-it' }],
        }
      }
    }
  },
})

const reasonOf = ({ here, held, failed, stale }: SeenOfPicture) =>
  ({ code: 'picture-seen', mode: here?.tried.mode ?? null, at: here?.tried.at ?? null, held, failed, stale }) as const
