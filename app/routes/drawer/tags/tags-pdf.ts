import { data } from 'react-router'
import { makeTagPdf } from '../../../off-thread.server'
import type { Route } from './+types/tags-pdf'
import { tagsAsked } from './tags-request.server'

/** All sheets as one PDF. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const work = await makeTagPdf(await tagsAsked(request, params.site), request.signal)
  if (!work.done) throw data(work.problem, { status: work.status })
  return new Response(new Uint8Array(work.value), {
    headers: { 'Content-Type': 'application/pdf', 'Content-Disposition': 'inline; filename="cable-tags.pdf"' },
  })
}
