import { z } from 'zod'
import { CAME, isGood } from '../observe/came'
import { atHand, type FigureSeries, figureCame, type Measure, type Own } from '../observe/figures'
import { batteryWords, HOLDS_WITHIN } from '../observe/kinds/battery'
import { inOnePlace } from '../observe/spot'
import { decimal } from '../quantity/parsed'
import { formatRate } from '../quantity/rate'
import { commonPractice } from '../standards/source'
import type { Need } from '../vocabulary/need'
import { check, reason } from './check'
import { momentFigure, type Verdict } from './finding'
import { runPart } from './situation'
import { dayOf, SET_RIGHT } from './wording'

/** How often it did what is asked, what that comes to, and when it was read last. */
const howFigures = { came: z.enum(CAME), held: z.int(), failed: z.int(), at: momentFigure }
type How = { came: (typeof CAME)[number]; held: number; failed: number; at: string }

/** What was read last, and where it was not always so, how often it was. */
function told({ came, held, failed, at }: How, said: string): string {
  if (came === 'comes and goes')
    return `${said} on ${dayOf(at)}; it comes and goes, and failed in ${failed} of ${held + failed} tries.`
  return `${said} on ${dayOf(at)}.${came === 'begun anew' ? SET_RIGHT : ''}`
}

/** What the instruments of a need read on this very run: it stands in place of whatever was predicted, and any of it may fall short. */
export const asMeasuredCheck = check({
  name: 'as measured',
  reasons: {
    'link-test-read': reason({ ...howFigures, rate: z.number(), asked: z.number() }, ({ rate, asked, ...how }) =>
      told(how, `The headset's own link test read ${formatRate(rate)} of the ${formatRate(asked)} that are asked`),
    ),
    'battery-read': reason(
      { ...howFigures, slope: z.number(), over: z.number(), hours: z.number().nullable() },
      ({ slope, over, hours, ...how }) =>
        told(
          how,
          `The battery ${batteryWords(slope)}, followed for ${decimal(over, 1)} h${hours === null ? '' : `; it is to last ${decimal(hours, 1)} h`}`,
        ),
    ),
    'frames-read': reason({ ...howFigures, arrived: z.int(), asked: z.int() }, ({ arrived, asked, ...how }) =>
      told(how, `${arrived} of ${asked} frames came`),
    ),
    'delay-read': reason({ ...howFigures, ms: z.number(), asked: z.number() }, ({ ms, asked, ...how }) =>
      told(how, `${decimal(ms, 2)} ms were added of the ${decimal(asked, 2)} ms that are allowed`),
    ),
    'sight-read': reason(howFigures, (how) =>
      told(how, how.came === 'failed' ? 'The picture looked wrong' : 'The picture was looked at last'),
    ),
    'job-read': reason({ ...howFigures, what: z.string() }, ({ what, ...how }) =>
      told(how, `The job "${what}" ${how.came === 'failed' ? 'broke off' : 'was done last'}`),
    ),
  },
  remedies: ['test-it', 'other-lead'],
  reads: [],
  source: commonPractice('what was read on this very run'),
  *find({ laid, crossings }) {
    if (laid.seen.figures.length === 0) return
    const readOf = <M extends Measure>(measure: M, worth: number) => {
      const all = atHand(
        laid.seen.figures.filter((series): series is FigureSeries<M> => series.measure === measure),
        laid.here,
      ).map(inOnePlace)
      const [first, ...rest] = all
      if (!first) return null
      const outcome = figureCame(all as unknown as FigureSeries[], worth, 'unknown', laid.here)
      const { last } = rest.reduce((newest, each) => (each.last.at > newest.last.at ? each : newest), first)
      if (outcome === null) return null
      const { came, tally } = outcome
      return { last: last as Own[M], how: { came, held: tally.held, failed: tally.atOnce, at: last.at } }
    }
    for (const { need, lastMile } of crossings) {
      if (!lastMile) continue
      const found = reasonFor(need, readOf)
      if (found === null) continue
      const { worst = 'blocked', why } = found
      const grade: Verdict = isGood(why.came) ? 'clear' : why.came === 'failed' ? worst : 'tight'
      yield {
        grade,
        part: runPart(laid.run),
        needId: need.id,
        reason: why,
        remedies: grade === 'clear' ? [] : [{ code: grade === 'blocked' ? 'other-lead' : 'test-it' }],
      }
    }
  },
})

type ReadOf = <M extends Measure>(measure: M, worth: number) => { last: Own[M]; how: How } | null

/** What was read for a need, and how bad it is where it was never enough. */
function reasonFor(need: Need, readOf: ReadOf) {
  switch (need.kind) {
    case 'headset': {
      const link = readOf('headset link', need.rate)
      if (link && !isGood(link.how.came))
        return { why: { code: 'link-test-read', ...link.how, rate: link.last.rate, asked: need.rate } as const }
      const hours = need.hours ?? null
      const battery = readOf('battery', hours === null ? -HOLDS_WITHIN : Math.min(-HOLDS_WITHIN, -100 / hours))
      if (battery) {
        const { slope, hours: over } = battery.last
        // where nobody says how long it is worn one that drains is tight
        const worst: Verdict = hours === null ? 'tight' : 'blocked'
        return { worst, why: { code: 'battery-read', ...battery.how, slope, over, hours } as const }
      }
      return link && { why: { code: 'link-test-read', ...link.how, rate: link.last.rate, asked: need.rate } as const }
    }
    case 'camera': {
      const frames = readOf('frames', 1)
      return (
        frames && {
          why: { code: 'frames-read', ...frames.how, arrived: frames.last.came, asked: frames.last.asked } as const,
        }
      )
    }
    case 'audio': {
      const delay = need.delay === undefined ? null : readOf('added delay', -need.delay)
      return delay && { why: { code: 'delay-read', ...delay.how, ms: delay.last.ms, asked: need.delay ?? 0 } as const }
    }
    case 'picture': {
      const sight = readOf('sight', 1)
      return sight && !isGood(sight.how.came) ? { why: { code: 'sight-read', ...sight.how } as const } : null
    }
    case 'storage':
    case 'data': {
      const job = readOf('job', 1)
      return job && !isGood(job.how.came)
        ? { why: { code: 'job-read', ...job.how, what: job.last.what } as const }
        : null
    }
    default:
      return null
  }
}
