import { data } from 'react-router'
import { asker } from '../asker.server'
import { inSlices } from '../in-slices'
import { type CopyName, isShapeAsked, keptView, writeCopy } from '../site-copy'
import { loadSite } from '../stored.server'
import type { Route } from './+types/copy'

/**
 * The copy of a site that a page shows, as text for the browser's own parser. Where that very copy is no longer at hand the latest comes instead, and is not
 * to be kept under the other's name. 409 where the browser reads another shape.
 */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { copy, identity } = await loadSite(params.site)
  const address = new URL(request.url)
  if (!isShapeAsked(address)) throw data(null, { status: 409 })
  const asked = askedFor(address)
  const shown = keptView(params.site, asked.identity, asked.place)
  const exact = shown !== undefined && asked.identity === identity
  return new Response(await inSlices(writeCopy(exact ? shown.copy : copy, identity)), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      // once people have rights, what they read is not to outlast them in a browser
      'Cache-Control': exact && asker().open ? 'private, max-age=86400, immutable' : 'no-store',
    },
  })
}

function askedFor({ searchParams }: URL): CopyName {
  return { identity: searchParams.get('identity') ?? '', place: Number(searchParams.get('place') ?? Number.NaN) }
}
