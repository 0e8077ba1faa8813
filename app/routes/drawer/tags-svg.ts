import { data } from 'react-router'
import { sheetsOf } from '../../../core/tags/label'
import { svgSheet } from '../../../server/tags/tag-sheets'
import type { Route } from './+types/tags-svg'
import { labelsAsked } from './tags-request.server'

/** One sheet as SVG, the first where none is named. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { labels, size } = await labelsAsked(request, params.site)
  const sheet = sheetsOf(labels, size)[Number(new URL(request.url).searchParams.get('sheet') ?? 1) - 1]
  if (!sheet) throw data('There is no such sheet.', { status: 404 })
  return new Response(svgSheet(sheet, size), {
    headers: {
      'Content-Type': 'image/svg+xml; charset=utf-8',
      'Content-Disposition': 'inline; filename="cable-tags.svg"',
      // what is drawn needs its own fonts and nothing else
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; font-src data:",
    },
  })
}
