import { z } from 'zod'
import { noteDrop, soakOfRun } from '../../../core/change/changes/prove'
import { byId } from '../../../core/plan/lookup'
import { soakStanding } from '../../../core/prove/run-soak'
import { isDrop, isFrame, parseInstrumentLine } from '../../../core/series/instrument-lines'
import { foldTag, idField, nameField } from '../../../core/vocabulary/fields'
import { appendBatch, seriesOf } from '../../../server/series/series'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { changeBy, load, loadSite, whyNotSaved } from '../../stored.server'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import type { Route } from './+types/instrument'
import { endReadings } from './end-readings.server'

/** What an instrument sends at once. */
const MOST_LINES = 5000
const LONGEST_BATCH = 1_000_000

const batchSchema = z.object({
  series: idField,
  run: z.string().trim().min(1).max(64),
  instrument: nameField.default('script'),
  from: z.coerce.number().int().min(0).max(4e9),
  lines: z.string().max(LONGEST_BATCH).default(''),
  end: z.literal('on').optional(),
})

/**
 * What an instrument sends of a run: lines of readings, each batch behind the one before. Answers as JSON what was kept and what the instrument is to do: go on,
 * send again from where something is missing, or stop. The open format of docs/instruments.md.
 */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_BATCH })
  const read = batchSchema.safeParse(Object.fromEntries(form))
  if (!read.success)
    return answer(
      {
        do: 'stop',
        problem: `This is no batch of readings: ${read.error.issues[0]?.path.join('.')} ${read.error.issues[0]?.message}.`,
      },
      422,
    )
  const { series: id, instrument, from, end } = read.data
  const { copy } = await loadSite(params.site)
  const wanted = read.data.run
  const run = copy.plan.runs.find((each) => each.id === wanted || foldTag(each.tag) === foldTag(wanted))
  if (!run) return answer({ do: 'stop', problem: `The site has no run ${wanted}.` }, 404)
  const texts = read.data.lines.split('\n').filter((line) => !isFrame(line))
  if (texts.length > MOST_LINES)
    return answer({ do: 'stop', problem: `Send at most ${MOST_LINES} lines at once.` }, 413)
  const lines = texts.flatMap((text) => parseInstrumentLine(text) ?? [])
  const hand = await handOf(request, form)
  const now = new Date()
  const batch = { series: id, run: run.id, instrument, by: hand.by, from, lines, rubbish: texts.length - lines.length }
  const kept = await load((knex) => appendBatch(knex, params.site, batch, now))
  switch (kept.outcome) {
    case 'other':
      return answer({ do: 'stop', problem: 'These readings belong to another run. Begin new ones.' }, 409)
    case 'full':
      return answer({ do: 'stop', problem: 'This site keeps as many readings as it may. Put old ones away.' }, 409)
    case 'gap':
      return answer({ do: 'send again', from: kept.samples }, 409)
    case 'over':
      // an end that is sent again is the same end
      if (end === undefined)
        return answer({ do: 'stop', samples: kept.samples, problem: 'Somebody ended these readings.' }, 409)
      break
    case 'kept':
  }
  const fresh = kept.outcome === 'kept' && kept.fresh > 0 ? lines.slice(-kept.fresh) : []
  const dropped = fresh.some(isDrop) ? await tellDrop(params.site, run.id, hand) : null
  const told = { samples: kept.samples, rubbish: batch.rubbish, ...(dropped ? { drop: dropped } : {}) }
  if (end === undefined) {
    const soak = soakOfRun(copy.plan, run.id)
    return answer({ do: 'go on', ...told, soak: soak ? soakStanding(soak, now) : null })
  }
  const series = await load((knex) => seriesOf(knex, params.site, id))
  if (!series) return answer({ do: 'stop', problem: 'Somebody put these readings away.' }, 409)
  // what was dropped above is a change of its own
  const { written, problems, problem } = await endReadings(params.site, series, {
    ...hand,
    id: `${id.slice(0, 58)}-end`,
  })
  return answer({ do: 'stop', ...told, written, problems, ...(problem ? { problem } : {}) }, problem ? 409 : 200)
}

/** Notes a drop in the soak of a run; says in words where there is none. */
async function tellDrop(siteId: string, runId: string, hand: Awaited<ReturnType<typeof handOf>>): Promise<string> {
  const saved = await changeBy({ by: hand.by }, siteId, ({ plan, place }) => {
    const soak = soakOfRun(plan, runId)
    const run = byId(plan.runs).get(runId)
    return soak && run
      ? noteDrop(soak, place, run.tag, witnessOf(hand).at)
      : refused('soak', 'it does not soak, so the drop stands only among the readings')
  })
  return saved?.outcome === 'saved' ? 'A drop was noted.' : whyNotSaved(saved).problem
}

const answer = (told: Record<string, unknown>, status = 200): Response => Response.json(told, { status })
