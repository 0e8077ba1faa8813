import { z } from 'zod'
import { type CopyCap, copyCap } from '../link/copied'
import { isCopies } from '../observe/figures'
import { atLeast } from '../quantity/limit'
import type { BitsPerSecond } from '../quantity/rate'
import { formatBytesPerSecond } from '../quantity/rate'
import { commonPractice } from '../standards/source'
import { rivals } from './aspects'
import { check, reason } from './check'
import { momentFigure, type Verdict } from './finding'
import { leadPart, runPart } from './situation'
import { dayOf } from './wording'

/** What was measured of copies is what files get: a lead that reads 370 MB/s and writes 190 exists, and both in one mode. */
export const copiedCheck = check({
  name: 'copied',
  reasons: {
    copied: reason(
      {
        way: z.enum(['write', 'read']),
        at: momentFigure,
        by: z.enum(['run', 'lead', 'lead elsewhere', 'nothing']),
        counted: z.strictObject({ held: z.int(), failed: z.int() }).nullable(),
      },
      ({ way, at, by, counted }, { label, grade, have, need }) => {
        const rate = formatBytesPerSecond(have)
        const asked = `${formatBytesPerSecond(need)} are asked`
        const did = way === 'write' ? 'wrote' : 'read'
        if (counted)
          return `${label} comes and goes: it ${did} ${asked.replace(' are asked', '')} in ${counted.held} of ${counted.held + counted.failed} tries, and is sure of ${rate}.`
        if (by === 'run') return `This run ${did} ${rate} when it was measured on ${dayOf(at)}; ${asked}.`
        if (by === 'nothing')
          return `${label} ${did} ${rate} on ${dayOf(at)}: no faster than USB 2.0, though the disk is faster. Copy again with another cable to find out why. ${asked}.`
        const lead = `${label} ${did} ${rate} at most on ${dayOf(at)}, and it was the limit`
        if (by === 'lead') return `${lead}; ${asked}.`
        return grade === 'tight'
          ? `${lead}. Between other ports it did better, and nothing explains why: copy files over this run to settle it. ${asked}.`
          : `${lead}, between other ports; ${asked}.`
      },
    ),
  },
  remedies: ['test-it', 'other-lead'],
  reads: [rivals],
  source: commonPractice('what copies were measured at, over this run or where the lead was the limit'),
  *find({ laid, crossings, index }) {
    if (laid.leads.length === 0) return
    const anything = laid.seen.figures.some(isCopies) || laid.leads.some(({ known }) => known.copies.length > 0)
    if (!anything) return
    for (const { need, way } of crossings) {
      if (need.kind !== 'storage') continue
      const back = need.back ?? need.rate
      const asked = way === 'down' ? { write: need.rate, read: back } : { write: back, read: need.rate }
      for (const each of ['write', 'read'] as const) {
        const cap = copyCap(laid, index, each)
        if (cap === null || asked[each] === 0) continue
        yield {
          grade: gradeOf(cap, asked[each]),
          part: cap.lead ? leadPart(cap.lead) : runPart(laid.run),
          needId: need.id,
          measured: { have: cap.rate, need: asked[each], unit: 'bit/s' },
          reason: { code: 'copied', way: each, at: cap.reading.at, by: byOf(cap), counted: goesOf(cap, asked[each]) },
          remedies: atLeast(cap.rate, asked[each]) ? [] : [{ code: cap.unexplained ? 'test-it' : 'other-lead' }],
        }
      }
    }
  },
})

/** Between other sockets it went faster: both stand, and a copy here would tell. */
function gradeOf({ rate, most, elsewhere, unexplained }: CopyCap, asked: BitsPerSecond): Verdict {
  if (atLeast(rate, asked)) return 'clear'
  if (atLeast(most, asked)) return 'tight'
  if (unexplained) return 'tight'
  return elsewhere && atLeast(elsewhere.most, asked) ? 'tight' : 'blocked'
}

/** It was reached here and it was not: how often either. */
const goesOf = (cap: CopyCap, asked: BitsPerSecond): { held: number; failed: number } | null =>
  !atLeast(cap.rate, asked) && atLeast(cap.most, asked) ? cap.counted(asked) : null

const byOf = ({ lead, elsewhere, unexplained }: CopyCap): 'run' | 'lead' | 'lead elsewhere' | 'nothing' =>
  lead === null ? 'run' : unexplained ? 'nothing' : elsewhere ? 'lead elsewhere' : 'lead'
