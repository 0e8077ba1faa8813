import { type CopyCap, copyCap } from '../link/copied'
import type { Copy } from '../observe/learnt'
import { atLeast } from '../quantity/limit'
import { commonPractice } from '../standards/source'
import type { Finding, Verdict } from './finding'
import { type Check, leadPart, runPart, type Situation } from './situation'

const source = commonPractice('what copies were measured at, over this run or where the lead was the limit')

/** What was measured of copies is what files get: a lead that reads 370 MB/s and writes 190 exists, and both in one mode. */
export const copiedCheck: Check = {
  name: 'copied',
  *findings({ laid, crossings, index }: Situation): Iterable<Finding> {
    if (laid.leads.length === 0) return
    const anything = laid.seen.copies.length > 0 || laid.leads.some(({ known }) => known.copies.length > 0)
    if (!anything) return
    for (const { need, way } of crossings) {
      if (need.kind !== 'storage') continue
      const back = need.back ?? need.rate
      const asked = way === 'down' ? { write: need.rate, read: back } : { write: back, read: need.rate }
      for (const each of ['write', 'read'] as const) {
        const cap = copyCap(laid, index, each)
        if (cap === null || asked[each] === 0) continue
        yield {
          check: 'copied',
          grade: gradeOf(cap, asked[each]),
          part: cap.lead ? leadPart(cap.lead) : runPart(laid.run),
          needId: need.id,
          have: cap.rate,
          need: asked[each],
          unit: 'bit/s',
          reason: { code: 'copied', way: each, at: cap.reading.at, by: byOf(cap) },
          remedies: atLeast(cap.rate, asked[each]) ? [] : [{ code: cap.unexplained ? 'test-it' : 'other-lead' }],
          source,
        }
      }
    }
  },
}

/** Between other sockets it went faster: both stand, and a copy here would tell. */
function gradeOf({ rate, elsewhere, unexplained }: CopyCap, asked: Copy['rate']): Verdict {
  if (atLeast(rate, asked)) return 'clear'
  if (unexplained) return 'tight'
  return elsewhere && atLeast(elsewhere.most, asked) ? 'tight' : 'blocked'
}

const byOf = ({ lead, elsewhere, unexplained }: CopyCap): 'run' | 'lead' | 'lead elsewhere' | 'nothing' =>
  lead === null ? 'run' : unexplained ? 'nothing' : elsewhere ? 'lead elsewhere' : 'lead'
