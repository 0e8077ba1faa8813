import type { Knex } from 'knex'
import type { Sample } from '../../core/series/chunk'
import { log } from '../log'
import { seriesIn } from './series'

/** What pages that show a run hear of an instrument on it. */
export type InstrumentNews = {
  series: string
  instrument: string
  simulated: boolean
  samples: number
  rubbish: number
  heard: string
  /** Seconds since then, when this was told. */
  quiet: number
  ended: boolean
  latest: Partial<Sample> | null
}

const ASK_EVERY_MS = 1000
const UNTOLD = 'untold'

type Listener = (news: InstrumentNews[]) => void
type Watched = { knex: Knex; siteId: string; run: string; listeners: Set<Listener>; told: string }
const watched = new Map<string, Watched>()
let asking: ReturnType<typeof setInterval> | undefined

/** Hears of the instruments on a run, whichever process they send to, until the answer is called. All who look at one run share one question a second. */
export function watchInstruments(knex: Knex, siteId: string, run: string, listener: Listener): () => void {
  const key = JSON.stringify([siteId, run])
  const own = watched.get(key) ?? { knex, siteId, run, listeners: new Set(), told: UNTOLD }
  own.listeners.add(listener)
  // whoever comes later hears at once what is known
  own.told = UNTOLD
  watched.set(key, own)
  void ask(own)
  asking ??= setInterval(() => {
    for (const each of watched.values()) void ask(each)
  }, ASK_EVERY_MS)
  return () => {
    own.listeners.delete(listener)
    if (own.listeners.size === 0) watched.delete(key)
    if (watched.size > 0) return
    clearInterval(asking)
    asking = undefined
  }
}

/** A run shows the newest of its instruments. */
const MOST_TOLD = 20

export const newsOf = async (knex: Knex, siteId: string, run: string): Promise<InstrumentNews[]> =>
  (await seriesIn(knex, siteId, run, MOST_TOLD)).map(
    ({ id, instrument, simulated, samples, rubbish, heard, ended, latest }) => ({
      series: id,
      instrument,
      simulated,
      samples,
      rubbish,
      heard,
      quiet: Math.max(0, Math.round((Date.now() - Date.parse(heard)) / 1000)),
      ended: ended !== null,
      latest,
    }),
  )

async function ask(own: Watched): Promise<void> {
  try {
    const news = await newsOf(own.knex, own.siteId, own.run)
    const told = news.map(({ series, samples, heard, ended }) => `${series} ${samples} ${heard} ${ended}`).join()
    if (told === own.told) return
    own.told = told
    for (const listener of own.listeners) listener(news)
  } catch {
    log.debug('the database does not say what instruments told')
  }
}
