import { data } from 'react-router'
import type { Edit, Place } from '../../core/change/change'
import { changeWords } from '../../core/change/words'
import { learnedOf } from '../../core/observe/learned'
import { NOTHING_LEARNT } from '../../core/observe/learnt'
import type { Site } from '../../core/plan/plan'
import { editsSince, subjectsSince } from '../../server/sites/entity-rows'
import { linesSince } from '../../server/sites/history'
import type { CatchUp } from '../site-copy'
import { load, loadSite } from '../stored.server'
import type { Route } from './+types/changes'

/** Further behind than this a browser takes the plan anew. */
const MOST_CAUGHT_UP = 200

/**
 * The changes of a site since a place, for a browser that stands there. 409 where it has to begin anew: it holds a copy of another site of that name,
 * is too far behind, or the site now counts other observations.
 */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url)
  const since = Number(searchParams.get('since') ?? Number.NaN)
  const { copy, identity } = await loadSite(params.site)
  const anew = () => data(null, { status: 409 })
  const known = Number.isInteger(since) && since >= 1 && since <= copy.place
  if (!known || searchParams.get('identity') !== identity || copy.place - since > MOST_CAUGHT_UP) return anew()
  const { lines, edits, subjects } = await load(async (knex) => ({
    lines: await linesSince(knex, params.site, since),
    edits: await editsSince(knex, params.site, since),
    subjects: await subjectsSince(knex, params.site, since),
  }))
  const told: [Place, Edit[]][] = []
  for (const [place, own] of edits) {
    if (place > copy.place) continue
    if (own.some(({ list, value }) => list === 'site' && (value as Site).practice !== copy.plan.site.practice))
      return anew()
    told.push([place, own.filter(({ list }) => list !== 'observations')])
  }
  const cables = new Set(subjects.flatMap((subject) => ('cable' in subject ? [subject.cable] : [])))
  const runs = new Set(subjects.flatMap((subject) => ('run' in subject ? [subject.run] : [])))
  const learned = learnedOf(copy.plan)
  const answer: CatchUp = {
    identity,
    place: copy.place,
    lines: lines
      .filter(({ place }) => place <= copy.place)
      .map(({ place, id, by, what }) => ({ place, id, by, words: changeWords(what) })),
    edits: told,
    learned: {
      cables: [...cables].map((id) => [id, learned.cables.get(id) ?? NOTHING_LEARNT]),
      runs: [...runs].map((id) => [id, learned.runs.get(id) ?? []]),
    },
  }
  return data(answer, { headers: { 'Cache-Control': 'no-store' } })
}
