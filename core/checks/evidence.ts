import { z } from 'zod'
import { chainLack, DOUBTS, type Doubt } from '../link/chain'
import { oughtOf } from '../link/lay'
import { BASES } from '../observe/basis'
import { seenOfMode } from '../observe/links'
import { exactShare } from '../quantity/intervals'
import { decimal } from '../quantity/parsed'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { check, type Found, reason } from './check'
import { craft, momentFigure } from './finding'
import { leadPart, type Situation } from './situation'
import { conflictSentence, dayOf, TRY_AGAIN, triedElsewhere } from './wording'

const saidFigure = z.strictObject({
  value: z.union([z.string(), z.number()]),
  basis: z.enum(BASES),
  at: momentFigure.nullable(),
})

const reasons = {
  'bench-pass': reason(
    { mode: z.enum(LINK_MODES), counts: z.boolean(), at: momentFigure },
    ({ mode, counts, at }, { label }) =>
      `${label} passed ${linkModeFacts[mode].name} on the bench on ${dayOf(at)}, beyond the book. ${counts ? 'By the rules of this site that counts.' : 'This site goes by the book, so it does not count.'}`,
  ),
  conflict: reason(
    {
      conflict: z.strictObject({
        about: z.enum(['grade', 'amps', 'volts']),
        believed: saidFigure,
        overruled: saidFigure,
      }),
    },
    ({ conflict }, { label }) => conflictSentence(conflict, label),
  ),
  doubted: reason(
    {
      why: z.enum(DOUBTS),
      held: z.int(),
      failed: z.int(),
      mode: z.enum(LINK_MODES).nullable(),
    },
    ({ why, held, failed, mode }, { label }) => {
      const name = mode === null ? 'what is asked' : linkModeFacts[mode].name
      switch (why) {
        case 'elsewhere':
          return held + failed === 0
            ? `${label} was tried in other sockets only. Try it in this one.`
            : `${label}: ${name} ${triedElsewhere({ held, failed })}. Try it in this one.`
        case 'short look':
          return `${label} came up as ${name}, and nobody watched it long enough. A marginal cable drops after 45 to 90 s.`
        case 'comes and goes':
          return `${label} comes and goes at ${name}: it failed in ${failed} of ${held + failed} tries.`
        case 'set right':
          return `${label} failed at ${name} before somebody set it right. Three tries and a soak will tell.`
        case 'of its kind': {
          const likely = exactShare(held, held + failed)
          return `${held} of ${held + failed} like ${label} held ${name} on this site, beyond the book: ${percent(likely?.low)} to ${percent(likely?.high)} will. Prove this one.`
        }
        case 'failed before':
          return `${label} failed at ${name}.${TRY_AGAIN}`
        case 'changed':
          return `${label} held ${name} before the computer changed. Prove it again.`
        case 'drops':
          return `${label} comes up faster here and drops. What asks for less is not safe either until it was seen to hold at ${name}.`
      }
    },
  ),
}
const percent = (share = 0): string => `${decimal(share * 100, 0)} %`

type Evidence = Found<typeof reasons, 'test-it'>

/** What was seen of the leads: what may not be relied on, where evidence disagrees, and a pass beyond the book beside the book's verdict. */
export const evidenceCheck = check({
  name: 'evidence',
  reasons,
  remedies: ['test-it'],
  reads: [],
  source: craft,
  *find(situation) {
    const { laid, data, policy } = situation
    yield* doubted(situation)
    for (const lead of laid.leads) {
      for (const conflict of lead.known.conflicts)
        yield {
          grade: 'note',
          part: leadPart(lead),
          reason: { code: 'conflict', conflict },
          remedies: [{ code: 'test-it' }],
        }
      if (data.shared === null || lead.known.links.length === 0) continue
      const beyondBook =
        chainLack(
          [lead],
          data.shared,
          ({ reach }) => reach.data,
          () => false,
        ) !== null
      const { here } = seenOfMode(lead.known.links, data.shared, oughtOf(lead), laid.here)
      if (beyondBook && here?.came === 'held') {
        const counts = policy.length === 'bench' || data.mode === data.shared
        yield {
          grade: 'note',
          part: leadPart(lead),
          reason: { code: 'bench-pass', mode: data.shared, counts, at: here.series.at },
        }
      }
    }
  },
})

/** Each need that is carried only as long as something holds that nobody may rely on; of a run that nothing crosses yet, the run itself. */
function* doubted({ data, uplink, sure, crossings }: Situation): Iterable<Evidence> {
  if (sure === null) return
  if (crossings.length === 0) {
    if (data.doubt && data.mode) yield doubtOf(data.doubt, data.mode)
    return
  }
  const surely = new Map(sure.uplink.admissions.map((admission) => [admission.need.id, admission]))
  for (const { need, admitted } of uplink.admissions) {
    if (!admitted || surely.get(need.id)?.admitted) continue
    const doubt = data.doubt ?? (sure.data.lack?.why === 'doubted' ? sure.data.lack.doubt : sure.doubt)
    if (doubt) yield { ...doubtOf(doubt, data.mode), needId: need.id }
  }
}

const doubtOf = ({ lead, why, held, failed }: Doubt, mode: Situation['data']['mode']): Evidence => ({
  grade: 'tight',
  part: leadPart(lead),
  reason: { code: 'doubted', why, held, failed, mode },
  remedies: [{ code: 'test-it' }],
})
