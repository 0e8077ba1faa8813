import { z } from 'zod'
import { failures, isGood } from '../observe/came'
import { type PictureSeries, type SeenOfPicture, seenOfPicture } from '../observe/pictures'
import { inOnePlace } from '../observe/spot'
import type { Standing } from '../observe/standing'
import { formatPictureMode } from '../picture/mode-text'
import { streamRate } from '../picture/timing'
import { commonPractice } from '../standards/source'
import { pictureModeSchema } from '../vocabulary/need'
import { check, reason } from './check'
import { momentFigure } from './finding'
import { leadPart, runPart } from './situation'
import { dayOf, SET_RIGHT, TRY_AGAIN, triedElsewhere } from './wording'

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
      },
      ({ mode, at, held, failed }, { label }) =>
        mode && at
          ? `The picture ${formatPictureMode(mode)} did not hold over ${label} on ${dayOf(at)}.`
          : `A picture like this over ${label} ${triedElsewhere({ held, failed })}. Try it in this one.`,
    ),
    'picture-goes': reason(
      {
        came: z.enum(['comes and goes', 'begun anew']),
        mode: pictureModeSchema,
        at: momentFigure,
        held: z.int(),
        failed: z.int(),
        stale: z.boolean(),
      },
      ({ came, mode, at, held, failed, stale }, { label }) =>
        came === 'comes and goes'
          ? `The picture ${formatPictureMode(mode)} comes and goes over ${label}: it failed in ${failed} of ${held + failed} tries, last on ${dayOf(at)}.`
          : `The picture ${formatPictureMode(mode)} did not hold over ${label} on ${dayOf(at)}.${stale ? TRY_AGAIN : SET_RIGHT}`,
    ),
  },
  remedies: ['ask-less', 'other-lead', 'test-it'],
  reads: [],
  source: commonPractice('a picture that was tried over this lead'),
  *find({ laid, crossings }) {
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const rate = streamRate(need.mode)
      const onRun = laid.seen.pictures.map(inOnePlace)
      const own = seenOfPicture(onRun, rate, laid.asks, laid.here)
      if (own.here) {
        if (isGood(own.here.came)) continue
        const failed = own.here.came === 'failed'
        yield {
          grade: failed ? 'blocked' : 'tight',
          part: runPart(laid.run),
          needId: need.id,
          reason: reasonOf(own, own.here),
          remedies: [{ code: failed ? 'ask-less' : 'test-it' }],
        }
        continue
      }
      for (const lead of laid.leads) {
        const seen = seenOfPicture(lead.known.pictures, rate, laid.asks, laid.here)
        if (seen.here ? isGood(seen.here.came) : seen.failed === 0) continue
        const failedHere = seen.here?.came === 'failed'
        yield {
          grade: failedHere ? 'blocked' : 'tight',
          part: leadPart(lead),
          needId: need.id,
          reason: reasonOf(seen, seen.here),
          remedies: failedHere ? [{ code: 'other-lead' }, { code: 'ask-less' }] : [{ code: 'test-it' }],
        }
      }
    }
  },
})

function reasonOf({ held, failed }: SeenOfPicture, here: Standing<PictureSeries> | null) {
  if (here === null) return { code: 'picture-seen', mode: null, at: null, held, failed } as const
  const { came, tally, series, stale } = here
  const { mode, at } = series
  return came === 'comes and goes' || came === 'begun anew'
    ? ({ code: 'picture-goes', came, mode, at, held: tally.held, failed: failures(tally), stale } as const)
    : ({ code: 'picture-seen', mode, at, held, failed } as const)
}
