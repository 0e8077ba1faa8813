import { z } from 'zod'
import { commonPractice } from '../standards/source'
import { check, reason } from './check'
import { momentFigure } from './finding'
import { leadPart, runPart } from './situation'
import { dayOf } from './wording'

/** A lead whose plug got hot is used for nothing until somebody takes that back, and says why. */
export const hotCheck = check({
  name: 'hot',
  reasons: {
    'ran-hot': reason(
      { at: momentFigure, strangeSupply: z.boolean() },
      ({ at, strangeSupply }, { label }) =>
        `${label} ran hot on ${dayOf(at)}${strangeSupply ? ', on a supply that came from elsewhere' : ''}. Do not use it unless somebody takes that reading back, with the reason.`,
    ),
  },
  remedies: ['other-lead'],
  reads: [],
  source: commonPractice('a lead that got hot is not used again'),
  *find({ laid }) {
    const leads = laid.leads.flatMap((lead) => (lead.known.hot ? [{ part: leadPart(lead), hot: lead.known.hot }] : []))
    // what was felt on the run is told of it where it is told of none of its leads
    const own = laid.seen.hot && leads.length === 0 ? [{ part: runPart(laid.run), hot: laid.seen.hot }] : []
    for (const { part, hot } of [...leads, ...own])
      yield {
        grade: 'blocked',
        part,
        reason: { code: 'ran-hot', at: hot.at, strangeSupply: hot.strangeSupply },
        remedies: [{ code: 'other-lead' }],
        caution: 'hot',
      }
  },
})
