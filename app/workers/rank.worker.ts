import { reassess } from '../../core/checks/reassess'
import { rankRun } from '../../core/match/rank-all'
import { followSite, openCopy } from '../open-copy'
import { type DraftRun, planWith } from '../routes/run/draft-plan'
import { type CopyName, keptView, type SiteView } from '../site-copy'

export type RankQuestion = {
  number: number
  site: string
  shown: CopyName
  /** The run as it stands in the copy, by its id, or as somebody types it. */
  run: string | DraftRun
  /** How many of the best are asked for. */
  most: number
}
/** Ids of cables, best first, and how many there are; null where it could not be worked out. */
export type RankAnswer = { number: number; best: string[] | null; count: number }

/** Ranks a drawer beside the page. It holds a copy of the site as the page does, and follows it as the page does, so that a question is small. */
addEventListener('message', ({ data }: MessageEvent<RankQuestion>) => {
  answerTo(data)
    .catch(() => ({ number: data.number, best: null, count: 0 }))
    .then((answer) => postMessage(answer satisfies RankAnswer))
})

async function answerTo({ number, site, shown, run, most }: RankQuestion): Promise<RankAnswer> {
  const { assessed, copy } = await viewAt(site, shown)
  const drafted = typeof run !== 'string'
  const { index, walks } = drafted ? reassess(assessed, planWith(copy.plan, run)) : assessed
  const id = drafted ? run.run.id : run
  const ranked = index.runs.get(id)
  if (!ranked) return { number, best: [], count: 0 }
  const cables = rankRun(index, ranked, walks.crossings.get(id) ?? [])
  return { number, best: cables.slice(0, most).map((cable) => cable.id), count: cables.length }
}

/** The copy a page shows, or a later one: what the page has heard since is heard here as well. */
async function viewAt(site: string, shown: CopyName): Promise<SiteView> {
  const kept = keptView(site, shown.identity, shown.place)
  if (kept) return kept
  const followed = await followSite(site)
  if (followed?.view.identity === shown.identity && followed.view.copy.place >= shown.place) return followed.view
  return openCopy(site, shown)
}
