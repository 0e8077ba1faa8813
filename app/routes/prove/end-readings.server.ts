import { toWrite } from '../../../core/series/instrument-lines'
import { endSeries, gatherSeries, markWritten, type Series } from '../../../server/series/series'
import type { Hand } from '../../../server/sites/change-site'
import { changeBy, load, whyNotSaved } from '../../stored.server'
import { draftReadings, type WrittenDown } from './prove-action.server'

/** Ends the readings of an instrument and writes down what they come to: nothing comes behind them, and all that came counts. */
export async function endReadings(
  siteId: string,
  series: Series,
  hand: Hand,
): Promise<WrittenDown & { problem: string | null; id: string | null }> {
  const now = new Date()
  await load((knex) => endSeries(knex, siteId, series.id, now))
  const found = toWrite(await load((knex) => gatherSeries(knex, siteId, series)))
  const told: WrittenDown = { written: [], problems: [] }
  const saved = await changeBy(hand, siteId, (copy) => draftReadings(copy, series, found, hand, told))
  if (saved?.outcome !== 'saved') return { ...told, written: [], problem: whyNotSaved(saved).problem, id: null }
  if (told.written.length > 0) await load((knex) => markWritten(knex, siteId, series.id))
  return { ...told, problem: null, id: saved.id }
}
