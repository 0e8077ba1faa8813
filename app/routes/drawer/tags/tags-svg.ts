import { data } from 'react-router'
import { makeTagSheet } from '../../../off-thread.server'
import type { Route } from './+types/tags-svg'
import { tagsAsked } from './tags-request.server'

/** One sheet as SVG, the first where none is named. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const sheet = Number(new URL(request.url).searchParams.get('sheet') ?? 1)
  const work = await makeTagSheet({ ...(await tagsAsked(request, params.site)), sheet })
  if (!work.done) throw data(work.problem, { status: work.status })
  if (work.value === null) throw data('That sheet is not there.', { status: 404 })
  return new Response(work.value, {
    headers: {
      'Content-Type': 'image/svg+xml; charset=utf-8',
      'Content-Disposition': 'inline; filename="cable-tags.svg"',
      // what is drawn needs its own fonts and nothing else
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; font-src data:",
    },
  })
}
