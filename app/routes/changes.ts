import { data } from 'react-router'
import { changeWords } from '../../core/change/words'
import { editsSince, subjectsSince } from '../../server/sites/entity-rows'
import { linesSince } from '../../server/sites/history'
import { access } from '../asker.server'
import { catchUpOf, type Followed, isShapeAsked } from '../site-copy'
import { load, loadSite } from '../stored.server'
import type { Route } from './+types/changes'

/** Further behind than this a browser takes the plan anew. */
const MOST_CAUGHT_UP = 200

/**
 * The changes of a site since a place, for a browser that stands there. 409 where it has to begin anew: it holds a copy of another site of that name or in
 * another shape, or is too far behind.
 */
export async function loader({ request, params }: Route.LoaderArgs) {
  const address = new URL(request.url)
  const { searchParams } = address
  const since = Number(searchParams.get('since') ?? Number.NaN)
  const { copy, identity } = await loadSite(params.site, since)
  const anew = () => data(null, { status: 409 })
  // the log tells everything: whoever is kept from some of it takes the site anew
  const may = await load((knex) => access(knex, params.site))
  const known = isShapeAsked(address) && Number.isInteger(since) && since >= 1 && since <= copy.place
  if (!known || searchParams.get('identity') !== identity || copy.place - since > MOST_CAUGHT_UP || may?.hides.length)
    return anew()
  const { lines, edits, subjects } = await load(async (knex) => ({
    lines: await linesSince(knex, params.site, since),
    edits: await editsSince(knex, params.site, since),
    subjects: await subjectsSince(knex, params.site, since),
  }))
  const answer = catchUpOf(
    { copy, identity },
    lines.map(({ place, id, by, what }) => ({ place, id, by, words: changeWords(what) })),
    edits,
    subjects,
  )
  return data({ ...answer, may: may?.held ?? 'look' } satisfies Followed, { headers: { 'Cache-Control': 'no-store' } })
}
